// The Tone stop: what was played held against what was meant.
import assert from "node:assert/strict";
import { describe, it } from "node:test";
import { address, playAtOnce, visit, withApp } from "./app.mjs";
import { hearFile, spoken } from "./spoken.mjs";

withApp();

describe("tone", () => {
  it("asked D on 1-3, the partial below comes: the screen says so and offers the cue", { timeout: 120000 }, async () => {
    // Two tries of four counts at 120, four counts apart.
    const row = await spoken(
      "one-low",
      0.5,
      "--instrument",
      "trumpet-bb",
      "--row",
      "D4 D4",
      "--setting",
      "1-3 1-3",
      "--miss",
      "partial=-1",
      "--beats",
      "8",
      "--share",
      "0.5",
      "--tempo",
      "120",
    );
    await visit({}, async (page) => {
      await hearFile(page, "/tone/7?drill=what-came&notes=D4&settings=1-3", row, 120);
      assert.match(await page.textContent("[data-summary]"), /D4 came out as G3: one partial low. Valves right/);
      assert.match(await page.textContent("[data-next]"), /Sing it|air/);
      assert.equal(await page.locator(".row-picture .miss").first().textContent(), "1 partial low");
      // Enter accepts: the take is kept, and the same notes stand ready again.
      await page.locator("h1").click();
      await page.keyboard.press("Enter");
      await page.waitForURL(/drill=what-came/);
      assert.equal(await page.inputValue("[name=notes]"), "D4");
      assert.match(await page.textContent(".history"), /one partial low/);
    });
  });

  it("a trombone's slide three centimetres short is told in centimetres", { timeout: 120000 }, async () => {
    const row = await spoken(
      "slide",
      0.5,
      "--instrument",
      "trombone",
      "--row",
      "A2 A2",
      "--miss",
      "slide-in=3",
      "--beats",
      "8",
      "--share",
      "0.5",
      "--tempo",
      "120",
    );
    await visit({}, async (page) => {
      await hearFile(page, "/tone/3?drill=what-came&notes=A2", row, 120);
      assert.match(await page.textContent("[data-summary]"), /cents sharp: the slide is [23]\.\d cm too far in\. Move it out/);
      assert.match(await page.locator(".row-picture .miss").first().textContent(), /cm too far in/);
    });
  });

  it("notes that the tongue closes are named, and the row of starts shown", { timeout: 120000 }, async () => {
    await visit({}, async (page) => {
      await page.goto(`${address}/tone/1?drill=tongue-four`);
      await playAtOnce(page, { character: "closes" });
      assert.match(await page.textContent("[data-summary]"), /closed by the tongue/);
      assert.match(await page.textContent("[data-next]"), /Let the air end the note/);
      assert.equal(await page.locator(".row-picture .starts g").count(), 12);
      assert.match(await page.textContent(".aims"), /joined/);
    });
  });

  it("notes that cannot be played are refused in a sentence, and what was typed stays", { timeout: 60000 }, async () => {
    await visit({ expectErrors: true }, async (page) => {
      await page.goto(`${address}/tone/1?drill=what-came&notes=C2`);
      assert.match(await page.textContent("[data-trouble]"), /C2 is out of range on the/);
      assert.equal(await page.inputValue("[name=notes]"), "C2");
      await page.fill("[name=notes]", "H4");
      await page.keyboard.press("Enter");
      await page.waitForFunction(() => document.querySelector("[data-trouble]")?.textContent.includes("'H4'"));
    });
  });
});
