// The frame: jumping along the path, finding a pupil, light and dim.
const typing = (element) => element instanceof HTMLElement && (element.isContentEditable || ["INPUT", "SELECT", "TEXTAREA"].includes(element.tagName));
const pressing = (element) => element instanceof HTMLElement && ["A", "BUTTON", "SUMMARY"].includes(element.tagName);

// The answer that the finder waits for; an earlier one that comes later is not shown.
let finding = Promise.resolve();

async function find(name) {
  const list = document.querySelector("#finder .finder-list");
  const asked = (list.dataset.asked = `${Number(list.dataset.asked ?? 0) + 1}`);
  const sought = new URLSearchParams({ name, place: list.dataset.place });
  const answer = await fetch(`/pupils/find?${sought}`).then((found) => (found.ok ? found.text() : Promise.reject(found.status))).catch(() => null);
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
    finding = find(event.target.value);
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
    // While a take runs nothing leads away from it but Stop.
    if (document.querySelector(".work.taking")) {
      if (/^[0-9/]$|^Enter$/.test(event.key)) leaving(event);
      if (event.key === " " && !event.target.closest("[data-go]")) {
        event.preventDefault();
        document.querySelector("[data-go]").click();
      }
      return;
    }
    if (event.key === "/") {
      event.preventDefault();
      show("finder");
    } else if (event.key === "?") {
      show("keys");
    } else if (/^[0-9]$/.test(event.key)) {
      document.querySelector(`.path a[data-key="${event.key}"]`)?.click();
    } else if (event.key === " " && !pressing(event.target)) {
      const go = document.querySelector("[data-go]");
      if (go) {
        event.preventDefault();
        go.click();
      }
    } else if (event.key.toLowerCase() === "m") {
      // The key opens the remark, and is no letter of it.
      event.preventDefault();
      show("lesson-note");
    } else if (event.key.toLowerCase() === "g") {
      document.querySelector("[data-next-part]")?.click();
    } else if (event.key === "Enter" && !pressing(event.target)) {
      document.querySelector("[data-accept]")?.click();
    }
  },
});

function leaving(event) {
  event.preventDefault();
  window.dispatchEvent(new Event("bocca:leaving"));
}
document.addEventListener("click", (event) => {
  if (document.querySelector(".work.taking") && event.target.closest("a[href], [data-dialog='finder']")) leaving(event);
}, true);

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

// Who takes a line from a list, or brings it back, reads on where they were.
document.addEventListener("submit", (event) => {
  if (event.target.closest("[data-stays], .told")) sessionStorage.setItem("bocca.read", JSON.stringify({ at: location.pathname, y: window.scrollY }));
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
