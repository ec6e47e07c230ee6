// The Set-up stop: a drawn face, a camera and a photo; nothing of a picture is ever sent.
import assert from "node:assert/strict";
import { writeFileSync } from "node:fs";
import { join } from "node:path";
import { describe, it } from "node:test";
import { deflateSync } from "node:zlib";
import { address, folder, visit, withApp } from "./app.mjs";

withApp();

// Everything that a page sends from now on.
function sent(page) {
  const bodies = [];
  page.on("request", (request) => {
    if (request.method() !== "GET")
      bodies.push({ url: request.url(), type: request.headers()["content-type"] ?? "", body: request.postDataBuffer() ?? Buffer.alloc(0) });
  });
  return bodies;
}

function onlyMarks(bodies) {
  assert.ok(bodies.length > 0);
  for (const { type, body } of bodies) {
    assert.match(type, /^application\/json/);
    assert.ok(body.length < 1500, `${body.length} bytes`);
    const { front, side, rimMm, source, ...other } = JSON.parse(body.toString());
    assert.deepEqual(other, {});
    assert.equal(front.ringEdge.length, 4);
    assert.equal(typeof rimMm, "number");
    assert.equal(typeof source, "number");
    assert.ok(side === null || Object.values(side).every((point) => typeof point.x === "number"));
  }
}

// A PNG of one grey, written by hand so that no picture lies in the tree.
function png(width, height) {
  const crc = (bytes) => {
    let sum = ~0;
    for (const byte of bytes) {
      sum ^= byte;
      for (let i = 0; i < 8; i++) sum = sum & 1 ? (sum >>> 1) ^ 0xedb88320 : sum >>> 1;
    }
    return ~sum >>> 0;
  };
  const chunk = (name, data) => {
    const body = Buffer.concat([Buffer.from(name), data]);
    const out = Buffer.alloc(12 + data.length);
    out.writeUInt32BE(data.length, 0);
    body.copy(out, 4);
    out.writeUInt32BE(crc(body), 8 + data.length);
    return out;
  };
  const head = Buffer.alloc(13);
  head.writeUInt32BE(width, 0);
  head.writeUInt32BE(height, 4);
  head.set([8, 0, 0, 0, 0], 8);
  return Buffer.concat([
    Buffer.from([0x89, 0x50, 0x4e, 0x47, 0x0d, 0x0a, 0x1a, 0x0a]),
    chunk("IHDR", head),
    chunk("IDAT", deflateSync(Buffer.concat(Array(height).fill(Buffer.concat([Buffer.from([0]), Buffer.alloc(width, 120)]))))),
    chunk("IEND", Buffer.alloc(0)),
  ]);
}

// A short film of a plain grey in the form that the browser's fake camera reads.
function film(path) {
  const [width, height] = [320, 240];
  const frame = Buffer.concat([Buffer.from("FRAME\n"), Buffer.alloc(width * height, 130), Buffer.alloc((width * height) / 2, 128)]);
  writeFileSync(path, Buffer.concat([Buffer.from(`YUV4MPEG2 W${width} H${height} F10:1 Ip A1:1 C420jpeg\n`), ...Array(10).fill(frame)]));
}

// A film of blurred spots that swing to and fro by so many pixels, once in ten pictures.
function swinging(path, pixels) {
  const [width, height] = [320, 240];
  const frames = Array.from({ length: 10 }, (_, i) => {
    const away = pixels * Math.sin((2 * Math.PI * i) / 10);
    const luma = Buffer.alloc(width * height);
    for (let y = 0; y < height; y++)
      for (let x = 0; x < width; x++)
        luma[y * width + x] = 128 + 50 * Math.sin((x - away) / 17) * Math.cos(y / 23) + 40 * Math.sin((x - away) / 41 + y / 37);
    return Buffer.concat([Buffer.from("FRAME\n"), luma, Buffer.alloc((width * height) / 2, 128)]);
  });
  writeFileSync(path, Buffer.concat([Buffer.from(`YUV4MPEG2 W${width} H${height} F10:1 Ip A1:1 C420jpeg\n`), ...frames]));
}

const share = (page) => page.textContent("[data-share]");

describe("set-up", () => {
  it("is measured on the drawn face with the keyboard alone, and kept", { timeout: 60000 }, async () => {
    await visit({}, async (page) => {
      await page.goto(address);
      await page.keyboard.press("/");
      await page.keyboard.type("wren");
      await page.keyboard.press("Enter");
      await page.waitForURL(/\/buzz\/\d+/);
      await page.keyboard.press("3");
      await page.waitForURL(/\/set-up\/\d+/);
      await page.waitForSelector("[data-share]");
      assert.equal(await share(page), "66 %");
      await page.focus("[name=share]");
      for (let i = 0; i < 16; i++) await page.keyboard.press("ArrowLeft");
      await page.waitForFunction(() => document.querySelector("[data-share]").textContent === "50 %");
      await page.focus("[data-mark=lipLeft]");
      for (let i = 0; i < 3; i++) await page.keyboard.press("Shift+ArrowDown");
      await page.waitForFunction(
        () => document.querySelector("[data-tilt]").textContent !== "0°" && document.querySelector("[data-share]").textContent !== "50 %",
      );
      await page.keyboard.press("Enter");
      await page.waitForSelector("text=The placement is saved");
    });
  });

  it("freezes the camera's mirror and sends the marks alone", { timeout: 60000 }, async () => {
    const camera = join(folder, "camera.y4m");
    film(camera);
    await visit({ camera }, async (page) => {
      await page.goto(`${address}/set-up/1`);
      const bodies = sent(page);
      await page.selectOption("[name=source]", "Camera");
      await page.waitForFunction(() => document.querySelector("[data-video]").videoWidth > 0);
      await page.locator("h1").click();
      await page.keyboard.press("Space");
      await page.waitForSelector("[data-canvas]:not([hidden])");
      const grey = await page.evaluate(() => [
        ...document.querySelector("[data-canvas]").getContext("2d").getImageData(320, 240, 1, 1).data,
      ]);
      assert.ok(grey[0] > 60 && grey[3] === 255);
      assert.equal(await page.evaluate(() => document.querySelector("[data-video]").hidden), true);
      await page.click("text=Keep this placement");
      await page.waitForSelector("text=The placement is saved");
      onlyMarks(bodies);
    });
  });

  for (const { pixels, told } of [
    { pixels: 0, told: /stayed within 0\.[0-5] %/ },
    { pixels: 12, told: /to and fro by (2\.[2-9]|3\.[0-2]) %/ },
  ])
    it(`measures a gaze whose head swings by ${pixels} of 320 pixels, and sends no picture`, { timeout: 60000 }, async () => {
      const camera = join(folder, `gaze${pixels}.y4m`);
      swinging(camera, pixels);
      await visit({ camera }, async (page) => {
        await page.goto(`${address}/set-up/1/checks`);
        const bodies = sent(page);
        await page.click("[data-gaze]");
        await page.waitForFunction(() => document.querySelector("[data-gaze-told]").textContent.includes("picture's width"), null, {
          timeout: 40000,
        });
        assert.match(await page.textContent("[data-gaze-told]"), told);
        assert.ok(bodies.length === 1 && bodies[0].body.length < 5000);
        assert.ok(JSON.parse(bodies[0].body.toString()).every((shift) => Object.keys(shift).join() === "x,y"));
        await page.reload();
        assert.match(await page.textContent("[data-gaze-told]"), told);
      });
    });

  it("shows lips in slow motion, and holds them still", { timeout: 60000 }, async () => {
    await visit({}, async (page) => {
      await page.goto(`${address}/set-up/1/motion`);
      const shape = () => page.getAttribute("[data-upper]", "d");
      const before = await shape();
      await page.waitForFunction((d) => document.querySelector("[data-upper]").getAttribute("d") !== d, before);
      await page.keyboard.press("Space");
      await page.waitForFunction(() => document.querySelector("[data-go]").textContent.startsWith("Move"));
      const held = await shape();
      await page.waitForTimeout(200);
      assert.equal(await shape(), held);
    });
  });

  it("says so when there is no camera, and when a photo is none", { timeout: 60000 }, async () => {
    await visit({ expectErrors: true }, async (page) => {
      await page.goto(`${address}/set-up/1`);
      await page.selectOption("[name=source]", "Camera");
      await page.waitForFunction(() =>
        /camera.*use a photo or the drawn face/.test(document.querySelector(".transport .trouble").textContent),
      );
      await page.selectOption("[name=source]", "Photo");
      await page.setInputFiles("[name=photo]", { name: "list.png", mimeType: "image/png", buffer: Buffer.from("two pints of milk") });
      await page.waitForFunction(() => document.querySelector(".transport .trouble").textContent.startsWith("list.png: not a picture"));
    });
  });

  it("opens a photo in the browser only", { timeout: 60000 }, async () => {
    await visit({}, async (page) => {
      await page.goto(`${address}/set-up/1`);
      await page.selectOption("[name=source]", "Photo");
      const bodies = sent(page);
      await page.setInputFiles("[name=photo]", { name: "face.png", mimeType: "image/png", buffer: png(5000, 4000) });
      await page.waitForSelector("[data-canvas]:not([hidden])");
      await page.click("[data-more]");
      await page.check("text=from the side too");
      await page.waitForSelector("[data-side]");
      const ring = page.locator("[data-mark=ring1] .dot");
      const box = await ring.boundingBox();
      await page.mouse.move(box.x + box.width / 2, box.y + box.height / 2);
      await page.mouse.down();
      await page.mouse.move(box.x + box.width / 2, box.y - 6, { steps: 4 });
      await page.mouse.up();
      await page.waitForTimeout(500);
      await page.click("text=Keep this placement");
      await page.waitForSelector("text=The placement is saved");
      onlyMarks(bodies);
      assert.ok(JSON.parse(bodies.find(({ url }) => url.includes("Keep")).body.toString()).side.elbow.x > 0);
    });
  });

  it("notes what is seen by key, advises, and never tells a tense pupil to tighten", { timeout: 60000 }, async () => {
    await visit({}, async (page) => {
      await page.goto(`${address}/set-up/6/watch`);
      await page.keyboard.press("o");
      await page.waitForFunction(() => /cheeks puffed/.test(document.querySelector("[data-found]")?.textContent));
      await page.keyboard.press("z");
      await page.waitForSelector("[data-tense]");
      assert.doesNotMatch(await page.textContent("[data-cue]"), /[Ff]irm|[Ss]et, cheeks/);
      await page.keyboard.press("Enter");
      await page.waitForSelector("text=The advice is taken");
    });
  });
});
