// Pieces: a file brought in, a line chosen, the study looked at, a note pinned, a breath forbidden, printed; one typed with a slip.
import assert from "node:assert/strict";
import { dirname, join } from "node:path";
import { describe, it } from "node:test";
import { fileURLToPath } from "node:url";
import { address, playAtOnce, visit, withApp } from "./app.mjs";

const scores = join(dirname(fileURLToPath(import.meta.url)), "..", "scores");

withApp();

const ready = (page) => page.waitForSelector(".piece[data-ready]");
const settings = (page) =>
  page.evaluate(() =>
    JSON.parse(document.querySelector("[data-plan]").textContent)
      .notes.map((note) => note.setting)
      .join(" "),
  );
const pages = async (page, format) => (await page.pdf({ format })).toString("latin1").match(/\/Type\s*\/Page[^s]/g).length;

describe("a piece", () => {
  it("is brought in, its line chosen, looked at layer by layer, settled by hand, undone and printed", { timeout: 120000 }, async () => {
    await visit({}, async (page) => {
      await page.goto(`${address}/pieces/7`);
      await page.setInputFiles("#score", join(scores, "a-score-of-three-the-second-chosen-by-name.musicxml"));
      await page.click("text=Bring it in");
      await page.waitForSelector("[data-offers]");
      await page.locator("[data-offers] tbody tr").nth(0).locator("button").click();
      await ready(page);
      // Concert C D E F is D E F sharp G on this trumpet.
      assert.equal(await settings(page), "1-3 1-2 2 0");
      assert.ok((await page.locator(".score g.notehead").count()) >= 4);
      assert.equal(await page.locator(".over .setting").count(), 6);
      for (const [layer, mark] of [
        ["phrases", ".over .phrase"],
        ["rows", ".over .row"],
        ["breaths", ".over .span"],
      ]) {
        await page.check(`[name=layer][value=${layer}]`, { force: true });
        await page.waitForSelector(`[data-ready=${layer}]`);
        assert.ok((await page.locator(mark).count()) >= 1, layer);
      }
      await page.check("[name=layer][value=none]", { force: true });
      await page.waitForSelector("[data-ready=none]");
      assert.equal(await page.locator(".over > *").count(), 0);
      await page.check("[name=layer][value=settings]", { force: true });
      // A note is tapped: why, and other ways; valve 3 is pinned for the second, and let go by undoing.
      await page.locator("[id=n1] .notehead").click({ force: true });
      await page.waitForSelector("[data-note-open]:not([hidden])");
      assert.match(await page.textContent("[data-note-name]"), /E4/);
      await page.goto(`${address}/pieces/7/3`);
      await ready(page);
      const before = await settings(page);
      const breaths = () =>
        page.evaluate(() => JSON.parse(document.querySelector("[data-plan]").textContent).breaths.map((breath) => breath.after));
      const first = (await breaths())[0];
      for (let i = 0; i <= first; i++) await page.keyboard.press("ArrowRight");
      assert.match(await page.textContent("[data-note-place]"), /Breath after it/);
      await page.click("[data-breath=no]");
      await page.waitForFunction(
        (at) => !JSON.parse(document.querySelector("[data-plan]").textContent).breaths.some((breath) => breath.after === at),
        first,
      );
      await page.click("[data-undo]");
      await page.waitForFunction(
        (at) => JSON.parse(document.querySelector("[data-plan]").textContent).breaths.some((breath) => breath.after === at),
        first,
      );
      assert.equal(await settings(page), before);
      // A breath that is barred where none stood changes nothing to be seen, and is said.
      await page.keyboard.press("ArrowRight");
      assert.equal((await breaths()).includes(first + 1), false);
      await page.click("[data-breath=no]");
      await page.waitForSelector("[data-note-place]:has-text('No breath stood here')");
      await page.click("[data-undo]");
      await page.waitForFunction(() => !document.querySelector("[data-note-place]").textContent.includes("No breath stood here"));
      await page.click("text=Fingered part");
      await page.waitForSelector("[data-part][data-ready]");
      assert.ok((await page.locator(".over .setting").count()) > 20);
      for (const format of ["A4", "Letter"]) assert.equal(await pages(page, format), 1, format);
    });
  });

  it("of many bars comes sheet by sheet as it is scrolled or stepped to, and whole on paper", { timeout: 120000 }, async () => {
    await visit({}, async (page) => {
      const note = (step) => `<note><pitch><step>${step}</step><octave>4</octave></pitch><duration>1</duration><type>quarter</type></note>`;
      const attributes = "<attributes><divisions>1</divisions><time><beats>4</beats><beat-type>4</beat-type></time></attributes>";
      const bar = (i) => `<measure number="${i}">${i === 1 ? attributes : ""}${["D", "E", "F", "E"].map(note).join("")}</measure>`;
      const bars = 220;
      const xml = [
        '<score-partwise version="4.0"><work><work-title>A Long Way Down</work-title></work>',
        '<part-list><score-part id="P1"><part-name>Part</part-name></score-part></part-list>',
        `<part id="P1">${Array.from({ length: bars }, (_, i) => bar(i + 1)).join("")}</part></score-partwise>`,
      ].join("");
      await page.goto(`${address}/pieces/7`);
      await page.setInputFiles("#score", { name: "long.musicxml", mimeType: "application/xml", buffer: Buffer.from(xml) });
      await page.click("text=Bring it in");
      await page.waitForURL(/\/pieces\/7\/\d+/);
      if (await page.locator("[data-offers]").count()) await page.locator("[data-offers] button").first().click();
      await ready(page);
      const heads = () => page.locator(".score g.notehead").count();
      const first = await heads();
      assert.ok(first > 40 && first < 4 * bars, `${first} notes at first`);
      assert.ok((await page.locator(".sheet-to-come").count()) >= 1);
      await page.locator(".sheet-to-come").last().scrollIntoViewIfNeeded();
      await page.waitForSelector(`[data-engraved] [id="n${4 * bars - 1}"]`);
      // Its marks are upon it: the last note has its setting.
      await page.waitForFunction(
        ([last, before]) => {
          const note = document.querySelector(`[data-engraved] [id="n${last}"] .notehead`)?.getBoundingClientRect();
          const marks = [...document.querySelectorAll(".over .setting")];
          return (
            note &&
            marks.length > before &&
            marks.some(
              (mark) =>
                Math.abs(mark.getBoundingClientRect().x - note.x) < 12 &&
                mark.getBoundingClientRect().y > note.y &&
                mark.getBoundingClientRect().y < note.y + 90,
            )
          );
        },
        [4 * bars - 1, first],
      );
      await page.goto(`${page.url()}/sheet?of=settings`);
      await page.waitForSelector("[data-part][data-ready]");
      assert.equal(await page.locator("[data-part] g.notehead").count(), 4 * bars);
    });
  });

  it("that was seen before is drawn without the engraver, and another is not lost when it was away", { timeout: 60000 }, async () => {
    await visit({ alters: true, expectErrors: true }, async (page) => {
      // In a browser that shares no thread each page has an engraver of its own, which is fetched anew.
      await page.addInitScript(() => delete window.SharedWorker);
      const write = (text) => `${address}/pieces/7/write?title=Seen&text=${encodeURIComponent(text)}`;
      const drawn = async () => {
        await page.waitForSelector(".typed-staff[data-ready] g.notehead");
        return page.evaluate(() => document.querySelector(".typed-staff svg").outerHTML);
      };
      await page.goto(write("4/4 q D4 E4 F4 G4 |"));
      const before = await drawn();
      await page.route("**/verovio-module.mjs", (route) => route.abort());
      await page.reload();
      assert.equal(await drawn(), before);
      // Another needs the engraver: it is asked for again once it is there.
      await page.fill("textarea", "4/4 q G4 F4 E4 D4 |");
      await page.waitForFunction(() => document.body.textContent.includes("Bocca does not answer"));
      await page.unroute("**/verovio-module.mjs");
      await page.fill("textarea", "4/4 q G4 F4 E4 C4 |");
      await page.waitForFunction((old) => document.querySelector(".typed-staff svg").outerHTML !== old, before, { timeout: 20000 });
    });
  });

  it("is drawn by one engraver, which stays on the way from page to page", { timeout: 60000 }, async () => {
    await visit({}, async (page) => {
      const browser = await page.context().browser().newBrowserCDPSession();
      const engravers = async () =>
        (await browser.send("Target.getTargets")).targetInfos
          .filter(({ type, url }) => type === "shared_worker" && url.includes("engraver"))
          .map(({ targetId }) => targetId);
      const drawn = [];
      for (const text of ["4/4 q D4 E4 F4 G4 |", "4/4 q G4 F4 E4 D4 |"]) {
        await page.goto(`${address}/pieces/7/write?title=Two&text=${encodeURIComponent(text)}`);
        await page.waitForSelector(".typed-staff[data-ready] g.notehead");
        drawn.push(...(await engravers()));
      }
      assert.equal(drawn.length, 2);
      assert.equal(drawn[0], drawn[1]);
    });
  });

  it("is drawn all the same where the shared engraver says nothing any more", { timeout: 60000 }, async () => {
    await visit({ anew: true }, async (page) => {
      await page.clock.install();
      await page.addInitScript(
        () =>
          (window.SharedWorker = class {
            port = { postMessage: () => (window.wasAsked = true) };
          }),
      );
      await page.goto(`${address}/pieces/7/write?title=Silent&text=${encodeURIComponent("4/4 q D4 E4 F4 G4 |")}`);
      await page.waitForFunction(() => window.wasAsked);
      await page.clock.fastForward(60000);
      await page.waitForFunction(() => document.body.textContent.includes("Bocca does not answer"));
      await page.fill("textarea", "4/4 q G4 F4 E4 D4 |");
      await page.waitForSelector(".typed-staff[data-ready] g.notehead");
    });
  });

  it("is pinned at a note, and stays so", { timeout: 60000 }, async () => {
    await visit({}, async (page) => {
      await page.goto(`${address}/pieces/7/write?title=Quick&text=${encodeURIComponent("4/4 =160 e D4 E4 D4 E4 D4 E4 D4 E4 |")}`);
      await page.waitForSelector(".typed-staff[data-ready] g.notehead");
      await page.click("[data-keep]");
      await ready(page);
      assert.equal(await settings(page), "1-3 3 1-3 3 1-3 3 1-3 1-2");
      await page.keyboard.press("ArrowRight");
      await page.keyboard.press("ArrowRight");
      assert.match(await page.textContent("[data-note-why]"), /Instead of 1-2: 2 fingers move instead of 4/);
      await page.click("[data-pin='1-2']");
      await page.waitForSelector("[data-pin='1-2'][aria-pressed=true]");
      assert.equal(await settings(page), "1-3 1-2 1-3 3 1-3 3 1-3 1-2");
      await page.reload();
      await ready(page);
      assert.equal(await settings(page), "1-3 1-2 1-3 3 1-3 3 1-3 1-2");
    });
  });

  it("is sung phrase by phrase before it is played", { timeout: 60000 }, async () => {
    await visit({}, async (page) => {
      await page.goto(`${address}/pieces/4`);
      await page.click("text=Low Tide Round");
      await ready(page);
      await page.focus("[data-score-box]");
      await page.keyboard.press("ArrowRight");
      await page.click("[data-sing]");
      await page.waitForSelector("[data-choices] button .engraved svg");
      const line = new URL(page.url()).searchParams.get("line").split(" ");
      assert.ok(line.length > 3 && line.every((note) => /^[A-G][b#]?\d:[\d.]+$/.test(note)), line.join(" "));
      assert.equal(await page.locator("[data-choices] button").count(), line.length);
      await page.click("[data-choices] button >> nth=-1");
      await playAtOnce(page, { character: "right", tempo: 120 });
      assert.match(await page.textContent("[data-verdict]"), /Sung right/);
    });
  });

  it("is typed by the keyboard alone; a slip is told at its place and the rest stays engraved", { timeout: 60000 }, async () => {
    await visit({}, async (page) => {
      await page.goto(`${address}/pieces/1/write`);
      await page.waitForSelector(".typed-staff[data-ready]");
      await page.focus("[name=title]");
      await page.keyboard.type("Slip");
      await page.keyboard.press("Tab");
      await page.keyboard.press("Control+A");
      await page.keyboard.type("4/4 q C4 D4 E9 F4 |");
      // E9 is a note that nobody plays on anything; H4 is no note at all.
      await page.keyboard.press("Control+A");
      await page.keyboard.type("4/4 q C4 D4 H4 F4 |");
      await page.waitForSelector("[data-slip]:visible");
      assert.match(await page.textContent("[data-slip]"), /H4.*is no note/);
      assert.equal(await page.textContent("[data-slip] mark"), "H4");
      await page.waitForFunction(() => document.querySelectorAll(".typed-staff g.notehead").length === 2);
      // Kept it cannot be: the cursor goes to the place.
      await page.keyboard.press("Tab");
      await page.keyboard.press("Tab");
      await page.keyboard.press("Enter");
      assert.equal(
        await page.evaluate(
          () =>
            getSelection().toString() ||
            document.activeElement.value.slice(document.activeElement.selectionStart, document.activeElement.selectionEnd),
        ),
        "H4",
      );
      await page.keyboard.type("E4");
      await page.waitForSelector("[data-slip]", { state: "hidden" });
      await page.waitForFunction(() => document.querySelectorAll(".typed-staff g.notehead").length === 4);
      await page.keyboard.press("Tab");
      await page.keyboard.press("Enter");
      await ready(page);
      assert.equal(await settings(page), "0 1-3 1-2 1");
    });
  });

  it("is listened to, counted in, bar by bar, and stopped", { timeout: 60000 }, async () => {
    await visit({}, async (page) => {
      await page.goto(`${address}/pieces/1/1`);
      await ready(page);
      await page.fill("[name=to]", "2");
      await page.locator("h1").click();
      await page.keyboard.press("Space");
      await page.waitForFunction(() => document.querySelector("[data-label]").textContent === "count in");
      await page.waitForFunction(
        () => document.querySelector("[data-label]").textContent === "bar" && document.querySelector(".score .sounding"),
      );
      await page.keyboard.press("Space");
      await page.waitForFunction(
        () => document.querySelector("[data-count]").textContent === "–" && !document.querySelector(".score .sounding"),
      );
    });
  });
});
