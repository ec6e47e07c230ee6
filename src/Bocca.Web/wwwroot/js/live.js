// The thread while it sounds: blocks of samples go to the listener, points come back and are drawn. The take does not
// hang on it: if the line is lost, drawing pauses and the recording goes on.
const blockSeconds = 0.02;
const loudSample = 0.05;
let library;

const script = (src) => new Promise((resolve, reject) => document.head.append(Object.assign(document.createElement("script"), { src: new URL(src, import.meta.url), onload: resolve, onerror: () => reject(new Error("The listening line did not load.")) })));

function load() {
  library ??= script("../lib/signalr.min.js").then(() => script("../lib/signalr-protocol-msgpack.min.js")).then(() => window.signalR);
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
  #axis;
  #first = 0;
  lags = [];
  // From the first loud sample to the first point of a thread on the screen, seconds; null until both are there.
  onsetLag = null;
  #onset = null;
  lost = 0;

  constructor(context, pupil, on) {
    [this.#context, this.#pupil, this.#on] = [context, pupil, on];
  }

  // Opens the line; without one the take is recorded all the same.
  async open() {
    try {
      const signalr = await load();
      this.#connection = new signalr.HubConnectionBuilder().withUrl("/live/listen").withHubProtocol(new signalr.protocols.msgpack.MessagePackHubProtocol()).withAutomaticReconnect([0, 200, 500, 1000, 2000]).configureLogging(signalr.LogLevel.None).build();
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

  // Draws into the picture on the stage from now on: on the axes of what is written there. first: when its first note is due, by the
  // audio clock, or null where it begins with the first sound; tempo: what it is played at, for the picture holds so many beats.
  show(picture, first, tempo) {
    // A picture without an axis of pitch shows nothing of it.
    if (picture.dataset.axis === "grid") return;
    [this.#picture, this.#axis, this.#first] = [picture, axisOf(picture, tempo), first];
    picture.classList.add("live");
  }

  async #begin() {
    await this.#connection.invoke("Begin", this.#pupil, this.#on, this.#context.sampleRate);
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
      const points = await this.#connection.invoke("Hear", new Uint8Array(pcm.buffer));
      const at = (frame) => began / this.#context.sampleRate + (frame + 0.5) * 0.01;
      for (const { Frame: frame, Try: tries, Seconds: seconds, Cents: cents, Hertz: hertz } of points) this.#points.set(`${this.lost}:${frame}`, { frame, try: tries, seconds, cents, hertz, at: at(frame) });
      if (points.length > 0 && this.#picture) this.#draw(at(points.at(-1).Frame));
    } catch {
      // A block that got no answer is missing from the drawing only.
    }
  }

  #say(words) {
    const line = this.#picture?.closest(".work")?.querySelector("[data-line]");
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
      const paths = [...tries.values()].map((points, i) => path(points.sort((a, b) => a.frame - b.frame), i, this.#axis, this.#first ?? this.#onset ?? points[0].at));
      this.#picture.querySelector(".live-threads").replaceChildren(...paths);
      this.lags.push(this.#context.currentTime - sounded);
      if (this.onsetLag === null && this.#onset !== null && [...this.#points.values()].some((point) => point.cents !== null)) this.onsetLag = this.#context.currentTime - this.#onset;
    });
  }

  async close() {
    this.#open = false;
    this.#picture?.classList.remove("live");
    await this.#connection?.stop();
  }
}

// The axes of a picture: tries laid over each other through a gate, or notes over time on their rungs.
function axisOf({ dataset }, tempo) {
  const [left, right, top, bottom, beats] = ["left", "right", "top", "bottom", "beats"].map((name) => Number(dataset[name]));
  const seconds = (60 / tempo) * beats;
  const x = (at) => left + Math.min(1, Math.max(0, at / seconds)) * (right - left);
  if (dataset.axis === "gate") {
    const [gate, reach] = [Number(dataset.gate), Number(dataset.reach)];
    const y = (cents) => (top + bottom) / 2 - (Math.max(-1, Math.min(1, Math.asinh(cents / gate) / Math.asinh(reach))) * (bottom - top)) / 2;
    return { x: (point) => x(point.seconds), y: (point) => y(point.cents) };
  }
  if (dataset.axis === "strip") {
    // Read like text: line after line, heights from the pupil's own middle, which is where the take begins.
    const [line, lines, low, high, height] = ["line", "lines", "low", "high", "first"].map((name) => Number(dataset[name]));
    const row = (point, first) => Math.max(0, Math.min(lines - 1, Math.floor((point.at - first) / seconds)));
    const y = (semitones) => bottom - ((Math.max(low, Math.min(high, semitones)) - low) / (high - low)) * (bottom - top);
    return { row, x: (point, first) => x(point.at - first - row(point, first) * seconds), y: (point, first) => y(height + point.cents / 100) + row(point, first) * line };
  }
  const [lead, low, high] = [(60 / tempo) * Number(dataset.lead), Number(dataset.low), Number(dataset.high)];
  const y = (midi) => Math.max(top - 8, Math.min(bottom + 8, bottom - ((midi - low) / (high - low)) * (bottom - top)));
  return { x: (point, first) => x(point.at - first + lead), y: (point) => y(69 + 12 * Math.log2(point.hertz / Number(dataset.a4))) };
}

function element(name, attributes) {
  const made = document.createElementNS("http://www.w3.org/2000/svg", name);
  for (const [key, value] of Object.entries(attributes)) made.setAttribute(key, value);
  return made;
}

function path(points, index, axis, first) {
  let d = "";
  let [pen, row] = [false, 0];
  for (const point of points) {
    if (point.cents === null) {
      pen = false;
      continue;
    }
    const here = axis.row?.(point, first) ?? 0;
    d += `${pen && here === row ? "L" : "M"}${axis.x(point, first).toFixed(1)} ${axis.y(point, first).toFixed(1)}`;
    [pen, row] = [true, here];
  }
  const group = element("g", { class: `thread t${(index % 4) + 1}` });
  group.append(element("path", { d, class: "sure" }));
  return group;
}
