import { start } from "../bocca.js";
import { pupil } from "../pupil.js";

start({ pupil });

// While the invented pupils still practise, the Desk follows; what is being used on it is left alone.
async function follow() {
  const desk = document.querySelector("#stage.desk");
  if (!desk?.querySelector("[data-filling]")) return;
  const page = await fetch(location.href)
    .then((answer) => (answer.ok ? answer.text() : null))
    .catch(() => null);
  const now = page && new DOMParser().parseFromString(page, "text/html").querySelector("#stage.desk");
  if (now && !desk.contains(document.activeElement)) desk.replaceWith(document.importNode(now, true));
  setTimeout(follow, 2000);
}
setTimeout(follow, 2000);
