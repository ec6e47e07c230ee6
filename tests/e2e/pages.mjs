// The pages that what holds on every page is tried on: of each stop the first is its stage.
export const stops = {
  desk: ["/", "/record/1", "/pupils/1", "/pupils/new", "/health/1"],
  breath: ["/breath/1", "/breath/5"],
  "set-up": ["/set-up/1", "/set-up/3/checks", "/set-up/1/watch", "/set-up/1/motion"],
  buzz: ["/buzz/1", "/buzz", "/buzz/1?drill=sound4-rest4"],
  tone: ["/tone/1", "/tone/3?drill=tongue-four"],
  notes: [
    "/notes/1?note=D4",
    "/notes/3?note=G4",
    "/notes/1/chart?whole=true&others=true",
    "/notes/6/tube",
    "/notes/3/slide",
    "/notes/class?shape=MajorScale",
    "/notes/class?shape=MajorScale&sheets=true",
    "/notes/1/hand",
    "/notes/3/hand?drill=by-eye",
    "/notes/4/instrument",
  ],
  slurs: ["/slurs/4", "/slurs/7/lips", "/slurs/7/own", "/slurs/6/map", "/slurs/class"],
  ear: ["/ear/4?drill=sing-intervals", "/ear/6", "/ear/3?drill=copy-back", "/ear/count/6", "/ear/tell/1", "/ear/delay/1", "/ear/class"],
  pieces: [
    "/pieces/7/3",
    "/pieces/7",
    "/pieces/6/5/sheet?of=study",
    "/pieces/6/5/sheet?of=breaths",
    "/pieces/3/5",
    "/pieces/1/write",
    "/pieces/4/scale",
  ],
  practice: [
    "/practice/1",
    "/practice/4/week",
    "/practice/1/message",
    "/practice/1/lesson",
    "/practice/1/sheet",
    "/practice/1/term",
    "/practice/class",
    "/practice/wall",
    "/practice/timetable",
    "/practice/paper",
  ],
  approach: [
    "/approach/1",
    "/approach",
    "/approach/bands/1",
    "/approach/drills",
    "/approach/limits",
    "/approach/cues",
    "/approach/cues/1?symptom=oneLow",
    "/approach/changes/1",
  ],
};

export const pages = Object.values(stops).flat();

// Once every score on a page is engraved.
export const engraved = (page) =>
  page.waitForFunction(() =>
    [...document.querySelectorAll("script[data-score]")].every(
      (score) => score.closest("details:not([open])") || score.parentElement.querySelector("svg"),
    ),
  );
