// The thread while it sounds: blocks of samples go to the listener, points come back and are drawn. The take does not
// hang on it: if the line is lost, drawing pauses and the recording goes on.
const blockSeconds = 0.02;
const width = 740;
const height = 400;
const left = 64;
const right = 696;
const middle = 200;
const reach = 8;
const loudSample = 0.05;
let library;

function load() {
  library ??= new Promise((resolve, reject) => {
    document.head.append(Object.assign(document.createElement("script"), { src: "/lib/signalr.min.js", onload: () => resolve(window.signalR), onerror: () => reject(new Error("The listening line did not load.")) }));
  });
  return library;
}

export class Live {
  #connection;
  #context;
  #pupil;
  #on;
  #pending = [];
  #points = new Map();
  #marks = [];
  #open = false;
  #drawing = false;
  #picture;
  #seconds;
  #gate = 40;
  lags = [];
  // From the first loud sample to the first point of a thread on the screen, seconds; null until both are there.
  onsetLag = null;
  #onset = null;
  lost = 0;

  constructor(context, pupil, on, seconds) {
    [this.#context, this.#pupil, this.#on, this.#seconds] = [context, pupil, on, seconds];
  }

  // Opens the line; without one the take is recorded all the same.
  async open() {
    try {
      const signalr = await load();
      this.#connection = new signalr.HubConnectionBuilder().withUrl("/live/listen").withAutomaticReconnect([0, 200, 500, 1000, 2000]).configureLogging(signalr.LogLevel.None).build();
      this.#connection.onreconnecting(() => {
        this.#open = false;
        this.lost++;
        this.#say("The listening line is lost for a moment; the take goes on.");
      });
      this.#connection.onreconnected(() => this.#begin());
      this.#connection.onclose(() => (this.#open = false));
      await this.#connection.start();
      await this.#begin();
    } catch {
      this.lost++;
    }
  }

  // Puts the empty gate on the stage, for the thread to be drawn into.
  show(stage) {
    this.#picture = picture(this.#gate);
    stage.replaceChildren(this.#picture, Object.assign(document.createElement("p"), { className: "legend live-line" }));
  }

  async #begin() {
    const { gateCents } = await this.#connection.invoke("Begin", this.#pupil, this.#on, this.#context.sampleRate);
    this.#gate = gateCents;
    this.#marks = [];
    this.#open = true;
    this.#say("");
  }

  // Takes the next samples of the capture in, which come with the frame of the audio clock at which they were heard.
  take({ from, samples }) {
    if (this.#onset === null) {
      const loud = samples.findIndex((sample) => Math.abs(sample) > loudSample);
      if (loud >= 0) this.#onset = (from + loud) / this.#context.sampleRate;
    }
    this.#pending.push({ from, samples });
    const count = this.#pending.reduce((sum, block) => sum + block.samples.length, 0);
    if (count < blockSeconds * this.#context.sampleRate) return;
    const start = this.#pending[0].from;
    const pcm = new Int16Array(count);
    let at = 0;
    for (const block of this.#pending) {
      for (let i = 0; i < block.samples.length; i++) pcm[at + i] = Math.max(-1, Math.min(1, block.samples[i])) * 32767;
      at += block.samples.length;
    }
    this.#pending = [];
    if (this.#open) this.#send(pcm, start);
  }

  async #send(pcm, from) {
    this.#marks.push(from);
    const began = this.#marks[0];
    try {
      const points = await this.#connection.invoke("Hear", base64(pcm));
      for (const point of points) this.#points.set(`${this.lost}:${point.frame}`, point);
      const newest = points.at(-1);
      if (newest) this.#draw(began / this.#context.sampleRate + (newest.frame + 0.5) * 0.01);
    } catch {
      // A block that got no answer is missing from the drawing only.
    }
  }

  #say(words) {
    const line = this.#picture?.parentElement?.querySelector(".live-line");
    if (line) line.textContent = words;
  }

  // Draws at most once a picture; notes how long ago the newest point sounded.
  #draw(sounded) {
    if (this.#drawing) return;
    this.#drawing = true;
    requestAnimationFrame(() => {
      this.#drawing = false;
      const tries = new Map();
      for (const [key, point] of this.#points) {
        const name = `${key.split(":")[0]}:${point.try}`;
        if (!tries.has(name)) tries.set(name, []);
        tries.get(name).push(point);
      }
      const paths = [...tries.values()].map((points, i) => path(points.sort((a, b) => a.frame - b.frame), i, this.#seconds, this.#gate));
      this.#picture.querySelector(".live-threads").replaceChildren(...paths);
      this.lags.push(this.#context.currentTime - sounded);
      if (this.onsetLag === null && this.#onset !== null && [...this.#points.values()].some((point) => point.cents !== null)) this.onsetLag = this.#context.currentTime - this.#onset;
    });
  }

  async close() {
    this.#open = false;
    await this.#connection?.stop();
  }
}

const y = (cents, gate) => middle - (Math.asinh(cents / gate) / Math.asinh(reach)) * (middle - 14);

function element(name, attributes) {
  const made = document.createElementNS("http://www.w3.org/2000/svg", name);
  for (const [key, value] of Object.entries(attributes)) made.setAttribute(key, value);
  return made;
}

function picture(gate) {
  const svg = element("svg", { viewBox: `0 0 ${width} ${height}`, class: "threads live", role: "img", "aria-label": "The thread while it sounds, through the gate" });
  svg.append(
    element("rect", { x: left, y: y(gate, gate), width: right - left, height: y(-gate, gate) - y(gate, gate), class: "gate" }),
    element("line", { x1: left, x2: right, y1: middle, y2: middle, class: "middle" }),
    element("g", { class: "live-threads" }),
  );
  return svg;
}

function path(points, index, seconds, gate) {
  let d = "";
  let pen = false;
  for (const point of points) {
    if (point.cents === null) {
      pen = false;
      continue;
    }
    const x = left + Math.min(1, point.seconds / seconds) * (right - left);
    d += `${pen ? "L" : "M"}${x.toFixed(1)} ${y(Math.max(-1300, Math.min(1300, point.cents)), gate).toFixed(1)}`;
    pen = true;
  }
  const group = element("g", { class: `thread t${(index % 4) + 1}` });
  group.append(element("path", { d, class: "sure" }));
  return group;
}

function base64(pcm) {
  const bytes = new Uint8Array(pcm.buffer);
  let text = "";
  for (let i = 0; i < bytes.length; i += 4096) text += String.fromCharCode(...bytes.subarray(i, i + 4096));
  return btoa(text);
}
