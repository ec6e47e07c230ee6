import { engrave } from "./notation.js";
import { audio, line } from "./sound.js";
import { taking } from "./take.js";

// The Slurs stop: takes of a slur, and the slur engraved and played.
export const slurs = () => {
  const take = taking("slurs", ["times"]);
  const start = take.init;
  return {
    ...take,
    init() {
      start.call(this);
      this.shown();
    },

    // By ear the notes are folded away, and engraved when they are opened.
    async shown() {
      const staff = this.$root.querySelector("[data-notation]");
      if (!staff) return;
      const fold = staff.closest("details");
      if (!fold.open) {
        fold.addEventListener("toggle", () => this.shown(), { once: true });
        return;
      }
      const picture = await engrave(JSON.parse(staff.querySelector("[data-score]").textContent), staff.clientWidth, false, { spread: 0.9 });
      staff.querySelector(".engraved").replaceChildren(picture);
    },

    // By ear every take begins with the slur played to the pupil.
    leads() {
      return this.led === "alone" && this.$root.querySelector("[data-model]").dataset.first ? "first" : this.led;
    },

    // One tone that steps from note to note, as the slur should.
    async model(event) {
      const { model, tempo } = event.currentTarget.dataset;
      const { tone } = await audio();
      let startBeat = 0;
      const notes = model.split(" ").map((each, i) => {
        const [hertz, beats] = each.split(":").map(Number);
        startBeat += beats;
        return { hertz, beats, startBeat: startBeat - beats, bound: i > 0 };
      });
      line(tone, notes, tone.now() + 0.05, 60 / Number(tempo));
    },
  };
};
