// Rows and slurs as recordings, and the pages that hear them.
import { readFileSync, writeFileSync } from "node:fs";
import { join } from "node:path";
import { address, bocca, folder } from "./app.mjs";

// Noise from one seed: -0.5 to 0.5 at every call.
export const noise =
  (seed = 1) =>
  () =>
    (seed = (1103515245 * seed + 12345) % 2147483648) / 2147483648 - 0.5;

// A recording in which the row comes some time after its beginning.
export async function spoken(name, seconds, ...row) {
  const [played, path] = [join(folder, `${name}-played.wav`), join(folder, `${name}.wav`)];
  await bocca("simulate", "--stage", "instrument", ...row, "--out", played);
  const file = readFileSync(played);
  const [rate, size] = [file.readUInt32LE(24), file.readUInt32LE(40)];
  const silence = Buffer.alloc(2 * Math.round(seconds * rate));
  // The room goes on before the row: exact zeros are no room.
  const hiss = noise();
  for (let i = 0; i < silence.length; i += 2) silence.writeInt16LE(Math.round(20 * hiss()), i);
  const out = Buffer.concat([file.subarray(0, 44), silence, file.subarray(44, 44 + size)]);
  out.writeUInt32LE(out.length - 8, 4);
  out.writeUInt32LE(size + silence.length, 40);
  writeFileSync(path, out);
  return path;
}

// Waits for the verdict; where it does not come, the page itself says what came instead.
async function told(page) {
  await page.waitForSelector("[data-summary]", { timeout: 60000 }).catch(async (late) => {
    const [trouble, go] = await Promise.all([".transport .trouble", "[data-go]"].map((part) => page.textContent(part, { timeout: 1000 })));
    throw new Error(`no verdict, the button says "${go}", the line under it "${trouble}"`, { cause: late });
  });
}

// Hears a recording at once.
export async function hearFile(page, path, file, tempo) {
  if (path) await page.goto(`${address}${path}`);
  await page.selectOption("[name=source]", "File");
  await page.fill("[name=tempo]", String(tempo));
  await page.setInputFiles("[name=file]", file);
  await page.check("[name=atonce]");
  await page.click("[data-go]");
  await told(page);
}
