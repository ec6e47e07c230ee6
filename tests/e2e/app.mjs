// Starts the application as a teacher would, and a browser to drive it.
import assert from "node:assert/strict";
import { execFileSync, spawn } from "node:child_process";
import { mkdtempSync } from "node:fs";
import { tmpdir } from "node:os";
import { dirname, join } from "node:path";
import { fileURLToPath } from "node:url";
import { chromium } from "playwright-core";

export const top = join(dirname(fileURLToPath(import.meta.url)), "..", "..");
export const port = 5187;
export const address = `http://localhost:${port}`;
export const folder = mkdtempSync(join(tmpdir(), "bocca-e2e-"));

const quiet = ["--no-sandbox", "--disable-gpu", "--disable-quic", "--no-first-run", "--disable-background-networking", "--disable-component-update", "--disable-sync", "--autoplay-policy=no-user-gesture-required"];

let running;

export async function startApp() {
  running = spawn(join(top, "start"), ["--port", String(port), "--data", folder], { stdio: ["ignore", "pipe", "pipe"] });
  let said = "";
  await new Promise((resolve, reject) => {
    const hear = (data) => {
      said += data;
      if (said.includes("Bocca is ready")) resolve();
    };
    running.stdout.on("data", hear);
    running.stderr.on("data", hear);
    running.on("exit", () => reject(new Error(`start ended: ${said}`)));
  });
  return said;
}

// As a power cut would: neither the script nor the server gets a word in.
export function killApp() {
  const server = execFileSync("pgrep", ["-P", String(running.pid)]).toString().trim().split("\n").map(Number);
  running.removeAllListeners("exit");
  for (const pid of [running.pid, ...server]) process.kill(pid, "SIGKILL");
}

export async function stopApp() {
  const ended = new Promise((resolve) => running.once("exit", resolve));
  running.kill("SIGTERM");
  await ended;
}

// The command line, from the same build: makes the sounds that the browser hears.
export function bocca(...args) {
  return execFileSync("dotnet", [join(top, "artifacts", "bin", "Bocca.Cli", "release", "bocca.dll"), ...args]).toString();
}

// Visits with a browser of its own, which is closed whatever happens, and checks afterwards what must not happen on
// any visit: errors on the console, and requests to another host.
export async function visit(options, steps) {
  const { microphone, camera, viewport = { width: 1280, height: 800 }, expectErrors = false } = options;
  const media = microphone || camera ? ["--use-fake-ui-for-media-stream", "--use-fake-device-for-media-stream"] : [];
  if (microphone) media.push(`--use-file-for-fake-audio-capture=${microphone}%noloop`);
  if (camera) media.push(`--use-file-for-fake-video-capture=${camera}`);
  const browser = await chromium.launch({ executablePath: process.env.CHROMIUM ?? "/usr/bin/chromium", args: [...quiet, ...media] });
  try {
    const context = await browser.newContext({ viewport });
    const wrong = [];
    context.on("request", (request) => {
      const { protocol, host } = new URL(request.url());
      if (protocol.startsWith("http") && host !== `localhost:${port}`) wrong.push(`asked ${host}`);
    });
    const page = await context.newPage();
    page.setDefaultTimeout(20000);
    page.on("pageerror", (error) => wrong.push(`page error: ${error.message}`));
    page.on("console", (message) => {
      if (message.type() === "error" && !expectErrors) wrong.push(`console: ${message.text()}`);
    });
    await steps(page);
    assert.deepEqual(wrong, []);
  } finally {
    await browser.close();
  }
}
