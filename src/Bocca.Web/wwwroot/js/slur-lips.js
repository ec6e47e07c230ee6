import { audio, decoded, instead, inWords, refusal } from "./sound.js";

// Try the lips on a slur: three handles, the slur as the lip model plays it, heard and drawn over the rungs.
export const slurLips = () => ({
  handles: { reach: 100, opening: 50, air: 50 },
  waits: false,
  trouble: "",
  next: "Hear it with the handles as usual.",
  turn: 0,
  playing: null,

  field(name) {
    return this.$root.querySelector(`[name=${name}]`);
  },

  at(name, unit) {
    return `${this.handles[name]} ${unit}`;
  },

  usual() {
    for (const [name, value] of Object.entries({ reach: 100, opening: 50, air: 50 })) this.field(name).value = value;
    this.hear();
  },

  choose() {
    const query = new URLSearchParams({ drill: this.field("drill").value, tempo: this.field("tempo").value });
    location.assign(`/slurs/${this.$root.dataset.pupil}/lips?${query}`);
  },

  // Only the newest answer counts; an older one that comes late is neither heard nor drawn.
  async hear() {
    const turn = ++this.turn;
    this.trouble = "";
    this.waits = true;
    for (const name of Object.keys(this.handles)) this.handles[name] = Number(this.field(name).value);
    try {
      const { context } = await audio();
      const query = new URLSearchParams({
        handler: "Try",
        drill: this.field("drill").value,
        tempo: this.field("tempo").value,
        ...this.handles,
      });
      const response = await fetch(`/slurs/${this.$root.dataset.pupil}/lips?${query}`);
      if (!response.ok) throw new Error(await refusal(response, "The lips could not be tried. Once more."));
      const answer = await response.text();
      if (turn !== this.turn) return;
      this.$refs.answer.innerHTML = answer;
      const { wav, onward } = this.$refs.answer.firstElementChild.dataset;
      this.next = onward;
      const sound = await decoded(context, wav);
      if (turn !== this.turn) return;
      this.playing = instead(context, sound, this.playing);
    } catch (problem) {
      if (turn === this.turn) this.trouble = inWords(problem, "try again");
    } finally {
      if (turn === this.turn) this.waits = false;
    }
  },
});
