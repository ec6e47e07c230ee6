import { Capture } from "./capture.js";
import { Live } from "./live.js";
import { audio, countIn, countInClicks, inWords } from "./sound.js";

const leadSeconds = 0.5;
const tailSeconds = 0.3;

// The Buzz stop: counts a take in and through, takes it in, sends it to be heard, shows what came back.
export const buzz = () => ({
  source: "Microphone",
  running: false,
  hearing: false,
  count: "–",
  trouble: "",
  stopNow: null,
  unsent: null,

  get isFile() {
    return this.source === "File";
  },

  get isPractice() {
    return this.source === "PracticePlayer";
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
    stage.querySelectorAll(".threads, .legend, .empty-threads").forEach((old) => old.remove());
    const space = document.createElement("div");
    stage.append(space);
    return space;
  },

  // Sends a take once more that did not get through.
  async sendAgain() {
    if (!this.unsent) return;
    this.trouble = "";
    try {
      await this.send(this.unsent.wav, "take.wav", this.unsent.drill, leadSeconds);
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
    return { id: value, tempo, sound: Number(dataset.sound), rest: Number(dataset.rest), times: Number(dataset.times), ask: dataset.ask };
  },

  chooseDrill() {
    this.field("tempo").value = this.field("drill").selectedOptions[0].dataset.tempo;
    location.assign(`/buzz/${this.$root.dataset.pupil}?drill=${this.field("drill").value}`);
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
      else await this.record();
    } catch (problem) {
      this.trouble = inWords(problem, "choose another source");
    } finally {
      this.running = false;
      this.hearing = false;
      this.count = "–";
      this.mark();
    }
  },

  async sendFile() {
    const file = this.field("file").files[0];
    if (!file) throw new Error("Choose a WAV file first.");
    await this.send(file, file.name, this.drill(), null);
  },

  async record() {
    const drill = this.drill();
    const beat = 60 / drill.tempo;
    const { tone, context } = await audio();
    const capture = new Capture(context);
    const live = new Live(context, Number(this.$root.dataset.pupil), this.field("on").value, drill.sound * beat);
    let silence = () => {};
    try {
      await Promise.all([capture.open(), live.open()]);
      const played = this.isPractice ? await this.practice(context, drill) : null;
      if (!played) await capture.fromMicrophone();
      live.show(this.stage());
      const begin = context.currentTime + 0.2;
      const first = begin + countIn * beat;
      const end = first + drill.times * (drill.sound + drill.rest) * beat;
      if (played) capture.fromPlayer(played, first);
      capture.onblock = (block) => block.from >= (first - leadSeconds) * context.sampleRate && live.take(block);
      silence = countInClicks(tone, begin, beat);
      this.running = true;
      this.mark();
      if (!(await this.follow(context, begin, first, end, beat, drill))) return;
      this.hearing = true;
      this.count = "…";
      // What is heard reaches the player late by the way out; the microphone hears the answer that much later.
      const late = played ? 0 : (context.outputLatency || 0) + (context.baseLatency || 0);
      const wav = capture.wav(first + late - leadSeconds, end + late + tailSeconds);
      this.unsent = { wav, drill };
      await this.send(wav, "take.wav", drill, leadSeconds);
      this.unsent = null;
    } finally {
      this.$root.dataset.lags = JSON.stringify(live.lags.map((lag) => Math.round(lag * 1000)));
      live.close();
      capture.close();
      silence();
    }
  },

  async practice(context, drill) {
    const query = new URLSearchParams({ handler: "Practice", drill: drill.id, tempo: drill.tempo, on: this.field("on").value, character: this.field("character").value, seed: Math.floor(Math.random() * 1e6) });
    const response = await fetch(`/buzz/${this.$root.dataset.pupil}?${query}`);
    if (!response.ok) throw new Error(await response.text());
    return context.decodeAudioData(await response.arrayBuffer());
  },

  // Shows the counts by the audio clock until the take is over; false if it was stopped.
  follow(context, begin, first, end, beat, drill) {
    return new Promise((resolve) => {
      let stopped = false;
      this.stopNow = () => (stopped = true);
      const period = drill.sound + drill.rest;
      const step = () => {
        const now = context.currentTime;
        if (stopped || now >= end + tailSeconds + 0.2) {
          this.stopNow = null;
          this.running = false;
          resolve(!stopped);
          return;
        }
        const beats = (now - first) / beat;
        const inPeriod = ((Math.floor(beats) % period) + period) % period;
        const resting = beats < 0 || inPeriod >= drill.sound;
        if (now >= begin) this.count = beats < 0 ? `${countIn + Math.floor(beats) + 1}` : `${resting ? inPeriod - drill.sound + 1 : inPeriod + 1}`;
        this.$root.querySelector("[data-count]").classList.toggle("resting", resting);
        requestAnimationFrame(step);
      };
      step();
    });
  },

  async send(sound, name, drill, firstCue) {
    this.hearing = true;
    const body = new FormData();
    body.append("sound", sound, name);
    body.append("drill", drill.id);
    body.append("tempo", drill.tempo);
    body.append("on", this.field("on").value);
    body.append("source", this.source);
    if (firstCue !== null) body.append("firstCue", firstCue);
    body.append("tense", this.field("tense").checked);
    const response = await fetch(`/buzz/${this.$root.dataset.pupil}?handler=Hear`, {
      method: "POST",
      body,
      headers: { "X-Antiforgery": document.querySelector("meta[name=antiforgery]").content },
    });
    if (!response.ok) throw new Error(response.headers.get("content-type")?.startsWith("text/plain") ? await response.text() : "The take could not be heard. Try once more.");
    const heard = document.getElementById("heard");
    heard.innerHTML = await response.text();
    const take = heard.querySelector("[data-take]").dataset.take;
    history.pushState(null, "", `/buzz/${this.$root.dataset.pupil}?take=${take}`);
    heard.scrollIntoView({ block: "start" });
  },

  mark() {
    this.$root.querySelector("[data-go]").classList.toggle("running", this.running);
  },
});
