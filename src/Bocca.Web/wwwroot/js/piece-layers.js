// What is laid upon an engraved score, one layer at a time: settings, breaths, phrases, what comes again, tongue and slur, hard spots.
const space = "http://www.w3.org/2000/svg";

function made(name, attributes, text) {
  const element = document.createElementNS(space, name);
  for (const [key, value] of Object.entries(attributes)) element.setAttribute(key, value);
  if (text !== undefined) element.textContent = text;
  return element;
}

// Where each note stands in the box, with the staff it stands on.
function places(box, plan) {
  const frame = box.getBoundingClientRect();
  const staves = new Map();
  const of = (element) => {
    const { x, y, width, height } = element.getBoundingClientRect();
    return { x: x - frame.x + box.scrollLeft, y: y - frame.y + box.scrollTop, width, height };
  };
  return plan.notes.map((note) => {
    const element = box.querySelector(`[data-engraved] [id="n${note.first}"]`);
    if (!element) return null;
    const head = of(element.querySelector(".notehead") ?? element);
    const system = element.closest(".system") ?? element.closest(".measure");
    if (!staves.has(system)) {
      // The lines of the staff alone: notes and texts reach beyond them.
      const lines = [...system.querySelectorAll(".staff > path")].map(of);
      const [top, bottom] = [Math.min(...lines.map((line) => line.y)), Math.max(...lines.map((line) => line.y + line.height))];
      const notes = [...system.querySelectorAll(".note, .rest, .dynam, .hairpin, .slur, .tempo, .dir, .artic, .fermata, .harm")].map(of);
      const measures = [...system.querySelectorAll(".measure")].map(of);
      staves.set(system, {
        top,
        bottom,
        low: Math.max(bottom, ...notes.map((each) => each.y + each.height)),
        high: Math.min(top, ...notes.map((each) => each.y)),
        left: Math.min(...measures.map((each) => each.x)),
        right: Math.max(...measures.map((each) => each.x + each.width)),
      });
    }
    const end = box.querySelector(`[data-engraved] [id="n${note.last}"]`);
    return {
      top: of(element).y,
      x: head.x + head.width / 2,
      y: head.y + head.height / 2,
      width: head.width,
      right: end ? of(end.querySelector(".notehead") ?? end).x + head.width : head.x + head.width,
      staff: staves.get(system),
    };
  });
}

// Parts of a stretch of notes, one a system, as long as their notes.
function stretches(at, from, to) {
  const parts = [];
  for (let i = from; i <= to; i++) {
    const place = at[i];
    if (!place) continue;
    const last = parts.at(-1);
    if (last?.staff === place.staff) last.to = place.right;
    else parts.push({ staff: place.staff, from: place.x - place.width / 2, to: place.right });
  }
  return parts;
}

// Words under a staff, in the first line below it where nothing else stands yet. A letter takes about half the height of its type.
function wordsUnder(svg, staff, x, words, kind, letter = 6.2) {
  const wide = words.length * letter + 6;
  const from = kind.includes("centred") ? x - wide / 2 : x;
  const lines = (staff.under ??= []);
  let line = lines.findIndex((ends) => ends.every(([left, right]) => right <= from || left >= from + wide));
  if (line < 0) line = lines.push([]) - 1;
  lines[line].push([from, from + wide]);
  svg.append(made("text", { x, y: staff.low + 17 + 15 * line, class: kind }, words));
}

const layers = {
  // The setting under each note that changes it; on a slide the path of the slide over the staff too.
  settings(svg, plan, at) {
    for (const [i, note] of plan.notes.entries()) {
      const place = at[i];
      if (!place) continue;
      const before = plan.notes[i - 1];
      const same = before && before.setting === note.setting && at[i - 1]?.staff === place.staff;
      const left = note.setting !== note.plain;
      // Valves one under the other, as they are written over parts: a row of notes has no room for them side by side.
      const valves = note.setting.split("-");
      for (const [j, valve] of valves.entries())
        svg.append(
          made(
            "text",
            {
              x: place.x,
              y: place.staff.low + 16 + 13 * j,
              class: ["setting", note.pinned && "pinned", left && "left", note.barred && "barred", same && !left && "again"]
                .filter(Boolean)
                .join(" "),
            },
            valve,
          ),
        );
      if (note.joined)
        svg.append(made("text", { x: place.x, y: place.staff.low + 32, class: "joined" }, note.joined === "doo" ? "doo" : "lip"));
    }
    if (plan.slide) slidePath(svg, plan, at);
  },

  breaths(svg, plan, at) {
    const marks = { rest: "rest", comma: "comma", phrase: "phrase", shorten: "shorter", drop: "left out", asked: "asked" };
    for (const breath of plan.breaths) {
      const place = at[breath.after];
      const next = at[breath.after + 1];
      if (!place) continue;
      const x = next?.staff === place.staff ? (place.right + next.x - next.width / 2) / 2 : place.right + 8;
      const y = Math.min(place.staff.top, place.top, next?.staff === place.staff ? next.top : place.top) - 9;
      svg.append(
        made("path", {
          d: `M${x - 3} ${y - 8} q7 1 4 11`,
          class: `breath${breath.kind === "rest" ? " in-rest" : ""}${breath.full ? "" : " top-up"}`,
        }),
      );
      svg.append(made("text", { x, y: y - 14, class: "breath-kind" }, breath.less || marks[breath.kind]));
    }
    const dry = at[plan.outOfAir];
    if (dry) {
      svg.append(made("path", { d: `M${dry.x - dry.width} ${dry.staff.top - 12} V${dry.staff.bottom + 12}`, class: "out-of-air" }));
      svg.append(made("text", { x: dry.x, y: dry.staff.high - 14, class: "spare" }, "the air runs out"));
    }
    for (const span of plan.spans) {
      for (const [i, part] of stretches(at, span.from, span.to).entries()) {
        const y = part.staff.low + 16;
        svg.append(made("path", { d: `M${part.from} ${y} H${part.to}`, class: `span${span.spare < 1 ? " tight" : ""}` }));
        // Where there is no room to the right of it, it ends where its line does.
        const late = part.from > part.staff.right - 90;
        if (i === 0)
          svg.append(
            made(
              "text",
              { x: late ? part.to : part.from, y: y + 16, class: `spare${late ? " late" : ""}` },
              `${span.spare.toFixed(1)} s to spare`,
            ),
          );
      }
    }
  },

  phrases(svg, plan, at) {
    for (const [i, phrase] of plan.phrases.entries())
      for (const [j, part] of stretches(at, phrase.from, phrase.to).entries()) {
        const y = part.staff.high - 8;
        const { from, to } = part;
        svg.append(
          made("path", {
            d: `M${from} ${y} Q${from} ${y - 10} ${from + 10} ${y - 10} H${to - 10} Q${to} ${y - 10} ${to} ${y}`,
            class: "phrase",
          }),
        );
        if (j === 0)
          svg.append(
            made("text", { x: part.from + 4, y: y - 14, class: "phrase-name" }, `${i + 1}${phrase.level ? ` ${phrase.level}` : ""}`),
          );
      }
  },

  returns(svg, plan, at) {
    for (const each of plan.returns)
      for (const [i, part] of stretches(at, each.from, each.to).entries()) {
        svg.append(
          made("rect", {
            x: part.from - 4,
            y: part.staff.top - 6,
            width: part.to - part.from + 8,
            height: part.staff.bottom - part.staff.top + 12,
            rx: 4,
            class: "return",
          }),
        );
        if (i === 0) wordsUnder(svg, part.staff, part.from, each.words, "words");
      }
    for (const run of plan.runs)
      for (const [i, part] of stretches(at, run.from, run.to).entries()) {
        svg.append(made("path", { d: `M${part.from} ${part.staff.high - 6} H${part.to}`, class: "run" }));
        if (i === 0) svg.append(made("text", { x: part.from, y: part.staff.high - 12, class: "words run-name" }, run.kind));
      }
  },

  rows(svg, plan, at) {
    for (const row of plan.rows) {
      const notes = plan.notes.map((note, i) => [note, i]).filter(([note]) => note.bar === row.bar);
      for (const [j, [, i]] of notes.entries()) {
        if (!at[i]) continue;
        svg.append(
          made("text", { x: at[i].x, y: at[i].staff.low + 17, class: `row${row.pattern[j] === "S" ? " slurred" : ""}` }, row.pattern[j]),
        );
        if (j === 0 && row.like && row.pattern.includes("S"))
          svg.append(made("text", { x: at[i].x - at[i].width / 2, y: at[i].staff.low + 33, class: "words" }, `as bar ${row.like}`));
      }
    }
  },

  hard(svg, plan, at) {
    for (const spot of plan.hard) {
      const place = at[spot.note];
      if (!place) continue;
      const y = place.staff.high - 8;
      const size = Math.min(11, 4 + spot.score);
      svg.append(made("path", { d: `M${place.x - size} ${y - size * 1.4} H${place.x + size} L${place.x} ${y} Z`, class: "hard" }));
    }
    for (const hidden of plan.hidden) {
      const place = at[hidden.to];
      if (place) wordsUnder(svg, place.staff, place.x, hidden.words, "words centred");
    }
  },

  none() {},
};

// The slide as a line over the staff: the further out, the lower.
function slidePath(svg, plan, at) {
  const most = Math.max(20, ...plan.notes.map((note) => note.cm ?? 0));
  let line = "";
  let staff = null;
  for (const [i, note] of plan.notes.entries()) {
    const place = at[i];
    if (!place || note.cm === null) continue;
    const y = place.staff.high - 34 + (24 * note.cm) / most;
    line += place.staff === staff ? ` L${place.x} ${y}` : ` M${place.x} ${y}`;
    staff = place.staff;
    const changes = plan.notes[i - 1]?.cm !== note.cm;
    if (changes) svg.append(made("text", { x: place.x, y: y - 4, class: "cm" }, `${Math.round(note.cm)}`));
  }
  svg.append(made("path", { d: line, class: "slide-path" }));
}

// Lays a layer upon the score.
export function draw(box, plan, names, chosen = -1) {
  const svg = box.querySelector("[data-over]");
  const engraved = box.querySelector("[data-engraved]");
  svg.setAttribute("viewBox", `0 0 ${engraved.clientWidth} ${engraved.clientHeight}`);
  svg.replaceChildren();
  const at = places(box, plan);
  if (at[chosen]) {
    const place = at[chosen];
    svg.append(
      made("rect", {
        x: place.x - place.width - 2,
        y: Math.min(place.staff.top, place.y) - 10,
        width: 2 * place.width + 4,
        height: Math.max(place.staff.bottom, place.y) - Math.min(place.staff.top, place.y) + 20,
        rx: 5,
        class: "chosen",
      }),
    );
  }
  for (const name of names) layers[name](svg, plan, at);
}
