// What holds on every page: nothing for axe to find, nothing cut off, the frame's keys.
import assert from "node:assert/strict";
import { readFileSync } from "node:fs";
import { createRequire } from "node:module";
import { describe, it } from "node:test";
import { address, visit } from "./app.mjs";

const axe = readFileSync(createRequire(import.meta.url).resolve("axe-core/axe.min.js"), "utf8");
const pages = ["/", "/buzz", "/buzz/1", "/buzz/1?drill=sound4-rest4", "/notes/1?note=D4", "/notes/3?note=G4", "/record/1", "/pupils/1", "/pupils/new", "/breath/1", "/breath/5", "/set-up/1", "/set-up/3/checks", "/set-up/1/watch", "/approach", "/approach/1", "/tone/1", "/tone/3?drill=tongue-four", "/notes/1/chart?whole=true&others=true", "/notes/6/tube", "/notes/3/slide", "/notes/class?shape=MajorScale", "/notes/1/hand", "/notes/3/hand?drill=by-eye", "/notes/4/instrument", "/slurs/4", "/slurs/7/lips", "/slurs/7/own", "/slurs/6/map", "/slurs/class", "/ear/1", "/nowhere"];

describe("every page", () => {
  for (const theme of ["light", "dark"]) {
    it(`has nothing for axe to find, ${theme}`, { timeout: 120000 }, async () => {
      await visit({ expectErrors: true }, async (page) => {
        await page.addInitScript((chosen) => localStorage.setItem("bocca.theme", chosen), theme);
        for (const path of pages) {
          await page.goto(address + path, { waitUntil: "networkidle" });
          const found = await page.evaluate(`${axe}; axe.run(document, { runOnly: ["wcag2a", "wcag2aa", "wcag21a", "wcag21aa", "wcag22aa", "best-practice"] })`);
          assert.deepEqual(found.violations.map((rule) => `${path}: ${rule.id} ${rule.nodes.map((node) => node.target).join(", ")}`), []);
        }
      });
    });
  }

  it("fits its width on a laptop, a tablet and a phone, without an error on the console", { timeout: 120000 }, async () => {
    for (const viewport of [{ width: 1280, height: 800 }, { width: 1024, height: 768 }, { width: 390, height: 844 }]) {
      await visit({ viewport }, async (page) => {
        for (const path of pages.filter((each) => each !== "/nowhere")) {
          await page.goto(address + path, { waitUntil: "networkidle" });
          const over = await page.evaluate(() => document.documentElement.scrollWidth - document.documentElement.clientWidth);
          assert.ok(over <= 0, `${path} is ${over} px too wide at ${viewport.width}`);
        }
      });
    }
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
    await visit({}, async (page) => {
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
