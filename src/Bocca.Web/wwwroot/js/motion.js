// Two lips that open and close as the lip model's did, slowed alike in every register; a line runs along each curve.
export const motion = () => ({
  moving: false,
  words: "Move",
  from: 0,
  at: 0,

  init() {
    this.registers = [...this.$root.querySelectorAll("[data-register]")].map((figure) => ({
      figure,
      opening: figure.dataset.register.split(" ").map(Number),
    }));
    this.draw();
    if (!window.matchMedia("(prefers-reduced-motion: reduce)").matches) this.toggle();
  },

  destroy() {
    this.moving = false;
  },

  toggle() {
    this.moving = !this.moving;
    this.words = this.moving ? "Hold still" : "Move";
    this.from = performance.now() - this.at;
    if (this.moving) requestAnimationFrame((now) => this.step(now));
  },

  step(now) {
    if (!this.moving) return;
    // The picture's time may lie before the moment of the press.
    this.at = Math.max(0, now - this.from);
    this.draw();
    requestAnimationFrame((next) => this.step(next));
  },

  draw() {
    const { slowed, step } = this.$root.dataset;
    for (const { figure, opening } of this.registers) {
      const place = (this.at / Number(slowed) / Number(step)) % opening.length;
      const gap = 44 * opening[Math.floor(place)];
      figure.querySelector("[data-upper]").setAttribute("d", `M60 100Q180 ${40 - gap / 3} 300 100Q180 ${100 - gap} 60 100Z`);
      figure.querySelector("[data-lower]").setAttribute("d", `M60 100Q180 ${160 + gap / 3} 300 100Q180 ${100 + gap} 60 100Z`);
      const x = (360 * place) / (opening.length - 1);
      const line = figure.querySelector("[data-now]");
      line.setAttribute("x1", x);
      line.setAttribute("x2", x);
    }
  },
});
