import { deedOf } from "./keys.js";
import { audio, inWords } from "./sound.js";
import { taking } from "./take.js";

// Right or wrong: two sounds, one with a fault; then the pupil's own, named before it is told.
export const tell = () => {
  const take = taking("ear/tell", ["seed", "tapped"]);
  const { init: start, destroy: stop, send } = take;
  return {
    ...take,
    waits: null,

    init() {
      // What is tapped goes with the question, and with it the way up from there.
      this.home = this.$root;
      start.call(this);
      this.listener = (event) => this.key(event);
      window.addEventListener("keydown", this.listener);
    },

    destroy() {
      stop.call(this);
      window.removeEventListener("keydown", this.listener);
    },

    nextWords() {
      if (this.running) return "Play: the count leads.";
      return this.waits ? "Which is yours like?" : "Hear both, then tap.";
    },

    key(event) {
      const key = this.running ? null : deedOf(event, "tell");
      if (key) this.home.querySelector(`[data-hear="${key.at + 1}"]`)?.click();
    },

    async hear(event) {
      const { context } = await audio();
      const query = new URLSearchParams({
        handler: "Sound",
        drill: this.field("drill").value,
        seed: this.field("seed").value,
        which: event.currentTarget.dataset.hear,
      });
      try {
        const response = await fetch(`/ear/tell/${this.home.dataset.pupil}?${query}`);
        if (!response.ok) throw new Error("The sound could not be made. Try once more.");
        this.sounding?.stop();
        this.sounding = new AudioBufferSourceNode(context, { buffer: await context.decodeAudioData(await response.arrayBuffer()) });
        this.sounding.connect(context.destination);
        this.sounding.start();
      } catch (problem) {
        this.trouble = inWords(problem, "try once more");
      }
    },

    async choose(event) {
      const body = new FormData();
      body.append("drill", this.field("drill").value);
      body.append("seed", this.field("seed").value);
      body.append("tapped", event.currentTarget.dataset.choice);
      try {
        this.show(await this.post("Answer", body, "The answer did not arrive. Tap once more."));
      } catch (problem) {
        this.trouble = inWords(problem, "try once more");
      }
    },

    // What was just played is heard out once the pupil has said which of the two it is like.
    async send(taken) {
      if (taken.asked.tapped) return send.call(this, taken);
      this.waits = taken;
      this.home.querySelector("[data-own]").hidden = false;
      return undefined;
    },

    async own(event) {
      if (!this.waits) return;
      const taken = this.waits;
      taken.asked.tapped = event.currentTarget.dataset.ownChoice;
      this.waits = null;
      try {
        await send.call(this, taken);
      } catch (problem) {
        this.trouble = inWords(problem, "try once more");
      } finally {
        this.hearing = false;
      }
    },
  };
};
