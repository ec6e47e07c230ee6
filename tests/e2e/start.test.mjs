// What ./start says when it cannot start.
import assert from "node:assert/strict";
import { spawnSync } from "node:child_process";
import { mkdtempSync, symlinkSync } from "node:fs";
import { join } from "node:path";
import { describe, it } from "node:test";
import { folder, port, top, withApp } from "./app.mjs";

withApp();

function start(args, env = process.env) {
  const { status, stderr } = spawnSync("/bin/bash", [join(top, "start"), ...args], { env, timeout: 30000 });
  return { status, lines: stderr.toString().trim().split("\n") };
}

// A PATH with the plain tools of the system and only those of the two that are named.
function pathWith(...tools) {
  const bin = mkdtempSync(join(folder, "bin-"));
  for (const tool of ["bash", "dirname", "mkdir", "seq", "find", "sleep", "head", "grep", ...tools]) symlinkSync(spawnSync("which", [tool]).stdout.toString().trim(), join(bin, tool));
  return { PATH: bin, HOME: process.env.HOME };
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
});
