// The whole way of a lesson, from the Desk to the record, and the record after a power cut.
import assert from "node:assert/strict";
import { describe, it } from "node:test";
import { address, killApp, playAtOnce, startApp, visit, withApp } from "./app.mjs";

withApp({ own: true });

describe("a lesson", () => {
  it("goes from the Desk over a buzz to a first note, and is still there after kill -9", { timeout: 240000 }, async () => {
    await visit({}, async (page) => {
      await page.goto(address);
      const line = page.locator(".bench tbody tr", { hasText: "Tomas Oduya" });
      assert.match(await line.textContent(), /B♭ trumpet, week 2/);
      assert.match(await line.locator(".due").textContent(), /Lips together just before/);
      await line.locator("th a").click();
      await page.waitForURL(/\/record\/\d+/);
      assert.match(await page.textContent("[data-last]"), /Last time, .*: .* take/);
      await page.click("[data-step]");
      await page.waitForURL(/\/buzz\/\d+/);

      await playAtOnce(page, { character: "air-first", tempo: 160 });
      assert.equal(await page.locator(".thread").count(), 4);
      assert.match(await page.textContent("[data-summary]"), /Two of four began with air/);
      assert.match(await page.textContent("[data-next]"), /Lips together just before/);
      assert.equal(await page.locator(".hand .next").count(), 1);
      await page.click("[data-keep]");
      await page.waitForSelector("text=The take is saved.");

      await playAtOnce(page, { tempo: 160 });
      assert.match(await page.textContent("[data-summary]"), /all steady/);
      await page.click("[data-accept]");
      await page.waitForURL(/\/notes\/\d+/);
      await page.waitForSelector(".engraved svg g.note");
      assert.equal(await page.locator(".engraved svg g.note").count(), 5);
      await page.click("[data-note-link]:text('D4')");
      await page.waitForURL(/note=D4/);
      assert.equal(await page.textContent("[data-fingering]"), "Valves 1 and 3");
      assert.equal(await page.locator(".valve.down").count(), 2);
      assert.match(await page.textContent(".hand .what"), /\+32 cents/);
      assert.match(await page.textContent("[data-reason]"), /The only way/);
      assert.match(await page.textContent(".rungs .wanted"), /3[^]*D4/);
      await page.click("[data-accept]");
      await page.waitForSelector("text=D4 is saved");
      const record = page.url().replace(/\/notes\/(\d+).*/, "/record/$1");
      await page.goto(record);
      const kept = await page.locator("#stage").textContent();

      await killApp();
      await startApp();
      await page.goto(record);
      const found = await page.locator("#stage").textContent();
      assert.equal(found, kept);
      assert.match(found, /Note D4[^]*valves 1 and 3[^]*Two of four began with air/);
    });
  });
});
