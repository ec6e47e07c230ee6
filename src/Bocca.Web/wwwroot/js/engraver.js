// The engraver in a thread of its own: MusicXML goes in, SVG comes out, and no page stands still meanwhile. One serves all pages of a
// browser that can share it, and stays on the way from one page to the next.
let made;

async function load() {
  const [{ default: createModule }, { VerovioToolkit }] = await Promise.all([import("../lib/verovio-module.mjs"), import("../lib/verovio.mjs")]);
  return new VerovioToolkit(await createModule());
}

// Without a score the engraver is only made ready.
async function engraved({ xml, options }) {
  try {
    const toolkit = await (made ??= load());
    if (xml === undefined) return {};
    toolkit.setOptions(options);
    return toolkit.loadData(xml) ? { svg: toolkit.renderToSVG(1) } : { problem: new Error("The notes could not be engraved.") };
  } catch (problem) {
    // One that could not be fetched, or that broke over a score, is made anew for the next.
    made = undefined;
    return { problem };
  }
}

const serve = (port) => (port.onmessage = async ({ data }) => port.postMessage({ id: data.id, ...(await engraved(data)) }));

if ("onconnect" in globalThis) globalThis.onconnect = ({ ports }) => serve(ports[0]);
else serve(globalThis);
