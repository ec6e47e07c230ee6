// A whole Thursday of a teacher: the Desk, before the lesson, the lesson with two stops and a remark, the week changed by hand, the message
// for a mail program, the sheet on paper, the class by touch; and a lesson by the keyboard alone.
import assert from "node:assert/strict";
import { readFileSync } from "node:fs";
import { describe, it } from "node:test";
import ICAL from "ical.js";
import { address, playAtOnce, visit, withApp } from "./app.mjs";

withApp();

const pagesOf = (pdf) => pdf.toString("latin1").match(/\/Type \/Page\b(?!s)/g).length;
const roundsOn = (page, item) =>
  page.locator(`[data-round="${item}"]`).evaluateAll((rounds) => rounds.map((round) => Number(round.closest("[data-day]").dataset.day)));
const downloaded = async (page, press) => {
  const waiting = page.waitForEvent("download");
  await press();
  return readFileSync(await (await waiting).path(), "utf8");
};

describe("a teacher's day", () => {
  it("goes from the Desk over two stops and a remark to the week, the sheet and the message", { timeout: 240000 }, async () => {
    await visit({}, async (page) => {
      await page.goto(address);
      const lessons = page.locator("[data-today] li");
      assert.equal((await lessons.count()) >= 3, true);
      await lessons.locator("a", { hasText: "Tomas Oduya" }).click();
      await page.waitForURL(/\/practice\/\d+$/);
      const id = page.url().match(/\d+$/)[0];
      assert.match(await page.textContent("[data-first]"), /Lips together just before/);
      assert.equal(
        (await page.locator(".agenda li b").allTextContents()).reduce((sum, part) => sum + Number(part), 0),
        30,
      );

      await page.click("[data-accept]");
      await page.waitForURL(/\/lesson$/);
      await page.click("[data-next-part]");
      await page.waitForURL(/\/buzz\/\d+\?drill=sound4-rest4/);
      await playAtOnce(page, { character: "air-first", tempo: 160 });
      await page.click("[data-keep]");
      await page.waitForSelector("text=The take is saved.");
      assert.match(await page.textContent("[data-lesson-strip]"), /of 30 min/);
      await page.keyboard.press("m");
      await page.fill("#lesson-note [name=words]", "Breathes through the nose.");
      await page.keyboard.press("Enter");
      await page.waitForSelector("text=Noted.");
      await page.click("[data-next-part]");
      await page.waitForURL(/\/tone\/\d+/);
      await page.waitForSelector("[data-go]:not([disabled])");
      await playAtOnce(page, { tempo: 120 });
      await page.click("[data-keep]");
      await page.waitForSelector("text=is saved");

      await page.goto(`${address}/practice/${id}/lesson`);
      assert.match(await page.textContent(".in-lesson"), /Breathes through the nose/);
      assert.equal((await page.locator(".in-lesson li").count()) >= 3, true);
      await page.click(".end summary");
      await page.fill("[name=good]", "Three of four began at once.");
      await page.check("[name=stowed]");
      await page.check("[name=latched]");
      await page.click("[data-end]");
      await page.waitForURL(/\/week$/);

      // By hand: a round to another day, two swapped, one taken out; then handed over.
      const item = "tone:open-pair";
      const before = await roundsOn(page, item);
      const free = [0, 1, 2, 3, 4, 5].find((day) => !before.includes(day) && before.includes(day - 1));
      await page.locator(`[data-day="${free - 1}"] [data-round="${item}"] [data-pick]`).click();
      await page.click("[data-week-hand] [data-move='1']");
      await page.waitForURL(/lock=/);
      assert.deepEqual((await roundsOn(page, item)).sort(), [...before.filter((day) => day !== free - 1), free].sort());
      // What else had to move is said, and one key takes it all back.
      assert.match(await page.textContent("[data-moved-by-hand]:visible"), /Nothing else moved|To make room: /);
      const moved = page.url();
      await page.keyboard.press("z");
      await page.waitForURL((url) => !url.searchParams.has("lock"));
      assert.deepEqual(await roundsOn(page, item), before);
      await page.goto(moved);
      const from = page.locator(`[data-day="${free}"] [data-round="${item}"] [data-pick]`);
      const to = page.locator(`[data-day="6"]`);
      await from.dragTo(to);
      await page.waitForLoadState();
      // The day has no minutes: the plan says that it cannot be, and why.
      await page.waitForSelector("[data-refused]");
      assert.match(await page.textContent("[data-refused]"), /cannot be on \w+day: the day has not that many minutes/);
      await page.goBack();
      await page.locator("[data-round='breath:even-stream'] [data-pick]").first().focus();
      const streams = (await roundsOn(page, "breath:even-stream")).length;
      await page.keyboard.press("Delete");
      await page.waitForFunction((old) => document.querySelectorAll("[data-round='breath:even-stream']").length === old - 1, streams);
      await page.click(".week .deeds [data-accept]");
      await page.waitForSelector("text=The week is handed over.");
      const calendar = new ICAL.Component(ICAL.parse(await downloaded(page, () => page.click("text=For a calendar"))));
      const days = calendar.getAllSubcomponents("vevent").map((event) => new ICAL.Event(event));
      assert.equal(days.length, await page.locator("[data-day]:has([data-round])").count());
      assert.equal(
        days.every((day) => day.startDate.isDate && /counts at/.test(day.description)),
        true,
      );

      await page.click("[data-sheet]");
      await page.waitForSelector("[data-engraved]");
      assert.equal((await page.locator(".small-staff svg g.note").count()) > 3, true);
      for (const format of ["A4", "Letter"])
        assert.equal(pagesOf(await page.pdf({ format, margin: { top: "10mm", bottom: "10mm", left: "10mm", right: "10mm" } })), 1, format);

      await page.goto(`${address}/practice/${id}/message`);
      assert.match(await page.inputValue("#body"), /three of four began at once/);
      await page.fill("#to", "tomas@example.org");
      await page.fill("#guardian", "guardian@example.org");
      const mail = await downloaded(page, () => page.click("[data-eml]"));
      assert.match(mail, /^To: tomas@example\.org\r?$/m);
      assert.match(mail, /^Cc: guardian@example\.org\r?$/m);
      assert.match(mail, /began at once/);
      await page.goto(`${address}/practice/${id}/term`);
      assert.match(await page.textContent("[data-term]"), /2 lessons/);
      for (const format of ["A4", "Letter"])
        assert.equal(pagesOf(await page.pdf({ format, margin: { top: "10mm", bottom: "10mm", left: "10mm", right: "10mm" } })), 1, format);
    });
  });

  it("is begun, led and ended by the keyboard alone", { timeout: 120000 }, async () => {
    await visit({}, async (page) => {
      await page.goto(`${address}/practice/7`);
      await page.keyboard.press("Enter");
      await page.waitForURL(/\/lesson$/);
      await page.keyboard.press("Enter");
      await page.waitForURL(/\/tone\/7/);
      await page.keyboard.press("g");
      await page.waitForURL(/\/buzz\/7/);
      await page.keyboard.press("m");
      await page.keyboard.type("Tense today.");
      await page.keyboard.press("Enter");
      await page.waitForSelector("text=Noted.");
      await page.keyboard.press("0");
      await page.waitForURL(/\/practice\/7$/);
      await page.keyboard.press("Enter");
      await page.waitForURL(/\/lesson$/);
      await page.locator(".end summary").focus();
      await page.keyboard.press("Enter");
      await page.locator("[data-end]").focus();
      await page.keyboard.press("Enter");
      await page.waitForURL(/\/week$/);
      const rounds = page.locator("[data-round] [data-pick]");
      await rounds.nth(2).focus();
      const [item, day] = await rounds
        .nth(2)
        .evaluate((pick) => [pick.closest("[data-round]").dataset.round, Number(pick.closest("[data-day]").dataset.day)]);
      await page.keyboard.press("l");
      await page.waitForURL(/lock=/);
      assert.match(await page.locator(`[data-day="${day}"] [data-round="${item}"]`).textContent(), /by hand/);
      // What was picked is picked still.
      assert.equal(await page.locator("[data-pick]:focus").evaluate((pick) => pick.closest("[data-round]").dataset.round), item);
    });
  });

  it("reads its timetable back with another reader", { timeout: 60000 }, async () => {
    await visit({}, async (page) => {
      await page.goto(`${address}/practice/timetable`);
      const rows = await page.locator("[data-slot]").count();
      const calendar = new ICAL.Component(ICAL.parse(await downloaded(page, () => page.click("[data-ics]"))));
      const events = calendar.getAllSubcomponents("vevent").map((event) => new ICAL.Event(event));
      const lessons = events.filter((event) => !event.startDate.isDate);
      assert.equal(lessons.length, rows);
      const group = lessons.find((event) => event.summary === "Thursday beginners");
      assert.equal(group.startDate.dayOfWeek(), ICAL.Time.THURSDAY);
      assert.equal(`${group.startDate.hour}:${group.startDate.minute}`, "17:30");
      assert.equal(group.duration.toSeconds(), 45 * 60);
      // Four weeks on it is a Thursday still, and none of them lies in the holidays.
      const times = group.iterator();
      const holiday = events.find((event) => event.startDate.isDate);
      for (let week = 0; week < 40; week++) {
        const next = times.next();
        assert.equal(next.dayOfWeek(), ICAL.Time.THURSDAY);
        const off =
          next.compareDateOnlyTz(holiday.startDate, ICAL.Timezone.localTimezone) >= 0 &&
          next.compareDateOnlyTz(holiday.endDate, ICAL.Timezone.localTimezone) < 0;
        assert.equal(off, false, String(next));
      }
    });
  });

  it("takes the class round the room by touch, with undo, and shows the wall no mark", { timeout: 120000 }, async () => {
    await visit({ viewport: { width: 1024, height: 768 }, touch: true }, async (page) => {
      await page.goto(`${address}/practice/class`);
      assert.equal(await page.locator("[data-seat]").count(), 6);
      const wall = await page.context().newPage();
      await wall.goto(address + (await page.getAttribute("[data-wall]", "href")));
      assert.equal(await wall.textContent(".wall-turn"), "Tomas");
      await page.locator("[data-seat]").nth(0).locator("[data-mark=Came]").tap();
      await page.waitForSelector("text=Tomas: came.");
      await page.locator("[data-seat]").nth(1).locator("[data-mark=NotYet]").tap();
      await page.waitForSelector("text=Wren: not yet.");
      assert.match(await page.textContent("[data-remedy]"), /Wren/);
      await wall.waitForFunction(() => document.querySelector(".wall-turn").textContent === "Ines");
      assert.doesNotMatch(await wall.textContent("body"), /came|not yet|partly|absent|cents/i);
      await page.locator(".told button").tap();
      await page.waitForSelector("text=The mark is taken back.");
      assert.equal(await page.locator("[data-remedy]").count(), 0);
      await page.locator("[data-turns]").tap();
      await page.waitForURL(/\/tone\/\d+/);
      assert.match(await page.textContent("[data-round-strip]"), /Wren's turn/);
      await page.locator("[data-round-strip] button", { hasText: "came" }).tap();
      await page.waitForFunction(() => /Ines's turn/.test(document.querySelector("[data-round-strip]")?.textContent ?? ""));
    });
  });
});
