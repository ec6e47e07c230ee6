// The engraver in a thread of its own: MusicXML goes in, SVG comes out, and no page stands still meanwhile. One serves all pages of a
// browser that can share it, and stays on the way from one page to the next.
let made;
// What it has read: another sheet of the same score is drawn without reading it again.
let read;

async function load() {
  const [{ default: createModule }, { VerovioToolkit }] = await Promise.all([
    import("../lib/verovio-module.mjs"),
    import("../lib/verovio.mjs"),
  ]);
  return new VerovioToolkit(await createModule());
}

// Without a score the engraver is only made ready.
async function engraved({ xml, options, page = 1 }) {
  try {
    const toolkit = await (made ??= load());
    if (xml === undefined) return {};
    const asked = JSON.stringify(options) + xml;
    if (asked !== read) {
      read = undefined;
      toolkit.setOptions(options);
      if (!toolkit.loadData(xml)) return { problem: new Error("The notes could not be engraved.") };
      read = asked;
    }
    // How many sheets there are stands on each of them.
    return { svg: toolkit.renderToSVG(page).replace("<svg ", `<svg data-pages="${toolkit.getPageCount()}" `) };
  } catch (problem) {
    // One that could not be fetched, or that broke over a score, is made anew for the next.
    made = read = undefined;
    return { problem };
  }
}

const serve = (port) => (port.onmessage = async ({ data }) => port.postMessage({ id: data.id, ...(await engraved(data)) }));

if ("onconnect" in globalThis) globalThis.onconnect = ({ ports }) => serve(ports[0]);
else serve(globalThis);
