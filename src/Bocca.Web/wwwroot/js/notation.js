import { keep, kept } from "./drawn.js";

// Engraving: MusicXML in, SVG out, by one WebAssembly engraver in a thread of its own, which is made when the first staff is wanted.
let engraver;
let shares = "SharedWorker" in globalThis;
// What was asked of it and is not answered yet.
const asked = new Map();
// So long a picture is waited for, milliseconds (ours): a thread that the machine has ended says nothing any more.
const patience = 60000;
// Pictures drawn lately, the oldest first, so that a staff that comes back is there at once.
const drawn = new Map();
const mostDrawn = 60;
// The engraver's own styles, each in the document once, whatever picture brought it.
const sheets = new Set();

// One thread for all pages, which stays on the way from one to the next; where a browser has none to share, one of this page's own.
function thread() {
  const [source, kind] = [new URL("./engraver.js", import.meta.url), { type: "module", extendedLifetime: true }];
  const made = shares ? new SharedWorker(source, kind) : new Worker(source, kind);
  made.onerror = gone;
  const port = made.port ?? made;
  port.onmessage = ({ data: { id, svg, problem } }) => asked.get(id)?.(problem, svg);
  return port;
}

// Whoever waits is told, and the next staff tries once more.
function gone() {
  engraver = undefined;
  for (const answer of asked.values()) answer(new TypeError("The engraver does not answer."));
}

// One that says nothing for so long is left alone.
function silent() {
  shares = false;
  gone();
}

function ask(what) {
  return new Promise((resolve, reject) => {
    const id = crypto.randomUUID();
    const late = setTimeout(silent, patience);
    asked.set(id, (problem, svg) => {
      clearTimeout(late);
      asked.delete(id);
      if (problem) reject(problem);
      else resolve(svg);
    });
    (engraver ??= thread()).postMessage({ id, ...what });
  });
}

// What was drawn before is shown; the engraver is made ready meanwhile, for what is changed next.
const readyLater = () => (globalThis.requestIdleCallback ?? setTimeout)(() => ask({}).catch(() => undefined));

// spread sets notes further apart, so that texts under them do not touch. One line as wide as its notes, or lines that break where the
// score says so, or where they are full (auto); full ones reach from margin to margin. scale is the size of the notes, per cent of the
// engraver's own. What breaks where it is full goes on over several sheets (data-pages): page is the one wanted.
export async function engrave(xml, width, lines = false, { spread = 0.25, full = false, scale = 50, auto = false, page = 1 } = {}) {
  const key = `${width} ${lines} ${spread} ${full} ${scale} ${auto} ${page} ${xml}`;
  const known = drawn.get(key);
  drawn.delete(key);
  if (known) drawn.set(key, known);
  else if (await fromBefore(key)) readyLater();
  else {
    const options = {
      pageWidth: Math.round((width * 100) / scale),
      pageHeight: auto ? 6000 : lines ? 20000 : 300,
      adjustPageHeight: true,
      scale,
      minLastJustification: full ? 0 : 0.8,
      header: "none",
      footer: "none",
      breaks: auto ? "auto" : lines ? "encoded" : "none",
      spacingStaff: lines ? 4 : 2,
      spacingSystem: auto ? 34 : 4,
      pageMarginTop: 20,
      pageMarginBottom: 20,
      pageMarginLeft: lines ? 40 : 10,
      pageMarginRight: 10,
      svgViewBox: true,
      justificationSystem: 0,
      spacingNonLinear: 0.5,
      spacingLinear: spread,
    };
    remember(key, await ask({ xml, options, page }));
    keep(key, drawn.get(key));
  }
  return styled(drawn.get(key));
}

// Whether a picture was kept of a page before.
async function fromBefore(key) {
  const svg = await kept(key);
  if (svg) remember(key, svg);
  return Boolean(svg);
}

function remember(key, svg) {
  drawn.set(key, svg);
  if (drawn.size > mostDrawn) drawn.delete(drawn.keys().next().value);
}

// The policy blocks style elements inside the picture, so their text moves into a sheet of the document first.
function styled(svg) {
  const bare = svg.replace(/<style[^>]*>([^]*?)<\/style>/g, (_, text) => {
    if (!sheets.has(text)) {
      const sheet = new CSSStyleSheet();
      sheet.replaceSync(text);
      document.adoptedStyleSheets.push(sheet);
      sheets.add(text);
    }
    return "";
  });
  return document.importNode(new DOMParser().parseFromString(bare, "image/svg+xml").documentElement, true);
}
