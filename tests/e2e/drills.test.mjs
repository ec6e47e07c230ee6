// Buzz drills from Start to their verdict, played by the practice player: one of each way to be drawn and aimed at; the core's tests hear
// every drill on everything it is played on.
import assert from "node:assert/strict";
import { readFileSync, writeFileSync } from "node:fs";
import { join } from "node:path";
import { describe, it } from "node:test";
import { address, bocca, folder, playAtOnce, visit, withApp } from "./app.mjs";
import { noise } from "./spoken.mjs";

withApp();

const drills = [
  "buzz-bursts",
  "four-tongued",
  "three-heights",
  "siren-three",
  "buzz-neighbour",
  "three-samples",
  "jaw-check",
  "speak-through",
  "placement-search",
];

async function play(page, drill, character = "good", tempo = 160) {
  await page.goto(`${address}/buzz/1?drill=${drill}`);
  await playAtOnce(page, { character, tempo });
}

describe("drills", () => {
  for (const drill of drills)
    it(`${drill} is heard and passed`, { timeout: 60000 }, async () => {
      await visit({}, async (page) => {
        await play(page, drill);
        assert.match(await page.textContent("[data-summary]"), /spoke, all steady/);
        assert.equal(await page.locator(".aims tr.outside").count(), 0);
        assert.ok((await page.locator(".strip .sure").count()) + (await page.locator(".thread").count()) > 0);
        assert.equal(await page.locator(".transport .trouble").isVisible(), false);
      });
    });
});

describe("a drill", () => {
  it("shows what was missed beside what was asked, and where on the thread", { timeout: 120000 }, async () => {
    await visit({}, async (page) => {
      await play(page, "sound4-rest4", "wobble", 120);
      assert.match(await page.textContent("[data-summary]"), /wobbled/);
      assert.ok((await page.locator(".found.wobble.outside").count()) >= 2);
      assert.match(await page.textContent("[data-rounds]"), /Round \d of 4 today/);
    });
  });

  it("is placed on the pupil's own scale once there are samples", { timeout: 180000 }, async () => {
    await visit({}, async (page) => {
      await page.goto(`${address}/buzz/7?drill=three-samples`);
      for (const drill of ["three-samples", "sound4-rest4"]) {
        await playAtOnce(page);
        if (drill === "three-samples") {
          await page.click("[data-accept]");
          await page.waitForURL(/drill=sound4-rest4/);
        }
      }
      assert.match(await page.getAttribute(".own-scale", "aria-label"), /near the own centred sound/);
    });
  });

  it("on the lips alone is refused after five minutes a day", { timeout: 60000 }, async () => {
    await visit({ expectErrors: true }, async (page) => {
      const wav = join(folder, "lips.wav");
      await bocca("simulate", "--instrument", "horn-f", "--stage", "lips", "--drill", "stage-grid", "--tempo", "160", "--out", wav);
      await page.goto(`${address}/buzz/2?drill=stage-grid`);
      await page.selectOption("[name=on]", "Lips");
      await page.selectOption("[name=source]", "File");
      await page.check("[name=atonce]");
      await page.fill("[name=tempo]", "40");
      for (let take = 0; take < 2; take++) {
        await page.setInputFiles("[name=file]", wav);
        await page.click("[data-go]");
        await page.waitForFunction(
          (old) => document.querySelector("#stage").dataset.take && document.querySelector("#stage").dataset.take !== old,
          await page.getAttribute("#stage", "data-take"),
          { timeout: 30000 },
        );
      }
      await page.selectOption("[name=source]", "PracticePlayer");
      await page.click("[data-go]");
      await page.waitForFunction(() => /minutes today/.test(document.querySelector(".transport .trouble").textContent));
    });
  });
});

describe("the lips", () => {
  it("can be tried with three handles, by key, and say what speaks and why", { timeout: 60000 }, async () => {
    await visit({}, async (page) => {
      await page.goto(`${address}/buzz/1/lips`);
      const spoke = () => page.textContent("[data-spoke]");
      const until = (words) => page.waitForFunction((text) => document.querySelector("[data-spoke]").textContent.includes(text), words);
      await page.locator("h1").click();
      await page.keyboard.press("Space");
      await until("Partial 2 speaks");
      assert.equal(await page.getAttribute("[data-heard]", "visibility"), "visible");
      await page.fill("[name=tension]", "40");
      await until("Partial 3 speaks");
      await page.fill("[name=opening]", "100");
      await until("Air without a tone");
      await page.fill("[name=air]", "0");
      await page.waitForFunction(() => document.querySelector("[data-level]").textContent !== "–");
      assert.doesNotMatch(await spoke(), /speaks/);
    });
  });
});

describe("a fault of the microphone", () => {
  it("is named and nothing is judged: a hum", { timeout: 90000 }, async () => {
    const hum = join(folder, "hum.wav");
    const samples = Buffer.alloc(2 * 44100 * 40);
    const hiss = noise();
    for (let i = 0; i < samples.length / 2; i++)
      samples.writeInt16LE(Math.round(3000 * Math.sin((2 * Math.PI * 50 * i) / 44100) + 60 * hiss()), 2 * i);
    const head = Buffer.alloc(44);
    head.write("RIFF", 0);
    head.writeUInt32LE(36 + samples.length, 4);
    head.write("WAVEfmt ", 8);
    [16, 1 | (1 << 16), 44100, 88200, 2 | (16 << 16)].forEach((value, i) => head.writeUInt32LE(value, 16 + 4 * i));
    head.write("data", 36);
    head.writeUInt32LE(samples.length, 40);
    writeFileSync(hum, Buffer.concat([head, samples]));
    await visit({ microphone: hum }, async (page) => {
      await page.goto(`${address}/buzz/1?drill=sound4-rest4`);
      await page.selectOption("[name=source]", "Microphone");
      await page.fill("[name=tempo]", "120");
      await page.click("[data-go]");
      await page.waitForSelector("[data-summary]", { timeout: 60000 });
      assert.match(await page.textContent("[data-summary]"), /Cannot tell: a hum of 50 Hz/);
    });
  });

  it("is told within three seconds where nothing comes from it, and taken back once something does", { timeout: 90000 }, async () => {
    // Four seconds of nothing, then a buzz.
    const wav = join(folder, "silent.wav");
    await bocca("simulate", "--instrument", "trumpet-bb", "--stage", "mouthpiece", "--tempo", "120", "--out", wav);
    const sound = readFileSync(wav);
    const rate = sound.readUInt32LE(24);
    const silence = Buffer.alloc(2 * rate * 6);
    const head = Buffer.from(sound.subarray(0, 44));
    head.writeUInt32LE(36 + silence.length + sound.length - 44, 4);
    head.writeUInt32LE(silence.length + sound.length - 44, 40);
    writeFileSync(wav, Buffer.concat([head, silence, sound.subarray(44)]));
    await visit({ microphone: wav }, async (page) => {
      await page.goto(`${address}/buzz/1?drill=sound4-rest4`);
      await page.fill("[name=tempo]", "60");
      await page.click("[data-go]");
      await page.waitForSelector(".go.running");
      const before = Date.now();
      await page.waitForFunction(() => /microphone is silent/.test(document.querySelector(".transport .trouble").textContent), null, {
        timeout: 10000,
      });
      assert.ok(Date.now() - before < 3000, `said after ${Date.now() - before} ms`);
      await page.waitForFunction(() => !/silent/.test(document.querySelector(".transport .trouble").textContent), null, { timeout: 20000 });
      await page.keyboard.press("Space");
    });
  });

  it("is told when there is none, and when it goes away in mid-take", { timeout: 90000 }, async () => {
    await visit({ expectErrors: true }, async (page) => {
      await page.goto(`${address}/buzz/1?drill=sound4-rest4`);
      await page.selectOption("[name=source]", "Microphone");
      await page.click("[data-go]");
      await page.waitForFunction(() => /microphone/i.test(document.querySelector(".transport .trouble").textContent));
    });
    const wav = join(folder, "gone.wav");
    await bocca("simulate", "--instrument", "trumpet-bb", "--stage", "mouthpiece", "--out", wav);
    await visit({ microphone: wav }, async (page) => {
      await page.addInitScript(() => {
        const real = navigator.mediaDevices.getUserMedia.bind(navigator.mediaDevices);
        navigator.mediaDevices.getUserMedia = async (asked) => (window.microphone = await real(asked));
      });
      await page.goto(`${address}/buzz/1?drill=sound4-rest4`);
      await page.selectOption("[name=source]", "Microphone");
      await page.fill("[name=tempo]", "160");
      await page.click("[data-go]");
      // The second of four tries has begun: the first is over.
      await page.waitForFunction(() => document.querySelectorAll(".live-threads .thread").length === 2, null, { timeout: 30000 });
      await page.evaluate(() => window.microphone.getAudioTracks()[0].dispatchEvent(new Event("ended")));
      await page.waitForFunction(() => /went away in the middle/.test(document.querySelector(".transport .trouble").textContent), null, {
        timeout: 20000,
      });
      // What was finished is heard, as on Stop.
      await page.waitForSelector("[data-summary]");
      assert.equal(await page.textContent("[data-go] span"), "Start");
      assert.match(await page.textContent(".transport .trouble"), /went away in the middle/);
    });
  });
});
