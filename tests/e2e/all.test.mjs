// One application for all suites: making its demo data takes a while.
import { after, before } from "node:test";
import { rmSync } from "node:fs";
import { folder, startApp, stopApp } from "./app.mjs";

before(startApp, { timeout: 300000 });
after(async () => {
  await stopApp();
  rmSync(folder, { recursive: true, force: true });
});

await import("./sources.mjs");
await import("./drills.mjs");
await import("./breath.mjs");
await import("./setup.mjs");
await import("./tone.mjs");
await import("./notes.mjs");
await import("./slurs.mjs");
await import("./scores.mjs");
await import("./everywhere.mjs");
await import("./start.mjs");
await import("./lesson.mjs");
