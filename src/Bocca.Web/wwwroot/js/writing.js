import { draw } from "./piece-layers.js";
import { sheetsIn } from "./sheets.js";
import { inWords, refusal } from "./sound.js";

const pauseMs = 180;
const token = () => document.querySelector("meta[name=antiforgery]").content;

// A piece typed as text: engraved while it is typed, with a word at the place of a slip; what was engraved last stays meanwhile.
export const writing = () => ({
  slip: "",
  before: "",
  wrong: "",
  trouble: "",

  init() {
    this.home = this.$root;
    const box = this.home.querySelector("[data-engraved]");
    this.sheets = sheetsIn(box, () => box.setAttribute("data-ready", ""));
    this.engrave();
  },

  get text() {
    return this.home.querySelector("textarea");
  },

  typed() {
    clearTimeout(this.waiting);
    this.waiting = setTimeout(() => this.engrave(), pauseMs);
  },

  async engrave() {
    const typed = this.text.value;
    try {
      const said = await this.read(typed);
      this.trouble = "";
      if (typed !== this.text.value) return;
      this.slip = said.slip ?? "";
      this.at = said.at;
      this.before = said.slip ? typed.slice(Math.max(0, said.at - 12), said.at) : "";
      this.wrong = said.slip ? typed.slice(said.at, said.at + said.length) || "…" : "";
      if (said.xml) await this.sheets.show(said.xml, this.home.querySelector("[data-engraved]").clientWidth, { scale: 45 });
    } catch (problem) {
      this.trouble = inWords(problem, "type on");
    }
  },

  async read(typed) {
    const body = new FormData();
    body.append("text", typed);
    const response = await fetch(`${this.home.dataset.address}?handler=Engrave`, {
      method: "POST",
      body,
      headers: { "X-Antiforgery": token() },
    });
    if (!response.ok) throw new Error(await refusal(response, "The piece could not be read."));
    return response.json();
  },

  there() {
    this.text.focus();
    this.text.setSelectionRange(this.at, this.at + Math.max(1, this.wrong.length));
  },

  keep(event) {
    if (!this.slip) return;
    event.preventDefault();
    this.there();
  },
});

// The part on paper, as wide as the page.
export const sheet = () => ({
  async init() {
    const part = this.$root.querySelector("[data-part]");
    if (!part) return;
    const engraved = part.querySelector(".engraved");
    const sheets = sheetsIn(engraved, () => {});
    await sheets.show(JSON.parse(part.querySelector("script[data-score]").textContent), engraved.clientWidth, { scale: 46, spread: 0.4 });
    // On paper there is no scrolling: all of it.
    await sheets.until();
    draw(part, JSON.parse(part.querySelector("[data-plan]").textContent), part.dataset.part.split(" ").filter(Boolean));
    part.setAttribute("data-ready", "");
  },

  print() {
    window.print();
  },
});
