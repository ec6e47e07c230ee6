import { deedOf } from "./keys.js";

// The slide under the pointer: what the server reckoned for each quarter centimetre, shown.
export const slide = () => ({
  init() {
    this.points = JSON.parse(this.$root.dataset.points);
    this.listener = (event) => this.key(event);
    window.addEventListener("keydown", this.listener);
    this.show(this.points[0]);
  },

  destroy() {
    window.removeEventListener("keydown", this.listener);
  },

  key(event) {
    const step = { after: 0.25, before: -0.25 }[deedOf(event, "slide")?.deed];
    if (!step) return;
    const pointer = this.$root.querySelector("[data-pointer]");
    pointer.value = Number(pointer.value) + step * (event.shiftKey ? 4 : 1);
    this.move({ target: pointer });
  },

  move(event) {
    const cm = Number(event.target.value);
    this.show(this.points.reduce((near, point) => (Math.abs(point.cm - cm) < Math.abs(near.cm - cm) ? point : near)));
  },

  show(point) {
    const put = (name, text) => (this.$root.querySelector(`#under [data-${name}]`).textContent = text);
    put("cm", `${point.cm.toFixed(1)} cm`);
    put("words", point.words);
    put("cents", `${point.cents} cents`);
    put("percm", `here a centimetre is ${point.perCm} cents`);
    this.$root.querySelector("[data-far]").hidden = !point.far;
    const moved = point.cm * Number(this.$root.dataset.percm);
    for (const part of this.$root.querySelectorAll(".outer, .stay")) part.setAttribute("transform", `translate(${moved} 0)`);
    for (const part of this.$root.querySelectorAll(".inner")) {
      part.dataset.x ??= part.getAttribute("x2");
      part.setAttribute("x2", Number(part.dataset.x) + moved);
    }
  },
});
