import { start } from "../bocca.js";
import { lines } from "../lines.js";
import { engrave } from "../notation.js";
import { changeable } from "../week.js";

start({ lines });
changeable();

// The sheet's small staves, each as wide as its notes.
async function staves() {
  for (const staff of document.querySelectorAll(".small-staff")) {
    const picture = await engrave(JSON.parse(staff.querySelector("[data-score]").textContent), 2000, false, {
      scale: Number(staff.dataset.scale),
    });
    staff.querySelector(".engraved").replaceChildren(picture);
  }
  document.querySelector(".week-sheet")?.setAttribute("data-engraved", "");
}
staves();

document.addEventListener("click", async (event) => {
  if (event.target.closest("[data-print]")) window.print();
  const copy = event.target.closest("[data-copy]");
  if (!copy) return;
  const text = document.querySelector(copy.dataset.copy);
  const done = await navigator.clipboard
    .writeText(text.value)
    .then(() => true)
    .catch(() => false);
  // Where the clipboard is shut the text is selected, for the keys to copy.
  if (!done) text.select();
  copy.textContent = done ? "Copied" : "Selected: press Ctrl C";
});
