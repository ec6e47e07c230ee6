import { engrave } from "./notation.js";
import { audio, note } from "./sound.js";
import { taking } from "./take.js";

// The Tone stop: takes of notes, and the notes engraved.
export const tone = () => {
  const take = taking("tone", ["notes", "settings", "ways", "a4", "celsius", "target", "rhythm"]);
  const start = take.init;
  return {
    ...take,
    init() {
      start.call(this);
      this.shown();
    },

    // Draws the notes asked for as music.
    async shown() {
      const staff = this.$root.querySelector("[data-notation]");
      if (!staff) return;
      const picture = await engrave(JSON.parse(staff.querySelector("[data-score]").textContent), staff.clientWidth);
      staff.querySelector(".engraved").replaceChildren(picture);
    },

    chooseNotes() {
      const query = new URLSearchParams({
        drill: this.field("drill").value,
        notes: this.field("notes").value,
        settings: this.field("settings")?.value ?? "",
      });
      location.assign(`/tone/${this.$root.dataset.pupil}?${query}`);
    },

    // The note as it should sound, and for short notes one that is right and one that is clipped.
    async model(event) {
      const { hertz, share } = event.currentTarget.dataset;
      const { tone } = await audio();
      const now = tone.now() + 0.05;
      if (share) for (let beat = 0; beat < 3; beat++) note(tone, Number(hertz), now + 0.8 * beat, 0.8 * Number(share), 0.03);
      else note(tone, Number(hertz), now, 1.6);
    },
  };
};
