import { deedOf } from "./keys.js";
import { engrave } from "./notation.js";
import { audio, inWords, momentOf } from "./sound.js";
import { taking } from "./take.js";

// Rhythm cards: said, clapped, tapped, played; the card first where it is wanted.
export const count = () => {
  const take = taking("ear/count", ["cards", "metre", "gap", "taps", "delay"]);
  const { init: start, destroy: stop, toggle: run } = take;
  return {
    ...take,
    tapped: [],

    init() {
      // What is tapped goes with the question, and with it the way up from there.
      this.home = this.$root;
      start.call(this);
      this.listener = (event) => this.key(event);
      window.addEventListener("keydown", this.listener);
      this.home.addEventListener("pointerdown", (event) => event.target.closest("[data-tap]") && this.tap(event));
      this.home.addEventListener("bocca:tap", ({ detail }) => (this.running ? this.tap(detail) : this.toggle()));
      this.shown();
    },

    destroy() {
      stop.call(this);
      window.removeEventListener("keydown", this.listener);
    },

    // By ear the card is always heard first.
    ledBy() {
      return this.home.querySelector("#stage").dataset.byear ? "first" : this.led;
    },

    nextWords() {
      if (this.running) return this.label === "listen" ? "Listen to the end." : "The count leads.";
      return this.home && this.ledBy() === "first"
        ? "Press Start: listen, four counts in, then go."
        : "Press Start: four counts in, then go.";
    },

    async shown() {
      const missing = this.home.querySelector("[data-delay-missing]");
      if (missing) missing.hidden = Number(localStorage.getItem("bocca.delay.ms")) > 0;
      for (const card of this.home.querySelectorAll("[data-rhythm]"))
        card.replaceChildren(await engrave(card.dataset.rhythm, card.clientWidth || 600, false, { spread: 0.9, scale: 70 }));
      this.home.setAttribute("data-ready", "");
    },

    // Everything on the page but the cards themselves goes with the choice; other cards come where none are named.
    address(cards) {
      const query = Object.fromEntries(
        ["drill", "tempo", "metre", "gap", "counts", "many", "bars"].map((name) => [name, this.field(name).value]),
      );
      return `/ear/count/${this.home.dataset.pupil}?${new URLSearchParams(cards ? { ...query, own: cards } : query)}`;
    },

    chooseCards() {
      location.assign(this.address(this.field("cards").value));
    },

    otherCards() {
      location.assign(this.address(""));
    },

    key(event) {
      const key = deedOf(event, "count");
      if (key?.deed === "tap") this.tap(event);
      else if (key?.deed === "hear" && !this.running) this.home.querySelector("[data-model]")?.click();
      else if (key?.deed === "others" && !this.running) this.otherCards();
    },

    // A key that is held repeats itself; that is no tap.
    tap(event) {
      if (!this.running || event.repeat || !this.tapsFrom) return;
      event.preventDefault?.();
      const { context, from } = this.tapsFrom;
      this.tapped.push(momentOf(event, context) - from);
      const button = this.home.querySelector("[data-tap]");
      button?.classList.add("down");
      setTimeout(() => button?.classList.remove("down"), 90);
    },

    // The take has been laid out: what is tapped is timed against where the recording begins.
    begun(context, { first, late }) {
      // What is heard comes late by the way out alone; a tap has no way in.
      const out = (context.outputLatency || 0) + (context.baseLatency || 0);
      this.home.dataset.first = String(first);
      this.tapped = [];
      this.tapsFrom = { context, from: first + out - 0.5 };
      this.field("taps").value = "";
      this.field("delay").value = String(Math.round(1000 * late));
      if (this.ledBy() === "with") this.playing = this.play(context, this.said, first);
    },

    async toggle() {
      if (this.running || this.hearing) return run.call(this);
      const { context } = await audio();
      try {
        if (this.ledBy() !== "alone" && !this.isMade()) this.said = await this.modelled(context);
        if (this.ledBy() === "first" && !this.isMade()) {
          this.running = true;
          this.label = "listen";
          this.mark();
          const source = this.play(context, this.said, context.currentTime + 0.1);
          const whole = await this.until(context, context.currentTime + 0.1 + this.said.duration, () => (this.count = "♪"));
          source.stop();
          this.running = false;
          this.mark();
          if (!whole) return undefined;
        }
      } catch (problem) {
        this.running = false;
        this.trouble = inWords(problem, "go on alone");
        return undefined;
      }
      return run.call(this);
    },

    // A take of cards is sent with what was tapped.
    sent(sound, drill, firstCue, missing = 0, name = "take.wav") {
      this.field("taps").value = this.tapped.map((at) => at.toFixed(4)).join(" ");
      this.tapsFrom = null;
      const asked = { ...this.asked(drill), request: this.request, source: this.source, tense: this.field("tense").checked };
      return {
        key: crypto.randomUUID(),
        stop: "ear/count",
        pupil: this.home.dataset.pupil,
        at: Date.now(),
        sound,
        name,
        asked,
        firstCue,
        missing,
        finished: null,
      };
    },

    async modelled(context) {
      const query = new URLSearchParams({ handler: "Practice", ...this.asked(this.drill()), character: "right", seed: 1 });
      const response = await fetch(`/ear/count/${this.home.dataset.pupil}?${query}`);
      if (!response.ok) throw new Error("The card could not be said and clapped. Try once more.");
      return context.decodeAudioData(await response.arrayBuffer());
    },

    play(context, sound, at) {
      const source = new AudioBufferSourceNode(context, { buffer: sound });
      source.connect(context.destination);
      source.start(at);
      return source;
    },

    async model() {
      const { context } = await audio();
      try {
        this.playing?.stop();
        this.playing = this.play(context, await this.modelled(context), context.currentTime + 0.05);
      } catch (problem) {
        this.trouble = inWords(problem, "go on without it");
      }
    },

    halves(event) {
      const question = event.currentTarget.closest("[data-halves]");
      const right = event.currentTarget.dataset.half === question.dataset.halves;
      question.querySelector("[data-halves-said]").textContent = right
        ? `Yes: ${question.dataset.halves} half beats.`
        : "Count the lines of the grid under it.";
    },
  };
};
