import Alpine from "/lib/alpine.js";

// Where each behaviour of a page lives; a page fetches only its own.
const homes = { frame: "frame", breath: "breath", buzz: "buzz", callOut: "lines", hand: "hand", lines: "lines", lips: "lips", notes: "notes", placement: "placement", pupil: "pupil", slide: "slide", slurs: "slurs", tone: "tone", tube: "tube", watch: "watch" };

const wanted = new Set([...document.querySelectorAll("[x-data]")].map((element) => element.getAttribute("x-data")));
await Promise.all([...wanted].map(async (name) => Alpine.data(name, (await import(`./${homes[name]}.js`))[name])));
Alpine.start();
