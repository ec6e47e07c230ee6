import { deedOf } from "./keys.js";
import { draw } from "./piece-layers.js";
import { listening } from "./piece-sound.js";
import { sheetsIn } from "./sheets.js";
import { inWords, refusal } from "./sound.js";

const token = () => document.querySelector("meta[name=antiforgery]").content;

// A piece under study: engraved once, the plan laid upon it; a note is chosen, and what is settled there comes back as another plan.
export const piece = () => ({
  ...listening(),
  layer: "settings",
  engraving: true,
  trouble: "",
  chosen: -1,

  async init() {
    this.home = this.$root;
    this.read();
    this.sheets = sheetsIn(this.home.querySelector("[data-engraved]"), () => this.drawn());
    this.$watch("layer", () => this.drawn());
    this.keys = (event) => this.key(event);
    window.addEventListener("keydown", this.keys);
    this.home.querySelector("#plan").addEventListener("click", (event) => this.deed(event));
    this.home.querySelector("[data-score-box]").addEventListener("click", (event) => this.point(event));
    this.resized = new ResizeObserver(() => this.fit());
    this.resized.observe(this.home.querySelector("[data-score-box]"));
    await this.fit();
  },

  destroy() {
    window.removeEventListener("keydown", this.keys);
    this.resized?.disconnect();
    this.sheets?.close();
    this.stop();
  },

  // The plan as it came with the page, or with what was settled last.
  read() {
    this.plan = JSON.parse(this.home.querySelector("[data-plan]").textContent);
  },

  // Engraved anew where the width has changed; the marks are laid upon it either way.
  async fit() {
    const box = this.home.querySelector("[data-engraved]");
    const width = Math.floor(box.clientWidth);
    if (width === this.width || width < 100) return;
    this.width = width;
    await this.sheets.show(JSON.parse(this.home.querySelector("script[data-score]").textContent), width, {
      scale: width < 500 ? 36 : 48,
      spread: 0.4,
    });
    this.engraving = false;
  },

  drawn() {
    draw(this.home.querySelector("[data-score-box]"), this.plan, [this.layer], this.chosen);
    this.home.setAttribute("data-ready", this.layer);
  },

  key(event) {
    const key = deedOf(event, "piece");
    if (key?.deed === "after") this.choose(Math.min(this.plan.notes.length - 1, this.chosen + 1));
    else if (key?.deed === "before") this.choose(Math.max(0, this.chosen - 1));
    else if (key?.deed === "away" && this.chosen >= 0) this.choose(-1);
    else return;
    event.preventDefault();
  },

  // The note nearest to where was tapped, on the system that was tapped.
  point(event) {
    let [nearest, distance] = [-1, 60];
    for (const [i, note] of this.plan.notes.entries()) {
      const head =
        this.home.querySelector(`[data-engraved] [id="n${note.first}"] .notehead`) ??
        this.home.querySelector(`[data-engraved] [id="n${note.first}"]`);
      if (!head) continue;
      const box = head.getBoundingClientRect();
      const away = Math.hypot(box.x + box.width / 2 - event.clientX, (box.y + box.height / 2 - event.clientY) / 2);
      if (away < distance) [nearest, distance] = [i, away];
    }
    this.choose(nearest);
  },

  choose(at) {
    this.chosen = at;
    const panel = this.home.querySelector("[data-note-box]");
    panel.querySelector("[data-note-closed]").hidden = at >= 0;
    panel.querySelector("[data-note-open]").hidden = at < 0;
    this.drawn();
    if (at < 0) return;
    const note = this.plan.notes[at];
    // A note of a sheet that is still to come: it comes now.
    this.sheets.until(`[id="n${note.first}"]`);
    panel.querySelector("[data-note-name]").textContent = note.written.replace("#", "♯").replace(/b(?=\d)/, "♭");
    panel.querySelector("[data-note-setting]").textContent = note.barred ? "not in reach" : `on ${note.setting}`;
    panel.querySelector("[data-note-why]").textContent =
      note.why +
      (note.joined === "doo"
        ? " Joined by a soft doo: the slide moves on one partial."
        : note.joined === "lip"
          ? " The lip slurs it."
          : "");
    const breath = this.plan.breaths.find((each) => each.after === at);
    panel.querySelector("[data-note-place]").textContent =
      `${note.place[0].toUpperCase()}${note.place.slice(1)}${breath ? `. Breath after it: ${breath.why}` : ""}`;
    const [card, link] = [this.plan.cards[note.bar], panel.querySelector("[data-card]")];
    link.hidden = !card;
    const [phrase, sing] = [this.plan.phrases.find((each) => each.from <= at && at <= each.to), panel.querySelector("[data-sing]")];
    sing.hidden = !phrase?.line;
    const tempo = Math.min(160, Math.max(40, Math.round(this.plan.tempo)));
    if (phrase?.line) sing.href = `${sing.dataset.sing}&${new URLSearchParams({ line: phrase.line, tempo })}`;
    if (card) link.href = `${link.dataset.card}?${new URLSearchParams({ ...card, tempo })}`;
    panel.querySelector("[data-note-ways]").replaceChildren(...this.plan.ways[note.pitch].map((way) => this.way(note, way)));
  },

  way(note, way) {
    const button = Object.assign(document.createElement("button"), {
      type: "button",
      className: "btn btn-outline-secondary",
      textContent: `${way.setting} (${way.cents > 0 ? "+" : ""}${way.cents} cents)`,
    });
    button.dataset.pin = way.setting;
    button.setAttribute("aria-pressed", String(note.pinned && note.setting === way.setting));
    button.disabled = way.barred !== null;
    if (way.barred) button.title = way.barred;
    return button;
  },

  // What was tapped in the hand: a way, a breath, a phrase, the chart, what was before.
  deed(event) {
    const button = event.target.closest("button");
    if (!button) return;
    const { pin, breath, phrase, chart, chartAll, undo, bars, free, tempoBefore } = button.dataset;
    const note = this.plan.notes[this.chosen];
    if (bars !== undefined) this.go(Number(bars));
    else if (chartAll !== undefined) this.settle("chart", 0, chartAll);
    else if (undo !== undefined) this.undo(undo, tempoBefore);
    else if (!note) return;
    else if (pin !== undefined) this.settle("pin", this.chosen, note.pinned && note.setting === pin ? "" : pin);
    else if (breath !== undefined) this.breath(breath);
    else if (phrase !== undefined) this.settle("phrase", this.chosen, phrase);
    else if (chart !== undefined) this.settle("chart", note.bar, chart);
    else if (free !== undefined) this.free(note);
  },

  // A breath that is barred where none stood changes nothing to be seen: that is said.
  async breath(wanted) {
    const stood = this.plan.breaths.some((each) => each.after === this.chosen);
    await this.settle("breath", this.chosen, wanted);
    if (wanted === "no" && !stood)
      this.home.querySelector("[data-note-place]").textContent += ". No breath stood here, and none will be put here.";
  },

  async free(note) {
    const at = this.chosen;
    await this.settle("pin", at, "");
    await this.settle("breath", at, "");
    await this.settle("phrase", at, "");
    await this.settle("chart", note.bar, "");
  },

  async undo(choices, tempo) {
    await this.settle("all", 0, choices);
    if (tempo !== undefined && Number(tempo || 0) !== this.plan.tempo) await this.settle("tempo", 0, tempo);
    this.home.querySelector("[name=tempo]").value = this.plan.tempo;
  },

  tempo(event) {
    return this.settle("tempo", 0, event.target.value);
  },

  // Shows a bar: its first note is chosen.
  go(bar) {
    const at = this.plan.notes.findIndex((note) => note.bar === bar);
    this.choose(at);
    this.home
      .querySelector(`[data-engraved] [id="n${this.plan.notes[at]?.first}"]`)
      ?.scrollIntoView({ block: "center", behavior: "smooth" });
  },

  async settle(what, at, value) {
    const body = new FormData();
    for (const [name, part] of Object.entries({ what, at, value })) body.append(name, part);
    try {
      const response = await fetch(`${this.home.dataset.address}?handler=Settle`, {
        method: "POST",
        body,
        headers: { "X-Antiforgery": token() },
      });
      if (!response.ok) throw new Error(await refusal(response, "That could not be settled."));
      this.home.querySelector("#plan").innerHTML = await response.text();
      this.trouble = "";
      this.read();
      this.choose(this.chosen);
    } catch (problem) {
      this.trouble = inWords(problem, "try once more");
    }
  },
});
