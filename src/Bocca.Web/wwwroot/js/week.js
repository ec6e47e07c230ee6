import { deedOf } from "./keys.js";

// The week's strip, changed by hand: a round is picked, moved, swapped, taken out, or stays on its days. Every change goes into the address
// as days of the item; the plan is made anew around it.
const days = 7;

const strip = () => document.querySelector("[data-week]");
const hand = () => document.querySelector("[data-week-hand]");
const dayOf = (round) => Number(round.closest("[data-day]").dataset.day);

// The days that an item is on, as the strip shows them.
const daysOf = (item) => [...strip().querySelectorAll("[data-round]")].filter((round) => round.dataset.round === item).map(dayOf);

// Asks for the week with other days for some items, and for what is picked to stay picked.
function ask(changes, picked) {
  const address = new URL(location.href);
  // What was asked in the form goes along, whether it stands in the address yet or not.
  for (const [name, values] of fields()) {
    address.searchParams.delete(name);
    for (const value of values) address.searchParams.append(name, value);
  }
  const locks = address.searchParams.getAll("lock").filter((lock) => !Object.keys(changes).some((item) => lock.startsWith(`${item}@`)));
  address.searchParams.delete("lock");
  for (const [item, on] of Object.entries(changes)) if (on) locks.push(`${item}@${[...new Set(on)].sort().join(",")}`);
  for (const lock of locks) address.searchParams.append("lock", lock);
  // All the others stay where they stand, unless there is no room.
  address.searchParams.delete("stand");
  const others = new Set([...strip().querySelectorAll("[data-round]")].map((round) => round.dataset.round));
  for (const item of others)
    if (!(item in changes)) address.searchParams.append("stand", `${item}@${[...new Set(daysOf(item))].sort().join(",")}`);
  sessionStorage.setItem("bocca.week.before", JSON.stringify({ at: address.href, before: location.href }));
  if (picked) sessionStorage.setItem("bocca.picked", JSON.stringify(picked));
  location.assign(address);
}

function fields() {
  const form = document.querySelector("[data-week-asked]");
  const values = new Map();
  for (const name of ["from", "m", "tired", "exam", "liked", "only"]) values.set(name, new FormData(form).getAll(name));
  return values;
}

let picked;

function pick(round) {
  for (const button of strip().querySelectorAll("[data-pick]"))
    button.setAttribute("aria-pressed", String(button.closest("[data-round]") === round));
  picked = round;
  hand().hidden = !round;
  if (!round) return;
  hand().querySelector("[data-picked-why]").textContent = round.dataset.why;
  hand().querySelector("[data-picked]").textContent =
    `${round.querySelector("strong").textContent}, ${round.closest("[data-day]").querySelector("h2").firstChild.textContent.trim()}`;
}

function move(round, to) {
  const [item, from] = [round.dataset.round, dayOf(round)];
  if (to < 0 || to >= days || to === from) return;
  ask({ [item]: [...daysOf(item).filter((day) => day !== from), to] }, { item, day: to });
}

// Two rounds change their days.
function swap(one, other) {
  const [a, b] = [one.dataset.round, other.dataset.round];
  const [from, to] = [dayOf(one), dayOf(other)];
  if (a === b || from === to) return move(one, to);
  ask(
    { [a]: [...daysOf(a).filter((day) => day !== from), to], [b]: [...daysOf(b).filter((day) => day !== to), from] },
    { item: a, day: to },
  );
}

const deeds = {
  earlier: (round) => move(round, dayOf(round) - 1),
  later: (round) => move(round, dayOf(round) + 1),
  out: (round) => ask({ [round.dataset.round]: daysOf(round.dataset.round).filter((day) => day !== dayOf(round)) }),
  lock: (round) => ask({ [round.dataset.round]: daysOf(round.dataset.round) }, { item: round.dataset.round, day: dayOf(round) }),
  free: (round) => ask({ [round.dataset.round]: null }),
};

// What the keys of the table are called here.
const named = { before: "earlier", after: "later", out: "out", lock: "lock" };

// A round that is dragged: with the mouse, a finger or a pen.
function drag(event) {
  const round = event.target.closest("[data-round]");
  if (!round || event.button > 0) return;
  const begun = { x: event.clientX, y: event.clientY };
  let on = false,
    over = null;
  const moveTo = (point) => {
    if (!on && Math.hypot(point.clientX - begun.x, point.clientY - begun.y) < 8) return;
    on = true;
    round.classList.add("dragged");
    over?.classList.remove("over");
    const under = document.elementFromPoint(point.clientX, point.clientY);
    const other = under?.closest("[data-week] [data-round]");
    over = other && other !== round ? other : (under?.closest("[data-week] [data-day]") ?? null);
    over?.classList.add("over");
  };
  const end = (point) => {
    window.removeEventListener("pointermove", moveTo);
    window.removeEventListener("pointerup", end);
    window.removeEventListener("pointercancel", end);
    round.classList.remove("dragged");
    over?.classList.remove("over");
    if (!on || !over || point.type === "pointercancel") return;
    // What ends a drag is no tap.
    window.addEventListener("click", (click) => click.stopPropagation(), { capture: true, once: true });
    setTimeout(() => pick(null));
    if (over.matches("[data-round]")) swap(round, over);
    else move(round, Number(over.dataset.day));
  };
  window.addEventListener("pointermove", moveTo);
  window.addEventListener("pointerup", end);
  window.addEventListener("pointercancel", end);
}

// What a change by hand did beside, and the way back: by one key.
function undoable() {
  const last = JSON.parse(sessionStorage.getItem("bocca.week.before") ?? "null");
  const told = document.querySelector("[data-moved-by-hand]");
  if (!told || last?.at !== location.href) return;
  const back = () => {
    sessionStorage.removeItem("bocca.week.before");
    location.assign(last.before);
  };
  told.hidden = false;
  told.querySelector("[data-undo-move]").addEventListener("click", back);
  window.addEventListener("keydown", (event) => {
    if (deedOf(event, "week")?.deed === "undo") back();
  });
}

export function changeable() {
  if (!strip()) return;
  undoable();
  strip().addEventListener("pointerdown", drag);
  strip().addEventListener("click", (event) => {
    const round = event.target.closest("[data-pick]")?.closest("[data-round]");
    if (round) pick(round === picked ? null : round);
  });
  strip().addEventListener("keydown", (event) => {
    const round = event.target.closest("[data-pick]")?.closest("[data-round]");
    const deed = deeds[named[deedOf(event, "week")?.deed]];
    if (!round || !deed) return;
    event.preventDefault();
    event.stopPropagation();
    deed(round);
  });
  hand().addEventListener("click", (event) => {
    const button = event.target.closest("button");
    if (!button || !picked) return;
    if (button.dataset.move) move(picked, dayOf(picked) + Number(button.dataset.move));
    else if (button.matches("[data-out]")) deeds.out(picked);
    else if (button.matches("[data-lock]")) deeds.lock(picked);
    else deeds.free(picked);
  });
  const last = JSON.parse(sessionStorage.getItem("bocca.picked") ?? "null");
  sessionStorage.removeItem("bocca.picked");
  const again =
    last && [...strip().querySelectorAll("[data-round]")].find((round) => round.dataset.round === last.item && dayOf(round) === last.day);
  if (again) {
    pick(again);
    again.querySelector("[data-pick]").focus();
  }
}
