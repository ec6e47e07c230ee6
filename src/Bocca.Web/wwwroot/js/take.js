import { Capture, wavOf } from "./capture.js";
import { Live } from "./live.js";
import { audio, countIn, countInClicks, inWords, model } from "./sound.js";

const leadSeconds = 0.5;
const tailSeconds = 0.3;

// What a field of the transport says; a box says whether it is ticked.
const worth = (field) => (field?.type === "checkbox" ? String(field.checked) : (field?.value ?? ""));

// A stop that takes sound in: counts a take in and through, takes it in, sends it to be heard, shows what came back.
// stop: where it lives. fields: what of the transport is asked of the core, beside drill and tempo.
export const taking = (stop, fields) => ({
  source: "Microphone",
  running: false,
  hearing: false,
  count: "–",
  label: "",
  trouble: "",
  stopNow: null,
  unsent: null,

  get isFile() {
    return this.source === "File";
  },

  get isPractice() {
    return this.source === "PracticePlayer";
  },

  // A sound that is there as a whole need not be played through.
  get isMade() {
    return this.isFile || this.isPractice;
  },

  get nextWords() {
    return this.running ? "Play: the count leads." : "Press Start: four counts in, then play.";
  },

  get goWords() {
    if (this.hearing) return "Hearing";
    return this.running ? "Stop" : "Start";
  },

  init() {
    this.source = localStorage.getItem("bocca.source") ?? "Microphone";
    this.$watch("source", (source) => localStorage.setItem("bocca.source", source));
  },

  // The stage emptied for a new take: the hand keeps what was asked.
  stage() {
    const stage = this.$root.querySelector("#stage");
    stage.querySelectorAll(".threads, .legend, .empty-threads, .row-stage, .strip, .laid").forEach((old) => old.remove());
    const space = document.createElement("div");
    stage.append(space);
    return space;
  },

  // Sends a take once more that did not get through.
  async sendAgain() {
    if (!this.unsent) return;
    this.trouble = "";
    try {
      await this.send(this.unsent.wav, "take.wav", this.unsent.drill, leadSeconds, this.unsent.missing);
      this.unsent = null;
    } catch (problem) {
      this.trouble = inWords(problem, "choose another source");
    } finally {
      this.hearing = false;
    }
  },

  field(name) {
    return this.$root.querySelector(`.transport [name=${name}]`);
  },

  drill() {
    const { value, dataset } = this.field("drill").selectedOptions[0];
    const { min, max } = this.field("tempo");
    const tempo = Math.min(Number(max), Math.max(Number(min), Number(this.field("tempo").value) || Number(dataset.tempo)));
    return { id: value, tempo };
  },

  // What is asked, as the core reads it.
  asked(drill) {
    return { drill: drill.id, tempo: drill.tempo, ...Object.fromEntries(fields.map((name) => [name, worth(this.field(name))])) };
  },

  // What the sound is made on, for the line that draws while it sounds.
  on() {
    return this.field("on")?.value ?? "Instrument";
  },

  // The drill beat by beat, as the core counts it.
  async plan(drill) {
    const query = new URLSearchParams({ handler: "Plan", ...this.asked(drill) });
    const response = await fetch(`/${stop}/${this.$root.dataset.pupil}?${query}`);
    if (!response.ok) throw new Error(response.status === 422 ? await response.text() : "The drill could not be laid out. Try once more.");
    return response.json();
  },

  chooseDrill() {
    this.field("tempo").value = this.field("drill").selectedOptions[0].dataset.tempo;
    location.assign(`/${stop}/${this.$root.dataset.pupil}?drill=${this.field("drill").value}`);
  },

  async toggle() {
    if (this.running) {
      this.stopNow?.();
      return;
    }
    if (this.hearing) return;
    this.trouble = "";
    try {
      if (this.isFile) await this.sendFile();
      else if (this.isPractice && this.field("atonce").checked) await this.sendPractice();
      else await this.record();
    } catch (problem) {
      this.trouble = inWords(problem, "choose another source");
    } finally {
      this.running = false;
      this.hearing = false;
      this.count = "–";
      this.label = "";
      this.mark();
    }
  },

  // A file is played through the line that a microphone takes, and then measured as it is.
  async sendFile() {
    const file = this.field("file").files[0];
    if (!file) throw new Error("Choose a WAV file first.");
    if (!this.field("atonce").checked && !(await this.playFile(file))) return;
    await this.send(file, file.name, this.drill(), null);
  },

  // The practice player's take as it would have been captured, without the time that it lasts.
  async sendPractice() {
    const { context } = await audio();
    const drill = this.drill();
    await this.plan(drill);
    await this.send(wavOf(await this.practice(context, drill), leadSeconds, tailSeconds), "take.wav", drill, leadSeconds);
  },

  async playFile(file) {
    const { context } = await audio();
    let sound;
    try {
      sound = await context.decodeAudioData(await file.arrayBuffer());
    } catch {
      return true; // What the browser cannot play, the listener may still read, or refuse by name.
    }
    const capture = new Capture(context);
    const live = new Live(context, Number(this.$root.dataset.pupil), this.on(), Math.min(sound.duration, 6));
    try {
      await Promise.all([capture.open(), live.open()]);
      live.show(this.stage());
      const begin = context.currentTime + 0.1;
      capture.fromPlayer(sound, begin);
      capture.onblock = (block) => live.take(block);
      this.running = true;
      this.mark();
      return await this.until(context, begin + sound.duration, (now) => (this.count = `${Math.max(0, Math.ceil(begin + sound.duration - now))}`));
    } finally {
      live.close();
      capture.close();
    }
  },

  async record() {
    const drill = this.drill();
    const plan = await this.plan(drill);
    const beat = plan.beatSeconds;
    const { tone, context } = await audio();
    const capture = new Capture(context);
    const live = new Live(context, Number(this.$root.dataset.pupil), this.on(), plan.soundSeconds);
    let silence = () => {};
    try {
      await Promise.all([capture.open(), live.open()]);
      const played = this.isPractice ? await this.practice(context, drill) : null;
      if (!played) await capture.fromMicrophone((why) => this.stopNow?.(why));
      live.show(this.stage());
      const begin = context.currentTime + 0.2;
      const first = begin + countIn * beat;
      const end = first + plan.totalBeats * beat;
      if (played) capture.fromPlayer(played, first);
      capture.onblock = (block) => block.from >= (first - leadSeconds) * context.sampleRate && live.take(block);
      silence = countInClicks(tone, begin, beat);
      if (plan.modelHertz > 0) model(tone, plan.modelHertz, begin, 2 * beat);
      this.running = true;
      this.mark();
      if (!(await this.follow(context, begin, first, end, plan))) return;
      this.hearing = true;
      this.count = "…";
      // What is heard reaches the player late by the way out; the microphone hears the answer that much later.
      const late = played ? 0 : (context.outputLatency || 0) + (context.baseLatency || 0);
      await capture.reach(end + late + tailSeconds);
      const { wav, missing } = capture.wav(first + late - leadSeconds, end + late + tailSeconds);
      this.unsent = { wav, drill, missing };
      await this.send(wav, "take.wav", drill, leadSeconds, missing);
      this.unsent = null;
    } finally {
      this.$root.dataset.lags = JSON.stringify(live.lags.map((lag) => Math.round(lag * 1000)));
      this.$root.dataset.onset = live.onsetLag === null ? "" : Math.round(live.onsetLag * 1000);
      live.close();
      capture.close();
      silence();
    }
  },

  async practice(context, drill) {
    const query = new URLSearchParams({ handler: "Practice", ...this.asked(drill), character: this.field("character").value, seed: Math.floor(Math.random() * 1e6) });
    const response = await fetch(`/${stop}/${this.$root.dataset.pupil}?${query}`);
    if (!response.ok) throw new Error(await response.text());
    return context.decodeAudioData(await response.arrayBuffer());
  },

  // Shows the counts by the audio clock until the take is over; false if it was stopped, and a complaint if it broke off.
  follow(context, begin, first, end, plan) {
    return this.until(context, end + tailSeconds + 0.2, (now) => {
      if (now < begin) return;
      const at = Math.floor((now - first) / plan.beatSeconds);
      const beat = plan.beats[Math.min(at, plan.beats.length - 1)];
      this.count = at < 0 ? `${countIn + at + 1}` : `${beat.count}`;
      this.label = at < 0 ? (at >= -2 ? "breathe" : "count in") : beat.phase === "Sing" ? `sing: ${beat.label}` : beat.label;
      this.$root.querySelector("[data-count]").classList.toggle("resting", at < 0 || beat.phase === "Rest" || beat.phase === "Breathe");
    });
  },

  until(context, end, show) {
    return new Promise((resolve, reject) => {
      let stopped = false;
      this.stopNow = (why) => (stopped = why ?? true);
      const step = () => {
        const now = context.currentTime;
        if (stopped || now >= end) {
          this.stopNow = null;
          this.running = false;
          if (typeof stopped === "string") reject(new Error(stopped));
          else resolve(!stopped);
          return;
        }
        show(now);
        requestAnimationFrame(step);
      };
      step();
    });
  },

  async send(sound, name, drill, firstCue, missing = 0) {
    this.hearing = true;
    const body = new FormData();
    body.append("sound", sound, name);
    for (const [name, value] of Object.entries(this.asked(drill))) body.append(name, value);
    body.append("source", this.source);
    if (firstCue !== null) body.append("firstCue", firstCue);
    body.append("missing", missing);
    body.append("tense", this.field("tense").checked);
    const response = await fetch(`/${stop}/${this.$root.dataset.pupil}?handler=Hear`, {
      method: "POST",
      body,
      headers: { "X-Antiforgery": document.querySelector("meta[name=antiforgery]").content },
    });
    if (!response.ok) throw new Error(response.headers.get("content-type")?.startsWith("text/plain") ? await response.text() : "The take could not be heard. Try once more.");
    const heard = document.getElementById("heard");
    heard.innerHTML = await response.text();
    const take = heard.querySelector("[data-take]").dataset.take;
    history.pushState(null, "", `/${stop}/${this.$root.dataset.pupil}?take=${take}`);
    this.shown();
    window.scrollTo({ top: 0 });
  },

  // Something new is on the stage.
  shown() {},

  mark() {
    this.$root.querySelector("[data-go]").classList.toggle("running", this.running);
  },
});
