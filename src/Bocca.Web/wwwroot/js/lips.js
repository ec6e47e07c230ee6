import { audio, decoded, instead, inWords, refusal } from "./sound.js";

// Try the lips: three handles, what the lip model makes of them, heard and marked on the ladder.
export const lips = () => ({
  spoke: "Move a handle, or press Space.",
  level: "–",
  noise: "–",
  trouble: "",
  turn: 0,
  playing: null,

  field(name) {
    return this.$root.querySelector(`[name=${name}]`);
  },

  query(handler) {
    const names = handler === "Try" ? ["tension", "opening", "air", "on", "setting"] : ["setting"];
    return new URLSearchParams({
      handler,
      ...Object.fromEntries(names.map((name) => [name, this.field(name).value])),
      ...(handler === "Try" ? { seed: 1 } : {}),
    });
  },

  async change() {
    const response = await fetch(`/buzz/${this.$root.dataset.pupil}/lips?${this.query("Ladder")}`);
    if (response.ok) this.$root.querySelector("[data-ladder]").innerHTML = await response.text();
    await this.hear();
  },

  // Only the newest answer counts; an older one that comes late is neither heard nor drawn.
  async hear() {
    const turn = ++this.turn;
    this.trouble = "";
    try {
      const { context } = await audio();
      const response = await fetch(`/buzz/${this.$root.dataset.pupil}/lips?${this.query("Try")}`);
      if (!response.ok) throw new Error(await refusal(response, "The lips could not be tried. Once more."));
      const tried = await response.json();
      const sound = await decoded(context, tried.wav);
      if (turn !== this.turn) return;
      this.show(tried);
      this.playing = instead(context, sound, this.playing);
    } catch (problem) {
      if (turn === this.turn) this.trouble = inWords(problem, "try again");
    }
  },

  show(tried) {
    this.spoke = tried.sentence;
    this.level = `${tried.levelDb > 0 ? "+" : ""}${Math.round(tried.levelDb)} dB`;
    this.noise = tried.noiseDb === null ? "–" : `${Math.round(tried.noiseDb)} dB`;
    const mark = this.$root.querySelector("[data-heard]");
    mark.setAttribute("visibility", tried.heardY === null ? "hidden" : "visible");
    if (tried.heardY === null) return;
    mark.setAttribute("y1", tried.heardY);
    mark.setAttribute("y2", tried.heardY);
  },
});
