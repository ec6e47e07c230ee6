import { engrave } from "./notation.js";
import { pressed } from "./keys.js";
import { audio, refusal } from "./sound.js";

// The valve of a key: by its place under the right hand, or its figure.
function valveOf(event) {
  const key = pressed(event, "hand") ?? pressed(event, "hand-drill");
  return key?.deed === "thumb" ? "T" : key?.deed === "valve" ? String(key.at + 1) : null;
}
const choiceKeys = ["J", "K", "L", ";"];

// The silent drills: shows what is asked, times what is given, sends it. What is right the server has said beforehand for
// each prompt, and judges again.
export const hand = () => ({
  running: false,
  count: "–",
  goWords: "Start",
  nowWords: "",
  summary: "",
  nextWords: "",
  trouble: "",
  unsent: false,

  get gives() {
    return this.running && this.$root.querySelector("[data-keys]") !== null;
  },

  init() {
    for (const [name, place] of [
      ["nowWords", "[x-text=nowWords]"],
      ["summary", "[x-text=summary]"],
      ["nextWords", "[x-text=nextWords]"],
    ])
      this[name] = this.$root.querySelector(place).textContent;
    this.points = JSON.parse(this.$root.dataset.points);
    this.listener = (event) => this.key(event);
    window.addEventListener("keydown", this.listener, true);
    window.addEventListener("keyup", (this.lifter = (event) => this.lift(event)));
    this.leaver = (event) => (this.running || this.unsent ? event.preventDefault() : undefined);
    window.addEventListener("beforeunload", this.leaver);
  },

  destroy() {
    window.removeEventListener("keydown", this.listener, true);
    window.removeEventListener("keyup", this.lifter);
    window.removeEventListener("beforeunload", this.leaver);
    this.hush();
  },

  chooseDrill(event) {
    location.assign(`/notes/${this.$root.dataset.pupil}/hand?drill=${event.target.value}`);
  },

  toggle() {
    if (this.running) this.stop("Stopped; what was done so far is not kept.");
    else this.start();
  },

  async start() {
    this.trouble = "";
    const query = new URLSearchParams({ handler: "Prompts", drill: this.$root.dataset.drill, seed: Math.floor(Math.random() * 1e9) });
    try {
      const response = await fetch(`/notes/${this.$root.dataset.pupil}/hand?${query}`);
      if (!response.ok) throw new Error(await refusal(response, "The hand drill did not go through. Once more."));
      const { prompts, withinCm } = await response.json();
      for (const prompt of prompts) {
        if (prompt.note) prompt.picture = await engrave(prompt.note, 260);
        for (const choice of prompt.choices) choice.picture = await engrave(choice.note, 180);
      }
      [this.prompts, this.withinCm, this.answers, this.at] = [prompts, withinCm, [], 0];
      if (prompts.some((prompt) => prompt.hertz)) this.sound = await audio();
      this.running = true;
      this.goWords = "Stop";
      document.activeElement?.blur?.();
      this.ask();
    } catch (problem) {
      this.trouble = problem instanceof TypeError ? "Bocca does not answer. Is it still running?" : problem.message;
    }
  },

  stop(words) {
    this.running = false;
    this.goWords = "Start";
    this.count = "–";
    this.hush();
    if (words) this.nowWords = words;
  },

  ask() {
    const prompt = this.prompts[this.at];
    const stage = this.$root.querySelector("[data-prompt]");
    this.count = `${this.at + 1}/${this.prompts.length}`;
    stage.querySelector("[data-show]").textContent = prompt.show;
    const note = stage.querySelector("[data-note]");
    note.replaceChildren(...(prompt.picture ? [prompt.picture.cloneNode(true)] : []));
    note.setAttribute("role", "img");
    note.setAttribute("aria-label", prompt.name ?? "");
    stage.querySelector("[data-choices]").replaceChildren(...prompt.choices.map((choice, i) => this.choice(choice, i)));
    this.release();
    this.begun = performance.now();
    if (prompt.hertz) this.play(prompt.hertz);
  },

  choice(choice, i) {
    const button = Object.assign(document.createElement("button"), { type: "button", className: "choice" });
    button.setAttribute("aria-label", choice.name);
    button.dataset.choice = choice.id;
    button.append(choice.picture.cloneNode(true), Object.assign(document.createElement("kbd"), { textContent: choiceKeys[i] }));
    button.addEventListener("click", () => this.take(choice.id));
    return button;
  },

  // The target first, then the slide's own sound while it is drawn.
  play(hertz) {
    const { tone } = this.sound;
    this.voice ??= new tone.Synth({
      oscillator: { type: "fattriangle", count: 2, spread: 6 },
      envelope: { attack: 0.03, decay: 0.1, sustain: 0.8, release: 0.1 },
      volume: -14,
    }).toDestination();
    this.voice.triggerAttackRelease(hertz, 1.2);
    this.begun = performance.now() + 1200;
  },

  hush() {
    this.voice?.triggerRelease();
    this.voice?.dispose();
    this.voice = undefined;
  },

  key(event) {
    if (
      !this.running ||
      event.ctrlKey ||
      event.metaKey ||
      event.altKey ||
      document.querySelector("dialog[open]") ||
      ["SELECT", "TEXTAREA"].includes(event.target.tagName)
    )
      return;
    const [deed, valve] = [pressed(event, "hand-drill")?.deed, valveOf(event)];
    const prompt = this.prompts[this.at];
    if (deed === "away") this.stop("Stopped; what was done so far is not kept.");
    else if (deed === "give") this.give();
    else if (prompt.choices.length && valve) this.$root.querySelectorAll("[data-choice]")[Number(valve) - 1]?.click();
    else if (valve) this.press(valve, true);
    else if (this.$root.dataset.slide && (deed === "before" || deed === "after"))
      prompt.cm === null ? this.shift(deed === "after" ? 1 : -1) : this.nudge(deed === "after" ? 0.5 : -0.5);
    else return;
    event.preventDefault();
    event.stopPropagation();
  },

  // Held on the keyboard, valves come up with the finger; tapped, they stay until the answer is given.
  lift(event) {
    const valve = this.running && valveOf(event);
    if (valve) this.press(valve, false);
  },

  press(name, down) {
    const valve = this.$root.querySelector(`[data-valve="${name}"]`);
    if (!valve) return;
    valve.setAttribute("aria-pressed", down);
    valve.classList.toggle("down", down);
  },

  toggleValve(event) {
    const valve = event.currentTarget;
    this.press(valve.dataset.valve, valve.getAttribute("aria-pressed") !== "true");
  },

  release() {
    for (const valve of this.$root.querySelectorAll("[data-valve]")) this.press(valve.dataset.valve, false);
  },

  inwards() {
    this.shift(-1);
  },

  outwards() {
    this.shift(1);
  },

  shift(by) {
    this.position = Math.min(7, Math.max(1, (this.position ?? 1) + by));
    this.$root.querySelector("[data-position]").textContent = `position ${this.position}`;
    this.slideTo((Number(this.$root.dataset.travel) * (this.position - 1)) / 6.6);
  },

  nudge(cm) {
    const pointer = this.$root.querySelector("[data-pointer]");
    pointer.value = Number(pointer.value) + cm;
    this.drawSlide({ target: pointer });
  },

  drawSlide(event) {
    this.slideTo(Number(event.target.value));
    if (!this.running || !this.prompts[this.at].hertz) return;
    const point = this.points.reduce((near, each) =>
      Math.abs(each.cm - event.target.value) < Math.abs(near.cm - event.target.value) ? each : near,
    );
    this.play(point.hertz);
  },

  slideTo(cm) {
    const moved = (cm / Number(this.$root.dataset.travel)) * 590;
    this.$root.querySelector("[data-outer]").setAttribute("transform", `translate(${moved} 0)`);
    for (const tube of this.$root.querySelectorAll("[data-inner]")) tube.setAttribute("x2", 70 + moved);
  },

  give() {
    if (!this.running) return;
    const prompt = this.prompts[this.at];
    if (prompt.choices.length) return;
    if (this.$root.dataset.slide)
      this.take(prompt.cm === null ? String(this.position ?? 1) : this.$root.querySelector("[data-pointer]").value);
    else {
      const down = [...this.$root.querySelectorAll("[data-valve][aria-pressed=true]")].map((valve) => valve.dataset.valve);
      const fingers = down.filter((each) => each !== "T").join("-") || "0";
      this.take(down.includes("T") ? `T-${fingers}` : fingers);
    }
  },

  take(given) {
    const prompt = this.prompts[this.at];
    const right = prompt.cm === null ? prompt.accepted.includes(given) : Math.abs(Number(given) - prompt.cm) <= this.withinCm;
    this.answers.push({
      item: prompt.item,
      answer: prompt.answer,
      from: this.answers.at(-1)?.answer ?? "",
      given,
      seconds: Math.min(120, Math.max(0, performance.now() - this.begun) / 1000),
      cm: prompt.cm,
    });
    const off = prompt.cm === null ? 0 : Number(given) - prompt.cm;
    this.nowWords = (right ? prompt.words.right : off < 0 ? prompt.words.below : prompt.words.above)
      .replace("{given}", given)
      .replace("{off}", Math.abs(off).toFixed(1));
    this.at++;
    if (this.at < this.prompts.length) this.ask();
    else {
      this.stop();
      this.send();
    }
  },

  // The list of drills below, as the record has it now.
  async past() {
    const response = await fetch(location.href);
    if (!response.ok) return;
    const page = new DOMParser().parseFromString(await response.text(), "text/html");
    this.$root.querySelector(".history").replaceWith(document.importNode(page.querySelector(".history"), true));
  },

  async send() {
    this.unsent = true;
    this.trouble = "";
    try {
      const response = await fetch(`/notes/${this.$root.dataset.pupil}/hand`, {
        method: "POST",
        headers: { "Content-Type": "application/json", "X-Antiforgery": document.querySelector("meta[name=antiforgery]").content },
        body: JSON.stringify({ drill: this.$root.dataset.drill, answers: this.answers }),
      });
      if (!response.ok) throw new Error(await refusal(response, "The hand drill did not go through. Once more."));
      const outcome = await response.json();
      [this.summary, this.nextWords, this.unsent] = [outcome.summary, outcome.next, false];
      this.$root
        .querySelector("[data-weak]")
        .replaceChildren(...outcome.weakest.map((change) => Object.assign(document.createElement("li"), { textContent: change })));
      this.$root.querySelector("[data-show]").textContent = outcome.passed ? "Done." : "Done; once more?";
      this.$root.querySelector("[data-note]").replaceChildren();
      this.$root.querySelector("[data-choices]").replaceChildren();
      const onward = this.$root.querySelector("[data-onward]");
      onward.hidden = !outcome.onward;
      if (outcome.onward) {
        onward.href = `/notes/${this.$root.dataset.pupil}/hand?drill=${outcome.onward.id}`;
        onward.firstChild.textContent = `Go on: ${outcome.onward.name} `;
      }
      await this.past();
      this.$root.dataset.done = outcome.id;
    } catch (problem) {
      this.trouble = problem instanceof TypeError ? "Bocca does not answer. The answers are kept here: send them again." : problem.message;
    }
  },
});
