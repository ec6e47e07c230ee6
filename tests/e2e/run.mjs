// Runs the browser suites, all or those named: while the demo room is made for all of them, the one that needs no room; then, three at a
// time and the longest first, those that listen in real time; then, alone, the one that measures delay; then the others, two at a time.
import { execFile, spawn } from "node:child_process";
import { existsSync, rmSync } from "node:fs";
import { dirname, join } from "node:path";
import { run } from "node:test";
import { spec } from "node:test/reporters";
import { fileURLToPath } from "node:url";
import { promisify } from "node:util";
import { folder, address, closeRoom, openRoom, top } from "./app.mjs";

const here = dirname(fileURLToPath(import.meta.url));
const roomless = "scores";
const groups = [
  { names: ["take", "ear", "drills", "capture", "slurs", "advice", "tone", "breath"], atOnce: 3, inRealTime: true },
  { names: ["live"], atOnce: 1, inRealTime: true },
  { names: ["everywhere", "forms", "contrast", "notes", "start", "practice", "setup", "pieces", "lesson"], atOnce: 2, inRealTime: false },
];

// The process that serves the suites' rooms and runs their command lines; it ends with its input, so also where this one is killed.
async function beginShared() {
  const program = spawn("dotnet", [join(top, "artifacts", "bin", "Bocca.Stress", "release", "Bocca.Stress.dll"), "suites"], {
    stdio: ["pipe", "pipe", "inherit"],
  });
  process.env.BOCCA_SUITES = await new Promise((resolve, reject) => {
    program.once("exit", () =>
      reject(
        new Error("the process that the suites share ended before it began; is everything built (dotnet build Bocca.slnx -c Release)?"),
      ),
    );
    program.stdout.on("data", (said) => /^http:/.test(said) && resolve(said.toString().trim()));
  });
  return program;
}

// Waits until the invented pupils have all played.
async function filled() {
  for (;;) {
    const desk = await (await fetch(`${address}/`)).text();
    if (!desk.includes("data-filling")) return;
    await new Promise((resolve) => setTimeout(resolve, 200));
  }
}

// The room as it was left by whoever made it before, or made here. What is served is built before, which no suite has time for.
async function demo() {
  await promisify(execFile)(join(top, "start"), ["--build"]);
  const made = process.env.BOCCA_DEMO;
  if (made && existsSync(join(made, "bocca.db")) && !existsSync(join(made, "demo-filling"))) return;
  process.env.BOCCA_DEMO = join(folder, "demo");
  await openRoom(process.env.BOCCA_DEMO);
  await filled();
  await closeRoom();
}

// A suite in a process of its own; says how many passed and failed.
function suite(name) {
  return new Promise((resolve) => {
    const counts = { passed: 0, failed: 0 };
    const stream = run({ files: [join(here, `${name}.test.mjs`)] });
    stream.on("test:pass", (test) => (counts.passed += isOne(test)));
    stream.on("test:fail", (test) => (counts.failed += isOne(test)));
    stream.on("end", () => resolve(counts));
    stream.compose(spec).pipe(process.stdout, { end: false });
  });
}

// A suite is counted by its tests; one that fails with none is a failure of its own.
const isOne = ({ details }) => (details.type === "suite" ? 0 : 1);

const words = process.argv.slice(2);
const isChosen = (name) => words.length === 0 || words.includes(name);
const counts = [];
const again = [];
// What sounds in real time is spoilt by a machine that is held up, as a file is that the browser plays to a page too busy to take it in:
// such a suite is run once more where it failed, and what is wrong fails again.
const take = async (names, inRealTime = false) => {
  while (names.length > 0) {
    const name = names.shift();
    let said = await suite(name);
    if (inRealTime && said.failed > 0) {
      console.log(`${name}: once more from the beginning, in case the machine was held up.`);
      again.push(name);
      said = await suite(name);
    }
    counts.push(said);
  }
};
const sharedProgram = await beginShared();
const beside = isChosen(roomless) ? take([roomless]) : Promise.resolve();
await demo();
for (const [i, { names, atOnce, inRealTime }] of groups.entries()) {
  const left = names.filter(isChosen);
  // The first group begins while the suite beside the making of the room still runs.
  const first = i === 0 ? beside.then(() => take(left, inRealTime)) : take(left, inRealTime);
  await Promise.all([first, ...Array.from({ length: atOnce - 1 }, () => take(left, inRealTime))]);
}
sharedProgram.stdin.end();
rmSync(folder, { recursive: true, force: true });
const [passed, failed] = ["passed", "failed"].map((kind) => counts.reduce((sum, each) => sum + each[kind], 0));
console.log(`browser: run once more: ${again.length === 0 ? "none" : again.join(", ")}`);
console.log(`browser: pass ${passed} fail ${failed}`);
process.exitCode = failed > 0 || passed === 0 ? 1 : 0;
