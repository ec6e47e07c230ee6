// Runs the browser suites: the demo room is made once; most suites then run side by side, those that listen in real time alone.
import { rmSync } from "node:fs";
import { dirname, join } from "node:path";
import { run } from "node:test";
import { spec } from "node:test/reporters";
import { fileURLToPath } from "node:url";
import { folder, address, startApp, stopApp } from "./app.mjs";

const here = dirname(fileURLToPath(import.meta.url));
const realTime = ["live", "tone", "slurs", "breath"];
const sideBySide = ["everywhere", "scores", "notes", "setup", "drills", "lesson", "start"];

// Waits until the invented pupils have all played.
async function filled() {
  for (;;) {
    const desk = await (await fetch(`${address}/`)).text();
    if (!desk.includes("data-filling")) return;
    await new Promise((resolve) => setTimeout(resolve, 200));
  }
}

async function demo() {
  const made = join(folder, "demo");
  await startApp(made);
  await filled();
  await stopApp();
  process.env.BOCCA_DEMO = made;
}

// One after the other or two at a time; says how many passed and failed.
function suites(names, concurrency) {
  return new Promise((resolve) => {
    const counts = { passed: 0, failed: 0 };
    const stream = run({ files: names.map((name) => join(here, `${name}.test.mjs`)), concurrency });
    stream.on("test:pass", (test) => (counts.passed += isOne(test)));
    stream.on("test:fail", (test) => (counts.failed += isOne(test)));
    stream.on("end", () => resolve(counts));
    stream.compose(spec).pipe(process.stdout, { end: false });
  });
}

// A suite is counted by its tests; one that fails with none is a failure of its own.
const isOne = ({ details }) => (details.type === "suite" ? 0 : 1);

const chosen = process.argv.slice(2);
const among = (names) => names.filter((name) => chosen.length === 0 || chosen.includes(name));
await demo();
const counts = [];
for (const [names, at] of [[sideBySide, 2], [realTime, 1]]) if (among(names).length > 0) counts.push(await suites(among(names), at));
rmSync(folder, { recursive: true, force: true });
const [passed, failed] = ["passed", "failed"].map((kind) => counts.reduce((sum, each) => sum + each[kind], 0));
console.log(`browser: pass ${passed} fail ${failed}`);
process.exitCode = failed > 0 || passed === 0 ? 1 : 0;
