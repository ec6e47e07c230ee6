import { openDB } from "../lib/idb.js";
import { quietly } from "./store.js";

// Takes that sounded and were not judged yet, in this browser alone: until they are judged, or until the day is over. Where none can be
// kept, a take is only not there after a reload.
let opened;
const database = () => (opened ??= openDB("bocca", 1, { upgrade: (db) => db.createObjectStore("takes", { keyPath: "key" }) }));
const isToday = (at) => new Date(at).toDateString() === new Date().toDateString();

export const keep = (take) => quietly(async () => (await database()).put("takes", take));

export const forget = (key) => quietly(async () => (await database()).delete("takes", key));

// Whatever waits of a pupil who was erased.
export const forgetPupil = (pupil) =>
  quietly(async () => {
    const db = await database();
    for (const take of await db.getAll("takes")) if (take.pupil === pupil) await db.delete("takes", take.key);
  });

// The take that waits for a pupil at a stop; those of days before go. Nothing else waits for this, so it may take its time.
export async function waiting(stop, pupil) {
  try {
    const db = await database();
    const takes = await db.getAll("takes");
    await Promise.all(takes.filter((take) => !isToday(take.at)).map((take) => db.delete("takes", take.key)));
    return takes.filter((take) => isToday(take.at) && take.stop === stop && take.pupil === pupil).at(-1);
  } catch {
    return undefined;
  }
}
