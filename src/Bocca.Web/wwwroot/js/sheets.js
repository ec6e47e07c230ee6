import { engrave } from "./notation.js";

// So far beyond what is in sight a sheet is engraved already.
const ahead = "1200px";

// A score on as many sheets as it takes, one under the other in a box: the first at once, each of the others when it is nearly in sight.
// changed is told whenever another sheet is there.
export function sheetsIn(box, changed) {
  let draw;
  let near;

  async function fill(empty) {
    if (empty.dataset.asked) return;
    empty.dataset.asked = "yes";
    near.unobserve(empty);
    const picture = await draw(Number(empty.dataset.page));
    // The score may have been engraved anew meanwhile.
    if (!empty.isConnected) return;
    empty.replaceWith(picture);
    changed();
  }

  function standIn(page, height) {
    const empty = Object.assign(document.createElement("div"), { className: "sheet-to-come" });
    empty.dataset.page = page;
    empty.style.height = `${height}px`;
    return empty;
  }

  return {
    // Engraves a score anew at a width; what was there stays until its first sheet is ready.
    async show(xml, width, how) {
      const own = (draw = (page) => engrave(xml, width, true, { ...how, auto: true, page }));
      const first = await own(1);
      if (own !== draw) return;
      near?.disconnect();
      near = new IntersectionObserver((seen) => seen.filter((each) => each.isIntersecting).forEach((each) => fill(each.target)), {
        rootMargin: ahead,
      });
      box.replaceChildren(first);
      const height = first.getBoundingClientRect().height;
      for (let page = 2; page <= Number(first.dataset.pages); page++) {
        const empty = standIn(page, height);
        box.append(empty);
        near.observe(empty);
      }
      changed();
    },

    // Engraves what is still to come, in order, until something is there; all of it where nothing is named.
    async until(selector) {
      for (let empty; !(selector && box.querySelector(selector)) && (empty = box.querySelector("[data-page]:not([data-asked])"));)
        await fill(empty);
    },

    close() {
      near?.disconnect();
    },
  };
}
