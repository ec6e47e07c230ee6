// What hurts ends the day on every stop; the teacher's own numbers and cues hold at once; the instrument is looked at before the lips.
import assert from "node:assert/strict";
import { describe, it } from "node:test";
import { address, playAtOnce, visit, withApp } from "./app.mjs";

withApp();

const phone = { viewport: { width: 390, height: 844 } };

describe("advice", () => {
  it("ends the day on every stop with one tap, and the tap can be taken back", { timeout: 120000 }, async () => {
    await visit({ ...phone, expectErrors: true }, async (page) => {
      await page.goto(`${address}/slurs/4`);
      await page.click("[data-dialog=hurts]");
      await page.click("#hurts [value=lipsSore]");
      await page.waitForSelector(".told:has-text('That is enough for today.')");
      for (const stop of ["buzz", "tone", "slurs"]) {
        await page.goto(`${address}/${stop}/4`);
        assert.match(await page.textContent("[data-health]"), /That is enough for today/);
        await page.click("[data-go]");
        await page.waitForSelector(".trouble:has-text('That is enough for today.')");
      }
      await page.goto(`${address}/breath/4`);
      assert.ok(await page.isDisabled("[data-go]"));
      await page.goto(`${address}/health/4`);
      await page.click("text=Take back");
      await page.goto(`${address}/buzz/4`);
      assert.equal(await page.locator("[data-health]").count(), 0);
    });
  });

  it("judges by the teacher's own gate and says the teacher's own cue", { timeout: 120000 }, async () => {
    await visit({}, async (page) => {
      await page.goto(`${address}/approach/bands/1`);
      const gate = page.locator('[id="bands.mouthpiece.steadyCents"]');
      await page.locator("details:has([id='bands.mouthpiece.steadyCents'])").evaluate((details) => (details.open = true));
      await gate.fill("11");
      await gate.press("Enter");
      await page.waitForSelector(".told:has-text('One change for')");
      await page.goto(`${address}/approach/cues/1?symptom=airFirst`);
      await page.fill('[name="rungs[0].Cue"]', "Lips first, then the air.");
      await page.click("text=Say it so for");
      await page.waitForSelector(".told:has-text('One change for')");
      await page.goto(`${address}/buzz/1?drill=sound4-rest4`);
      await playAtOnce(page, { character: "air-first", tempo: 160 });
      assert.match(await page.textContent(".what"), /gate of 11/);
      assert.equal((await page.textContent("[data-next]")).trim(), "Lips first, then the air.");
      await page.goto(`${address}/approach/changes/1`);
      assert.equal(await page.locator("table.bench tbody tr").count(), 2);
      assert.match(await page.textContent("table.bench"), /Lips first, then the air\./);
    });
  });

  it("looks at the instrument before the lips when every valve is turned", { timeout: 120000 }, async () => {
    await visit({}, async (page) => {
      await page.goto(`${address}/tone/1?drill=what-came&notes=D4`);
      await playAtOnce(page, { character: "blocked" });
      assert.match(await page.textContent("[data-next]"), /Look at the instrument first/);
      await page.click("[data-accept]");
      await page.waitForURL(/instrument#look/);
      await page.click("#look [value=valveTurned]");
      await page.waitForSelector(".told:has-text('Turn it until it clicks')");
    });
  });
});
