import { deedOf } from "./keys.js";

// All rungs: the column of the setting under the hand, and its tube drawn straight beneath.
export const tube = () => ({
  init() {
    this.columns = [...this.$root.querySelectorAll("[data-setting]")];
    for (const column of this.columns) column.addEventListener("click", () => this.choose(column.dataset.setting));
    this.listener = (event) => this.key(event);
    window.addEventListener("keydown", this.listener);
    this.show(this.columns.find((column) => column.classList.contains("now")));
  },

  destroy() {
    window.removeEventListener("keydown", this.listener);
  },

  key(event) {
    const key = deedOf(event, "tube");
    if (!key) return;
    if (key.deed === "before" || key.deed === "after") {
      const here = this.columns.findIndex((column) => column.classList.contains("now"));
      const next = this.columns[here + (key.deed === "after" ? 1 : -1)];
      if (next) this.choose(next.dataset.setting);
    } else this.$root.querySelector(`[data-valve="${key.deed === "thumb" ? "T" : key.at + 1}"]`)?.click();
  },

  press(event) {
    const valve = event.currentTarget;
    valve.setAttribute("aria-pressed", valve.getAttribute("aria-pressed") !== "true");
    const down = [...this.$root.querySelectorAll("[data-valve][aria-pressed=true]")].map((each) => each.dataset.valve);
    const fingers = down.filter((each) => each !== "T").join("-") || "0";
    this.choose(down.includes("T") ? `T-${fingers}` : fingers);
  },

  choose(setting) {
    const column = this.columns.find((each) => each.dataset.setting === setting);
    if (column) this.show(column);
  },

  show(column) {
    for (const each of this.columns) each.classList.toggle("now", each === column);
    const { words, cm, added, share, notes, setting } = column.dataset;
    const pressed = setting.replace("T", "T-").split("-");
    for (const valve of this.$root.querySelectorAll("[data-valve]")) {
      const down = pressed.includes(valve.dataset.valve);
      valve.setAttribute("aria-pressed", down);
      valve.classList.toggle("down", down);
    }
    const put = (name, text) => (this.$root.querySelector(`.hand [data-${name}]`).textContent = text);
    put("now", words[0].toUpperCase() + words.slice(1));
    put("cm", `${cm} cm`);
    put("added", Number(added) === 0 || added === "+0" ? "the open one" : `${added} cm beside the open one`);
    put("notes", notes);
    this.$root.querySelector("[data-length]").style.width = `${100 * share}%`;
  },
});
