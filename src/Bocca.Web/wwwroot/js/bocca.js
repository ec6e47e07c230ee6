import Alpine from "../lib/alpine.js";
import { frame } from "./frame.js";
import { rename } from "./names.js";
import { formsAgain } from "./refused.js";

// Starts a page with the frame and the behaviours of its stop; each stop has an entry of its own in stops/.
export function start(behaviours) {
  for (const [name, behaviour] of Object.entries({ frame, ...behaviours })) Alpine.data(name, behaviour);
  rename(document.body);
  Alpine.start();
  formsAgain();
  document.documentElement.dataset.awake = "yes";
  // Start is served asleep: pressed before this it would lead nowhere.
  for (const go of document.querySelectorAll("[data-go]:not([data-shut='yes'])")) go.disabled = false;
}
