// The table of keys that comes with every page: what a key does where. Nothing else knows a key by its name.
const rows = JSON.parse(document.getElementById("keys-table")?.textContent ?? "[]");

// The key in a row of the table: by what it prints, or, under the fingers of the right hand, by its place whatever it prints there.
const isKey = (label, event, byPlace) =>
  label === "Space"
    ? event.key === " "
    : byPlace && /^[A-Z;]$/.test(label)
      ? event.code === (label === ";" ? "Semicolon" : `Key${label}`)
      : byPlace && /^[1-9]$/.test(label)
        ? event.code === `Digit${label}` || event.code === `Numpad${label}`
        : label.toLowerCase() === event.key?.toLowerCase();

// What a key does in a place, and which of the row's keys it was; null for none.
export function pressed(event, place) {
  for (const row of rows.filter((each) => each.place === place)) {
    const at = row.labels.findIndex((label) => isKey(label, event, row.byPlace));
    if (at >= 0) return { deed: row.deed, at };
  }
  return null;
}

// The same where keys are for the page: not while somebody types, not over an open dialog, not with Ctrl, Alt or Meta.
export function deedOf(event, place) {
  const taken = event.ctrlKey || event.metaKey || event.altKey || document.querySelector("dialog[open]") || typing(event.target);
  return taken ? null : pressed(event, place);
}

export const typing = (element) =>
  element instanceof HTMLElement && (element.isContentEditable || ["INPUT", "SELECT", "TEXTAREA"].includes(element.tagName));
