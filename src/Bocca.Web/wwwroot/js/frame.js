// The frame: jumping along the path, finding a pupil, light and dim.
import { pressed, typing } from "./keys.js";

const pressing = (element) => element instanceof HTMLElement && ["A", "BUTTON", "SUMMARY"].includes(element.tagName);

// So long a word in passing stands (ms); what can be undone, and what went wrong, stays.
export const passingMs = 5000;

// The answer that the finder waits for; an earlier one that comes later is not shown.
let finding = Promise.resolve();

async function find(name) {
  const list = document.querySelector("#finder .finder-list");
  const asked = (list.dataset.asked = `${Number(list.dataset.asked ?? 0) + 1}`);
  const sought = new URLSearchParams({ name, place: list.dataset.place });
  const answer = await fetch(`/pupils/find?${sought}`)
    .then((found) => (found.ok ? found.text() : Promise.reject(found.status)))
    .catch(() => null);
  if (list.dataset.asked !== asked) return finding;
  if (answer === null) list.textContent = "Bocca does not answer. Is it still running?";
  else list.innerHTML = answer;
}

// How long the lesson and its part have been on, quietly.
function minutesRun() {
  document.querySelectorAll("[data-minutes-since]").forEach((clock) => {
    clock.textContent = String(Math.max(0, Math.floor((Date.now() - Number(clock.dataset.minutesSince)) / 60000)));
  });
}

// Rests run down where they are shown; a rest that came later, with a take, too.
function restRunsDown() {
  document.querySelectorAll("[data-rest]").forEach((rest) => {
    rest.dataset.until ??= String(Date.now() + 1000 * Number(rest.dataset.rest));
    const left = Math.max(0, Math.ceil((Number(rest.dataset.until) - Date.now()) / 1000));
    rest.textContent = left > 0 ? `${Math.floor(left / 60)}:${String(left % 60).padStart(2, "0")}` : "is over";
  });
}

export const frame = () => ({
  init() {
    // Who chose with the keyboard goes on from there.
    const last = JSON.parse(sessionStorage.getItem("bocca.focus") ?? "null");
    sessionStorage.removeItem("bocca.focus");
    if (last?.path === location.pathname) document.querySelector(`select[data-leads][name="${last.name}"]`)?.focus();
    // Of a pupil who was erased nothing stays in the browser either.
    const erased = document.querySelector("[data-erased]")?.dataset.erased;
    if (erased) import("./waiting.js").then(({ forgetPupil }) => forgetPupil(erased));
    for (const told of document.querySelectorAll(".told[data-passing]")) setTimeout(() => told.remove(), passingMs);
    this.clock = setInterval(() => {
      restRunsDown();
      minutesRun();
    }, 1000);
  },

  destroy() {
    clearInterval(this.clock);
  },

  open(event) {
    show(event.currentTarget.dataset.dialog);
  },

  // On a phone the path is a sheet under the head.
  path(event) {
    const open = document.querySelector(".path").classList.toggle("open");
    event.currentTarget.setAttribute("aria-expanded", open);
  },

  dim() {
    const root = document.documentElement;
    root.dataset.theme = root.dataset.theme === "dark" ? "light" : "dark";
    localStorage.setItem("bocca.theme", root.dataset.theme);
  },

  find(event) {
    // The key opens the finder; what is typed there is looked for.
    if (event.type === "keydown") {
      event.preventDefault();
      show("finder");
    } else finding = find(event.target.value);
  },

  key(event) {
    if (event.ctrlKey || event.metaKey || event.altKey) return;
    const finder = document.getElementById("finder");
    if (finder?.open && event.key === "Enter" && event.target.id === "find") {
      event.preventDefault();
      finding.then(() => finder.querySelector("li a")?.click());
      return;
    }
    if (document.querySelector("dialog[open]") || typing(event.target)) return;
    const here = pressed(event, "everywhere");
    // While a take runs nothing leads away from it but Stop; where a tap is asked, Space is one.
    if (document.querySelector(".work.taking")) {
      if (here && ["find", "accept", "stop"].includes(here.deed)) leaving(event);
      if (here?.deed === "start" && !tapped(event) && !event.target.closest("[data-go]")) {
        event.preventDefault();
        document.querySelector("[data-go]").click();
      }
      return;
    }
    if (here) this[here.deed]?.(event, here.at);
    else if (pressed(event, "lesson")) this[pressed(event, "lesson").deed](event);
  },

  // What the keys of everywhere and of a lesson do.
  stop(event, at) {
    document.querySelector(`.path a[data-key="${(at + 1) % 10}"]`)?.click();
  },

  start(event) {
    if (tapped(event) || pressing(event.target)) return;
    const go = document.querySelector("[data-go]");
    if (!go) return;
    event.preventDefault();
    go.click();
  },

  // After a take Enter does what is recommended, also where Start was clicked last and has the focus.
  accept(event) {
    const accept = [...document.querySelectorAll("[data-accept]")].find((each) => each.getClientRects().length > 0);
    if (!accept || (pressing(event.target) && !event.target.closest("[data-go]"))) return;
    event.preventDefault();
    accept.click();
  },

  help() {
    show("keys");
  },

  remark(event) {
    // The key opens the remark, and is no letter of it.
    event.preventDefault();
    show("lesson-note");
  },

  next() {
    document.querySelector("[data-next-part]")?.click();
  },
});

// A tap by Space, where the page shows a place to tap at.
function tapped(event) {
  const place = [...document.querySelectorAll("[data-tap]")].find((each) => each.getClientRects().length > 0);
  if (!place || event.repeat) return Boolean(place);
  event.preventDefault();
  place.dispatchEvent(new CustomEvent("bocca:tap", { bubbles: true, detail: event }));
  return true;
}

// A list that leads to another page does so when a choice is made: with the keyboard on Enter, or on leaving it, not at every arrow.
let waiting = null,
  byKey = false;
document.addEventListener(
  "keydown",
  (event) => {
    const list = event.target.closest?.("select[data-leads]");
    byKey = Boolean(list) && event.key !== "Enter";
    if (list && event.key === "Enter" && waiting === list) lead(list);
  },
  true,
);
document.addEventListener("pointerdown", () => (byKey = false), true);
document.addEventListener(
  "change",
  (event) => {
    const list = event.target.closest?.("select[data-leads]");
    if (!list || !byKey || event.detail === "leads") return;
    event.stopImmediatePropagation();
    waiting = list;
  },
  true,
);
document.addEventListener("focusout", (event) => event.target === waiting && lead(waiting), true);
function lead(list) {
  [waiting, byKey] = [null, false];
  sessionStorage.setItem("bocca.focus", JSON.stringify({ name: list.name, path: location.pathname }));
  list.dispatchEvent(new CustomEvent("change", { bubbles: true, detail: "leads" }));
}

function leaving(event) {
  event.preventDefault();
  window.dispatchEvent(new Event("bocca:leaving"));
}
document.addEventListener(
  "click",
  (event) => {
    if (document.querySelector(".work.taking") && event.target.closest("a[href], [data-dialog='finder']")) leaving(event);
  },
  true,
);

// What of the transport does not fit its row opens above it.
export function unfold(transport, open) {
  transport?.classList.toggle("open", open);
  transport?.querySelector("[data-more]")?.setAttribute("aria-expanded", transport.classList.contains("open"));
}
document.addEventListener("click", (event) => {
  const transport = document.querySelector(".transport.open");
  if (event.target.closest("[data-more]")) unfold(event.target.closest(".transport"));
  else if (transport && !transport.contains(event.target)) unfold(transport, false);
});
document.addEventListener("keydown", (event) => {
  const transport = document.querySelector(".transport.open");
  if (event.key !== "Escape" || !transport) return;
  unfold(transport, false);
  transport.querySelector("[data-more]").focus();
});

// A form that is sent twice, as by a double click, is sent with one key: the second is answered as the first and saves nothing.
document.addEventListener("submit", ({ target: form }) => {
  if (form.method !== "post" || form.elements.once) return;
  const key = Object.assign(document.createElement("input"), { type: "hidden", name: "once", value: crypto.randomUUID() });
  form.append(key);
});
window.addEventListener(
  "pageshow",
  ({ persisted }) => persisted && document.querySelectorAll("input[name=once]").forEach((key) => key.remove()),
);

// Who takes a line from a list, or brings it back, reads on where they were.
document.addEventListener("submit", (event) => {
  if (event.target.closest("[data-stays], .told"))
    sessionStorage.setItem("bocca.read", JSON.stringify({ at: location.pathname, y: window.scrollY }));
});
const read = JSON.parse(sessionStorage.getItem("bocca.read") ?? "null");
sessionStorage.removeItem("bocca.read");
if (read?.at === location.pathname) window.scrollTo({ top: read.y });

// What a field says that the page remembers: what was chosen while its scripts still loaded, or what was chosen last time.
export function remembered(field, key) {
  const served = [...field.options].find((option) => option.defaultSelected) ?? field.options[0];
  return field.value === served.value ? (localStorage.getItem(key) ?? served.value) : field.value;
}

function show(id) {
  const dialog = document.getElementById(id);
  if (!dialog) return;
  dialog.showModal();
  dialog.querySelector("input:not([type='hidden'])")?.focus();
  if (id === "finder") finding = find(document.getElementById("find").value);
}
