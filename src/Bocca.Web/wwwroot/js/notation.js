import { keep, kept } from "./drawn.js";

// Engraving: MusicXML in, SVG out, by one WebAssembly engraver that is fetched when the first staff is wanted.
let engraver;
// Pictures drawn lately, the oldest first, so that a staff that comes back is there at once.
const drawn = new Map();
const mostDrawn = 60;
// The engraver's own styles, each in the document once, whatever picture brought it.
const sheets = new Set();

async function load() {
  const [{ default: createModule }, { VerovioToolkit }] = await Promise.all([import("../lib/verovio-module.mjs"), import("../lib/verovio.mjs")]);
  return new VerovioToolkit(await createModule());
}

// Where it could not be fetched, the next staff tries once more.
const engine = () => (engraver ??= load().catch((problem) => {
  engraver = undefined;
  throw problem;
}));

// What was drawn before is shown; the engraver is made ready meanwhile, for what is changed next.
const readyLater = () => (globalThis.requestIdleCallback ?? setTimeout)(() => engine().catch(() => undefined));

// spread sets notes further apart, so that texts under them do not touch. One line as wide as its notes, or lines that break where the score
// says so, or where they are full (auto); full ones reach from margin to margin. scale is the size of the notes, per cent of the engraver's own.
export async function engrave(xml, width, lines = false, { spread = 0.25, full = false, scale = 50, auto = false } = {}) {
  const key = `${width} ${lines} ${spread} ${full} ${scale} ${auto} ${xml}`;
  const known = drawn.get(key);
  drawn.delete(key);
  if (known) drawn.set(key, known);
  else if (await fromBefore(key)) readyLater();
  else {
    const toolkit = await engine();
    toolkit.setOptions({ pageWidth: Math.round((width * 100) / scale), pageHeight: lines ? 20000 : 300, adjustPageHeight: true, scale, minLastJustification: full ? 0 : 0.8, header: "none", footer: "none", breaks: auto ? "auto" : lines ? "encoded" : "none", spacingStaff: lines ? 4 : 2, spacingSystem: auto ? 16 : 4, pageMarginTop: 20, pageMarginBottom: 20, pageMarginLeft: lines ? 40 : 10, pageMarginRight: 10, svgViewBox: true, justificationSystem: 0, spacingNonLinear: 0.5, spacingLinear: spread });
    if (!toolkit.loadData(xml)) throw new Error("The notes could not be engraved.");
    remember(key, toolkit.renderToSVG(1));
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
