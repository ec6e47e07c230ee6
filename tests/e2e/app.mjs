// The application, on a record and a port of its own for each suite, and a browser to drive it.
import assert from "node:assert/strict";
import { execFileSync, spawn } from "node:child_process";
import { cpSync, mkdtempSync, rmSync } from "node:fs";
import { connect, createServer } from "node:net";
import { tmpdir } from "node:os";
import { dirname, join } from "node:path";
import { after, before } from "node:test";
import { fileURLToPath } from "node:url";
import { chromium } from "playwright-core";

export const top = join(dirname(fileURLToPath(import.meta.url)), "..", "..");
export const folder = mkdtempSync(join(tmpdir(), "bocca-e2e-"));
const record = join(folder, "record");

// Where the suite's application answers; known once it is started.
export let port, address;

const quiet = [
  "--no-sandbox",
  "--disable-gpu",
  "--disable-quic",
  "--no-first-run",
  "--disable-background-networking",
  "--disable-component-update",
  "--disable-sync",
  "--autoplay-policy=no-user-gesture-required",
];

let running, usualBrowser;
// The contexts of the suite's usual visits, by whether they touch.
const usual = {};

// A port that nobody uses.
export const freePort = () =>
  new Promise((resolve, reject) => {
    const server = createServer()
      .once("error", reject)
      .listen(0, "127.0.0.1", () => {
        const { port } = server.address();
        server.close(() => resolve(port));
      });
  });

// Asks the process that all suites share, which the runner began.
async function shared(method, path, body) {
  const headers = { "Content-Type": "application/json" };
  const answer = await fetch(process.env.BOCCA_SUITES + path, { method, headers, body: body && JSON.stringify(body) });
  assert.ok(answer.ok, `${method} ${path}: ${answer.status}`);
  return answer.text();
}

// A room in the process that all suites share, on a port that nobody uses.
export async function openRoom(data = record) {
  port = Number(await shared("POST", `/rooms?data=${encodeURIComponent(data)}`));
  address = `http://localhost:${port}`;
}

export const closeRoom = () => shared("DELETE", `/rooms/${port}`);

// The application in a process of its own, as a teacher starts it.
export async function startApp(data = record, warm = false) {
  port ??= await freePort();
  address = `http://localhost:${port}`;
  // Only where delay is measured has the application to be warm before somebody plays.
  const env = { ...process.env, "warm-up": String(warm) };
  running = spawn(join(top, "start"), ["--port", String(port), "--data", data], { env, stdio: ["ignore", "pipe", "pipe"] });
  let said = "";
  await new Promise((resolve, reject) => {
    const hear = (text) => {
      said += text;
      if (said.includes("Bocca is ready")) resolve();
    };
    running.stdout.on("data", hear);
    running.stderr.on("data", hear);
    running.on("exit", () => reject(new Error(`start ended: ${said}`)));
  });
}

// As a power cut would: neither the script nor the server gets a word in.
export async function killApp() {
  const server = execFileSync("pgrep", ["-P", String(running.pid)])
    .toString()
    .trim()
    .split("\n")
    .map(Number);
  running.removeAllListeners("exit");
  for (const pid of [running.pid, ...server]) process.kill(pid, "SIGKILL");
  while (await answers()) await new Promise((resolve) => setTimeout(resolve, 10));
}

const answers = () =>
  new Promise((resolve) => {
    const socket = connect(port, "127.0.0.1", () => resolve(socket.destroy() && true)).once("error", () => resolve(false));
  });

async function stopApp() {
  if (running.exitCode !== null) return;
  const ended = new Promise((resolve) => running.once("exit", resolve));
  running.kill("SIGTERM");
  await ended;
}

// Every suite has the demo room to itself, as it was made once for all of them: in the process that all share, or, where the suite is about
// starting, killing or delay, in one of its own as a teacher starts it.
export function withApp({ own = false, warm = false } = {}) {
  before(
    async () => {
      cpSync(process.env.BOCCA_DEMO, record, { recursive: true });
      await (own ? startApp(record, warm) : openRoom());
    },
    { timeout: 120000 },
  );
  after(async () => {
    await usualBrowser?.close();
    await (own ? stopApp() : closeRoom());
    rmSync(folder, { recursive: true, force: true });
  });
}

// The command line, from the same build: makes the sounds that the browser hears, and the files that others read. Gives what it prints.
export async function bocca(...args) {
  const { code, printed, complained } = JSON.parse(await shared("POST", "/commands", args));
  assert.equal(code, 0, `bocca ${args.join(" ")}: ${complained}`);
  return printed;
}

// Chromium without a window's parts: the same engine, which opens a page in half the time.
const launch = (media = []) =>
  chromium.launch({ executablePath: process.env.CHROMIUM ?? "/usr/bin/chromium-headless-shell", args: [...quiet, ...media] });

// Visits with the suite's browser, or with a browser of its own where it hears or sees a file, and checks afterwards what must not happen
// on any visit: errors on the console, and requests to another host. The suite's visits share a page, as opening one costs more than all
// that it shows, and what was fetched, but nothing that a page kept; a visit that puts scripts or routes into its page (alters), and one by
// a browser that was never here or has a clock of its own (anew), have their own.
export async function visit(options, steps) {
  const {
    microphone,
    camera,
    viewport = { width: 1280, height: 800 },
    touch = false,
    scale = 1,
    anew = false,
    alters = false,
    expectErrors = false,
  } = options;
  const media = microphone || camera ? ["--use-fake-ui-for-media-stream", "--use-fake-device-for-media-stream"] : [];
  if (microphone) media.push(`--use-file-for-fake-audio-capture=${microphone}%noloop`);
  if (camera) media.push(`--use-file-for-fake-video-capture=${camera}`);
  const browser = media.length > 0 ? await launch(media) : (usualBrowser ??= await launch());
  const isUsual = browser === usualBrowser && !anew;
  const context = isUsual
    ? (usual[touch] ??= await browser.newContext({ hasTouch: touch }))
    : await browser.newContext({ hasTouch: touch, deviceScaleFactor: scale });
  const wrong = [];
  const watched = {
    pageerror: (error) => wrong.push(`page error: ${error.message}`),
    console: (message) => {
      if (message.type() === "error" && !expectErrors) wrong.push(`console: ${message.text()}`);
    },
  };
  const asked = (request) => {
    const { protocol, host } = new URL(request.url());
    if (protocol.startsWith("http") && host !== `localhost:${port}`) wrong.push(`asked ${host}`);
  };
  context.on("request", asked);
  try {
    const page = (isUsual && !alters && context.pages()[0]) || (await context.newPage());
    if (isUsual) hold(page, alters);
    if (isUsual) await forget(page);
    await page.setViewportSize(viewport);
    page.setDefaultTimeout(40000);
    for (const [event, hear] of Object.entries(watched)) page.on(event, hear);
    await steps(page);
    if (isUsual && !alters) await leave(page);
    for (const [event, hear] of Object.entries(watched)) page.off(event, hear);
    assert.deepEqual(wrong, []);
    if (isUsual)
      await Promise.all(
        context
          .pages()
          .filter((each) => alters || each !== page)
          .map((each) => each.close()),
      );
  } catch (problem) {
    // Whatever state it was left in goes with the page.
    if (isUsual) await Promise.all(context.pages().map((page) => page.close()));
    throw problem;
  } finally {
    context.off("request", asked);
    if (!isUsual) await context.close();
    if (browser !== usualBrowser) await browser.close();
  }
}

// What one visit puts into what it shares with others would stay there: a page's scripts and routes, and the clock of a context's pages.
function hold(page, alters) {
  const refuse = (what) => () => {
    throw new Error(`what this visit puts into its page would stay for the others: it has to be ${what}`);
  };
  if (!alters) for (const part of ["addInitScript", "route", "exposeFunction", "exposeBinding"]) page[part] = refuse("alters or anew");
  for (const part of ["install", "pauseAt", "setFixedTime", "setSystemTime"]) page.clock[part] = refuse("anew");
}

// Leaves a page as closing it does, lets go of what is its own, and takes the pointer out of the next one.
async function leave(page) {
  await page.evaluate(() => sessionStorage.clear());
  await page.goto("about:blank");
  await page.mouse.move(0, 0);
}

// Lets go of what pages kept in the browser before.
async function forget(page) {
  const session = await page.context().newCDPSession(page);
  await session.send("Storage.clearDataForOrigin", { origin: address, storageTypes: "cookies,local_storage,indexeddb" });
  await session.detach();
}

// What is sent from here on counts as a pupil's own recording, whoever made the sound: what the practice player plays is never kept.
export const asPupils = (page) =>
  page.evaluate(() => {
    const append = FormData.prototype.append;
    FormData.prototype.append = function (name, value, ...rest) {
      append.call(this, name, name === "source" ? "File" : value, ...rest);
    };
  });

// A pupil's take without waiting for it: what the practice player would play, sent at once.
export async function playAtOnce(page, { character = "good", tempo = 120 } = {}) {
  await asPupils(page);
  await page.selectOption("[name=source]", "PracticePlayer");
  await page.selectOption("[name=character]", character);
  if (tempo !== null) await page.fill("[name=tempo]", String(tempo));
  await page.check("[name=atonce]");
  const before = await page.getAttribute("#stage", "data-take");
  await page.click("[data-go]");
  await page.waitForFunction(
    (old) => document.querySelector("#stage").dataset.take && document.querySelector("#stage").dataset.take !== old,
    before,
    { timeout: 60000 },
  );
}
