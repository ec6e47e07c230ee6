import { engrave } from "./notation.js";
import { audio } from "./sound.js";
import { taking } from "./take.js";

// The Slurs stop: takes of a slur, and the slur engraved and played.
export const slurs = () => {
  const take = taking("slurs", ["times"]);
  const { init: start, record } = take;
  return Object.defineProperties(take, Object.getOwnPropertyDescriptors({
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
      const picture = await engrave(staff.querySelector("[data-score]").textContent, staff.clientWidth, false, 0.9);
      staff.querySelector(".engraved").replaceChildren(picture);
    },

    get nextWords() {
      if (this.running) return this.label === "listen" ? "Listen to the end." : "Play: the count leads.";
      return this.$root.querySelector("[data-model]")?.dataset.first ? "Press Start: listen, then four counts in, then play." : "Press Start: four counts in, then play.";
    },

    // By ear every take begins with the slur played to the pupil; stopped while it sounds, nothing is taken.
    async record() {
      const button = this.$root.querySelector("[data-model]");
      if (button.dataset.first) {
        this.stage();
        this.running = true;
        this.label = "listen";
        this.mark();
        const { context } = await audio();
        const end = await this.play(button.dataset.model, this.field("tempo").value);
        if (!(await this.until(context, end, (now) => (this.count = `${Math.max(1, Math.ceil(end - now))}`)))) {
          this.voice.triggerRelease();
          return;
        }
      }
      await record.call(this);
    },

    model(event) {
      const { model, tempo } = event.currentTarget.dataset;
      return this.play(model, tempo);
    },

    // One tone that steps from note to note, as the slur should; gives back when it ends, by the audio clock.
    async play(model, tempo) {
      const { tone } = await audio();
      const beat = 60 / Number(tempo);
      const notes = model.split(" ").map((note) => note.split(":").map(Number));
      const synth = new tone.Synth({ oscillator: { type: "custom", partials: [1, 0.85, 0.7, 0.5, 0.35, 0.25, 0.16, 0.1, 0.06] }, envelope: { attack: 0.05, decay: 0.1, sustain: 0.85, release: 0.15 }, portamento: 0.04, volume: -14 }).toDestination();
      this.voice = synth;
      let at = tone.now() + 0.05;
      synth.triggerAttack(notes[0][0], at);
      for (const [hertz, beats] of notes) {
        synth.setNote(hertz, at);
        at += beats * beat;
      }
      synth.triggerRelease(at);
      setTimeout(() => synth.dispose(), 1000 * (at - tone.now()) + 1500);
      return at;
    },
  }));
};
