// The note path on the keyboard alone.
import assert from "node:assert/strict";
import { describe, it } from "node:test";
import { address, visit } from "./app.mjs";

describe("notes", () => {
  it("can be found, fingered, heard and saved without a mouse", { timeout: 60000 }, async () => {
    await visit({}, async (page) => {
      await page.goto(address);
      await page.keyboard.press("/");
      await page.keyboard.type("raf");
      await page.keyboard.press("Enter");
      await page.waitForURL(/\/buzz\/\d+/);
      await page.keyboard.press("6");
      await page.waitForURL(/\/notes\/\d+/);
      await page.waitForSelector(".engraved svg g.note.chosen");
      const first = await page.textContent("#note-title");
      await page.keyboard.press("ArrowRight");
      await page.waitForFunction((old) => document.querySelector("#note-title").textContent !== old, first);
      assert.match(page.url(), /note=G4/);
      await page.waitForSelector(".engraved svg g.note.chosen");
      await page.keyboard.press("k");
      await page.waitForFunction(() => document.querySelector(".tried").textContent.includes("nearest is F#4"));
      await page.keyboard.press("h");
      await page.waitForFunction(() => window.Tone?.getContext().state === "running");
      await page.keyboard.press("Enter");
      await page.waitForSelector("text=G4 stands in the record");
    });
  });

  it("are engraved for every instrument, a slide drawn where there is one", { timeout: 60000 }, async () => {
    await visit({}, async (page) => {
      for (const [pupil, drawn] of [[1, ".valves"], [2, ".valves"], [3, "svg.slide"], [4, ".valves"], [5, ".valves"]]) {
        await page.goto(`${address}/notes/${pupil}`);
        await page.waitForSelector(".engraved svg g.note.chosen");
        assert.equal(await page.locator(drawn).count(), 1);
        assert.equal(await page.locator(".rungs .wanted").count(), 1);
      }
    });
  });
});
