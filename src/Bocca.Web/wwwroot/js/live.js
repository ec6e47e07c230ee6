// The thread while it sounds: blocks of samples go to the listener, points come back and are drawn. The take does not
// hang on it: if the line is lost, drawing pauses and the recording goes on.
import { LiveThreads } from "./live-threads.js";

const blockSeconds = 0.02;
const loudSample = 0.05;
let library;

const script = (src) =>
  new Promise((resolve, reject) =>
    document.head.append(
      Object.assign(document.createElement("script"), {
        src: new URL(src, import.meta.url),
        onload: resolve,
        onerror: () => reject(new Error("The listening line did not load.")),
      }),
    ),
  );

function load() {
  library ??= script("../lib/signalr.min.js")
    .then(() => script("../lib/signalr-protocol-msgpack.min.js"))
    .then(() => window.signalR);
  return library;
}

export class Live {
  #connection;
  #context;
  #pupil;
  #on;
  #pending = [];
  #threads;
  #marks = [];
  #open = false;
  #drawing = false;
  #picture;
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
      this.#connection = new signalr.HubConnectionBuilder()
        .withUrl("/live/listen")
        .withHubProtocol(new signalr.protocols.msgpack.MessagePackHubProtocol())
        .withAutomaticReconnect([0, 200, 500, 1000, 2000])
        .configureLogging(signalr.LogLevel.None)
        .build();
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

  // Draws what is heard from now on into the picture on the stage: on the axes of what is written there. first: when its first note is
  // due, by the audio clock, or null where it begins with the first sound; tempo: what it is played at, for the picture holds so many
  // beats.
  show(picture, first, tempo) {
    // A picture without an axis of pitch shows nothing of it.
    if (picture.dataset.axis === "grid") return;
    [this.#picture, this.#first] = [picture, first];
    this.#threads = new LiveThreads(picture, tempo);
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
      // A line that was lost and found counts its frames and tries from the beginning.
      const heard = points.map(({ Frame: frame, Try: tries, Seconds: seconds, Cents: cents, Hertz: hertz }) => ({
        line: this.lost,
        frame,
        try: tries,
        seconds,
        cents,
        hertz,
        at: at(frame),
      }));
      this.#threads?.add(heard);
      if (heard.length > 0 && this.#threads) this.#draw(heard.at(-1).at);
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
      this.#threads.draw(this.#first ?? this.#onset);
      this.lags.push(this.#context.currentTime - sounded);
      if (this.onsetLag === null && this.#onset !== null && this.#threads.sounds) this.onsetLag = this.#context.currentTime - this.#onset;
    });
  }

  async close() {
    this.#open = false;
    await this.#connection?.stop();
  }
}
