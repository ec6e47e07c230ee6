// Every form answers on its own page: nonsense is refused in a sentence beside it, and everything typed is still there.
import assert from "node:assert/strict";
import { describe, it } from "node:test";
import { address, visit, withApp } from "./app.mjs";

withApp();

const pages = [
  "/pupils/new",
  "/pupils/1",
  "/approach",
  "/approach/1",
  "/approach/bands/1",
  "/approach/drills",
  "/approach/limits",
  "/approach/cues/1?symptom=oneLow",
  "/breath/1",
  "/notes/1/first",
  "/notes/3/slide",
  "/notes/4/instrument",
  "/slurs/7/own",
  "/pieces/1",
  "/pieces/1/write",
  "/pieces/4/scale",
  "/practice/1",
  "/practice/1/lesson",
  "/practice/1/message",
  "/practice/4/week",
  "/practice/class",
  "/practice/timetable",
  "/practice/paper",
  "/notes/class",
  "/slurs/class",
];

// What nobody means: in every field that takes words.
const nonsense = "zzz 9!";

// The forms of a page that take words, by their place among all, with the fields that do; of many alike the first and the last.
const formsOf = async (page) => {
  const forms = await wordedForms(page);
  const kindOf = ({ action }) => action.replace(/\d+/g, "0").replace(/([?&](?!handler)\w+)=[^&]*/g, "$1");
  return forms.filter((form) => {
    const alike = forms.filter((other) => kindOf(other) === kindOf(form));
    return form === alike[0] || form === alike.at(-1);
  });
};

const wordedForms = (page) =>
  page.evaluate(() =>
    [...document.forms]
      .map((form, at) => ({
        at,
        action: form.getAttribute("action") ?? location.pathname,
        fields: [...form.elements]
          .filter(
            (each) =>
              each.name &&
              !each.readOnly &&
              (each.tagName === "TEXTAREA" || (each.tagName === "INPUT" && ["text", "search", "number"].includes(each.type))),
          )
          .map((each) => each.name),
        method: form.method,
      }))
      .filter(({ method, fields }) => method === "post" && fields.length > 0),
  );

describe("every form", () => {
  for (const path of pages)
    it(`answers nonsense on its own page, with all of it still there: ${path}`, { timeout: 90000 }, async () => {
      await visit({ expectErrors: true }, async (page) => {
        const open = async () => {
          await page.goto(address + path);
          await page.waitForSelector("html[data-awake]");
        };
        await open();
        for (const { at, action, fields } of await formsOf(page)) {
          await open();
          // Past what the browser itself would refuse: as a form that an older page still shows may be sent.
          await Promise.all([
            page.waitForEvent("load"),
            page.evaluate(
              ({ at, words }) => {
                const form = document.forms[at];
                for (const field of form.elements) {
                  if (!field.name || (field.tagName !== "TEXTAREA" && !["text", "search", "number"].includes(field.type))) continue;
                  if (field.tagName === "INPUT") field.type = "text";
                  field.value = words;
                }
                setTimeout(() => HTMLFormElement.prototype.submit.call(form));
              },
              { at, words: nonsense },
            ),
          ]);
          await page.waitForSelector("html[data-awake]", { timeout: 5000 }).catch(() => {});
          const body = await page.evaluate(() => ({
            type: document.contentType,
            frame: !!document.querySelector(".frame"),
            told: document.querySelector(".told")?.textContent.trim(),
            alert: [...document.querySelectorAll(".trouble, .field-validation-error, [role=alert]")]
              .map((each) => each.textContent.trim())
              .filter(Boolean)
              .join(" "),
          }));
          assert.ok(body.frame, `${action} answered without a page`);
          // What takes any words has taken them, and says so.
          if (body.told && !body.alert) continue;
          assert.ok(body.alert.length > 5 && body.alert.length < 400, `${action} says ${JSON.stringify(body.alert)}`);
          const kept = await page.evaluate(
            (words) => [...document.querySelectorAll("input, textarea")].filter((each) => each.value === words).length,
            nonsense,
          );
          assert.ok(kept >= 1, `${action}: nothing typed is left of ${fields.join(", ")}`);
        }
      });
    });
});

describe("a form that was refused", () => {
  it("has what is wrong beside its field, and everything in it", { timeout: 60000 }, async () => {
    await visit({ expectErrors: true }, async (page) => {
      await page.goto(`${address}/practice/timetable`);
      const form = page.locator("form[action*='handler=Add']");
      await form.locator("[name=minutes]").fill("half an hour");
      await form.locator("[name=start]").fill("17:10");
      await form.locator("button").click();
      await page.waitForSelector("[data-refused-form]");
      assert.match(await page.textContent("[data-refused-form]"), /'half an hour' cannot be the minutes/);
      assert.equal(await form.locator("[name=minutes]").inputValue(), "half an hour");
      assert.equal(await form.locator("[name=start]").inputValue(), "17:10");
      assert.equal(await page.evaluate(() => document.activeElement.name), "minutes");
      assert.equal(await form.locator("[data-refused-form]").count(), 1);
      // A calendar that is none: said beside the chooser.
      await page.setInputFiles("[name=calendar]", {
        name: "list.ics",
        mimeType: "text/calendar",
        buffer: Buffer.from("two pints of milk"),
      });
      await page.click("text=Read it");
      await page.waitForSelector("form[enctype] [data-refused-form]");
      assert.match(await page.textContent("[data-refused-form]"), /calendar/);
    });
  });

  it("shows a slip of notation at its place in the text", { timeout: 60000 }, async () => {
    await visit({ expectErrors: true }, async (page) => {
      await page.goto(`${address}/pieces/1/write`);
      await page.fill("[name=title]", "Ferry Bell");
      await page.fill("textarea[name=text]", "4/4 Bb: q F4 e G4 A4 x9");
      await page.waitForSelector("[data-slip] mark:text('x9')");
      await page.evaluate(() => setTimeout(() => HTMLFormElement.prototype.submit.call(document.querySelector(".write-piece form"))));
      await page.waitForSelector("[data-refused-form]");
      assert.equal(await page.inputValue("[name=title]"), "Ferry Bell");
      assert.equal(await page.inputValue("textarea[name=text]"), "4/4 Bb: q F4 e G4 A4 x9");
      await page.waitForSelector("[data-slip] mark:text('x9')");
      // The README's tune as it stands there is kept.
      await page.fill("textarea[name=text]", "4/4 Bb: q F4 e G4 A4");
      await page.waitForSelector("[data-slip]", { state: "hidden" });
      await page.click("[data-keep]");
      await page.waitForURL(/\/pieces\/1\/\d+$/);
    });
  });
});
