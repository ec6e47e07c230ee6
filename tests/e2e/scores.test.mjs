// Scores written for every instrument, read back by two independent readers: what sounds is what was meant.
import assert from "node:assert/strict";
import { execFileSync } from "node:child_process";
import { mkdtempSync, readFileSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import { dirname, join } from "node:path";
import { after, describe, it } from "node:test";
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
const sounding = (bytes) => new midiFiles.Midi(bytes).tracks.map((track) => track.notes.map((note) => note.midi)).filter((notes) => notes.length > 0);

let toolkit;
async function byVerovio(xml) {
  toolkit ??= new VerovioToolkit(await createVerovio());
  toolkit.setOptions({ breaks: "none" });
  assert.ok(toolkit.loadData(xml));
  return sounding(Buffer.from(toolkit.renderToMIDI(), "base64"));
}

// The second reader wants a process of its own, and no score put away before the last is read.
function byWebmscore(files) {
  const script = `
    import WebMscore from "webmscore";
    import { readFileSync } from "node:fs";
    await WebMscore.ready;
    const out = [];
    for (const file of JSON.parse(process.argv[1])) {
      const score = await WebMscore.load("xml", new Uint8Array(readFileSync(file)), [], false);
      out.push(Buffer.from(await score.saveMidi(true, true)).toString("base64"));
    }
    console.log("@@" + JSON.stringify(out));`;
  const said = execFileSync("node", ["--no-experimental-fetch", "--no-warnings", "--input-type=module", "-e", script, JSON.stringify(files)], { cwd: here, maxBuffer: 50e6, stdio: ["ignore", "pipe", "ignore"] }).toString();
  return JSON.parse(said.slice(said.lastIndexOf("@@") + 2)).map((midi) => sounding(Buffer.from(midi, "base64")));
}

describe("scores", () => {
  after(() => rmSync(folder, { recursive: true, force: true }));

  it("of every instrument's chart sound as they should in two other readers", { timeout: 300000 }, async () => {
    const instruments = JSON.parse(bocca("instruments", "--json")).instruments;
    const charts = instruments.flatMap(({ id, readings }) => readings.map((reading) => {
      const file = join(folder, `${id}-${reading.id ?? reading}.musicxml`);
      const { notes } = JSON.parse(bocca("chart", "--instrument", id, "--reading", reading.id ?? reading, "--out", file, "--json"));
      return { file, meant: notes.map((note) => midiOf(note.sounding)) };
    }));
    assert.ok(charts.length > 30);
    const other = byWebmscore(charts.map((chart) => chart.file));
    for (const [i, { file, meant }] of charts.entries()) {
      assert.deepEqual((await byVerovio(readFileSync(file, "utf8")))[0], meant, `${file} in verovio`);
      assert.deepEqual(other[i][0], meant, `${file} in webmscore`);
    }
  });

  it("of slurs sound on every instrument as they should, and the MIDI file alike", { timeout: 300000 }, async () => {
    const instruments = JSON.parse(bocca("instruments", "--json")).instruments;
    const sheets = instruments.map(({ id }) => {
      const file = join(folder, `${id}-slurs.musicxml`);
      const { slurs } = JSON.parse(bocca("slurs", "--instrument", id, "--level", "12", "--out", file, "--json"));
      bocca("slurs", "--instrument", id, "--level", "12", "--out", `${file}.mid`);
      return { file, meant: slurs.flatMap((slur) => slur.sounding.map(midiOf)) };
    });
    const other = byWebmscore(sheets.map((sheet) => sheet.file));
    for (const [i, { file, meant }] of sheets.entries()) {
      assert.ok(meant.length > 5);
      assert.deepEqual((await byVerovio(readFileSync(file, "utf8")))[0], meant, `${file} in verovio`);
      assert.deepEqual(other[i][0], meant, `${file} in webmscore`);
      assert.deepEqual(sounding(readFileSync(`${file}.mid`))[0], meant, `${file}.mid`);
    }
  });

  it("of a mixed class sound in unison or octaves", { timeout: 120000 }, async () => {
    const file = join(folder, "class.musicxml");
    const players = ["trumpet-bb", "horn-f", "trombone:tenor", "euphonium-4v:treble-bb", "tuba-eb-3v:treble-eb", "horn-f:bass-old"];
    bocca("class", "--concert", "F E Eb D", "--player", ...players, "--out", file);
    for (const parts of [await byVerovio(readFileSync(file, "utf8")), byWebmscore([file])[0]]) {
      assert.equal(parts.length, players.length);
      for (const part of parts) assert.deepEqual(part.map((midi) => midi % 12), [5, 4, 3, 2]);
    }
  });
});
