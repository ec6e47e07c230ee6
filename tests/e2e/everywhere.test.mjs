// What holds on every page: nothing for axe to find, nothing cut off, the frame's keys.
import assert from "node:assert/strict";
import { readFileSync } from "node:fs";
import { createRequire } from "node:module";
import { join } from "node:path";
import { describe, it } from "node:test";
import { address, playAtOnce, top, visit, withApp } from "./app.mjs";
import { engraved, pages } from "./pages.mjs";

withApp();

const axe = readFileSync(createRequire(import.meta.url).resolve("axe-core/axe.min.js"), "utf8");

const sizes = [
  { width: 390, height: 844 },
  { width: 1024, height: 768 },
  { width: 1280, height: 800 },
];
const tags = ["wcag2a", "wcag2aa", "wcag21a", "wcag21aa", "wcag22aa", "best-practice"];

// Each page is loaded once, with axe in it, at the width of a phone; then it grows, and is looked at.
async function look(page, path) {
  await page.setViewportSize(sizes[0]);
  await page.goto(address + path);
  await engraved(page);
  const found = [];
  // Colours on their way from one theme to the other are neither.
  await page.emulateMedia({ reducedMotion: "reduce" });
  for (const size of sizes) {
    await page.setViewportSize(size);
    const over = await page.evaluate(() => document.documentElement.scrollWidth - document.documentElement.clientWidth);
    if (over > 0) found.push(`${path} is ${over} px too wide at ${size.width}`);
  }
  // In the other light nothing but colours is otherwise: those are measured on pixels.
  const { violations } = await page.evaluate((rules) => axe.run(document, { resultTypes: ["violations"], runOnly: rules }), tags);
  found.push(...violations.map((rule) => `${path}: ${rule.id} ${rule.nodes.map((node) => node.target).join(", ")}`));
  return found;
}

describe("every page", () => {
  it("fits its width and has nothing for axe to find, without an error on the console", { timeout: 600000 }, async () => {
    await visit({ alters: true }, async (page) => {
      await page.addInitScript(axe);
      for (const path of pages) assert.deepEqual(await look(page, path), []);
    });
  });

  // What a verdict may say at most: of all symptoms the longest cue and cause, and a summary of three lines.
  it("that hears shows its verdict whole beside its buttons at 1280x720 while a lesson is on", { timeout: 120000 }, async () => {
    const symptoms = JSON.parse(readFileSync(join(top, "src/Bocca.Core/Judging/symptoms.json"), "utf8"));
    const longest = (words) => words.sort((a, b) => b.length - a.length)[0];
    const cue = longest(symptoms.filter(({ id }) => !/dizz|hurt|tired/i.test(id)).flatMap(({ fixes }) => fixes.map((fix) => fix.cue)));
    const reason = longest(symptoms.flatMap(({ causes }) => causes));
    await visit({ viewport: { width: 1280, height: 720 } }, async (page) => {
      const isWhole = async (path) => {
        const { over, room } = await page.evaluate(
          ([cue, reason]) => {
            const say = (what, words) => document.querySelector(what) && (document.querySelector(what).textContent = words);
            say(
              "[data-summary]",
              "Two of four notes came. F♯3 came out as B♭2: one partial low. Valves right. It happened both times, at the start.",
            );
            say("[data-next]", cue);
            say(".next .reason", reason);
            const hand = document.querySelector(".hand");
            return {
              over: hand.scrollHeight - hand.clientHeight,
              room: document.querySelector(".transport").getBoundingClientRect().top - hand.getBoundingClientRect().bottom,
            };
          },
          [cue, reason],
        );
        assert.ok(over <= 0 && room >= 0, `${path}: ${over} px of the hand are out of sight, ${room} px above the transport`);
      };
      await page.goto(`${address}/practice/4`);
      await page.click("text=Begin the lesson");
      await page.waitForSelector("[data-lesson-strip]");
      const takes = {
        "/buzz/4?drill=steady-line": { character: "air-first" },
        "/tone/4?drill=what-came": { character: "one-low" },
        "/slurs/4?drill=pair:0:3": { character: "over" },
        "/ear/4?drill=sing-intervals": { character: "flat", tempo: null },
        "/ear/count/4?drill=said-clapped&tempo=100": { character: "clap-missing", tempo: null },
      };
      for (const [path, how] of Object.entries(takes)) {
        await page.goto(address + path);
        await playAtOnce(page, how);
        await page.waitForSelector("[data-replay]:not([hidden])");
        await isWhole(path);
      }
      // What was told of two sounds, and a breath that was stopped.
      await page.goto(`${address}/ear/tell/4?drill=gap`);
      await page.click("[data-choice='1']");
      await page.waitForSelector("[data-summary]");
      await isWhole("/ear/tell");
      await page.goto(`${address}/breath/4?drill=paced-breath&rung=0&tempo=120`);
      await page.selectOption("[name=source]", "nobody");
      await page.click("[data-go]");
      await page.waitForFunction(() => document.querySelector("[data-phase]").textContent === "In", null, { timeout: 30000 });
      await page.keyboard.press("Escape");
      await page.waitForSelector("[data-summary]");
      await isWhole("/breath");
    });
  });

  it("keeps the room's paper on the whole screen, and what a file chooser says can be read", { timeout: 60000 }, async () => {
    await visit({}, async (page) => {
      for (const theme of ["light", "dark"]) {
        await page.goto(`${address}/ear/class`);
        await page.evaluate((chosen) => (document.documentElement.dataset.theme = chosen), theme);
        const room = await page.evaluate(() => getComputedStyle(document.body).backgroundColor);
        await page.evaluate(() => document.querySelector("#stage").requestFullscreen());
        assert.equal(await page.evaluate(() => getComputedStyle(document.fullscreenElement).backgroundColor), room);
        await page.evaluate(() => document.exitFullscreen());
        await page.goto(`${address}/practice/timetable`);
        await page.evaluate((chosen) => (document.documentElement.dataset.theme = chosen), theme);
        const [ink, behind] = await page.evaluate(() => {
          const { color, backgroundColor } = getComputedStyle(document.querySelector("input[type=file]"), "::file-selector-button");
          return [color, backgroundColor];
        });
        const light = (colour) =>
          colour
            .match(/\d+/g)
            .slice(0, 3)
            .map(Number)
            .reduce((sum, each) => sum + each, 0) / 3;
        assert.ok(Math.abs(light(ink) - light(behind)) > 120, `${theme}: ${ink} on ${behind}`);
      }
    });
  });

  it("of a study is read on paper: no tabs, no bracket over the table, no label over another", { timeout: 60000 }, async () => {
    await visit({}, async (page) => {
      await page.goto(`${address}/pieces/6/5/sheet?of=study`);
      await page.waitForSelector(".over .phrase");
      await page.emulateMedia({ media: "print" });
      const found = await page.evaluate(() => {
        const boxes = [...document.querySelectorAll(".over text")].map((text) => ({
          words: text.textContent,
          ...text.getBoundingClientRect().toJSON(),
        }));
        const over = (a, b) => a.left < b.right - 1 && b.left < a.right - 1 && a.top < b.bottom - 4 && b.top < a.bottom - 4;
        return {
          tabs: [...document.querySelectorAll(".views")].filter((tabs) => tabs.checkVisibility()).length,
          onTable: boxes
            .filter(({ top }) => top < document.querySelector(".study-table").getBoundingClientRect().bottom)
            .map(({ words }) => words),
          together: boxes.flatMap((a, i) =>
            boxes
              .slice(i + 1)
              .filter((b) => over(a, b))
              .map((b) => `${a.words} on ${b.words}`),
          ),
        };
      });
      await page.emulateMedia({ media: "screen" });
      assert.deepEqual(found, { tabs: 0, onTable: [], together: [] });
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
