// Scores written for every instrument, read back by two independent readers: what sounds is what was meant.
import assert from "node:assert/strict";
import { spawn } from "node:child_process";
import { mkdtempSync, readFileSync, rmSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { dirname, join } from "node:path";
import { after, describe, it } from "node:test";
import { createInterface } from "node:readline";
import { fileURLToPath } from "node:url";
import midiFiles from "@tonejs/midi";
import createVerovio from "verovio/wasm";
import { VerovioToolkit } from "verovio/esm";
import { bocca } from "./app.mjs";

const here = dirname(fileURLToPath(import.meta.url));
const folder = mkdtempSync(join(tmpdir(), "bocca-scores-"));
const names = ["C", "D", "E", "F", "G", "A", "B"];
const midiOf = (name) => {
  const [, letter, alter, octave] = /^([A-G])([#b]*)(-?\d)$/.exec(name);
  return 12 * (Number(octave) + 1) + [0, 2, 4, 5, 7, 9, 11][names.indexOf(letter)] + (alter.startsWith("#") ? alter.length : -alter.length);
};
const sounding = (bytes) =>
  new midiFiles.Midi(bytes).tracks.map((track) => track.notes.map((note) => note.midi)).filter((notes) => notes.length > 0);

let toolkit;
async function byVerovio(xml) {
  toolkit ??= new VerovioToolkit(await createVerovio());
  toolkit.setOptions({ breaks: "none" });
  assert.ok(toolkit.loadData(xml));
  return sounding(Buffer.from(toolkit.renderToMIDI(), "base64"));
}

// The second reader wants a process of its own, and no score put away before the last is read: what it plays of every score, and the
// score as that program writes it itself. It is asked and answers a line at a time, between whatever else it prints.
const reader = `
  import WebMscore from "webmscore";
  import { readFileSync } from "node:fs";
  import { createInterface } from "node:readline";
  await WebMscore.ready;
  for await (const files of createInterface({ input: process.stdin })) {
    const out = [];
    for (const file of JSON.parse(files)) {
      const score = await WebMscore.load("xml", new Uint8Array(readFileSync(file)), [], false);
      out.push([await score.saveMidi(true, true), await score.saveXml()].map((saved) => Buffer.from(saved).toString("base64")));
    }
    console.log("@@" + JSON.stringify(out));
  }`;
const webmscore = spawn("node", ["--no-experimental-fetch", "--no-warnings", "--input-type=module", "-e", reader], {
  cwd: here,
  stdio: ["pipe", "pipe", "ignore"],
});
const told = createInterface({ input: webmscore.stdout })[Symbol.asyncIterator]();

// Syllables and numbers under the notes are text: they sound as nothing, and to lay them out takes the second reader most of its time. It
// reads them as they are where what it writes again is looked at, and on the first of many sheets.
function withoutText(files) {
  return files.map((file, i) => {
    if (i === 0) return file;
    const plain = file.replace(".musicxml", "-plain.musicxml");
    writeFileSync(plain, readFileSync(file, "utf8").replace(/<lyric[\s\S]*?<\/lyric>/g, ""));
    return plain;
  });
}

async function byWebmscore(files) {
  webmscore.stdin.write(`${JSON.stringify(files)}\n`);
  for (;;) {
    const { value, done } = await told.next();
    assert.ok(!done, "webmscore ended");
    if (!value.startsWith("@@")) continue;
    const saved = JSON.parse(value.slice(2)).map((each) => each.map((file) => Buffer.from(file, "base64")));
    return saved.map(([midi, xml]) => ({ sounding: sounding(midi), rewritten: xml.toString("utf8") }));
  }
}

describe("scores", () => {
  after(() => {
    webmscore.kill();
    rmSync(folder, { recursive: true, force: true });
  });

  it("of every instrument's chart sound as they should in two other readers", { timeout: 300000 }, async () => {
    const instruments = JSON.parse(await bocca("instruments", "--json")).instruments;
    const charts = [];
    for (const [id, reading] of instruments.flatMap(({ id, readings }) => readings.map((reading) => [id, reading.id ?? reading]))) {
      const file = join(folder, `${id}-${reading}.musicxml`);
      const { notes } = JSON.parse(await bocca("chart", "--instrument", id, "--reading", reading, "--out", file, "--json"));
      charts.push({ file, meant: notes.map((note) => midiOf(note.sounding)) });
    }
    assert.ok(charts.length > 30);
    const other = await byWebmscore(withoutText(charts.map((chart) => chart.file)));
    for (const [i, { file, meant }] of charts.entries()) {
      assert.deepEqual((await byVerovio(readFileSync(file, "utf8")))[0], meant, `${file} in verovio`);
      assert.deepEqual(other[i].sounding[0], meant, `${file} in webmscore`);
    }
  });

  it("of slurs sound on every instrument as they should, and the MIDI file alike", { timeout: 300000 }, async () => {
    const instruments = JSON.parse(await bocca("instruments", "--json")).instruments;
    const sheets = [];
    for (const { id } of instruments) {
      const file = join(folder, `${id}-slurs.musicxml`);
      const { slurs } = JSON.parse(await bocca("slurs", "--instrument", id, "--level", "12", "--out", file, "--json"));
      await bocca("slurs", "--instrument", id, "--level", "12", "--out", `${file}.mid`);
      sheets.push({ file, meant: slurs.flatMap((slur) => slur.sounding.map(midiOf)) });
    }
    const other = await byWebmscore(withoutText(sheets.map((sheet) => sheet.file)));
    for (const [i, { file, meant }] of sheets.entries()) {
      assert.ok(meant.length > 5);
      assert.deepEqual((await byVerovio(readFileSync(file, "utf8")))[0], meant, `${file} in verovio`);
      assert.deepEqual(other[i].sounding[0], meant, `${file} in webmscore`);
      assert.deepEqual(sounding(readFileSync(`${file}.mid`))[0], meant, `${file}.mid`);
    }
  });

  // What was typed in every sign there is: the same pitches at the same moments, and every sign in the other reader's own file.
  it("of a typed piece are the same to the last sign in two other readers", { timeout: 120000 }, async () => {
    const [text, file] = [join(folder, "typed.txt"), join(folder, "typed.musicxml")];
    writeFileSync(
      text,
      [
        '6/8 Eb: =60 p "Gently" (q. Bb4 e C5 D5 Eb5) | q. F4~ F4 | < s Bb4 C5 D5 Eb5 F5 Eb5 > e D5. C5> Bb4- =',
        "3/4 q G4! F4 r | q. A4 3{s G4 A4 B4} q /E5 D5 , || 4/4 Bb: =100 ff [Bb7] h.. Bb4^ e A4 | R | w Bb4@ |",
      ].join(" | "),
    );
    const { notes } = JSON.parse(await bocca("plan", text, "--instrument", "trumpet-c", "--breath", "20", "--out", file, "--json"));
    const moments = (tracks) => tracks.map((track) => [track.midi, Math.round(track.time * 100) / 100]);
    const meant = notes.map((note) => [midiOf(note.sounding), Math.round(note.seconds * 100) / 100]);
    const near = (found, who) => {
      // Grace notes sound too, and steal time before the beat.
      const own = found.filter(([midi], i) => !(midi === 76 && found[i + 1]?.[0] === 74 && found[i + 1][1] - found[i][1] < 0.3));
      assert.deepEqual(
        own.map(([midi]) => midi),
        meant.map(([midi]) => midi),
        who,
      );
      for (const [i, [, at]] of own.entries())
        assert.ok(Math.abs(at - meant[i][1]) < 0.2, `${who}: note ${i} at ${at}, not ${meant[i][1]}`);
    };
    toolkit ??= new VerovioToolkit(await createVerovio());
    toolkit.setOptions({ breaks: "none" });
    assert.ok(toolkit.loadData(readFileSync(file, "utf8")));
    near(moments(new midiFiles.Midi(Buffer.from(toolkit.renderToMIDI(), "base64")).tracks.flatMap((track) => track.notes)), "verovio");
    const picture = toolkit.getMEI();
    for (const sign of [
      "<slur",
      "<tie",
      "<hairpin",
      "<tuplet",
      "<artic ",
      "<fermata",
      "<dynam",
      "<harm",
      "<tempo",
      "<dir",
      "grace=",
      "<fing",
      'dots="2"',
      "<mRest",
    ])
      assert.ok(picture.includes(sign), `verovio lacks ${sign}`);
    const again = (await byWebmscore([file]))[0].rewritten;
    for (const sign of [
      "<slur",
      "<tied",
      "<wedge",
      "<tuplet",
      "<staccato",
      "<accent",
      "<tenuto",
      "<strong-accent",
      "<staccatissimo",
      "<fermata",
      "<ff",
      "<harmony",
      "<metronome",
      "<words",
      "<grace",
      "<fingering",
      "<breath-mark",
      "<dot",
    ])
      assert.ok(again.includes(sign), `webmscore lacks ${sign}`);
    writeFileSync(join(folder, "again.musicxml"), again);
    const second = JSON.parse(await bocca("plan", join(folder, "again.musicxml"), "--instrument", "trumpet-c", "--breath", "20", "--json"));
    assert.deepEqual(
      second.notes.map((note) => [note.sounding, note.setting, note.measure]),
      notes.map((note) => [note.sounding, note.setting, note.measure]),
    );
  });

  // By other programs' conventions: read, planned, written back; the same notes as before, and our marks there, for both readers.
  it("that others wrote keep everything when they are fingered and breathed", { timeout: 300000 }, async () => {
    const index = JSON.parse(readFileSync(join(here, "..", "scores", "index.json"), "utf8"));
    // Time by time is read by neither of the two; what we make of such a file is held by the tests of the core.
    const files = [];
    for (const [name, { notes, part }] of Object.entries(index).filter(([name]) => name !== "written-time-by-time")) {
      const [from, to] = [join(here, "..", "scores", `${name}.musicxml`), join(folder, `${name}-marked.musicxml`)];
      const choice = part ? ["--part", part] : [];
      const plan = JSON.parse(await bocca("plan", from, "--instrument", "horn-f", "--breath", "20", ...choice, "--out", to, "--json"));
      assert.equal(plan.notes.map((note) => note.written).join(" "), notes, name);
      files.push({ name, from, to, choice, plan });
    }
    assert.ok(files.length >= 20);
    const read = await byWebmscore([...files.map((file) => file.from), ...files.map((file) => file.to)]);
    const [before, after] = [read.slice(0, files.length), read.slice(files.length)];
    for (const [i, { name, from, to, choice, plan }] of files.entries()) {
      assert.deepEqual(after[i].sounding, before[i].sounding, `${name} in webmscore`);
      const meant = await byVerovio(readFileSync(from, "utf8"));
      assert.deepEqual(await byVerovio(readFileSync(to, "utf8")), meant, `${name} in verovio`);
      // A score without any attributes it does not read at all.
      assert.ok(
        name.startsWith("no-divisions") || (toolkit.getMEI().match(/<fing/g) ?? []).length >= plan.notes.length,
        `${name}: fingerings in verovio`,
      );
      assert.ok((after[i].rewritten.match(/<fingering/g) ?? []).length >= plan.notes.length, `${name}: fingerings in webmscore`);
      // What the other program wrote of it is read and planned alike.
      const rewritten = join(folder, `${name}-again.musicxml`);
      writeFileSync(rewritten, after[i].rewritten);
      const second = JSON.parse(await bocca("plan", rewritten, "--instrument", "horn-f", "--breath", "20", ...choice, "--json"));
      assert.deepEqual(
        second.notes.map((note) => [note.sounding, note.setting]),
        plan.notes.map((note) => [note.sounding, note.setting]),
        `${name} again`,
      );
    }
  });

  it("of a mixed class sound in unison or octaves", { timeout: 120000 }, async () => {
    const file = join(folder, "class.musicxml");
    const players = ["trumpet-bb", "horn-f", "trombone:tenor", "euphonium-4v:treble-bb", "tuba-eb-3v:treble-eb", "horn-f:bass-old"];
    await bocca("class", "--concert", "F E Eb D", "--player", ...players, "--out", file);
    for (const parts of [await byVerovio(readFileSync(file, "utf8")), (await byWebmscore([file]))[0].sounding]) {
      assert.equal(parts.length, players.length);
      for (const part of parts)
        assert.deepEqual(
          part.map((midi) => midi % 12),
          [5, 4, 3, 2],
        );
    }
  });
});
