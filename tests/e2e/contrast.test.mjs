// Contrast as the eye meets it: each text against what lies behind it, measured on the pixels of two pictures, with its ink and without,
// in both lights. Here one screen a stop, and cards on the whole screen; `CONTRAST=all node run.mjs contrast` measures every page.
import assert from "node:assert/strict";
import { describe, it } from "node:test";
import { address, visit, withApp } from "./app.mjs";
import { engraved, pages, stops } from "./pages.mjs";

withApp();

// What WCAG 2.2 asks (1.4.3): 4.5 to 1, and 3 to 1 for large text.
const [least, leastLarge] = [4.5, 3];
const all = process.env.CONTRAST === "all";
// For every page twice as many pixels as it has: the thinnest stroke has its own colour somewhere.
const closer = all ? { anew: true, scale: 2 } : {};
const chosen = all ? pages : Object.values(stops).map(([stage]) => stage);
const whole = ["/ear/class", "/ear/count/6"];

// Takes the ink off every text and puts it back.
const ink = (page, visible) =>
  page.evaluate((visible) => {
    const sheet = (globalThis.inkless ??= new CSSStyleSheet());
    const none = "color: transparent !important; -webkit-text-fill-color: transparent !important; text-shadow: none !important";
    const drawn = "fill: transparent !important; stroke: transparent !important";
    sheet.replaceSync(`* { transition: none !important; animation: none !important; caret-color: transparent !important }
      ${visible ? "" : `*, ::placeholder { ${none} } svg text, svg tspan { ${drawn} }`}`);
    if (!document.adoptedStyleSheets.includes(sheet)) document.adoptedStyleSheets = [...document.adoptedStyleSheets, sheet];
  }, visible);

// The texts that can be seen: their words, where they stand, and whether they are large.
const texts = (page) =>
  page.evaluate(() => {
    const found = [];
    const add = (element, words, box) => {
      if (
        !words.trim() ||
        box.width < 3 ||
        box.height < 5 ||
        element.closest("[disabled], [aria-disabled=true], option, script, style, noscript, .visually-hidden, .mNum")
      )
        return;
      const x = box.left + box.width / 2,
        y = box.top + box.height / 2;
      const top = document.elementFromPoint(x, y);
      if (
        !top ||
        !(element.contains(top) || top.contains(element)) ||
        !element.checkVisibility({ opacityProperty: true, visibilityProperty: true })
      )
        return;
      const { fontSize, fontWeight } = getComputedStyle(element);
      const large = parseFloat(fontSize) >= 24 || (parseFloat(fontSize) >= 18.66 && fontWeight >= 700);
      found.push({
        words: words.trim().slice(0, 40),
        large,
        box: [box.left, box.top, box.width, box.height].map((each) => Math.round(each)),
      });
    };
    const root = document.fullscreenElement ?? document.body;
    const walker = document.createTreeWalker(root, NodeFilter.SHOW_TEXT);
    while (walker.nextNode()) {
      const range = document.createRange();
      range.selectNodeContents(walker.currentNode);
      for (const box of range.getClientRects()) add(walker.currentNode.parentElement, walker.currentNode.textContent, box);
    }
    for (const field of root.querySelectorAll(
      "input:not([type=checkbox], [type=radio], [type=range], [type=color], [type=hidden], [type=file]), select, textarea",
    ))
      add(field, field.value || field.placeholder || "", field.getBoundingClientRect());
    return found;
  });

// The texts whose contrast is below what is asked, by the pixels that ink has changed: of those, the clearest hundredth.
async function faint(page) {
  await ink(page, true);
  const seen = await texts(page);
  const written = await page.screenshot();
  await ink(page, false);
  const bare = await page.screenshot();
  await ink(page, true);
  return page.evaluate(
    async ({ written, bare, seen, least, leastLarge }) => {
      const pixels = async (png) => {
        const bitmap = await createImageBitmap(
          new Blob([Uint8Array.from(atob(png), (letter) => letter.charCodeAt(0))], { type: "image/png" }),
        );
        const context = new OffscreenCanvas(bitmap.width, bitmap.height).getContext("2d");
        context.drawImage(bitmap, 0, 0);
        return context.getImageData(0, 0, bitmap.width, bitmap.height);
      };
      const [ours, theirs] = [await pixels(written), await pixels(bare)];
      const scale = ours.width / innerWidth;
      // Relative luminance (WCAG 2.2).
      const linear = Float64Array.from({ length: 256 }, (_, value) =>
        value / 255 <= 0.04045 ? value / 255 / 12.92 : ((value / 255 + 0.055) / 1.055) ** 2.4,
      );
      const light = ({ data }, at) => 0.2126 * linear[data[at]] + 0.7152 * linear[data[at + 1]] + 0.0722 * linear[data[at + 2]];
      return seen.flatMap(({ words, large, box }) => {
        const [left, top, width, height] = box.map((each) => Math.round(each * scale));
        const ratios = [];
        for (let y = Math.max(0, top); y < Math.min(ours.height, top + height); y++)
          for (let x = Math.max(0, left); x < Math.min(ours.width, left + width); x++) {
            const [a, b] = [light(ours, 4 * (y * ours.width + x)), light(theirs, 4 * (y * ours.width + x))];
            const ratio = (Math.max(a, b) + 0.05) / (Math.min(a, b) + 0.05);
            if (ratio > 1.02) ratios.push(ratio);
          }
        const contrast = ratios.length < 4 ? 1 : ratios.sort((a, b) => a - b)[Math.floor(0.99 * (ratios.length - 1))];
        return contrast < (large ? leastLarge : least) ? [`"${words}" ${contrast.toFixed(1)} to 1`] : [];
      });
    },
    { written: written.toString("base64"), bare: bare.toString("base64"), seen, least, leastLarge },
  );
}

// Once every text has stood where it is for a quarter of a second: going to the whole screen lays a page out more than once.
async function settled(page) {
  for (let before = null, quiet = 0; quiet < 3;) {
    const now = JSON.stringify(await texts(page));
    quiet = now === before ? quiet + 1 : 0;
    before = now;
    await page.waitForTimeout(80);
  }
}

async function inBothLights(page, where) {
  const found = [];
  for (const theme of ["light", "dark"]) {
    await page.evaluate((chosen) => (document.documentElement.dataset.theme = chosen), theme);
    found.push(...(await faint(page)).map((text) => `${where}, ${theme}: ${text}`));
  }
  return found;
}

describe("contrast on pixels", () => {
  it("is enough on the screen of every stop, light and dark", { timeout: 900000 }, async () => {
    const found = [];
    await visit(closer, async (page) => {
      for (const path of chosen) {
        await page.goto(address + path);
        await engraved(page);
        await page.waitForSelector(".engraving", { state: "hidden" });
        if (all)
          await page.setViewportSize({
            width: 1280,
            height: Math.min(4000, await page.evaluate(() => document.documentElement.scrollHeight)),
          });
        found.push(...(await inBothLights(page, path)));
        if (all) await page.setViewportSize({ width: 1280, height: 800 });
      }
    });
    assert.deepEqual(found, []);
  });

  it("is enough on cards on the whole screen, light and dark", { timeout: 120000 }, async () => {
    const found = [];
    await visit(closer, async (page) => {
      for (const path of whole) {
        await page.goto(address + path);
        await engraved(page);
        await page.evaluate(() => document.querySelector("#stage").requestFullscreen());
        await settled(page);
        found.push(...(await inBothLights(page, `${path} on the whole screen`)));
        await page.evaluate(() => document.exitFullscreen());
      }
    });
    assert.deepEqual(found, []);
  });

  it("finds ink that is too near to its paper", { timeout: 60000 }, async () => {
    await visit(closer, async (page) => {
      await page.goto(`${address}/buzz/1`);
      // 3.19 to 1 by the formula of WCAG 2.2 (1.4.3).
      await page.evaluate(() => {
        const words = document.createElement("p");
        words.textContent = "Grey on white";
        words.style =
          "position: fixed; z-index: 9999; left: 300px; top: 200px; background: white; color: rgb(144, 144, 144); font-size: 15px";
        document.body.append(words);
      });
      assert.match((await faint(page)).join(), /^"Grey on white" 3\.[0-3] to 1$/);
    });
  });
});
