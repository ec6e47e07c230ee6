// What holds on every page: nothing for axe to find, nothing cut off, the frame's keys.
import assert from "node:assert/strict";
import { readFileSync } from "node:fs";
import { createRequire } from "node:module";
import { describe, it } from "node:test";
import { address, visit, withApp } from "./app.mjs";

withApp();

const axe = readFileSync(createRequire(import.meta.url).resolve("axe-core/axe.min.js"), "utf8");
const pages = ["/", "/buzz", "/buzz/1", "/buzz/1?drill=sound4-rest4", "/notes/1?note=D4", "/notes/3?note=G4", "/record/1", "/pupils/1", "/pupils/new", "/breath/1", "/breath/5", "/set-up/1", "/set-up/3/checks", "/set-up/1/watch", "/set-up/1/motion", "/approach", "/approach/1", "/tone/1", "/tone/3?drill=tongue-four", "/notes/1/chart?whole=true&others=true", "/notes/6/tube", "/notes/3/slide", "/notes/class?shape=MajorScale", "/notes/class?shape=MajorScale&sheets=true", "/notes/1/hand", "/notes/3/hand?drill=by-eye", "/notes/4/instrument", "/slurs/4", "/slurs/7/lips", "/slurs/7/own", "/slurs/6/map", "/slurs/class", "/ear/1", "/ear/4?drill=sing-intervals", "/ear/3?drill=copy-back", "/ear/count/4", "/ear/tell/1", "/ear/delay/1", "/ear/class", "/pieces/7", "/pieces/7/3", "/pieces/6/5/sheet?of=study", "/pieces/6/5/sheet?of=breaths", "/pieces/3/5", "/pieces/1/write", "/pieces/4/scale", "/health/1", "/approach/bands/1", "/approach/drills", "/approach/limits", "/approach/cues", "/approach/cues/1?symptom=oneLow", "/approach/changes/1", "/practice/1", "/practice/4/week", "/practice/1/message", "/practice/1/lesson", "/practice/1/sheet", "/practice/1/term", "/practice/class", "/practice/wall", "/practice/timetable", "/practice/paper"];

const sizes = [{ width: 390, height: 844 }, { width: 1024, height: 768 }, { width: 1280, height: 800 }];
const tags = ["wcag2a", "wcag2aa", "wcag21a", "wcag21aa", "wcag22aa", "best-practice"];

// Each page is loaded once, with axe in it, at the width of a phone; then it grows, and is looked at in both lights.
async function look(page, path) {
  await page.setViewportSize(sizes[0]);
  await page.goto(address + path);
  await page.waitForFunction(() => [...document.querySelectorAll("script[data-score]")].every((score) => score.closest("details:not([open])") || score.parentElement.querySelector("svg")));
  const found = [];
  // Colours on their way from one theme to the other are neither.
  await page.emulateMedia({ reducedMotion: "reduce" });
  for (const size of sizes) {
    await page.setViewportSize(size);
    const over = await page.evaluate(() => document.documentElement.scrollWidth - document.documentElement.clientWidth);
    if (over > 0) found.push(`${path} is ${over} px too wide at ${size.width}`);
  }
  for (const theme of ["light", "dark"]) {
    await page.evaluate((chosen) => (document.documentElement.dataset.theme = chosen), theme);
    // In the other light nothing but colours is otherwise.
    const runOnly = theme === "light" ? tags : { type: "rule", values: ["color-contrast"] };
    const { violations } = await page.evaluate((rules) => axe.run(document, { resultTypes: ["violations"], runOnly: rules }), runOnly);
    found.push(...violations.map((rule) => `${path}, ${theme}: ${rule.id} ${rule.nodes.map((node) => node.target).join(", ")}`));
  }
  return found;
}

describe("every page", () => {
  it("fits its width and has nothing for axe to find, light and dark, without an error on the console", { timeout: 600000 }, async () => {
    await visit({ alters: true }, async (page) => {
      await page.addInitScript(axe);
      for (const path of pages) assert.deepEqual(await look(page, path), []);
    });
  });

  it("that is none says so as well", { timeout: 60000 }, async () => {
    await visit({ alters: true, expectErrors: true }, async (page) => {
      await page.addInitScript(axe);
      assert.deepEqual(await look(page, "/nowhere"), []);
    });
  });

  it("answers the keys of the frame", { timeout: 60000 }, async () => {
    await visit({}, async (page) => {
      await page.goto(`${address}/buzz/1`);
      await page.keyboard.press("?");
      assert.equal(await page.locator("#keys").isVisible(), true);
      await page.keyboard.press("Escape");
      await page.keyboard.press("2");
      await page.waitForURL(/\/breath\/1/);
      await page.keyboard.press("1");
      await page.waitForURL(/\/$/);
    });
  });

  it("weighs less than 150 kB on the wire before the engraver", { timeout: 60000 }, async () => {
    await visit({ anew: true }, async (page) => {
      const session = await page.context().newCDPSession(page);
      await session.send("Network.enable");
      const kinds = new Map();
      let bytes = 0;
      session.on("Network.responseReceived", (event) => kinds.set(event.requestId, event.type));
      session.on("Network.loadingFinished", (event) => {
        if (["Document", "Stylesheet", "Script"].includes(kinds.get(event.requestId))) bytes += event.encodedDataLength;
      });
      await page.goto(`${address}/buzz/1`, { waitUntil: "networkidle" });
      assert.ok(bytes > 10000 && bytes < 150000, `${bytes} bytes`);
    });
  });
});
