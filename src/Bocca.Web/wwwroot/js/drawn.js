import { openDB } from "../lib/idb.js";
import { quietly } from "./store.js";

// Pictures of scores engraved lately, kept in this browser so that a page seen before has its staves at once. Another version of Bocca
// draws anew, and so does a browser that keeps nothing (a private window, a full disk).
const most = 150;
const days = 30;
const version = import.meta.url;
let opened;
const database = () =>
  (opened ??= openDB("bocca-drawn", 1, { upgrade: (db) => db.createObjectStore("pictures", { keyPath: "hash" }).createIndex("at", "at") }));

// Short enough for a key of the database; the text itself stands beside the picture, and tells whether it is its own.
function hashOf(text) {
  let [high, low] = [0xdeadbeef, 0x41c6ce57];
  for (let i = 0; i < text.length; i++) {
    high = Math.imul(high ^ text.charCodeAt(i), 2654435761);
    low = Math.imul(low ^ text.charCodeAt(i), 1597334677);
  }
  return `${high >>> 0}-${low >>> 0}`;
}

// The picture of a text that was kept; nothing where there is none.
export const kept = (text) =>
  quietly(async () => {
    const found = await (await database()).get("pictures", hashOf(text));
    return found?.version === version && found.text === text ? found.svg : undefined;
  });

// Keeps a picture, and lets go of what is old, of another version, or too much.
export const keep = (text, svg) =>
  quietly(async () => {
    const store = (await database()).transaction("pictures", "readwrite").store;
    await store.put({ hash: hashOf(text), text, svg, version, at: Date.now() });
    let more = (await store.count()) - most;
    const oldest = Date.now() - days * 86400000;
    for (
      let each = await store.index("at").openCursor();
      each && (more > 0 || each.value.at < oldest || each.value.version !== version);
      each = await each.continue(), more--
    )
      await each.delete();
  });
