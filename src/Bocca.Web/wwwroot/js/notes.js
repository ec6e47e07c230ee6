import { engrave } from "./notation.js";
import { deedOf } from "./keys.js";
import { audio } from "./sound.js";

// The Notes stop: the engraved row, the valves under the hand, the sound of the note.
export const notes = () => ({
  tried: "",

  init() {
    this.draw();
    this.listener = (event) => this.key(event);
    window.addEventListener("keydown", this.listener);
  },

  destroy() {
    window.removeEventListener("keydown", this.listener);
  },

  async draw() {
    const staff = this.$root.querySelector("[data-notation]");
    const links = [...staff.querySelectorAll("[data-note-link]")];
    const picture = await engrave(JSON.parse(staff.querySelector("[data-score]").textContent), staff.clientWidth);
    staff.querySelector(".engraved").replaceChildren(picture);
    [...picture.querySelectorAll("g.note")].forEach((note, i) => {
      note.classList.toggle("chosen", `n${i + 1}` === staff.dataset.chosen);
      note.addEventListener("click", () => links[i]?.click());
    });
  },

  key(event) {
    const key = deedOf(event, "notes");
    if (!key) return;
    const links = [...this.$root.querySelectorAll("[data-note-link]")];
    const here = links.findIndex((link) => link.hasAttribute("aria-current"));
    if (key.deed === "before" || key.deed === "after") links[here + (key.deed === "after" ? 1 : -1)]?.click();
    else if (key.deed === "hear") this.hear();
    else this.$root.querySelector(`[data-valve="${key.deed === "thumb" ? "T" : key.at + 1}"]`)?.click();
  },

  async hear() {
    const { tone } = await audio();
    const synth = new tone.Synth({
      oscillator: { type: "custom", partials: [1, 0.85, 0.7, 0.5, 0.35, 0.25, 0.16, 0.1, 0.06] },
      envelope: { attack: 0.06, decay: 0.15, sustain: 0.8, release: 0.15 },
      volume: -14,
    }).toDestination();
    synth.triggerAttackRelease(Number(this.$root.dataset.hertz), 1.6);
    setTimeout(() => synth.dispose(), 2500);
  },

  async press(event) {
    const valve = event.currentTarget;
    const down = valve.getAttribute("aria-pressed") !== "true";
    valve.setAttribute("aria-pressed", down);
    valve.classList.toggle("down", down);
    const pressed = [...this.$root.querySelectorAll("[data-valve][aria-pressed=true]")].map((each) => each.dataset.valve);
    const fingers = pressed.filter((each) => each !== "T").join("-") || "0";
    const query = new URLSearchParams({
      handler: "Try",
      note: this.$root.dataset.note,
      setting: pressed.includes("T") ? `T-${fingers}` : fingers,
    });
    const response = await fetch(`/notes/${this.$root.dataset.pupil}?${query}`);
    this.tried = response.ok ? await response.text() : "Bocca does not answer.";
  },
});
