import { passingMs, remembered, unfold } from "./frame.js";
import { Capture, silentWords } from "./capture.js";
import { pressed } from "./keys.js";
import { audio, clicks, countIn, countInClicks, inWords, refusal } from "./sound.js";
import { forget, keep as store, waiting } from "./waiting.js";

const leadSeconds = 0.3;
const tailSeconds = 0.5;
const kinds = { in: "In", wait: "Wait", sip: "Sip", out: "Out", rest: "Rest" };

// The Breath stop: the bellows leads by the audio clock; what was heard or tapped is sent and comes back judged.
export const breath = () => ({
  source: "nobody",
  running: false,
  asking: false,
  seated: false,
  trouble: "",
  stopNow: null,
  done: null,
  unsent: null,

  isPractice() {
    return this.source === "practice";
  },

  get nextWords() {
    return this.running ? "Breathe with the bellows. Stop if anything feels odd." : "Press Start: four counts in, then the bellows leads.";
  },

  get goWords() {
    return this.running ? "Stop" : "Start";
  },

  async init() {
    this.source = remembered(this.field("source"), "bocca.listens");
    // The practice player is nobody's choice for the next page.
    this.$watch("source", (source) => source !== "practice" && localStorage.setItem("bocca.listens", source));
    this.chooseSource();
    this.draw(0.12);
    this.listener = (event) => {
      if (pressed(event, "breath") && this.running) this.stopNow?.();
    };
    window.addEventListener("keydown", this.listener);
    window.addEventListener("beforeunload", (this.leaver = (event) => this.running && event.preventDefault()));
    window.addEventListener("bocca:leaving", (this.warner = () => this.pass("A drill is running. Stop it first; what was done is kept.")));
    // Who feels dizzy is not asked twice.
    this.$root.querySelector(".hand").addEventListener("submit", () => (this.running = false));
    this.unsent = (await waiting("breath", this.$root.dataset.pupil)) ?? null;
    if (this.unsent) this.trouble = `A drill of ${new Date(this.unsent.at).toTimeString().slice(0, 5)} was not judged yet.`;
  },

  destroy() {
    window.removeEventListener("keydown", this.listener);
    window.removeEventListener("beforeunload", this.leaver);
    window.removeEventListener("bocca:leaving", this.warner);
  },

  // The practice player has more to choose.
  chooseSource() {
    if (this.isPractice()) unfold(this.$root.querySelector(".transport"), true);
  },

  pass(words) {
    this.trouble = words;
    setTimeout(() => this.trouble === words && (this.trouble = ""), passingMs);
  },

  byMicrophone() {
    this.source = "microphone";
    this.$root.querySelector("[data-go]").focus();
  },

  field(name) {
    return this.$root.querySelector(`.transport [name=${name}]`);
  },

  choose(event) {
    const query = new URLSearchParams({ drill: this.field("drill").value, tempo: this.field("tempo").value });
    if (event.target.name !== "drill") query.set("rung", this.field("rung").value);
    location.assign(`/breath/${this.$root.dataset.pupil}?${query}`);
  },

  halt() {
    if (this.running) this.stopNow?.();
  },

  async toggle() {
    if (this.running) {
      this.stopNow?.();
      return;
    }
    this.trouble = "";
    this.asking = false;
    try {
      await this.run();
    } catch (problem) {
      this.trouble = inWords(problem, "tap the result yourself");
    } finally {
      this.running = false;
      this.mark();
    }
  },

  async run() {
    const asked = { drill: this.field("drill").value, rung: this.field("rung").value, tempo: this.field("tempo").value };
    const response = await fetch(`/breath/${this.$root.dataset.pupil}?${new URLSearchParams({ handler: "Plan", ...asked })}`);
    if (!response.ok) throw new Error(await refusal(response, "This drill is not open here. Choose another."));
    const plan = await response.json();
    if (plan.seated && !this.seated) {
      this.seated = true;
      throw new Error("Sit down first, then press Start again.");
    }
    const { tone, context } = await audio();
    const beat = 60 / Number(asked.tempo);
    const capture = this.source === "nobody" ? null : new Capture(context);
    this.done = { ...asked, key: crypto.randomUUID() };
    const silence = [];
    try {
      let played = null;
      if (capture) {
        await capture.open();
        if (this.isPractice()) played = await this.practice(context, asked);
        else {
          capture.onsilent = (silent) => (this.trouble = silent ? silentWords : this.trouble === silentWords ? "" : this.trouble);
          await capture.fromMicrophone();
        }
      }
      const begin = context.currentTime + 0.2;
      const first = begin + countIn * beat;
      if (played) capture.fromPlayer(played, first);
      silence.push(countInClicks(tone, begin, beat));
      if (!capture) silence.push(clicks(tone, beatsOf(plan, first, beat)));
      this.running = true;
      this.mark();
      const ran = await this.follow(context, plan, begin, first, beat);
      if (ran < plan.totalSeconds) {
        if (ran > 0 && !this.isPractice()) await this.keep({ stopped: true, seconds: ran });
        return;
      }
      if (!capture) {
        this.asking = true;
        return;
      }
      const late = played ? 0 : (context.outputLatency || 0) + (context.baseLatency || 0);
      const over = first + late + plan.totalSeconds + tailSeconds;
      await capture.reach(over);
      await this.keep(
        { first: leadSeconds, source: played ? "PracticePlayer" : "Microphone" },
        capture.wav(first + late - leadSeconds, over).wav,
      );
    } finally {
      capture?.close();
      silence.forEach((end) => end());
      this.rest();
    }
  },

  async practice(context, asked) {
    const query = new URLSearchParams({
      handler: "Practice",
      ...asked,
      fault: this.field("fault").value,
      seed: Math.floor(Math.random() * 1e6),
    });
    const response = await fetch(`/breath/${this.$root.dataset.pupil}?${query}`);
    if (!response.ok) throw new Error(await refusal(response, "The practice player could not play. Try once more."));
    return context.decodeAudioData(await response.arrayBuffer());
  },

  // Leads through the plan by the audio clock; gives back the seconds that were done.
  follow(context, plan, begin, first, beat) {
    const cues = [];
    return new Promise((resolve) => {
      let stopped = false;
      this.stopNow = () => (stopped = true);
      let shown = -1;
      const step = () => {
        const now = context.currentTime;
        const at = now - first;
        if (stopped || at >= plan.totalSeconds) {
          this.stopNow = null;
          this.$root.dataset.cues = JSON.stringify(cues);
          resolve(stopped ? at : plan.totalSeconds);
          return;
        }
        if (at < 0) {
          if (now >= begin) this.show("Ready", countIn + Math.floor(at / beat) + 1, 0.12);
        } else {
          const index = plan.phases.findLastIndex((phase) => phase.start <= at);
          const phase = plan.phases[index];
          if (index !== shown) {
            shown = index;
            cues.push({ kind: phase.kind, planned: first + phase.start, shown: now });
          }
          this.show(
            phase.air ? `${kinds[phase.kind]}, ${phase.air}` : kinds[phase.kind],
            Math.floor((at - phase.start) / beat) + 1,
            fullness(plan.phases, index, (at - phase.start) / phase.seconds),
          );
          const cursor = this.$root.querySelector("[data-cursor]");
          const x = Number(cursor.dataset.from) + (at / plan.totalSeconds) * Number(cursor.dataset.width);
          cursor.setAttribute("x1", x);
          cursor.setAttribute("x2", x);
        }
        requestAnimationFrame(step);
      };
      step();
    });
  },

  show(word, count, full) {
    this.$root.querySelector("[data-phase]").textContent = word;
    this.$root.querySelector("[data-count]").textContent = count;
    this.draw(full);
  },

  rest() {
    this.$root.querySelector("[data-phase]").textContent = "";
    this.$root.querySelector("[data-count]").textContent = "";
    this.draw(0.12);
  },

  // Two plates and the pleats between them about the middle of the stage: narrow when the breath is out, wide when it is in; the count
  // stands in it.
  draw(full) {
    const left = 370 - 130 - 220 * full;
    const right = 740 - left;
    const pleats = 9;
    const depth = 26 - 14 * full;
    const points = (top) =>
      Array.from({ length: 2 * pleats + 1 }, (_, i) => {
        const x = left + ((right - left) * i) / (2 * pleats);
        const fold = i % 2 ? depth : 0;
        return `${x.toFixed(1)} ${(top ? 34 + fold : 396 - fold).toFixed(1)}`;
      });
    this.$root.querySelector("[data-pleats]").setAttribute("d", `M${points(true).join("L")}L${points(false).reverse().join("L")}Z`);
    this.$root.querySelector("[data-fixed]").setAttribute("d", `M${left} 18V412`);
    this.$root.querySelector("[data-plate]").setAttribute("d", `M${right} 18V412`);
  },

  async even() {
    await this.tap(true);
  },

  async uneven() {
    await this.tap(false);
  },

  async tap(even) {
    this.trouble = "";
    try {
      await this.keep({ even });
      this.asking = false;
    } catch (problem) {
      this.trouble = inWords(problem, "tap the result yourself");
    }
  },

  // What was breathed waits in this browser until the record has it; sent twice, it is kept once.
  async keep(fields, sound) {
    const drill = {
      key: this.done.key,
      stop: "breath",
      pupil: this.$root.dataset.pupil,
      at: Date.now(),
      fields: { ...this.done, ...fields },
      sound,
    };
    await store(drill);
    this.unsent = drill;
    await this.send(drill);
  },

  async sendAgain() {
    this.trouble = "";
    try {
      await this.send(this.unsent);
    } catch (problem) {
      this.trouble = inWords(problem, "tap the result yourself");
    }
  },

  async letGo() {
    await forget(this.unsent.key);
    [this.unsent, this.trouble] = [null, ""];
  },

  async send({ key, fields, sound }) {
    const body = new FormData();
    for (const [name, value] of Object.entries(fields)) body.append(name, value);
    if (sound) body.append("sound", sound, "breath.wav");
    const response = await fetch(`/breath/${this.$root.dataset.pupil}?handler=Keep`, {
      method: "POST",
      body,
      headers: { "X-Antiforgery": document.querySelector("meta[name=antiforgery]").content },
    });
    if (!response.ok) throw new Error(await refusal(response, "The drill could not be kept. Try once more."));
    const page = new DOMParser().parseFromString(await response.text(), "text/html");
    await forget(key);
    this.unsent = null;
    for (const [name, place] of [
      ["stream", "[data-stream]"],
      ["outcome", "[data-outcome]"],
      ["next", "[data-next-block]"],
    ])
      this.$root.querySelector(place).replaceChildren(...page.querySelector(`[data-to=${name}]`).childNodes);
    this.$root.dataset.kept = page.querySelector("[data-kept]").dataset.kept;
  },

  mark() {
    this.$root.classList.toggle("taking", this.running);
    this.$root.querySelector("[data-go]").classList.toggle("running", this.running);
    this.$root.querySelector(".fields").inert = this.running;
    unfold(this.$root.querySelector(".transport"), false);
  },
});

// Every beat of a plan on the audio clock, the first of each phase accented.
function beatsOf(plan, first, beat) {
  const beats = plan.phases.flatMap((phase) =>
    Array.from({ length: Math.max(1, Math.round(phase.seconds / beat)) }, (_, i) => ({
      at: first + phase.start + i * beat,
      accent: i === 0,
    })),
  );
  return beats.filter(({ at }, i) => i === 0 || at - beats[i - 1].at > 0.02);
}

// How full the breath is, 0 to 1, within a phase.
function fullness(phases, index, share) {
  const before = (at) => {
    for (let i = at - 1; i >= 0; i--) {
      if (phases[i].kind === "in" || phases[i].kind === "wait" || phases[i].kind === "sip") return 1;
      if (phases[i].kind === "out") return 0.05;
    }
    return 0.12;
  };
  const from = before(index);
  const to = { in: 1, wait: 1, sip: 1, out: 0.05, rest: 0.12 }[phases[index].kind];
  return from + (to - from) * Math.min(1, share);
}
