// The line that is drawn while it sounds: how soon it comes after the sound. No other suite runs beside it.
import assert from "node:assert/strict";
import { writeFileSync } from "node:fs";
import { join } from "node:path";
import { describe, it } from "node:test";
import { address, folder, visit, withApp } from "./app.mjs";
import { noise } from "./spoken.mjs";

withApp({ own: true, warm: true });

// A microphone file of silence with a sudden tone every two seconds, seconds long.
function clicks(path, hertz, seconds) {
  const rate = 44100;
  const samples = Buffer.alloc(2 * rate * seconds);
  const hiss = noise();
  for (let i = 0; i < samples.length / 2; i++) {
    const within = (i / rate) % 2;
    let sample = 20 * hiss();
    // Pulses like a buzz's: sharp, with a weak fundamental.
    if (within < 1) sample += 12000 * (Math.exp(6 * (Math.cos((2 * Math.PI * hertz * i) / rate) - 1)) - 0.17);
    samples.writeInt16LE(Math.round(sample), 2 * i);
  }
  const head = Buffer.alloc(44);
  head.write("RIFF", 0);
  head.writeUInt32LE(36 + samples.length, 4);
  head.write("WAVEfmt ", 8);
  [16, 1 | (1 << 16), rate, 2 * rate, 2 | (16 << 16)].forEach((value, i) => head.writeUInt32LE(value, 16 + 4 * i));
  head.write("data", 36);
  head.writeUInt32LE(samples.length, 40);
  writeFileSync(path, Buffer.concat([head, samples]));
}

const median = (values) => values.sort((a, b) => a - b)[values.length >> 1];

// Asks the server for next to nothing and waits as long as a picture lasts, again and again until it is stopped, outside the page, which
// a slow page therefore does not make slower: what that takes on this machine now, in the median, milliseconds.
function askBeside() {
  const asked = [];
  let stopped = false;
  const asking = (async () => {
    while (!stopped) {
      const began = performance.now();
      await fetch(`${address}/css/bocca.css`, { method: "HEAD" });
      await new Promise((resolve) => setTimeout(resolve, 16));
      asked.push(performance.now() - began);
      await new Promise((resolve) => setTimeout(resolve, 50));
    }
  })().catch(() => {}); // The application went away: whoever asks for the median is told none.
  return async () => {
    stopped = true;
    await asking;
    return median(asked);
  };
}

// What it takes on a machine that is not held up, milliseconds: the picture, mostly.
const usualMs = 22;

// How late the line was in one take: the median of its points and the first point of the first tone; and how much slower than usual the
// machine answered beside it.
async function lateness(spoken, pupil) {
  let late;
  await visit({ microphone: spoken }, async (page) => {
    await page.goto(`${address}/buzz/${pupil}?drill=steady-line`);
    await page.selectOption("[name=source]", "Microphone");
    await page.fill("[name=tempo]", "160");
    const takes = askBeside();
    await page.click("[data-go]");
    // Three seconds of line say how late it is; the rest of the take would say it again.
    await page.waitForFunction(() => document.querySelectorAll(".live-threads .thread path").length >= 3, null, { timeout: 60000 });
    await page.click("[data-go]");
    await page.waitForFunction(() => document.querySelector(".work").dataset.onset, null, { timeout: 60000 });
    const work = page.locator(".work");
    const slower = Math.max(1, (await takes()) / usualMs);
    late = { line: median(JSON.parse(await work.getAttribute("data-lags"))), onset: Number(await work.getAttribute("data-onset")), slower };
  });
  return late;
}

describe("live", () => {
  for (const [name, pupil, hertz, mostMs] of [
    ["trumpet", 1, 233, 80],
    ["tuba", 5, 58.27, 120],
  ])
    it(`a sudden tone in the microphone's file is soon on the screen: ${name}`, { timeout: 150000 }, async () => {
      const spoken = join(folder, `click-${name}.wav`);
      clicks(spoken, hertz, 40);
      const { line, onset, slower } = await lateness(spoken, pupil);
      // The first point may wait for one more picture than a point of a running line.
      const [most, mostOnset] = [mostMs, mostMs + 40].map((ms) => Math.round(ms * slower));
      const [first, rest] = [
        `first point on the screen ${onset} ms, at most ${mostOnset}`,
        `sound to line ${line} ms in the median, at most ${most}`,
      ];
      const told = `from a sudden tone to its ${first}; ${rest}`;
      assert.ok(line < most && onset < mostOnset, told);
      console.log(`${name}: ${told}`);
    });
});
