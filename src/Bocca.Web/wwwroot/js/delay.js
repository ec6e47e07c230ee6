import { Capture } from "./capture.js";
import { deedOf } from "./keys.js";
import { audio, inWords, momentOf, refusal } from "./sound.js";

const [count, apart, lead] = [8, 0.6, 0.5];

// A click that is as short and as broad as a clap: what a microphone cannot mistake.
function click(context, at) {
  const buffer = context.createBuffer(1, Math.round(0.03 * context.sampleRate), context.sampleRate);
  const samples = buffer.getChannelData(0);
  for (let i = 0; i < samples.length; i++) samples[i] = (Math.random() * 2 - 1) * 0.5 * Math.exp(-i / (0.004 * context.sampleRate));
  const source = new AudioBufferSourceNode(context, { buffer });
  source.connect(context.destination);
  source.start(at);
}

// How late this machine hears: measured, told with its spread, and remembered by this browser.
export const delay = () => ({
  busy: false,
  tapping: false,
  trouble: "",
  told: "Not measured yet.",
  habit: "",

  get known() {
    return !this.told.startsWith("Not");
  },

  init() {
    const ms = localStorage.getItem("bocca.delay.ms");
    if (ms) this.tell(Number(ms), Number(localStorage.getItem("bocca.delay.spread")));
    this.habit = localStorage.getItem("bocca.delay.habit") ?? "";
    this.listener = (event) => deedOf(event, "delay") && !event.repeat && this.tap(event);
    window.addEventListener("keydown", this.listener);
    this.$root.addEventListener("pointerdown", (event) => event.target.closest("[data-tap]") && this.tap(event));
    this.$root.addEventListener("bocca:tap", ({ detail }) => this.tap(detail));
  },

  destroy() {
    window.removeEventListener("keydown", this.listener);
  },

  tell(ms, spread) {
    this.told = `${Math.round(ms)} ms late, give or take ${Math.max(1, Math.round(spread))}.`;
  },

  forget() {
    for (const name of ["ms", "spread", "habit"]) localStorage.removeItem(`bocca.delay.${name}`);
    [this.told, this.habit] = ["Not measured yet.", ""];
  },

  // Plays the clicks; gives back when each is due by the audio clock, and waits until they are over.
  async play(context) {
    const first = context.currentTime + lead;
    const due = Array.from({ length: count }, (_, i) => first + i * apart);
    due.forEach((at) => click(context, at));
    while (context.currentTime < due.at(-1) + 0.8) await new Promise((resolve) => setTimeout(resolve, 50));
    return due;
  },

  async measure(act) {
    [this.busy, this.trouble] = [true, ""];
    try {
      await act((await audio()).context);
    } catch (problem) {
      this.trouble = inWords(problem, "tap instead");
    } finally {
      [this.busy, this.tapping] = [false, false];
    }
  },

  clicks() {
    return this.measure(async (context) => {
      const capture = new Capture(context);
      try {
        await capture.open();
        await capture.fromMicrophone();
        const begin = context.currentTime;
        const due = await this.play(context);
        const end = due.at(-1) + 0.7;
        await capture.reach(end);
        const { wav } = capture.wav(begin, end);
        const body = new FormData();
        body.append("sound", wav, "clicks.wav");
        body.append("clicks", due.map((at) => (at - begin).toFixed(4)).join(" "));
        const { milliseconds, spreadMs } = await this.ask("Clicks", body);
        localStorage.setItem("bocca.delay.ms", milliseconds);
        localStorage.setItem("bocca.delay.spread", spreadMs);
        this.tell(milliseconds, spreadMs);
      } finally {
        capture.close();
      }
    });
  },

  taps() {
    return this.measure(async (context) => {
      this.tapped = [];
      this.clock = context;
      this.tapping = true;
      const due = await this.play(context);
      const body = new FormData();
      body.append("clicks", due.map((at) => at.toFixed(4)).join(" "));
      body.append("taps", this.tapped.map((at) => at.toFixed(4)).join(" "));
      body.append("outMs", 1000 * ((context.outputLatency || 0) + (context.baseLatency || 0)));
      const { habitMs, spreadMs } = await this.ask("Taps", body);
      const [off, spread] = [Math.abs(Math.round(habitMs)), Math.max(1, Math.round(spreadMs))];
      this.habit = `You tap ${off} ms ${habitMs < 0 ? "before" : "after"} the click, give or take ${spread}.`;
      localStorage.setItem("bocca.delay.habit", this.habit);
    });
  },

  tap(event) {
    if (this.tapping) this.tapped.push(momentOf(event, this.clock));
  },

  async ask(handler, body) {
    const response = await fetch(`/ear/delay/${this.$root.dataset.pupil}?handler=${handler}`, {
      method: "POST",
      body,
      headers: { "X-Antiforgery": document.querySelector("meta[name=antiforgery]").content },
    });
    if (!response.ok) throw new Error(await refusal(response, "It could not be measured. Try once more."));
    return response.json();
  },
});
