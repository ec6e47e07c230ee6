// The note path on the keyboard alone.
import assert from "node:assert/strict";
import { describe, it } from "node:test";
import { address, visit, withApp } from "./app.mjs";

withApp();

describe("notes", () => {
  it("can be found, fingered, heard and saved without a mouse", { timeout: 60000 }, async () => {
    await visit({}, async (page) => {
      await page.goto(address);
      await page.keyboard.press("/");
      await page.keyboard.type("raf");
      await page.keyboard.press("Enter");
      await page.waitForURL(/\/buzz\/\d+/);
      await page.keyboard.press("6");
      await page.waitForURL(/\/notes\/\d+/);
      await page.waitForSelector(".engraved svg g.note.chosen");
      const first = await page.textContent("#note-title");
      await page.keyboard.press("ArrowRight");
      await page.waitForFunction((old) => document.querySelector("#note-title").textContent !== old, first);
      assert.match(page.url(), /note=F4/);
      await page.waitForSelector(".engraved svg g.note.chosen");
      await page.keyboard.press("k");
      await page.waitForFunction(() => document.querySelector(".tried").textContent.includes("nearest is E4"));
      await page.keyboard.press("h");
      await page.waitForFunction(() => window.Tone?.getContext().state === "running");
      await page.keyboard.press("Enter");
      await page.waitForSelector("text=F4 is saved");
    });
  });

  it("are engraved for every instrument, a slide drawn where there is one", { timeout: 60000 }, async () => {
    await visit({}, async (page) => {
      for (const [pupil, drawn] of [
        [1, ".valves"],
        [2, ".valves"],
        [3, "svg.slide"],
        [4, ".valves"],
        [5, ".valves"],
      ]) {
        await page.goto(`${address}/notes/${pupil}`);
        await page.waitForSelector(".engraved svg g.note.chosen");
        assert.equal(await page.locator(drawn).count(), 1);
        assert.equal(await page.locator(".rungs .wanted").count(), 1);
      }
    });
  });

  it("print a whole chart on one page, A4 or Letter", { timeout: 90000 }, async () => {
    await visit({}, async (page) => {
      for (const pupil of [1, 3, 6]) {
        await page.goto(`${address}/notes/${pupil}/chart?whole=true&others=true`);
        await page.waitForSelector(".engraved-lines .engraved svg g.note");
        for (const format of ["A4", "Letter"]) {
          const pdf = (await page.pdf({ format, margin: { top: "10mm", bottom: "10mm", left: "10mm", right: "10mm" } })).toString("latin1");
          assert.equal(pdf.match(/\/Type \/Page\b(?!s)/g).length, 1, `pupil ${pupil} on ${format}`);
        }
      }
    });
  });

  it("show every rung of every tube, and the tube under the hand", { timeout: 60000 }, async () => {
    await visit({}, async (page) => {
      await page.goto(`${address}/notes/1/tube`);
      assert.equal(await page.locator(".column").count(), 8);
      for (const key of ["j", "k", "l"]) await page.keyboard.press(key);
      await page.waitForFunction(() => document.querySelector(".hand [data-now]").textContent === "Valves 1, 2 and 3");
      assert.equal(await page.textContent(".hand [data-cm]"), "203 cm");
      await page.keyboard.press("ArrowLeft");
      await page.waitForFunction(() => document.querySelector(".hand [data-now]").textContent === "Valves 1 and 3");
    });
  });

  it("measure the slide at the pointer, and stop at the arm", { timeout: 60000 }, async () => {
    await visit({}, async (page) => {
      await page.goto(`${address}/notes/3/slide`);
      await page.locator("[data-pointer]").fill("26");
      await page.waitForFunction(() => document.querySelector("#under [data-words]").textContent === "position 4");
      assert.equal(await page.locator("#under [data-far]").isHidden(), true);
      await page.locator("[data-pointer]").fill("46");
      await page.waitForFunction(() => document.querySelector("#under [data-words]").textContent === "position 6");
      assert.equal(await page.locator("#under [data-far]").isVisible(), true);
    });
  });

  it("are read in tenor clef once it is chosen, and the Desk speaks plainly", { timeout: 60000 }, async () => {
    await visit({}, async (page) => {
      await page.goto(`${address}/`);
      assert.match(await page.locator(".bench tr", { hasText: "Kofi" }).textContent(), /B♭3 to D4, open: one note too high, F4 came\./);
      const read = async (clef) => {
        await page.goto(`${address}/pupils/3`);
        await page.selectOption("[data-reading]", clef);
        await page.click(".sheet .btn-primary");
        await page.waitForSelector("text=is saved");
        await page.goto(`${address}/pupils/3`);
        assert.equal(await page.inputValue("[data-reading]"), clef);
        await page.goto(`${address}/notes/3?note=F3`);
        return page.evaluate(() => JSON.parse(document.querySelector("[data-score]").textContent).match(/<sign>(.)<\/sign>/)[1]);
      };
      assert.equal(await read("tenor"), "C");
      assert.equal(await read("bass"), "F");
    });
  });

  it("are called as the pupil's approach has it, and typed as ever", { timeout: 60000 }, async () => {
    await visit({}, async (page) => {
      await page.goto(`${address}/approach/1`);
      await page.check("[name='point.words.notes'][value=b]");
      await page.click("text=Use this approach");
      await page.goto(`${address}/notes/1?note=B4`);
      await page.waitForFunction(() => /\bH4\b/.test(document.querySelector("#stage").textContent));
      await page.goto(`${address}/notes/1?note=Bb4`);
      await page.waitForFunction(() => /\bB4\b/.test(document.querySelector("#stage").textContent));
      assert.doesNotMatch(await page.textContent("#stage"), /B♭4|\bH4\b/);
      assert.equal(await page.inputValue("#another"), "Bb4");
      // What a script brings in is called so as well.
      await page.goto(`${address}/tone/1?drill=what-came&notes=B4`);
      await page.waitForFunction(() => /\bH4\b/.test(document.querySelector("#stage").textContent));
      await page.goto(`${address}/approach/1`);
      await page.check("[name='point.words.notes'][value='']");
      await page.click("text=Use this approach");
      await page.goto(`${address}/notes/1?note=B4`);
      assert.match(await page.textContent("#stage"), /\bB4\b/);
    });
  });

  it("are called out to a class, note by note", { timeout: 60000 }, async () => {
    await visit({}, async (page) => {
      await page.goto(`${address}/notes/class?shape=SemitonesDown&start=F`);
      await page.waitForSelector(".engraved-lines .engraved svg g.note");
      const tomas = page.locator(".class-table tr", { hasText: "Tomas" });
      assert.match(await tomas.textContent(), /G4/);
      await page.keyboard.press("Space");
      await page.keyboard.press("ArrowRight");
      await page.waitForFunction(() => document.querySelector("[data-at].current").dataset.at === "1");
      assert.equal(await tomas.locator("li:visible").count(), 1);
      assert.match(await tomas.locator("li:visible").textContent(), /F♯4/);
      await page.keyboard.press("Escape");
      assert.ok((await tomas.locator("li:visible").count()) > 1);
      // What is left out stands as a rest that is seen.
      await page.goto(`${address}/notes/class?shape=MajorScale&start=Bb`);
      await page.waitForSelector(".engraved-lines .engraved svg g.rest use");
      assert.ok(await page.locator(".engraved-lines g.rest use").first().isVisible());
    });
  });

  const fingers = { 1: "j", 2: "k", 3: "l", 4: ";" };
  const valves = (setting) => (setting === "0" ? [] : setting.split("-"));
  // What is asked, as the page was told it.
  const listen = (page) =>
    page.waitForResponse((response) => response.url().includes("handler=Prompts")).then((response) => response.json());

  it("come in the teacher's own order, moved by keys and kept", { timeout: 60000 }, async () => {
    await visit({}, async (page) => {
      await page.goto(`${address}/notes/7/first`);
      const order = () => page.$$eval(".note-order li", (rows) => rows.map((row) => row.dataset.note).join(" "));
      const before = await order();
      await page.focus("[aria-label='D4 earlier']");
      await page.keyboard.press("Enter");
      await page.click("[aria-label='leave out F4']");
      await page.fill("#added", "A4");
      await page.keyboard.press("Enter");
      assert.equal(await order(), "G4 D4 E4 C4 A4");
      await page.click("[data-keep]");
      await page.waitForSelector(".told");
      assert.equal(await order(), "G4 D4 E4 C4 A4");
      await page.click(".told button");
      await page.waitForSelector(".told");
      assert.equal(await order(), before);
    });
  });

  it("train the hand on the keyboard alone", { timeout: 60000 }, async () => {
    await visit({}, async (page) => {
      await page.goto(`${address}/notes/7/hand?drill=by-note`);
      const asked = listen(page);
      await page.keyboard.press("Space");
      const { prompts } = await asked;
      for (const [i, prompt] of prompts.entries()) {
        await page.waitForFunction((text) => document.querySelector("[data-count]").textContent.startsWith(text), `${i + 1}/`);
        await page.waitForSelector("[data-note] svg g.note");
        // One of them is missed on purpose.
        const keys = i === 2 ? ["j", "k", "l"] : valves(prompt.answer).map((valve) => fingers[valve]);
        for (const key of keys) await page.keyboard.down(key);
        await page.keyboard.press("Space");
        for (const key of keys) await page.keyboard.up(key);
      }
      await page.waitForSelector("[data-done]");
      assert.match(await page.textContent("[data-summary]"), new RegExp(`${prompts[2].accepted.includes("1-2-3") ? 16 : 15} of 16 right`));
      assert.match(await page.textContent(".history"), /From the written note/);
    });
  });

  it("train the hand by touch on a phone", { timeout: 60000 }, async () => {
    await visit({ viewport: { width: 390, height: 844 } }, async (page) => {
      await page.goto(`${address}/notes/7/hand?drill=called`);
      const asked = listen(page);
      await page.click("[data-go]");
      const { prompts } = await asked;
      for (const [i, prompt] of prompts.entries()) {
        await page.waitForFunction((text) => document.querySelector("[data-count]").textContent.startsWith(text), `${i + 1}/`);
        for (const valve of valves(prompt.answer)) await page.click(`[data-valve="${valve}"]`);
        await page.click("[data-give]");
      }
      await page.waitForSelector("[data-done]");
      assert.match(await page.textContent("[data-summary]"), /16 of 16 right/);
      await page.waitForSelector("[data-onward]:visible");
    });
  });

  it("train the slide by eye, in centimetres", { timeout: 60000 }, async () => {
    await visit({}, async (page) => {
      await page.goto(`${address}/notes/3/hand?drill=by-eye`);
      const asked = listen(page);
      await page.keyboard.press("Space");
      const { prompts } = await asked;
      for (const [i, prompt] of prompts.entries()) {
        await page.waitForFunction((text) => document.querySelector("[data-count]").textContent.startsWith(text), `${i + 1}/`);
        await page.locator("[data-pointer]").fill(String(Math.round(2 * prompt.cm) / 2 + (i === 0 ? (prompt.cm > 10 ? -5 : 5) : 0)));
        await page.click("[data-give]");
        if (i === 0) await page.waitForFunction(() => /[45]\.\d cm too far/.test(document.querySelector("[x-text=nowWords]").textContent));
      }
      await page.waitForSelector("[data-done]");
      assert.match(await page.textContent("[data-summary]"), /9 of 10 right/);
    });
  });
});
