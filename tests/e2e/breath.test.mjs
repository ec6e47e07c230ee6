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
      assert.deepEqual(
        cues.map((cue) => cue.kind),
        ["in", "out", "in", "out"],
      );
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

  it("hears a stream come in gusts, on the bellows that were there before it", { timeout: 90000 }, async () => {
    await visit({}, async (page) => {
      await open(page, 4, "drill=even-stream&rung=0&tempo=100");
      await page.selectOption("[name=source]", "practice");
      await page.selectOption("[name=fault]", "gusty=0.6");
      // What the stage holds, and where the bellows and the row stand.
      const frame = () =>
        page.evaluate(() => ({
          parts: [...document.querySelectorAll("#stage .bellows path")].map((part) => part.className.baseVal),
          ribbon: document.querySelectorAll("#stage .ribbon").length,
          boxes: ["#stage .bellows", ".transport"].map((each) => JSON.stringify(document.querySelector(each).getBoundingClientRect())),
        }));
      // Folded as it is once the source is chosen.
      await page.keyboard.press("Escape");
      const before = await frame();
      assert.equal(before.parts.length, 3);
      await page.click("[data-go]");
      await page.waitForFunction(() => document.querySelector("[data-phase]").textContent === "Out", null, { timeout: 30000 });
      assert.deepEqual(await frame(), before, "while it sounds");
      assert.equal(await page.locator("[data-summary]").count(), 0);
      await page.waitForSelector("[data-stream] svg.stream", { timeout: 60000 });
      assert.deepEqual((await frame()).parts, before.parts);
      assert.equal((await frame()).boxes[1], before.boxes[1], "with its verdict");
      assert.match(await page.textContent("[data-summary]"), /still counts as even/);
      assert.match(await page.textContent("[data-outcome]"), /2\.4 s|2\.3 s/);
    });
  });

  it("keeps what was breathed until the record has it", { timeout: 60000 }, async () => {
    await visit({ alters: true, expectErrors: true }, async (page) => {
      await open(page, 3, "drill=paced-breath&rung=0&tempo=120");
      await page.selectOption("[name=source]", "nobody");
      await page.route("**/breath/3?handler=Keep", (route) => route.abort());
      await page.click("[data-go]");
      await page.waitForFunction(() => document.querySelector("[data-phase]").textContent === "In", null, { timeout: 30000 });
      await page.keyboard.press("Escape");
      await page.waitForSelector("[data-again]:visible");
      await page.unroute("**/breath/3?handler=Keep");
      await page.reload();
      await page.click("[data-again]:visible");
      await page.waitForFunction(() => document.querySelector("[data-summary]")?.textContent.includes("Stopped after"));
      await page.waitForSelector("[data-again]", { state: "hidden" });
      await page.reload();
      await page.waitForTimeout(300);
      await page.waitForSelector("[data-again]", { state: "hidden" });
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
