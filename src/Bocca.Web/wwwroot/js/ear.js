import { deedOf } from "./keys.js";
import { engrave } from "./notation.js";
import { audio, inWords, line } from "./sound.js";
import { taking } from "./take.js";

// The ear: a question is heard, answered by taps, sung, played.
export const ear = () => {
  const take = taking("ear", []);
  const start = take.init;
  const stop = take.destroy;
  const run = take.toggle;
  return {
    ...take,
    taps: [],

    init() {
      // What is tapped goes with the question, and with it the way up from there.
      this.home = this.$root;
      start.call(this);
      this.listener = (event) => this.key(event);
      window.addEventListener("keydown", this.listener);
      this.shown();
    },

    destroy() {
      stop.call(this);
      window.removeEventListener("keydown", this.listener);
    },

    tapping() {
      return this.home.querySelector("[data-taps]");
    },

    nextWords() {
      const asked = this.tapping()?.dataset;
      if (this.running) return this.label === "listen" ? "Listen to the end." : this.label.startsWith("sing") ? "Sing it." : "Play it.";
      if (!asked) return "";
      if (asked.taponly) return "Press Start: listen, then tap.";
      if (Number(asked.taps) > 0 && this.taps.length < Number(asked.taps))
        return `Hear it, tap ${asked.taps === "1" ? "it" : `${asked.taps}, in order`}; then press Start.`;
      return "Press Start: listen, then four counts in.";
    },

    // Everything that names the question goes with what is sent.
    asked(drill) {
      const asked = { drill: drill.id, tempo: drill.tempo };
      for (const field of this.home.querySelectorAll("[data-asked]")) asked[field.name] = field.value;
      for (const name of ["line", "private"]) {
        const field = this.field(name);
        if (field) asked[name] = field.type === "checkbox" ? String(field.checked) : field.value;
      }
      return asked;
    },

    leads() {
      return "first";
    },

    timbre() {
      return this.home.querySelector("[data-model]")?.dataset.voice ? "sung" : undefined;
    },

    chooseStep() {
      const query = new URLSearchParams({ drill: this.field("drill").value, level: String(Number(this.field("step").value) - 1) });
      location.assign(`/ear/${this.home.dataset.pupil}?${query}`);
    },

    chooseLine() {
      location.assign(
        `/ear/${this.home.dataset.pupil}?${new URLSearchParams({ drill: this.field("drill").value, line: this.field("line").value })}`,
      );
    },

    // Small staves on the buttons, the written one, and nothing tapped yet.
    async shown() {
      this.taps = [];
      this.label = "";
      const staff = this.home.querySelector("[data-notation]");
      if (staff)
        staff
          .querySelector(".engraved")
          .replaceChildren(
            await engrave(JSON.parse(staff.querySelector("[data-score]").textContent), staff.clientWidth, false, { spread: 0.9 }),
          );
      for (const note of this.home.querySelectorAll("[data-note]")) note.replaceChildren(await engrave(note.dataset.note, 180));
      this.home.setAttribute("data-ready", "");
    },

    key(event) {
      const key = this.running ? null : deedOf(event, "ear");
      if (key?.deed === "hear") this.home.querySelector("[data-model]")?.click();
      else if (key?.deed === "back") this.untap();
      else if (key) this.home.querySelectorAll("[data-choice]")[key.at]?.click();
    },

    async toggle() {
      const asked = this.tapping()?.dataset;
      // Told already: what was tapped alone gives way to the next, what was sung or played is done once more.
      if (this.home.querySelector("[data-over]")) return this.home.querySelector("[data-accept]").click();
      if (!asked || this.running || this.hearing) return this.run();
      if (asked.taponly) return this.home.querySelector("[data-model]").click();
      if (!asked.marks && Number(asked.taps) > this.taps.length) {
        this.trouble = "";
        this.home.querySelector("[data-model]")?.click();
        return undefined;
      }
      if (asked.before) await this.look(Number(asked.before));
      return this.run();
    },

    run() {
      return run.call(this);
    },

    // Half a minute to look, as in a test; Start again cuts it short.
    async look(seconds) {
      const { context } = await audio();
      this.running = true;
      this.mark();
      const end = context.currentTime + seconds;
      await this.until(context, end, (now) => {
        this.label = "look";
        this.count = `${Math.ceil(end - now)}`;
      });
      this.running = false;
      this.tapping().removeAttribute("data-before");
    },

    async tap(event) {
      const asked = this.tapping();
      const { choice } = event.currentTarget.dataset;
      const most = asked.dataset.marks ? 1 : Number(asked.dataset.taps);
      if (this.taps.length >= most) this.taps = [];
      this.taps = [...this.taps, choice];
      asked.value = this.taps.join(" ");
      for (const button of this.home.querySelectorAll("[data-choice]"))
        button.setAttribute("aria-pressed", this.taps.includes(button.dataset.choice));
      const names = this.taps.map((id) => this.home.querySelector(`[data-choice="${CSS.escape(id)}"]`).dataset.name);
      const goesOn = this.taps.length < most ? " …" : asked.dataset.taponly || asked.dataset.marks ? "" : ". Now press Start, and play it.";
      this.home.querySelector("[data-tapped-line]").textContent = `Tapped: ${names.join(", ")}${goesOn}`;
      if (this.taps.length === most && asked.dataset.taponly) await this.answer();
    },

    untap() {
      if (!this.tapping() || this.taps.length === 0) return;
      this.taps = this.taps.slice(0, -1);
      this.tapping().value = this.taps.join(" ");
      for (const button of this.home.querySelectorAll("[data-choice]"))
        button.setAttribute("aria-pressed", this.taps.includes(button.dataset.choice));
      this.home.querySelector("[data-tapped-line]").textContent = this.taps.length ? `Tapped: ${this.taps.join(", ")} …` : "";
    },

    // An answer that is tapped alone.
    async answer() {
      const body = new FormData();
      for (const [name, value] of Object.entries(this.asked(this.drill()))) body.append(name, value);
      try {
        this.show(await this.post("Answer", body, "The answer did not arrive. Tap once more."));
      } catch (problem) {
        this.trouble = inWords(problem, "try once more");
      }
    },

    // The question as it sounds, accents louder, a chord under it where there is one.
    async model(event) {
      const { model, tempo, drone } = event.currentTarget.dataset;
      const { tone } = await audio();
      const beat = 60 / Number(tempo);
      const at = tone.now() + 0.1;
      this.silenced?.forEach((silence) => silence());
      const notes = model
        ? model
            .split(" ")
            .map((each) => each.split(":").map(Number))
            .map(([hertz, startBeat, beats, accent]) => ({ hertz, startBeat, beats, accent }))
        : [];
      const heard = notes.length ? [line(tone, notes, at, beat, this.timbre())] : [];
      // A strong beat is doubled an octave below.
      for (const each of notes.filter(({ accent }) => accent)) heard.push(line(tone, [{ ...each, hertz: each.hertz / 2 }], at, beat));
      for (const hertz of drone ? drone.split(" ").map(Number) : []) heard.push(line(tone, [{ hertz, startBeat: 0, beats: 8 }], at, beat));
      this.silenced = heard.map(({ silence }) => silence);
    },
  };
};
