// The Breath stop: the bellows leads by the audio clock, a stop works at once, and a stream is heard.
import assert from "node:assert/strict";
import { describe, it } from "node:test";
import { address, visit, withApp } from "./app.mjs";

withApp();

async function open(page, pupil, query) {
  await page.goto(`${address}/breath/${pupil}?${query}`);
  await page.waitForFunction(() => document.querySelector("[data-plate]").getAttribute("d"));
}

describe("breath", () => {
  it("is led by cues on the audio clock, and tapped at the end", { timeout: 90000 }, async () => {
    await visit({}, async (page) => {
      await open(page, 1, "drill=paced-breath&rung=0&tempo=120");
      await page.selectOption("[name=source]", "nobody");
      await page.locator("h1").click();
      await page.keyboard.press("Space");
      await page.waitForFunction(() => document.querySelector("[data-phase]").textContent === "Out", null, { timeout: 30000 });
      await page.waitForSelector("[data-accept]:visible", { timeout: 60000 });
      const cues = JSON.parse(await page.getAttribute(".work", "data-cues"));
      assert.deepEqual(cues.map((cue) => cue.kind), ["in", "out", "in", "out"]);
      // 4 counts at 120 last 2 s; each cue is shown by the audio clock, a few pictures late at most.
      cues.forEach((cue, i) => {
        assert.ok(Math.abs(cue.planned - cues[0].planned - 2 * i) < 1e-6);
        assert.ok(cue.shown >= cue.planned && cue.shown - cue.planned < 0.25, `shown ${cue.shown - cue.planned} s late`);
      });
      await page.keyboard.press("Enter");
      await page.waitForFunction(() => document.querySelector("[data-summary]")?.textContent.includes("Tapped: even"));
      assert.match(await page.textContent("[data-next-block]"), /One even pass/);
    });
  });

  it("stops at once on Escape, and keeps what was done", { timeout: 60000 }, async () => {
    await visit({}, async (page) => {
      await open(page, 2, "drill=paced-breath&rung=0&tempo=120");
      await page.selectOption("[name=source]", "nobody");
      await page.click("[data-go]");
      await page.waitForFunction(() => document.querySelector("[data-phase]").textContent === "In", null, { timeout: 30000 });
      await page.keyboard.press("Escape");
      await page.waitForFunction(() => document.querySelector("[data-summary]")?.textContent.includes("Stopped after"));
      assert.equal(await page.textContent("[data-go] span"), "Start");
    });
  });

  it("hears a stream come in gusts", { timeout: 90000 }, async () => {
    await visit({}, async (page) => {
      await open(page, 4, "drill=even-stream&rung=0&tempo=100");
      await page.selectOption("[name=source]", "practice");
      await page.selectOption("[name=fault]", "gusty=0.6");
      await page.click("[data-go]");
      await page.waitForSelector("[data-stream] svg.stream", { timeout: 60000 });
      assert.match(await page.textContent("[data-summary]"), /still counts as even/);
      assert.match(await page.textContent("[data-outcome]"), /2\.4 s|2\.3 s/);
    });
  });

  it("asks to sit before a held breath and shows a caution where one is needed", { timeout: 60000 }, async () => {
    await visit({ expectErrors: true }, async (page) => {
      await open(page, 7, "drill=in-hold-out&rung=0&tempo=80");
      await page.click("[data-go]");
      await page.waitForFunction(() => document.querySelector(".transport .trouble").textContent.startsWith("Sit down first"));
      await page.goto(`${address}/breath/5`);
      assert.match(await page.textContent("[data-caution]"), /Follow your own doctor's advice/);
      assert.equal(await page.locator("[name=drill] option[value=in-hold-out]").count(), 0);
    });
  });
});
