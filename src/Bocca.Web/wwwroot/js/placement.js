import { refusal } from "./sound.js";

// The Set-up stop's placement: a picture that stays in this browser, marks on it, and numbers that come back for the marks.
const width = 640;
const height = 480;
const mostPixels = 60e6;
const ringIds = ["ring0", "ring1", "ring2", "ring3"];
const sideStart = {
  rim: [330, 190],
  shank: [250, 200],
  brow: [355, 100],
  chin: [355, 250],
  shoulder: [430, 300],
  elbow: [350, 390],
  wrist: [250, 290],
  hip: [440, 470],
};

export const placement = () => ({
  source: "Drawing",
  side: false,
  trouble: "",
  frozen: false,
  marks: {},
  stream: null,
  turn: 0,
  faceTurn: 0,
  wrongMarks: false,

  get isDrawing() {
    return this.source === "Drawing";
  },

  get isPhoto() {
    return this.source === "Photo";
  },

  get isCamera() {
    return this.source === "Camera";
  },

  get goWords() {
    return this.frozen ? "Mirror again" : "Freeze";
  },

  get ask() {
    if (this.isCamera && !this.frozen) return "Face the camera straight on, middle on the line. Space freezes the picture.";
    if (this.isDrawing) return "Set the drawn face as the pupil sits, or open the camera or a photo.";
    return "Put the marks on the rim's outer edge, the line of the lips, the nose and the chin.";
  },

  init() {
    for (const [id, [x, y]] of Object.entries(sideStart)) this.marks[id] = { x, y };
    const kept = this.$root.dataset.marks;
    if (kept) this.takeIn(JSON.parse(kept));
    this.$watch("source", () => this.changeSource());
    for (const mark of this.$root.querySelectorAll("[data-mark]")) {
      mark.addEventListener("pointerdown", (event) => this.drag(event, mark));
      mark.addEventListener("keydown", (event) => this.nudge(event, mark));
    }
    this.face();
  },

  destroy() {
    this.closeCamera();
  },

  field(name) {
    return this.$root.querySelector(`.transport [name=${name}]`);
  },

  part(name) {
    return this.$root.querySelector(`[data-${name}]`);
  },

  async changeSource() {
    this.trouble = "";
    this.closeCamera();
    this.frozen = false;
    this.part("canvas").hidden = true;
    this.part("face").style.display = this.isDrawing ? "" : "none";
    if (this.isDrawing) await this.face();
    if (this.isCamera) await this.openCamera();
  },

  async face() {
    if (!this.isDrawing) return;
    // Only the newest answer counts, and none that comes after a mark was moved by hand.
    const turn = ++this.faceTurn;
    const query = new URLSearchParams({
      handler: "Face",
      share: this.field("share").value / 100,
      offset: this.field("offset").value,
      tilt: this.field("tilt").value,
      rim: this.field("rim").value,
    });
    const response = await fetch(`/set-up/${this.$root.dataset.pupil}?${query}`);
    if (!response.ok) return;
    const front = await response.json();
    if (turn !== this.faceTurn) return;
    this.takeIn(front);
    this.draw();
    await this.measure();
  },

  takeIn(front) {
    front.ringEdge.forEach((point, i) => (this.marks[ringIds[i]] = { ...point }));
    for (const id of ["lipLeft", "lipRight", "middleTop", "middleBottom"]) this.marks[id] = { ...front[id] };
  },

  async openCamera() {
    try {
      this.stream = await navigator.mediaDevices.getUserMedia({ video: { width: { ideal: 1280 }, facingMode: "user" } });
      const video = this.part("video");
      video.srcObject = this.stream;
      video.hidden = false;
      await video.play();
    } catch (problem) {
      const why =
        {
          NotAllowedError: "The camera is not allowed. Allow it for this page",
          NotFoundError: "No camera was found. Plug one in",
          NotReadableError: "Something else is using the camera. Close it",
        }[problem.name] ?? "The camera cannot be opened. Try again";
      this.trouble = `${why}, or use a photo or the drawn face.`;
    }
  },

  closeCamera() {
    this.stream?.getTracks().forEach((track) => track.stop());
    this.stream = null;
    this.part("video").hidden = true;
  },

  // Freezes the mirror's picture on the canvas, or goes back to the mirror.
  async take() {
    if (!this.isCamera) return;
    if (this.frozen) {
      this.frozen = false;
      this.part("canvas").hidden = true;
      await this.openCamera();
      return;
    }
    const video = this.part("video");
    if (!this.stream || !video.videoWidth) return;
    this.paint(video, video.videoWidth, video.videoHeight, true);
    this.closeCamera();
    this.frozen = true;
    this.draw();
    await this.measure();
  },

  async open() {
    this.trouble = "";
    const file = this.field("photo").files[0];
    if (!file) return;
    let picture;
    try {
      picture = await createImageBitmap(file, { imageOrientation: "from-image" });
    } catch {
      this.trouble = `${file.name}: not a picture that this browser can open. Choose a JPEG or PNG.`;
      return;
    }
    const pixels = picture.width * picture.height;
    if (pixels > mostPixels)
      this.trouble = `${file.name}: ${Math.round(pixels / 1e6)} megapixels are too many; make it smaller than ${mostPixels / 1e6}.`;
    else {
      this.paint(picture, picture.width, picture.height, false);
      this.draw();
      await this.measure();
    }
    picture.close();
  },

  paint(picture, wide, high, mirrored) {
    const canvas = this.part("canvas");
    const context = canvas.getContext("2d");
    const scale = Math.min(width / wide, height / high);
    context.setTransform(1, 0, 0, 1, 0, 0);
    context.clearRect(0, 0, width, height);
    if (mirrored) context.setTransform(-1, 0, 0, 1, width, 0);
    context.drawImage(picture, (width - wide * scale) / 2, (height - high * scale) / 2, wide * scale, high * scale);
    canvas.hidden = false;
  },

  at(event) {
    const box = this.part("svg").getBoundingClientRect();
    return {
      x: Math.max(0, Math.min(width, ((event.clientX - box.left) * width) / box.width)),
      y: Math.max(0, Math.min(height, ((event.clientY - box.top) * height) / box.height)),
    };
  },

  drag(event, mark) {
    event.preventDefault();
    mark.focus();
    mark.setPointerCapture(event.pointerId);
    const move = (moved) => {
      this.faceTurn++;
      this.marks[mark.dataset.mark] = this.at(moved);
      this.draw();
    };
    const end = () => {
      mark.removeEventListener("pointermove", move);
      this.measure();
    };
    mark.addEventListener("pointermove", move);
    mark.addEventListener("pointerup", end, { once: true });
    mark.addEventListener("pointercancel", end, { once: true });
  },

  nudge(event, mark) {
    const step = event.shiftKey ? 10 : 1;
    const by = { ArrowLeft: [-step, 0], ArrowRight: [step, 0], ArrowUp: [0, -step], ArrowDown: [0, step] }[event.key];
    if (!by) return;
    event.preventDefault();
    this.faceTurn++;
    const point = this.marks[mark.dataset.mark];
    this.marks[mark.dataset.mark] = { x: point.x + by[0], y: point.y + by[1] };
    this.draw();
    this.measure();
  },

  show() {
    for (const mark of this.$root.querySelectorAll(".mark.side")) mark.setAttribute("visibility", this.side ? "visible" : "hidden");
    this.measure();
  },

  changed() {
    return this.isDrawing ? this.face() : this.measure();
  },

  draw() {
    for (const mark of this.$root.querySelectorAll("[data-mark]")) {
      const point = this.marks[mark.dataset.mark];
      mark.setAttribute("transform", `translate(${point.x} ${point.y})`);
    }
    const { lipLeft, lipRight, middleTop, middleBottom } = this.marks;
    line(this.part("lipline"), lipLeft, lipRight);
    line(this.part("middle"), middleTop, middleBottom);
    const edge = ringIds.map((id) => this.marks[id]);
    const centre = { x: edge.reduce((sum, point) => sum + point.x, 0) / 4, y: edge.reduce((sum, point) => sum + point.y, 0) / 4 };
    const radius = edge.reduce((sum, point) => sum + Math.hypot(point.x - centre.x, point.y - centre.y), 0) / 4;
    const ring = this.part("ring");
    ring.setAttribute("cx", centre.x);
    ring.setAttribute("cy", centre.y);
    ring.setAttribute("r", radius);
    if (this.isDrawing) drawFace(this.$root, this.marks);
  },

  sent() {
    const side = this.side ? Object.fromEntries(Object.keys(sideStart).map((id) => [id, this.marks[id]])) : null;
    const { lipLeft, lipRight, middleTop, middleBottom } = this.marks;
    return JSON.stringify({
      front: { ringEdge: ringIds.map((id) => this.marks[id]), lipLeft, lipRight, middleTop, middleBottom, mirrored: !this.isPhoto },
      side,
      rimMm: Number(this.field("rim").value),
      source: ["Camera", "Photo", "Drawing"].indexOf(this.source),
    });
  },

  post(handler) {
    return fetch(`/set-up/${this.$root.dataset.pupil}?handler=${handler}`, {
      method: "POST",
      body: this.sent(),
      headers: {
        "Content-Type": "application/json",
        "X-Antiforgery": document.querySelector("meta[name=antiforgery]").content,
        "X-Once": crypto.randomUUID(),
      },
    });
  },

  async measure() {
    if (!this.marks.ring0) return;
    // Only the newest answer counts, and it takes back no trouble but its own.
    const turn = ++this.turn;
    await this.answered(async () => {
      const response = await this.post("Measure");
      const text = response.ok ? await response.text() : await refusal(response, "These marks cannot be measured.");
      if (turn !== this.turn) return;
      if (response.ok) this.part("measured").innerHTML = text;
      if (!response.ok) this.trouble = text;
      else if (this.wrongMarks) this.trouble = "";
      this.wrongMarks = !response.ok;
    });
  },

  async keep() {
    await this.answered(async () => {
      const response = await this.post("Keep");
      if (response.ok) location.reload();
      else this.trouble = await refusal(response, "The placement could not be kept. Try once more.");
    });
  },

  async answered(act) {
    try {
      await act();
    } catch {
      this.trouble = "Bocca does not answer. Is it still running? The marks are still here.";
    }
  },
});

function line(element, from, to) {
  for (const [name, value] of [
    ["x1", from.x],
    ["y1", from.y],
    ["x2", to.x],
    ["y2", to.y],
  ])
    element.setAttribute(name, value);
}

function drawFace(root, { lipLeft, lipRight, middleTop, middleBottom }) {
  const middle = { x: (lipLeft.x + lipRight.x) / 2, y: (lipLeft.y + lipRight.y) / 2 };
  const set = (name, d) => root.querySelector(`[data-${name}]`).setAttribute("d", d);
  set(
    "lips",
    [
      `M${lipLeft.x} ${lipLeft.y}Q${middle.x - 40} ${middle.y - 46} ${middle.x} ${middle.y - 30}`,
      `Q${middle.x + 40} ${middle.y - 46} ${lipRight.x} ${lipRight.y}Q${middle.x} ${middle.y + 62} ${lipLeft.x} ${lipLeft.y}Z`,
    ].join(""),
  );
  const [nose, chin] = [middleTop, middleBottom];
  // The bridge from the upper edge, the wings and the tip; the groove under it, the folds of the cheeks, the crease over the chin.
  set(
    "nose",
    [
      `M${nose.x - 20} -4C${nose.x - 18} ${nose.y - 60} ${nose.x - 34} ${nose.y - 40} ${nose.x - 44} ${nose.y - 14}`,
      "q-4 20 14 18q10 -4 18 2q12 8 24 0q8 -6 18 -2q18 2 14 -18",
      `C${nose.x + 34} ${nose.y - 40} ${nose.x + 18} ${nose.y - 60} ${nose.x + 20} -4`,
      `M${nose.x - 7} ${nose.y + 20}L${middle.x - 9} ${middle.y - 40}M${nose.x + 7} ${nose.y + 20}L${middle.x + 9} ${middle.y - 40}`,
      `M${nose.x - 62} ${nose.y + 4}Q${lipLeft.x - 18} ${nose.y + 50} ${lipLeft.x - 30} ${lipLeft.y - 8}`,
      `M${nose.x + 62} ${nose.y + 4}Q${lipRight.x + 18} ${nose.y + 50} ${lipRight.x + 30} ${lipRight.y - 8}`,
      `M${middle.x - 46} ${(middle.y + chin.y) / 2 + 6}q46 -16 92 0`,
    ].join(""),
  );
  // Open at the upper edge: the face goes on above the picture.
  const chinLine = `${chin.x - 120} ${chin.y + 40} ${chin.x} ${chin.y + 44}`;
  set("jaw", `M${nose.x - 236} -10C${nose.x - 225} 300 ${chinLine}S${nose.x + 225} 300 ${nose.x + 236} -10`);
}
