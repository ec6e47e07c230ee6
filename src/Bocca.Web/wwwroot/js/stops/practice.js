import { start } from "../bocca.js";

start({});

// How long the lesson has been on, quietly.
setInterval(() => {
  for (const clock of document.querySelectorAll("[data-minutes-since]")) clock.textContent = String(Math.round((Date.now() - Number(clock.dataset.minutesSince)) / 60000));
}, 20000);
