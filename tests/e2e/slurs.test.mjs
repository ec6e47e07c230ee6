// The Slurs stop: written, played back, heard, mapped.
import assert from "node:assert/strict";
import { describe, it } from "node:test";
import { address, visit, withApp } from "./app.mjs";
import { hearFile, spoken } from "./spoken.mjs";

withApp();

describe("slurs", () => {
  it("are written for today, engraved and played back", { timeout: 60000 }, async () => {
    await visit({}, async (page) => {
      await page.goto(`${address}/slurs/7`);
      // This pupil learns slurs by ear: the notes are folded away until somebody looks.
      assert.equal(await page.locator(".engraved").isVisible(), false);
      await page.click("[data-written] summary");
      await page.waitForSelector(".engraved svg g.slur");
      const day = await page.locator("[data-day] li").count();
      assert.ok(day >= 3 && day <= 5);
      await page.click(".hand [data-model]");
      await page.waitForFunction(() => window.Tone?.getContext().state === "running");
      // Another one of the day comes on the stage, with its difficulty.
      await page.locator("[data-day] a").nth(1).click();
      await page.waitForURL(/drill=/);
      assert.match(await page.textContent("[data-difficulty]"), /at its widest/);
    });
  });

  it("a partial too far is heard, drawn and named", { timeout: 120000 }, async () => {
    const row = await spoken(
      "slur-over",
      0.5,
      "--instrument",
      "trumpet-bb",
      "--row",
      "G4~C5~G4",
      "--miss",
      "partial=1@2",
      "--beats",
      "4",
      "--tempo",
      "120",
    );
    await visit({}, async (page) => {
      await page.goto(`${address}/slurs/7?drill=glide:0:3`);
      await page.click("[data-more]");
      await page.fill("[name=times]", "1");
      await hearFile(page, null, row, 120);
      assert.match(await page.textContent("[data-summary]"), /G4 to C5, open: one note too high, E5 came/);
      assert.ok((await page.locator(".rung-line").count()) >= 3);
      assert.ok((await page.locator(".heard-thread").count()) >= 1);
      await page.locator("h1").click();
      await page.keyboard.press("Enter");
      await page.waitForURL(/drill=glide/);
      assert.match(await page.textContent(".history"), /one note too high/);
      await page.goto(`${address}/slurs/7/map`);
      assert.match(await page.textContent("[data-map]"), /0 of 2/);
    });
  });

  it("a clean slur is clean, up and down", { timeout: 120000 }, async () => {
    const row = await spoken("slur-clean", 0.5, "--instrument", "trumpet-bb", "--row", "G4~C5~G4", "--beats", "4", "--tempo", "120");
    await visit({}, async (page) => {
      await page.goto(`${address}/slurs/7?drill=glide:0:3`);
      await page.click("[data-more]");
      await page.fill("[name=times]", "1");
      await hearFile(page, null, row, 120);
      assert.match(await page.textContent("[data-summary]"), /Both changes clean/);
      assert.match(await page.textContent("[data-next]"), /Go on/);
    });
  });

  it("by ear are played to the pupil before each take, and stop when stopped", { timeout: 60000 }, async () => {
    await visit({}, async (page) => {
      await page.goto(`${address}/slurs/7?drill=glide:0:3`);
      await page.selectOption("[name=source]", "PracticePlayer");
      await page.click("[data-go]");
      await page.waitForFunction(() => document.querySelector("[data-label]").textContent === "listen");
      await page.click("[data-go]");
      await page.waitForFunction(() => !document.querySelector(".go.running"));
      assert.equal(await page.locator("[data-summary]").count(), 0);
    });
  });

  it("are tried on the lips: what stays, what goes too far, what slurs", { timeout: 90000 }, async () => {
    await visit({}, async (page) => {
      await page.goto(`${address}/slurs/7/lips?drill=glide:0:3`);
      await page.click("[data-go]");
      await page.waitForSelector("[data-tried=slurs]");
      for (const [reach, says] of [
        ["0", /kept sounding/],
        ["200", /partials? high/],
      ]) {
        await page.fill("[name=reach]", reach);
        await page.dispatchEvent("[name=reach]", "change");
        await page.waitForFunction((words) => new RegExp(words).test(document.querySelector("[data-spoke]").textContent), says.source);
        assert.ok((await page.textContent("[data-why]")).length > 20);
      }
      await page.click("[data-usual]");
      await page.waitForSelector("[data-tried=slurs]");
      assert.equal(await page.inputValue("[name=reach]"), "100");
    });
  });

  it("of a class come as a score", { timeout: 60000 }, async () => {
    await visit({}, async (page) => {
      await page.goto(`${address}/slurs/class?shape=five-note&partial=3`);
      await page.waitForSelector(".engraved-lines .engraved svg g.slur");
      const [file] = await Promise.all([page.waitForEvent("download"), page.click("text=MusicXML")]);
      assert.equal(file.suggestedFilename(), "class-slurs.musicxml");
    });
  });
});
