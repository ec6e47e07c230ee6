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
      await page.waitForSelector(".told:has-text('noted')");
      for (const stop of ["buzz", "tone", "slurs"]) {
        await page.goto(`${address}/${stop}/4`);
        assert.match(await page.textContent("[data-health]"), /That is enough for today/);
        // What may not be started is not green.
        const [go, plain] = await page.evaluate(() =>
          ["[data-go]", ".transport"].map((part) => getComputedStyle(document.querySelector(part)).backgroundColor),
        );
        assert.equal(go, plain);
        await page.click("[data-go]");
        await page.waitForSelector(".trouble:has-text('That is enough for today.')");
      }
      // What is sent past the pages is refused as well.
      const direct = await page.evaluate(async () => {
        const headers = { "X-Antiforgery": document.querySelector("meta[name=antiforgery]").content };
        const send = async (path, fields) => {
          const body = new FormData();
          for (const [name, value] of Object.entries(fields)) body.append(name, value);
          return (await fetch(path, { method: "POST", headers, body })).status;
        };
        const take = {
          sound: new Blob([new Uint8Array(2000)]),
          source: "Microphone",
          drill: "sound4-rest4",
          tempo: 60,
          on: "Mouthpiece",
          missing: 0,
          tense: false,
        };
        const breath = { drill: "even-stream", rung: 0, tempo: 60, key: crypto.randomUUID(), stopped: false, even: true };
        return [
          await send("/buzz/4?handler=Hear", take),
          await send("/tone/4?handler=Hear", take),
          await send("/slurs/4?handler=Hear", take),
          await send("/breath/4?handler=Keep", breath),
        ];
      });
      assert.deepEqual(direct, [422, 422, 422, 422]);
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
      await page.goto(`${address}/buzz/1?drill=sound4-rest4`);
      await playAtOnce(page, { character: "air-first", tempo: 160 });
      assert.match(await page.textContent(".hand"), /aim 40/);
      const old = await page.getAttribute("#stage", "data-take");
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
      assert.match(await page.textContent(".hand"), /aim 11/);
      assert.equal((await page.textContent("[data-next]")).trim(), "Lips first, then the air.");
      // The old take keeps the gate it was judged by; after three tries without gain the next cue comes.
      for (let tries = 0; tries < 3; tries++) await playAtOnce(page, { character: "air-first", tempo: 160 });
      assert.notEqual((await page.textContent("[data-next]")).trim(), "Lips first, then the air.");
      await page.goto(`${address}/buzz/1?take=${old}`);
      assert.match(await page.textContent(".hand"), /aim 40/);
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
