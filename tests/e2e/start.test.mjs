// What ./start says when it cannot start.
import assert from "node:assert/strict";
import { spawnSync } from "node:child_process";
import { existsSync, mkdirSync, mkdtempSync, readFileSync, statSync, symlinkSync, writeFileSync } from "node:fs";
import { join } from "node:path";
import { describe, it } from "node:test";
import { folder, freePort, port, top, withApp } from "./app.mjs";

withApp({ own: true });

function start(args, env = process.env) {
  const { status, stderr } = spawnSync("/bin/bash", [join(top, "start"), ...args], { env, timeout: 30000 });
  return { status, lines: stderr.toString().trim().split("\n") };
}

// A PATH with the plain tools of the system and only those of the two that are named.
function pathWith(...tools) {
  const bin = mkdtempSync(join(folder, "bin-"));
  for (const tool of ["bash", "dirname", "mkdir", "seq", "find", "sleep", "head", "grep", ...tools])
    symlinkSync(spawnSync("which", [tool]).stdout.toString().trim(), join(bin, tool));
  return { PATH: bin, HOME: process.env.HOME };
}

// A folder as something left it: files by name.
function left(files) {
  const made = mkdtempSync(join(folder, "left-"));
  mkdirSync(join(made, "keys"));
  for (const [name, text] of Object.entries(files)) writeFileSync(join(made, name), text);
  return made;
}

describe("start", () => {
  const cases = [
    ["a port in use", () => ["--port", String(port), "--data", join(folder, "other")], undefined, 1, /port \d+ is in use/],
    ["a port that is none", ["--port", "many"], undefined, 2, /'many' is not a port/],
    ["an option it does not know", ["--loud"], undefined, 2, /'--loud' is not an option/],
    ["a data folder that is a file", ["--data", join(top, "README.md")], undefined, 1, /README\.md cannot be written/],
    ["a missing SDK", ["--data", folder], pathWith("node"), 1, /the \.NET SDK is missing/],
    ["a missing Node.js", ["--data", folder], pathWith("dotnet"), 1, /Node\.js is missing/],
  ];
  for (const [name, args, env, code, sentence] of cases) {
    it(`says one clear line about ${name}`, () => {
      const { status, lines } = start(typeof args === "function" ? args() : args, env);
      assert.equal(status, code);
      assert.equal(lines.length, 1);
      assert.match(lines[0], sentence);
    });
  }

  it("builds what is to be served and ends where that is all it is asked, whatever the port", () => {
    const { status, lines } = start(["--build", "--port", String(port), "--data", join(folder, "none")]);
    assert.deepEqual([status, lines], [0, [""]]);
    assert.equal(existsSync(join(folder, "none")), false);
  });

  const folders = [
    [
      "whose record is empty",
      () => left({ "bocca.db": "", "keys/key-1.xml": "<key />" }),
      /bocca\.db is empty, and a record was there before/,
    ],
    ["whose record is gone", () => left({ "keys/key-1.xml": "<key />" }), /bocca\.db is missing, and a record was there before/],
    ["with something else in the record's place", () => left({ "bocca.db": "two pints of milk, and bread" }), /not a record of Bocca/],
    [
      "with an empty key",
      () => left({ "bocca.db": "SQLite format 3".padEnd(100, "\0"), "keys/key-1.xml": "" }),
      /key-1\.xml is empty or broken/,
    ],
    ["that another Bocca serves", () => join(folder, "record"), /another Bocca serves the record/],
  ];
  for (const [name, made, sentence] of folders) {
    it(`says one clear line about a folder ${name}`, { timeout: 60000 }, async () => {
      const { status, lines } = start(["--port", String(await freePort()), "--data", made()]);
      assert.equal(status, 1);
      assert.equal(lines.length, 1, lines.join(" / "));
      assert.match(lines[0], sentence);
    });
  }

  it("copies the record while it is served, for its owner alone", { timeout: 60000 }, () => {
    const copy = join(folder, "copies", "tuesday.db");
    mkdirSync(join(folder, "copies"));
    assert.equal(start(["--data", join(folder, "record"), "--backup", copy]).status, 0);
    assert.equal(readFileSync(copy).subarray(0, 15).toString(), "SQLite format 3");
    assert.equal(statSync(copy).mode & 0o777, 0o600);
    assert.match(start(["--data", join(folder, "nothing"), "--backup", copy]).lines[0], /there is no record at/);
    assert.equal(existsSync(join(folder, "nothing")), false);
  });
});
