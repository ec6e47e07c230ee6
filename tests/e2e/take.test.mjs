// One take from instruction to verdict on one drawing, the way out of it, and the row under it, on every stop.
import assert from "node:assert/strict";
import { describe, it } from "node:test";
import { address, playAtOnce, visit, withApp } from "./app.mjs";

withApp();

const sizes = [
  { width: 1280, height: 800 },
  { width: 1024, height: 768 },
  { width: 1920, height: 1080 },
  { width: 390, height: 844 },
];
const rows = ["/buzz/1", "/buzz/1/lips", "/tone/1", "/slurs/4", "/slurs/4/lips", "/breath/1", "/set-up/1", "/notes/1/hand"];

// Where the transport lies, in whole pixels.
const box = (page) =>
  page.locator(".transport").evaluate((row) => Object.values(row.getBoundingClientRect().toJSON()).slice(0, 4).map(Math.round));

async function play(page, path, character, tempo, led = "alone") {
  await page.goto(address + path);
  await page.selectOption("[name=source]", "PracticePlayer");
  await page.selectOption("[name=character]", character);
  await page.fill("[name=tempo]", String(tempo));
  // Where the approach wants the pupil's own pitch, nobody leads.
  if (await page.locator("[name=led]").isVisible()) await page.selectOption("[name=led]", led);
  await page.click("[data-go]");
}

// The frame of a drawing: what it was drawn on, and where the stage put it.
const frameOf = (page) =>
  page.locator("#stage svg[data-axis]").evaluate((svg) => ({
    ...svg.dataset,
    box: [svg.viewBox.baseVal.width, svg.viewBox.baseVal.height],
    some: svg.querySelectorAll("*").length > 6,
  }));

// Waits for the second thread: the first is whole by then, and is not drawn again with every picture.
async function isDrawnThreadByThread(page) {
  await page.waitForFunction(() => document.querySelectorAll(".live-threads .thread").length >= 2, null, { timeout: 60000 });
  const { drawn, again } = await page.evaluate(
    () =>
      new Promise((resolve) => {
        const first = document.querySelector(".live-threads .thread");
        const drawn = first.querySelector("path").getAttribute("d").length;
        const changed = [];
        new MutationObserver((changes) => {
          changed.push(...changes.map((change) => change.target));
          if (changed.length >= 20) resolve({ drawn, again: changed.filter((path) => path.closest(".thread") === first).length });
        }).observe(document.querySelector(".live-threads"), { subtree: true, attributeFilter: ["d"] });
      }),
  );
  assert.ok(drawn > 500, `${drawn} letters of path`);
  assert.equal(again, 0);
}

// A partial below is drawn on the rung of the partial below while it sounds.
async function isOnTheRungBelow(page) {
  await page.waitForFunction(() => document.querySelector(".live-threads path")?.getAttribute("d").length > 400);
  const { drawn, rungs } = await page.evaluate(() => {
    const points = document
      .querySelector(".live-threads path")
      .getAttribute("d")
      .slice(1)
      .split("L")
      .map((point) => Number(point.split(" ")[1]));
    const rungs = [...document.querySelectorAll(".rung-line[data-partial]")].map((rung) => ({
      y: Number(rung.querySelector("line").getAttribute("y1")),
      meant: rung.classList.contains("meant"),
    }));
    return { drawn: points.sort((a, b) => a - b)[points.length >> 1], rungs };
  });
  const meant = rungs.find((rung) => rung.meant).y;
  const below = rungs
    .map((rung) => rung.y)
    .filter((y) => y > meant)
    .sort((a, b) => a - b)[0];
  assert.ok(Math.abs(drawn - below) < (below - meant) / 6, `drawn at ${drawn}; the rung meant at ${meant}, the one below at ${below}`);
}

describe("a take", () => {
  for (const [stop, path, character, written, led] of [
    ["buzz", "/buzz/1?drill=steady-line", "good", ".gate, .try .asked", "alone"],
    ["buzz of several kinds", "/buzz/1?drill=lips-tune", "good", ".strip .asked", "alone"],
    ["tone", "/tone/1?drill=what-came&notes=G4", "one-low", ".wire, .head, .rung-line.meant", "first"],
    ["slurs", "/slurs/4?drill=pair:0:3", "good", ".wire, .head, .rung-line.meant", "with"],
  ])
    it(`stays on one drawing: ${stop}, led ${led}`, { timeout: 90000 }, async () => {
      await visit({}, async (page) => {
        await page.goto(address + path);
        const before = [await frameOf(page), await page.locator(`#stage ${written}`).count()];
        assert.ok(before[0].some && before[1] >= 2);
        await play(page, path, character, 160, led);
        if (led === "first") {
          await page.waitForFunction(() => document.querySelector("[data-label]").textContent === "listen");
          assert.match(await page.textContent("[data-running]"), /Listen to the end/);
        }
        await page.waitForSelector(".live-threads path");
        assert.deepEqual([await frameOf(page), await page.locator(`#stage ${written}`).count()], before, "while it sounds");
        assert.equal(await page.locator("[data-verdict], [data-accept], [data-keep]").count(), 0);
        if (character === "one-low") await isOnTheRungBelow(page);
        if (stop === "buzz") await isDrawnThreadByThread(page);
        await page.waitForSelector("[data-summary]", { timeout: 60000 });
        assert.deepEqual([await frameOf(page), await page.locator(`#stage ${written}`).count()], before, "with its verdict");
        // The practice player falls silent before the recording ends: that is no sound which did not arrive.
        assert.equal(await page.getByText("did not arrive").count(), 0);
        assert.ok((await page.locator("#stage .thread path, #stage .heard-thread, #stage .strip .sure").count()) >= 1);
        if (stop === "buzz") {
          assert.equal(await page.locator(".thread").count(), 2);
          const { length } = JSON.parse(await page.getAttribute(".work", "data-lags"));
          assert.ok(length > 100, `${length} pictures`);
        }
        assert.ok(await page.locator("[data-play]").isVisible());
        assert.equal(await page.locator("[data-play-place]").isVisible(), (await page.getAttribute("#stage", "data-place")) > "");
      });
    });

  it("is chosen and started by somebody quicker than the page", { timeout: 60000 }, async () => {
    await visit({ alters: true }, async (page) => {
      let wake;
      const woken = new Promise((resolve) => (wake = resolve));
      await page.route("**/lib/alpine.js*", async (route) => {
        await woken;
        await route.continue();
      });
      await page.goto(`${address}/buzz/1?drill=steady-line`, { waitUntil: "commit" });
      await page.selectOption("[name=source]", "PracticePlayer");
      assert.ok(await page.locator("[data-go]").isDisabled());
      wake();
      await page.selectOption("[name=character]", "air-first");
      await page.check("[name=atonce]");
      await page.click("[data-go]");
      await page.waitForSelector("[data-summary]");
    });
  });

  it("is not lost by a key, a link, Enter or a closed tab; stopped, what was finished is heard", { timeout: 90000 }, async () => {
    await visit({}, async (page) => {
      await play(page, "/buzz/1?drill=sound4-rest4", "good", 160);
      await page.waitForSelector(".live-threads path");
      const here = page.url();
      for (const leave of [() => page.keyboard.press("5"), () => page.keyboard.press("Enter"), () => page.click(".path a[data-key='5']")]) {
        await leave();
        assert.match(await page.textContent(".transport .trouble"), /A take is running/);
        assert.equal(page.url(), here);
      }
      assert.equal(await page.evaluate(() => !window.dispatchEvent(new Event("beforeunload", { cancelable: true }))), true);
      assert.equal(await page.locator(".fields").evaluate((fields) => fields.inert), true);
      // The second of four tries has begun: the first is over. The key comes at once, however long a busy machine takes to hear of it here.
      await page.waitForFunction(() => {
        if (document.querySelectorAll(".live-threads .thread").length < 2) return false;
        return document.querySelector("h1").dispatchEvent(new KeyboardEvent("keydown", { key: " ", code: "Space", bubbles: true })) || true;
      });
      await page.waitForSelector("[data-summary]", { timeout: 60000 });
      // A word in passing has gone by itself.
      await page.waitForFunction(() => !/A take is running/.test(document.querySelector(".transport .trouble").textContent), null, {
        timeout: 6000,
      });
      assert.equal(await page.locator("#stage .thread").count(), 1);
      assert.equal(await page.evaluate(() => !window.dispatchEvent(new Event("beforeunload", { cancelable: true }))), false);
    });
  });

  it(
    "of the practice player is a demonstration, said on the stage, and the next page listens to the pupil again",
    { timeout: 60000 },
    async () => {
      await visit({}, async (page) => {
        await page.goto(`${address}/buzz/1?drill=steady-line`);
        assert.equal(await page.locator("[data-nobody]").isVisible(), false);
        await page.selectOption("[name=source]", "PracticePlayer");
        assert.match(await page.textContent("#stage [data-nobody]:visible"), /nobody is playing/);
        await page.check("[name=atonce]");
        await page.click("[data-go]");
        await page.waitForSelector("[data-demonstration]");
        assert.ok(await page.locator("#stage [data-nobody]").isVisible());
        assert.equal(await page.locator("[data-keep]").count(), 0);
        await page.click("[data-accept]");
        assert.equal(await page.inputValue("[name=source]"), "Microphone");
        await page.selectOption("[name=source]", "PracticePlayer");
        for (const next of ["/buzz/2", "/tone/1", "/slurs/4"]) {
          await page.goto(address + next);
          await page.waitForSelector("[data-go]:enabled");
          assert.equal(await page.inputValue("[name=source]"), "Microphone", next);
        }
      });
    },
  );

  it("that was not judged is offered again after a reload, and can be let go", { timeout: 90000 }, async () => {
    await visit({ alters: true, expectErrors: true }, async (page) => {
      const cut = (route) => route.abort();
      await page.route("**/*handler=Hear*", cut);
      await play(page, "/buzz/1?drill=steady-line", "good", 160);
      await page.waitForSelector("[data-again]:visible", { timeout: 60000 });
      await page.unroute("**/*handler=Hear*", cut);
      await page.reload();
      await page.waitForSelector("[data-again]:visible");
      assert.match(await page.textContent(".transport .trouble"), /A take of \d\d:\d\d was not judged yet/);
      await page.click("[data-again]");
      await page.waitForSelector("[data-summary]");
      await page.reload();
      await page.waitForSelector("#stage svg");
      assert.equal(await page.locator("[data-again]").isVisible(), false);
    });
  });

  it("is told, and notes are drawn, where the browser's own store never answers", { timeout: 60000 }, async () => {
    await visit({ alters: true }, async (page) => {
      await page.addInitScript(() => {
        const open = indexedDB.open.bind(indexedDB);
        indexedDB.open = (...asked) => Object.assign(open(...asked), { addEventListener() {} });
      });
      await page.goto(`${address}/buzz/1?drill=steady-line`);
      await playAtOnce(page);
      await page.waitForSelector("[data-summary]");
      await page.goto(`${address}/notes/1?note=D4`);
      await page.waitForSelector(".engraved svg");
    });
  });
});

describe("the transport", () => {
  it("is one row at one place on every stop, in every size of window", { timeout: 120000 }, async () => {
    await visit({}, async (page) => {
      const first = [];
      for (const path of rows) {
        await page.goto(address + path);
        for (const [i, viewport] of sizes.entries()) {
          await page.setViewportSize(viewport);
          const where = `${path} at ${viewport.width} x ${viewport.height}`;
          assert.equal(
            await page.locator(".transport").evaluate((row) => row.scrollWidth > row.clientWidth),
            false,
            `${where} has more than its row holds`,
          );
          const here = await box(page);
          assert.deepEqual(here, (first[i] ??= here), where);
          assert.equal(here[1] + here[3], viewport.height, where);
        }
      }
    });
  });

  it("has every control on a phone, by touch alone", { timeout: 60000 }, async () => {
    await visit({ viewport: sizes[3], touch: true }, async (page) => {
      await page.goto(`${address}/buzz/1?drill=sound4-rest4`);
      assert.equal(await page.locator("[name=drill]").isVisible(), false);
      await page.tap("[data-more]");
      for (const name of ["drill", "on", "tempo", "source", "tense"]) assert.ok(await page.locator(`[name=${name}]`).isVisible(), name);
      await page.selectOption("[name=source]", "PracticePlayer");
      await page.check("[name=atonce]");
      await page.tap("[data-go]");
      await page.waitForSelector("[data-summary]");
      const { y, height } = await page.locator("[data-next]").boundingBox();
      assert.ok(y + height < sizes[3].height - 84, `the next step ends at ${y + height}`);
      await page.tap("[data-path]");
      await page.tap(".path a[data-key='5']");
      await page.waitForURL(/\/tone\/1/);
    });
  });

  for (const path of ["/buzz/1", "/tone/1", "/slurs/4", "/breath/1"])
    it(`leaves no drawn text under 11 px on a phone: ${path}`, { timeout: 60000 }, async () => {
      await visit({ viewport: sizes[3] }, async (page) => {
        await page.goto(address + path);
        const smallest = await page.evaluate(() =>
          Math.min(
            99,
            ...[...document.querySelectorAll("#stage svg text")]
              .filter((text) => text.getClientRects().length > 0)
              .map((text) => parseFloat(getComputedStyle(text).fontSize) * text.getScreenCTM().a),
          ),
        );
        assert.ok(smallest >= 11, `drawn text of ${smallest} px`);
      });
    });
});
