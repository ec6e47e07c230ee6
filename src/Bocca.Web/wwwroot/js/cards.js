import { deedOf } from "./keys.js";
import { engrave } from "./notation.js";
import { audio, clicks } from "./sound.js";

// Cards for a class: one at a time, turned by key, touch or remote; a count for all, no verdict.
export const cards = () => ({
  at: 0,
  count: "",
  counting: false,
  hidden: false,

  get goWords() {
    return this.counting ? "Stop" : "Count";
  },

  get hideWords() {
    return this.hidden ? "Show the counts" : "Hide the counts";
  },

  init() {
    this.listener = (event) => this.key(event);
    window.addEventListener("keydown", this.listener);
    this.turn(0);
  },

  destroy() {
    window.removeEventListener("keydown", this.listener);
    this.silence?.();
  },

  all() {
    return [...this.$root.querySelectorAll("[data-class-card]")];
  },

  async turn(by) {
    const cards = this.all();
    if (cards.length === 0) return;
    this.at = Math.min(cards.length - 1, Math.max(0, this.at + by));
    cards.forEach((card, i) => (card.hidden = i !== this.at));
    for (const card of [cards[this.at], cards[this.at + 1]].filter(Boolean)) {
      const staff = card.querySelector("[data-rhythm]");
      // The next one is engraved beforehand.
      if (!staff.firstChild) staff.replaceChildren(await engrave(staff.dataset.rhythm, 520, false, { spread: 0.9, scale: 60 }));
    }
    this.$root.setAttribute("data-ready", "");
  },

  on() {
    return this.turn(1);
  },

  back() {
    return this.turn(-1);
  },

  hide() {
    this.hidden = !this.hidden;
    this.$root.classList.toggle("no-counts", this.hidden);
  },

  full() {
    const stage = this.$root.querySelector("#stage");
    if (document.fullscreenElement) document.exitFullscreen();
    else stage.requestFullscreen?.();
  },

  key(event) {
    const key = deedOf(event, "cards");
    if (key?.deed === "after") this.on();
    else if (key?.deed === "before") this.back();
    else if (key?.deed === "full") this.full();
    else return;
    event.preventDefault();
  },

  // A count for all until it is stopped: clicks by the audio clock, the figure with them.
  async beat() {
    if (this.counting) {
      this.counting = false;
      this.silence?.();
      return;
    }
    const { tone, context } = await audio();
    const { tempo, beats } = this.$root.dataset;
    const [seconds, bar] = [60 / Number(tempo), Number(beats)];
    const first = context.currentTime + 0.15;
    this.counting = true;
    this.silence = clicks(
      tone,
      Array.from({ length: 64 * bar }, (_, i) => ({ at: first + i * seconds, accent: i % bar === 0 })),
    );
    const step = () => {
      if (!this.counting) {
        this.count = "";
        return;
      }
      const beat = Math.floor((context.currentTime - first) / seconds);
      if (beat >= 64 * bar) this.counting = false;
      this.count = beat < 0 ? "" : `${(beat % bar) + 1}`;
      requestAnimationFrame(step);
    };
    step();
  },

  choose(event) {
    event.target.form.submit();
  },
});
