// Where sound comes from: the real capture path fed by a file, and a WAV of one's own; and what becomes of it when nobody answers.
import assert from "node:assert/strict";
import { readFileSync, writeFileSync } from "node:fs";
import { join } from "node:path";
import { describe, it } from "node:test";
import { address, bocca, folder, killApp, startApp, visit, withApp } from "./app.mjs";

withApp({ own: true });

const wav = join(folder, "take.wav");

// A WAV with some silence put before its sound, so that it falls on the cues after the count-in.
function delayed(path, seconds) {
  const file = readFileSync(path);
  const rate = file.readUInt32LE(24);
  const size = file.readUInt32LE(40);
  const silence = Buffer.alloc(2 * Math.round(seconds * rate));
  const out = Buffer.concat([file.subarray(0, 44), silence, file.subarray(44, 44 + size)]);
  out.writeUInt32LE(out.length - 8, 4);
  out.writeUInt32LE(size + silence.length, 40);
  return out;
}

describe("sound from", () => {
  it("the microphone is captured, heard and drawn", { timeout: 90000 }, async () => {
    await bocca(
      "simulate",
      "--instrument",
      "trumpet-bb",
      "--stage",
      "mouthpiece",
      "--tempo",
      "120",
      "--fault",
      "air-first=800@2,3",
      "--seed",
      "8",
      "--out",
      wav,
    );
    const spoken = join(folder, "microphone.wav");
    // The browser plays the file from when the microphone opens, which may be a while before the count-in: the tries are
    // meant to come a second late, so that a busy machine cannot push one over to the cue before its own.
    writeFileSync(spoken, delayed(wav, 3.2));
    await visit({ microphone: spoken }, async (page) => {
      await page.goto(`${address}/buzz/1?drill=sound4-rest4`);
      await page.selectOption("[name=source]", "Microphone");
      await page.fill("[name=tempo]", "120");
      await page.locator("h1").click();
      await page.keyboard.press("Space");
      await page.waitForSelector(".go.running");
      await page.waitForFunction(() => /^[1-4]$/.test(document.querySelector("[data-count]").textContent));
      await page.waitForSelector("[data-summary]", { timeout: 60000 });
      assert.equal(await page.locator(".thread").count(), 4);
      assert.match(await page.textContent("[data-summary]"), /All four spoke/);
      const airs = await page.evaluate(() =>
        [...document.querySelectorAll(".try")].map((row) => Number(row.querySelector(".air")?.getAttribute("width") ?? 0)),
      );
      assert.ok(Math.min(airs[1], airs[2]) > 3 * Math.max(airs[0], airs[3]), `air before the tries: ${airs}`);
      assert.match(await page.textContent(".stage h1"), /microphone/);
    });
  });

  it("a take that is stopped is not sent, and can be started again", { timeout: 60000 }, async () => {
    await visit({}, async (page) => {
      await page.goto(`${address}/buzz/1?drill=sound4-rest4`);
      await page.selectOption("[name=source]", "PracticePlayer");
      await page.click("[data-go]");
      await page.waitForSelector(".go.running");
      await page.locator("h1").click();
      await page.keyboard.press("Space");
      await page.waitForFunction(() => !document.querySelector(".go").classList.contains("running"));
      assert.equal(await page.textContent("[data-go] span"), "Start");
      assert.equal(await page.locator(".thread").count(), 0);
    });
  });

  it("a WAV file is heard, and one that is none is refused by name", { timeout: 60000 }, async () => {
    await bocca(
      "simulate",
      "--instrument",
      "trumpet-bb",
      "--stage",
      "mouthpiece",
      "--tempo",
      "120",
      "--fault",
      "drift=-40",
      "--seed",
      "3",
      "--out",
      wav,
    );
    await visit({ expectErrors: true }, async (page) => {
      await page.goto(`${address}/buzz/1?drill=sound4-rest4`);
      await page.selectOption("[name=source]", "File");
      await page.fill("[name=tempo]", "120");
      await page.setInputFiles("[name=file]", { name: "shopping.wav", mimeType: "audio/wav", buffer: Buffer.from("two pints of milk") });
      await page.click("[data-go]");
      await page.waitForFunction(() =>
        document.querySelector(".transport .trouble").textContent.startsWith("shopping.wav: not a WAV file"),
      );
      await page.setInputFiles("[name=file]", wav);
      await page.check("[name=atonce]");
      await page.click("[data-go]");
      await page.waitForSelector("[data-summary]");
      assert.match(await page.textContent("[data-summary]"), /All four sank by \d+ cents a second/);
      assert.equal(await page.locator(".transport .trouble").isVisible(), false);
    });
  });

  it("loses nothing of a take when the server goes away, and sends it when it is back", { timeout: 180000 }, async () => {
    await visit({ expectErrors: true }, async (page) => {
      await page.goto(`${address}/buzz/1?drill=steady-line`);
      await page.selectOption("[name=source]", "PracticePlayer");
      await page.fill("[name=tempo]", "160");
      await page.click("[data-go]");
      await page.waitForSelector(".live-threads .thread", { timeout: 60000 });
      await killApp();
      await page.waitForSelector("[data-again]:visible", { timeout: 60000 });
      assert.match(await page.textContent(".transport .trouble"), /Bocca does not answer/);
      await startApp();
      await page.click("[data-again]");
      await page.waitForSelector("[data-summary]", { timeout: 60000 });
      assert.equal(await page.locator(".thread").count(), 2);
      await page.waitForSelector("[data-again]", { state: "hidden" });
    });
  });
});
