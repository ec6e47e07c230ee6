// The threads of a take on the axes of its picture, while they sound. Each is drawn in pieces of a second, and only what has changed is
// drawn anew: the last minute of a take costs no more than its first. They have a sheet of their own over the picture, which would
// otherwise be laid out and painted whole with every point.
const framesOfPiece = 100;

export class LiveThreads {
  #sheet;
  #axis;
  #threads = new Map();
  #threadOf = new Map();
  #first = null;
  // Whether anything with a pitch was heard yet.
  sounds = false;

  constructor(picture, tempo) {
    [this.#sheet, this.#axis] = [sheetOver(picture), axisOf(picture, tempo)];
  }

  // Takes points in that are new, or that a better guess has replaced.
  add(points) {
    for (const point of points) {
      const [frame, name] = [`${point.line}:${point.frame}`, `${point.line}:${point.try}`];
      const before = this.#threadOf.get(frame);
      if (before && before !== name) this.#threads.get(before).remove(point.frame);
      this.#threadOf.set(frame, name);
      if (!this.#threads.has(name)) this.#threads.set(name, new Thread(this.#threads.size));
      this.#threads.get(name).set(point);
      this.sounds ||= point.cents !== null;
    }
  }

  // first: the moment at the left of the picture, by the audio clock; null where every thread begins there.
  draw(first) {
    for (const thread of this.#threads.values()) thread.draw(this.#sheet, this.#axis, first, first !== this.#first);
    this.#first = first;
  }
}

class Thread {
  #group;
  #pieces = [];

  constructor(index) {
    this.#group = element("g", `thread t${(index % 4) + 1}`);
  }

  set(point) {
    const at = Math.floor(point.frame / framesOfPiece);
    const piece = (this.#pieces[at] ??= { points: new Map(), path: element("path", "sure") });
    piece.points.set(point.frame, point);
    this.#change(at);
  }

  remove(frame) {
    const at = Math.floor(frame / framesOfPiece);
    this.#pieces[at].points.delete(frame);
    this.#change(at);
  }

  // The next piece begins where this one ends.
  #change(at) {
    for (const piece of this.#pieces.slice(at, at + 2)) if (piece) piece.changed = true;
  }

  draw(within, axis, first, all) {
    let last = null;
    const own = first ?? this.#beginning();
    for (const piece of this.#pieces) {
      if (!piece) continue;
      if (piece.changed || all) {
        const points = inOrder(piece);
        piece.path.setAttribute("d", line(last ? [last, ...points] : points, axis, own));
        [piece.last, piece.changed] = [points.at(-1), false];
        if (!piece.path.parentNode) this.#group.append(piece.path);
      }
      last = piece.last ?? last;
    }
    if (last && !this.#group.isConnected) within.append(this.#group);
    if (!last) this.#group.remove();
  }

  #beginning() {
    const piece = this.#pieces.find((each) => each?.points.size > 0);
    return piece && inOrder(piece)[0].at;
  }
}

const inOrder = (piece) => [...piece.points.values()].sort((a, b) => a.frame - b.frame);

// The axes of a picture: tries laid over each other through a gate, or notes over time on their rungs.
function axisOf({ dataset }, tempo) {
  const [left, right, top, bottom, beats] = ["left", "right", "top", "bottom", "beats"].map((name) => Number(dataset[name]));
  const seconds = (60 / tempo) * beats;
  const x = (at) => left + Math.min(1, Math.max(0, at / seconds)) * (right - left);
  if (dataset.axis === "gate") {
    const [gate, reach] = [Number(dataset.gate), Number(dataset.reach)];
    const y = (cents) =>
      (top + bottom) / 2 - (Math.max(-1, Math.min(1, Math.asinh(cents / gate) / Math.asinh(reach))) * (bottom - top)) / 2;
    return { x: (point) => x(point.seconds), y: (point) => y(point.cents) };
  }
  if (dataset.axis === "strip") {
    // Read like text: line after line, heights from the pupil's own middle, which is where the take begins.
    const [line, lines, low, high, height] = ["line", "lines", "low", "high", "first"].map((name) => Number(dataset[name]));
    const row = (point, first) => Math.max(0, Math.min(lines - 1, Math.floor((point.at - first) / seconds)));
    const y = (semitones) => bottom - ((Math.max(low, Math.min(high, semitones)) - low) / (high - low)) * (bottom - top);
    return {
      row,
      x: (point, first) => x(point.at - first - row(point, first) * seconds),
      y: (point, first) => y(height + point.cents / 100) + row(point, first) * line,
    };
  }
  const [lead, low, high] = [(60 / tempo) * Number(dataset.lead), Number(dataset.low), Number(dataset.high)];
  const y = (midi) => Math.max(top - 8, Math.min(bottom + 8, bottom - ((midi - low) / (high - low)) * (bottom - top)));
  return { x: (point, first) => x(point.at - first + lead), y: (point) => y(69 + 12 * Math.log2(point.hertz / Number(dataset.a4))) };
}

function sheetOver(picture) {
  const sheet = element("svg", `${picture.getAttribute("class")} live-threads`);
  sheet.setAttribute("viewBox", picture.getAttribute("viewBox"));
  sheet.setAttribute("aria-hidden", "true");
  picture.after(sheet);
  return sheet;
}

function element(name, kind) {
  const made = document.createElementNS("http://www.w3.org/2000/svg", name);
  made.setAttribute("class", kind);
  return made;
}

// The path through points in order; it is broken where nothing sounds, and where the picture goes on in its next row.
function line(points, axis, first) {
  let d = "";
  let [pen, row] = [false, 0];
  for (const point of points) {
    if (point.cents === null) {
      pen = false;
      continue;
    }
    const here = axis.row?.(point, first) ?? 0;
    d += `${pen && here === row ? "L" : "M"}${axis.x(point, first).toFixed(1)} ${axis.y(point, first).toFixed(1)}`;
    [pen, row] = [true, here];
  }
  return d;
}
