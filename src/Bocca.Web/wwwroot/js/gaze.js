import { refusal } from "./sound.js";

// The fixed gaze: the camera looks for some seconds, and only how far each small grey picture lies from the first is sent.
const [width, height] = [64, 48];
const seconds = 8;
const everyMs = 125;
const reach = 6;

// The grey of the picture, without colour.
function grey(context, video) {
  context.drawImage(video, 0, 0, width, height);
  const { data } = context.getImageData(0, 0, width, height);
  return Float32Array.from({ length: width * height }, (_, i) => 0.3 * data[4 * i] + 0.59 * data[4 * i + 1] + 0.11 * data[4 * i + 2]);
}

// How unlike two pictures are when the second is shifted, over the part that both have at every shift.
function unlike(first, now, dx, dy) {
  let sum = 0;
  for (let y = reach; y < height - reach; y++)
    for (let x = reach; x < width - reach; x++) {
      const apart = first[y * width + x] - now[(y + dy) * width + x + dx];
      sum += apart * apart;
    }
  return sum;
}

// Where the least of three neighbours lies, between -0.5 and 0.5 of the middle one.
const between = (before, least, after) => {
  const bend = before - 2 * least + after;
  return bend > 0 ? Math.max(-0.5, Math.min(0.5, (before - after) / (2 * bend))) : 0;
};

export function shift(first, now) {
  let best = { dx: 0, dy: 0, by: Infinity };
  for (let dy = -reach; dy <= reach; dy++)
    for (let dx = -reach; dx <= reach; dx++) {
      const by = unlike(first, now, dx, dy);
      if (by < best.by) best = { dx, dy, by };
    }
  const at = (dx, dy) => (Math.abs(dx) > reach || Math.abs(dy) > reach ? Infinity : unlike(first, now, dx, dy));
  const { dx, dy, by } = best;
  const fine = (before, after) => (Number.isFinite(before) && Number.isFinite(after) ? between(before, by, after) : 0);
  return { x: (dx + fine(at(dx - 1, dy), at(dx + 1, dy))) / width, y: (dy + fine(at(dx, dy - 1), at(dx, dy + 1))) / width };
}

export const gaze = () => ({
  words: "Measure with the camera",
  told: "",
  looking: false,

  init() {
    this.told = this.$root.querySelector("[data-gaze-told]").textContent;
  },

  async measure() {
    if (this.looking) return;
    this.looking = true;
    this.told = "";
    let stream;
    try {
      stream = await navigator.mediaDevices.getUserMedia({ video: { width: 320, height: 240 } });
      const video = document.createElement("video");
      video.muted = true;
      video.srcObject = stream;
      await video.play();
      const context = Object.assign(document.createElement("canvas"), { width, height }).getContext("2d", { willReadFrequently: true });
      const first = grey(context, video);
      const shifts = [];
      for (let left = seconds * 1000; left > 0; left -= everyMs) {
        this.words = `Eyes on the mark, play: ${Math.ceil(left / 1000)} s`;
        await new Promise((resolve) => setTimeout(resolve, everyMs));
        shifts.push(shift(first, grey(context, video)));
      }
      const response = await fetch(`/set-up/${this.$root.dataset.pupil}/checks?handler=Gaze`, {
        method: "POST",
        headers: {
          "Content-Type": "application/json",
          "X-Antiforgery": document.querySelector("meta[name=antiforgery]").content,
          "X-Once": crypto.randomUUID(),
        },
        body: JSON.stringify(shifts.map(({ x, y }) => ({ x: Number(x.toFixed(4)), y: Number(y.toFixed(4)) }))),
      });
      if (!response.ok) throw new Error(await refusal(response, "The head's motion could not be measured. Once more."));
      this.told = await response.text();
    } catch (problem) {
      this.told =
        problem.name === "NotAllowedError" || problem.name === "NotFoundError" ? "There is no camera to look with." : problem.message;
    } finally {
      stream?.getTracks().forEach((track) => track.stop());
      this.words = "Measure with the camera";
      this.looking = false;
    }
  },
});
