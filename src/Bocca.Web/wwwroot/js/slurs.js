import { engrave } from "./notation.js";
import { audio } from "./sound.js";
import { taking } from "./take.js";

// The Slurs stop: takes of a slur, and the slur engraved and played.
export const slurs = () => {
  const take = taking("slurs", ["times"]);
  const start = take.init;
  return Object.defineProperties(take, Object.getOwnPropertyDescriptors({
    init() {
      start.call(this);
      this.shown();
    },

    async shown() {
      const staff = this.$root.querySelector("[data-notation]");
      if (!staff) return;
      const picture = await engrave(staff.querySelector("[data-score]").textContent, staff.clientWidth, false, 0.9);
      staff.querySelector(".engraved").replaceChildren(picture);
    },

    // One tone that steps from note to note, as the slur should.
    async model(event) {
      const { model, tempo } = event.currentTarget.dataset;
      const { tone } = await audio();
      const beat = 60 / Number(tempo);
      const notes = model.split(" ").map((note) => note.split(":").map(Number));
      const synth = new tone.Synth({ oscillator: { type: "custom", partials: [1, 0.85, 0.7, 0.5, 0.35, 0.25, 0.16, 0.1, 0.06] }, envelope: { attack: 0.05, decay: 0.1, sustain: 0.85, release: 0.15 }, portamento: 0.04, volume: -14 }).toDestination();
      let at = tone.now() + 0.05;
      synth.triggerAttack(notes[0][0], at);
      for (const [hertz, beats] of notes) {
        synth.setNote(hertz, at);
        at += beats * beat;
      }
      synth.triggerRelease(at);
      setTimeout(() => synth.dispose(), 1000 * (at - tone.now()) + 1500);
    },
  }));
};
