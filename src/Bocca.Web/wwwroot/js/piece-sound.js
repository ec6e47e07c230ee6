import { audio, clicks, inWords, line } from "./sound.js";

const lead = 0.15;

// The listening version: at any tempo, counted in, bars of it again and again, with the other parts or a drone.
export const listening = () => ({
  running: false,
  count: "–",
  label: "",

  get goWords() {
    return this.running ? "Stop" : "Listen";
  },

  async toggle() {
    if (this.running) this.stop();
    else
      try {
        await this.listen();
      } catch (problem) {
        this.running = false;
        this.trouble = inWords(problem, "try once more");
      }
  },

  stop() {
    this.running = false;
    for (const silence of this.silences ?? []) silence();
    this.silences = [];
    this.count = "–";
    this.label = "";
    this.marked = null;
    for (const sounding of this.home.querySelectorAll("[data-engraved] .sounding")) sounding.classList.remove("sounding");
  },

  field(name) {
    return this.home.querySelector(`[name=${name}]`);
  },

  async listen() {
    const { tone, context } = await audio();
    const [from, to] = [Number(this.field("from").value) - 1, Number(this.field("to").value) - 1];
    if (from > to) throw new Error("The first bar comes after the last: turn them round.");
    const inside = this.plan.notes.filter((note) => note.bar >= from && note.bar <= to);
    if (inside.length === 0) throw new Error("There is no note in these bars.");
    const [begin, end] = [inside[0].at, Math.max(...inside.map((note) => note.at + note.held))];
    const others = this.field("with").value === "others" ? await this.others() : [];
    this.running = true;
    this.silences = [];
    this.play({ tone, context, inside, others, begin, end }, true);
  },

  async others() {
    if (!this.known || this.known.tempo !== this.plan.tempo) {
      const response = await fetch(`${this.home.dataset.address}?handler=Others`);
      if (!response.ok) throw new Error("The other parts could not be read.");
      this.known = { tempo: this.plan.tempo, lines: await response.json() };
    }
    return this.known.lines;
  },

  play(what, counted) {
    const { tone, context, inside, others, begin, end } = what;
    const beat = 60 / this.plan.tempo;
    const beats = counted ? this.plan.beats : 0;
    const start = context.currentTime + lead + beats * beat;
    if (counted)
      this.silences.push(
        clicks(
          tone,
          Array.from({ length: beats }, (_, i) => ({ at: start - (beats - i) * beat, accent: i === 0 })),
        ),
      );
    const voice = (notes) =>
      this.silences.push(
        line(
          tone,
          notes.map(({ hertz, at, held, bound }, i) => ({ hertz, startBeat: at - begin, beats: held, bound: bound && i > 0 })),
          start,
          1,
        ).silence,
      );
    const sounded = (note) => note.at >= begin - 1e-6 && note.at < end - 1e-6;
    if (!this.field("mute").checked) voice(inside);
    for (const other of others.map((notes) => notes.filter(sounded)).filter((notes) => notes.length > 0)) voice(other);
    if (this.field("with").value === "drone") this.drone(tone, start, end - begin, inside);
    this.follow(what, start);
  },

  // The note on which the stretch ends, two octaves under it or less, is what a drone holds.
  drone(tone, start, seconds, inside) {
    let low = inside.at(-1).hertz;
    while (low > 220) low /= 2;
    this.silences.push(line(tone, [{ hertz: low, startBeat: 0, beats: seconds }], start, 1).silence);
  },

  follow(what, start) {
    const { context, inside, begin, end } = what;
    const beat = 60 / this.plan.tempo;
    const step = () => {
      if (!this.running) return;
      const now = context.currentTime - start + begin;
      if (now < begin) {
        const left = Math.ceil((begin - now) / beat);
        this.count = `${Math.max(1, this.plan.beats - left + 1)}`;
        this.label = "count in";
      } else {
        const note = inside.findLast((each) => each.at <= now + 0.01);
        this.count = note ? this.plan.bars[note.bar] : "–";
        this.label = "bar";
        if (note) this.mark(note);
      }
      if (now >= end) {
        if (this.field("loop").checked) this.play(what, false);
        else this.stop();
        return;
      }
      requestAnimationFrame(step);
    };
    step();
  },

  mark(note) {
    if (note === this.marked) return;
    this.marked = note;
    for (const sounding of this.home.querySelectorAll("[data-engraved] .sounding")) sounding.classList.remove("sounding");
    this.home.querySelector(`[data-engraved] [id="n${note.first}"]`)?.classList.add("sounding");
  },
});
