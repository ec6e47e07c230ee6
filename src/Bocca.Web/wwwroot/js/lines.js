import { deedOf } from "./keys.js";
import { engrave } from "./notation.js";

// Engraved lines of a chart or a class sheet, drawn once; and printing.
export const drawLines = async (root) => {
  for (const staff of root.querySelectorAll("[data-lines]")) {
    const how = { full: staff.dataset.lines === "full", scale: Number(staff.dataset.scale ?? 50) };
    const picture = await engrave(JSON.parse(staff.querySelector("[data-score]").textContent), staff.clientWidth, true, how);
    staff.querySelector(".engraved").replaceChildren(picture);
  }
};

// A class chosen by name is shown at once; one tick more or less, and it is no longer that class.
const whoPlays = {
  chooseClass(event) {
    event.target.form.requestSubmit();
  },

  tickWho(event) {
    const chosen = event.target.form.elements.class;
    if (chosen) chosen.value = "";
  },

  print() {
    window.print();
  },
};

export const lines = () => ({
  ...whoPlays,

  init() {
    drawLines(this.$root);
  },
});

// The class sheet called out: one note after the other, large, with Space and the arrows.
export const callOut = () => ({
  ...whoPlays,
  at: -1,

  init() {
    drawLines(this.$root);
    this.listener = (event) => this.key(event);
    window.addEventListener("keydown", this.listener);
  },

  destroy() {
    window.removeEventListener("keydown", this.listener);
  },

  toggle() {
    this.go(this.at < 0 ? 0 : this.at + 1);
  },

  key(event) {
    const deed = this.at < 0 ? null : deedOf(event, "call")?.deed;
    if (deed) this.go({ after: this.at + 1, before: this.at - 1, away: -1 }[deed]);
  },

  // Past the last note the whole sheet stands again.
  go(at) {
    this.at = at > Number(this.$root.dataset.last) ? -1 : at;
    this.$root.classList.toggle("calling", this.at >= 0);
    for (const note of this.$root.querySelectorAll("[data-at]"))
      note.classList.toggle("current", Number(note.dataset.at) === Math.max(0, this.at));
    this.$root.querySelector("[data-call]").firstChild.textContent = this.at < 0 ? "Call it out " : `Note ${this.at + 1}: next `;
  },
});
