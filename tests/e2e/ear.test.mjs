// Ear & count, most of it by the capture path of the browser: sung and played, said and clapped, tapped on keys; the machine's delay.
import assert from "node:assert/strict";
import { execFileSync } from "node:child_process";
import { readFileSync, writeFileSync } from "node:fs";
import { join } from "node:path";
import { describe, it } from "node:test";
import { address, asPupils, bocca, folder, visit, withApp } from "./app.mjs";
import { noise } from "./spoken.mjs";

withApp();

const rate = 44100;

function wav(path, samples) {
  const data = Buffer.alloc(44 + 2 * samples.length);
  data.write("RIFF", 0);
  data.writeUInt32LE(36 + 2 * samples.length, 4);
  data.write("WAVEfmt ", 8);
  data.writeUInt32LE(16, 16);
  data.writeUInt16LE(1, 20);
  data.writeUInt16LE(1, 22);
  data.writeUInt32LE(rate, 24);
  data.writeUInt32LE(2 * rate, 28);
  data.writeUInt16LE(2, 32);
  data.writeUInt16LE(16, 34);
  data.write("data", 36);
  data.writeUInt32LE(2 * samples.length, 40);
  samples.forEach((sample, i) => data.writeInt16LE(Math.round(32767 * Math.max(-1, Math.min(1, sample))), 44 + 2 * i));
  writeFileSync(path, data);
  return path;
}

const hiss = noise();
const room = (seconds) => Float64Array.from({ length: Math.round(seconds * rate) }, () => 0.0006 * hiss());

// A voice by the oscillators and filters of a general-purpose tool (sox): a sawtooth through the formants of ah.
function sung(hertz, seconds) {
  const path = join(folder, `sung-${hertz.toFixed(2)}.wav`);
  execFileSync("sox", [
    "-R",
    "-n",
    "-r",
    String(rate),
    "-b",
    "16",
    "-c",
    "1",
    path,
    "synth",
    String(seconds),
    "sawtooth",
    String(hertz),
    "equalizer",
    "850",
    "1.5q",
    "14",
    "equalizer",
    "1250",
    "2q",
    "10",
    "lowpass",
    "3200",
    "fade",
    "0.06",
    String(seconds),
    "0.06",
    "norm",
    "-9",
  ]);
  const file = readFileSync(path);
  return Array.from({ length: (file.length - 44) / 2 }, (_, i) => file.readInt16LE(44 + 2 * i) / 32768);
}

async function played(instrument, row, tempo, ...more) {
  const path = join(folder, `played-${row.replaceAll(" ", "")}.wav`);
  await bocca(
    "simulate",
    "--instrument",
    instrument,
    "--stage",
    "instrument",
    "--row",
    row,
    "--tempo",
    String(tempo),
    "--out",
    path,
    ...more,
  );
  const file = readFileSync(path);
  return Array.from({ length: file.readUInt32LE(40) / 2 }, (_, i) => file.readInt16LE(44 + 2 * i) / 32768);
}

const mix = (into, from, at) => from.forEach((sample, i) => at * rate + i < into.length && (into[Math.round(at * rate) + i] += sample));

// Counted words by a speech synthesizer (espeak-ng), each with its loudest rise on its moment, and claps as bursts of noise.
function word(text) {
  const path = join(folder, `${text}.wav`);
  execFileSync("espeak-ng", ["-v", "en+f3", "-s", "200", "-w", path, text]);
  const resampled = join(folder, `${text}-44.wav`);
  execFileSync("sox", [path, "-r", String(rate), resampled]);
  const file = readFileSync(resampled);
  const samples = Array.from({ length: (file.length - 44) / 2 }, (_, i) => file.readInt16LE(44 + 2 * i) / 32768);
  const step = Math.round(0.01 * rate);
  const levels = Array.from({ length: Math.floor(samples.length / step) }, (_, i) =>
    Math.hypot(...samples.slice(i * step, (i + 1) * step)),
  );
  const most = Math.max(...levels);
  return { samples, vowel: levels.findIndex((level) => level > 0.5 * most) * 0.01 };
}

const clap = () => Float64Array.from({ length: Math.round(0.04 * rate) }, (_, i) => 1.6 * hiss() * Math.exp(-i / (0.007 * rate)));

// A loudspeaker that a microphone hears, at a known distance in time: what plays on the page comes back through a delay line.
const loopback = (seconds) => `
  const Own = window.AudioContext;
  window.AudioContext = class extends Own { constructor(...options) { super(...options); window.context = this; } };
  const air = () => {
    if (!window.air) {
      window.air = window.context.createDelay(1);
      window.air.delayTime.value = ${seconds};
      window.ear = window.context.createMediaStreamDestination();
      window.air.connect(window.ear);
      // A room that is never quite silent.
      const noise = window.context.createBuffer(1, 44100, 44100);
      noise.getChannelData(0).forEach((_, i, all) => (all[i] = 0.0006 * (Math.random() - 0.5)));
      const source = new AudioBufferSourceNode(window.context, { buffer: noise, loop: true });
      connect.call(source, window.ear);
      source.start();
    }
    return window.air;
  };
  const connect = AudioNode.prototype.connect;
  AudioNode.prototype.connect = function (to, ...more) {
    if (to instanceof AudioDestinationNode && !(this instanceof GainNode)) connect.call(this, air());
    return connect.call(this, to, ...more);
  };
  navigator.mediaDevices.getUserMedia = async () => { air(); return window.ear.stream; };
  // Plays what was laid ready into the air at a moment of the audio clock.
  window.sound = async (at) => {
    const buffer = window.context.createBuffer(1, window.ready.length, ${rate});
    buffer.getChannelData(0).set(window.ready);
    const source = new AudioBufferSourceNode(window.context, { buffer });
    connect.call(source, air());
    source.start(at);
    return at - window.context.currentTime;
  };
  // Taps the key T at moments of the audio clock. Each is held for a while, so that the keyboard repeats it; and the page is busy just
  // then: it hears of all a tenth later.
  window.tapAt = (due) => {
    const late = (window.context.outputLatency || 0) + (window.context.baseLatency || 0);
    window.tappedLate = 0;
    const step = () => {
      if (due.length === 0) return;
      if (window.context.currentTime >= due[0] + late) {
        window.tappedLate = Math.max(window.tappedLate, window.context.currentTime - due.shift() - late);
        const keys = [false, true, true].map((repeat) => new KeyboardEvent("keydown", { code: "KeyT", key: "t", repeat, bubbles: true }));
        const [begun, until] = [window.context.currentTime, performance.now() + 100];
        while (performance.now() < until);
        // Where the machine held up the sound meanwhile, its clock stood, and no tap can be placed by it.
        window.tappedLate = Math.max(window.tappedLate, 0.1 - (window.context.currentTime - begun));
        for (const key of keys) window.dispatchEvent(key);
      }
      setTimeout(step, 2);
    };
    step();
  };
`;

// What the page says of each note that was sung.
const sungCents = (text) => [...text.matchAll(/([−+]?\d+) \/ [−+]?\d+/g)].map(([, value]) => Number(value.replace("−", "-")));

async function start(page) {
  await page.waitForSelector("[data-ready]");
  await page.selectOption("[name=source]", "Microphone");
  await page.locator("h1").click();
  await page.keyboard.press("Space");
}

// A busy machine may let the page tap late, and late is what Bocca then says: only taps in time tell anything.
async function tappingInTime(page, steps) {
  for (let left = 4; ; left--) {
    await steps();
    if (left === 0 || (await page.evaluate(() => window.tappedLate)) < 0.03) return;
  }
}

describe("the ear", () => {
  it("hears F to D sung 40 cents flat and played right, side by side", { timeout: 120000 }, async () => {
    // At 120 a minute: four counts, the model twice in four bars, four counts; three notes sung, four beats' rest, three played.
    const [beat, lead] = [0.5, 12.4];
    const flat = (midi) => 440 * 2 ** ((midi - 69) / 12 - 40 / 1200);
    const samples = room(lead + 18 * beat + 3);
    // A child sings an octave above a euphonium.
    [53, 50, 53].forEach((midi, i) => mix(samples, sung(flat(midi + 12), 0.85), lead + 2 * i * beat));
    mix(samples, (await played("euphonium-4v-comp", "F3 D3 F3", 120)).slice(beat * rate), lead + 10 * beat);
    await visit({ microphone: wav(join(folder, "sung.wav"), samples) }, async (page) => {
      await page.goto(`${address}/ear/4?drill=sing-intervals&level=2&tempo=120`);
      await start(page);
      await page.waitForSelector("[data-summary]", { timeout: 60000 });
      const heard = (await page.locator(".hand dl").allTextContents()).join(" ");
      const off = sungCents(heard);
      assert.equal(off.length, 3, heard);
      off.forEach((value) => assert.ok(Math.abs(value + 40) <= 5, heard));
      assert.match(heard, /cents sung \/ played/);
      assert.equal(await page.textContent("[data-summary]"), "Sung right; played right.");
      assert.match(await page.textContent("[data-settings]"), /D3 1-2/);
      const threads = await page.locator(".heard-thread").count();
      assert.ok(threads >= 4, `${threads} threads`);
    });
  });

  it("is right when it was tapped right, and the lips are not when another note came", { timeout: 120000 }, async () => {
    // Copied back on a trombone, step three: two of three open notes; what they are is known by the seed.
    let notes;
    const question = `${address}/ear/3?drill=copy-back&level=2&seed=7&tempo=120`;
    await visit({}, async (page) => {
      await page.goto(question);
      notes = (await page.getAttribute("[data-model]", "data-model"))
        .split(" ")
        .map((note) => Math.round(69 + 12 * Math.log2(Number(note.split(":")[0]) / 440)));
    });
    const names = { 46: "Bb2", 53: "F3", 58: "Bb3", 62: "D4" };
    const other = names[notes[0]] === "Bb2" ? "F3" : "Bb2";
    const samples = room(6.5);
    mix(samples, (await played("trombone", `${other} ${names[notes[1]]}`, 120)).slice(0.5 * rate), 0.5);
    const copied = wav(join(folder, "copied.wav"), samples);
    await visit({ viewport: { width: 390, height: 844 }, touch: true }, async (page) => {
      await page.goto(question);
      await page.waitForSelector("[data-ready]");
      for (const note of notes) await page.tap(`[data-choice="${names[note]}"]`);
      assert.match(await page.textContent("[data-tapped-line]"), /Now press Start/);
      // Before it is played nothing on the page tells which notes they were.
      assert.equal(await page.locator(".head").first().isVisible(), false);
      await page.click("[data-more]");
      await page.selectOption("[name=source]", "File");
      await page.setInputFiles("[name=file]", copied);
      await page.check("[name=atonce]");
      await page.click("[data-go]");
      await page.waitForSelector("[data-summary]", { timeout: 60000 });
      const summary = await page.textContent("[data-summary]");
      assert.match(summary, /^Ear right; first note (one partial|two partials) (high|low)\./);
      assert.match(summary, /Work on the instrument: the ear has it\.$/);
      assert.equal(await page.evaluate(() => document.documentElement.scrollWidth <= window.innerWidth), true);
    });
  });

  it("is answered by a tap alone, on keys, and what was sung for nobody is not kept", { timeout: 120000 }, async () => {
    await visit({}, async (page) => {
      await page.goto(`${address}/ear/1?drill=which-lower`);
      await page.waitForSelector("[data-ready]");
      await page.keyboard.press("h");
      await page.keyboard.press("j");
      await page.waitForSelector("[data-answer]");
      assert.match(await page.textContent("[data-answer]"), /It was the (first|second)/);
      await page.keyboard.press("Enter");
      await page.waitForSelector("[data-choice]");
      await page.goto(`${address}/ear/4?drill=sing-target`);
      await page.waitForSelector("[data-ready]");
      await asPupils(page);
      await page.selectOption("[name=source]", "PracticePlayer");
      await page.check("[name=private]");
      await page.check("[name=atonce]");
      await page.locator("h1").click();
      await page.click("[data-go]");
      await page.waitForSelector("[data-private]");
      assert.match(await page.textContent("[data-summary]"), /^Sung right/);
      await page.goto(`${address}/record/4?kind=ear`);
      assert.doesNotMatch(await page.textContent("main, .main, body"), /Find the note/);
    });
  });
});

describe("counting", () => {
  it("measures the machine's delay, takes it off, and tells the voice from the hands", { timeout: 180000 }, async () => {
    const delay = 0.12;
    await visit({ alters: true }, async (page) => {
      await page.addInitScript(loopback(delay));
      await page.goto(`${address}/ear/count/4?own=${encodeURIComponent("q. e q q")}&tempo=80&drill=said-clapped`);
      await page.waitForSelector("[data-ready]");
      assert.equal(await page.locator("[data-delay-missing]").isVisible(), true);
      await page.click("[data-delay-missing] a");
      await page.click("[data-clicks]");
      await page.waitForFunction(() => /^\d+ ms late/.test(document.querySelector("[data-delay]").textContent), null, { timeout: 30000 });
      const told = Number((await page.textContent("[data-delay]")).match(/^(\d+)/)[1]);
      // The line is 120 ms long; what the browser's own stream adds is part of the way.
      assert.ok(told >= 118 && told <= 220, `${told} ms`);
      await page.goBack();
      await page.waitForSelector("[data-ready]");
      assert.equal(await page.locator("[data-delay-missing]").isVisible(), false);
      // Said on every beginning; clapped on all but the & of 2.
      const beat = 60 / 80;
      const samples = room(4 * beat + 1);
      const words = { one: word("one"), and: word("and"), three: word("three"), four: word("four") };
      for (const [text, at] of [
        ["one", 0],
        ["and", 1.5],
        ["three", 2],
        ["four", 3],
      ])
        mix(
          samples,
          Array.from(words[text].samples, (sample) => 0.5 * sample),
          Math.max(0, 0.5 + at * beat - words[text].vowel),
        );
      for (const at of [0, 2, 3]) mix(samples, Array.from(clap()), 0.5 + at * beat);
      // Laid ready before the count begins: there is no time for it then.
      await page.evaluate(
        (sound) => (window.ready = sound),
        Array.from(samples, (sample) => Math.round(sample * 1e4) / 1e4),
      );
      await start(page);
      const first = Number(await (await page.waitForFunction(() => document.querySelector(".count-cards").dataset.first)).jsonValue());
      const ahead = await page.evaluate((at) => window.sound(at), first - 0.5);
      assert.ok(ahead > 0, `${ahead} s ahead`);
      await page.waitForSelector("[data-summary]", { timeout: 60000 });
      assert.equal(await page.textContent("[data-summary]"), "Clap missing on the & of 2; said right.");
      assert.equal(await page.locator("[data-track=hands] .missing").count(), 1);
      assert.equal(await page.locator("[data-track=said] .inside").count(), 4);
      const words2 = await page.getAttribute(".grid-picture", "aria-label");
      const errors = [...words2.split("hands:")[1].matchAll(/([−+]?\d+) ms/g)].map(([, value]) => Number(value.replace("−", "-")));
      errors.forEach((off) => assert.ok(Math.abs(off) < 30, words2));
    });
  });

  it("takes taps on a key when they were, and a held key is one tap", { timeout: 240000 }, async () => {
    await visit({ alters: true }, async (page) => {
      await page.addInitScript(loopback(0.02));
      await tappingInTime(page, async () => {
        await page.goto(`${address}/ear/count/4?own=${encodeURIComponent("q q h")}&tempo=90&drill=tapped`);
        await start(page);
        const first = Number(await (await page.waitForFunction(() => document.querySelector(".count-cards").dataset.first)).jsonValue());
        await page.evaluate((at) => window.tapAt([0, 1, 2].map((n) => at + (n * 60) / 90)), first);
        await page.waitForSelector("[data-summary]", { timeout: 60000 });
      });
      assert.match(await page.textContent("[data-summary]"), /^Tapped right/);
      assert.equal(await page.locator("[data-track=hands] .inside").count(), 3);
    });
  });

  it("takes eight taps to a click when they were, and tells the habit of whoever taps", { timeout: 240000 }, async () => {
    await visit({ alters: true }, async (page) => {
      await page.addInitScript(loopback(0.02));
      await page.addInitScript(() => {
        const start = AudioBufferSourceNode.prototype.start;
        window.clicks = [];
        AudioBufferSourceNode.prototype.start = function (at, ...more) {
          if (at > 0) window.clicks.push(at);
          return start.call(this, at, ...more);
        };
      });
      await tappingInTime(page, async () => {
        await page.goto(`${address}/ear/delay/1`);
        await page.click("[data-taps]");
        await page.waitForFunction(() => window.clicks.length === 8);
        // Forty milliseconds after each click, as somebody does who waits for it.
        await page.evaluate(() => window.tapAt(window.clicks.map((at) => at + 0.04)));
        await page.waitForFunction(() => !document.querySelector("[data-taps]").disabled, null, { timeout: 30000 });
      });
      const [, habit, side] = /^You tap (\d+) ms (before|after) the click/.exec(await page.textContent("[data-habit]"));
      assert.ok(side === "after" && Math.abs(habit - 40) < 20, `${habit} ms ${side} the click`);
    });
  });

  // The oscillators of a general-purpose tool (sox) play the card: right, then with its third note a tone too high.
  it("hears a card played on its notes, rhythm and notes apart", { timeout: 120000 }, async () => {
    const [card, beat] = ["q.:Bb2 e:C3 q:D3 q:Bb2", 60 / 80];
    const take = (third) => {
      const samples = room(4 * beat + 1.5);
      for (const [hertz, at, beats] of [
        [116.54, 0, 1.5],
        [130.81, 1.5, 0.5],
        [third, 2, 1],
        [116.54, 3, 1],
      ])
        mix(samples, sung(hertz, beats * beat - 0.08), 0.5 + at * beat);
      return { name: "card.wav", mimeType: "audio/wav", buffer: readFileSync(wav(join(folder, "card.wav"), samples)) };
    };
    await visit({}, async (page) => {
      await page.goto(`${address}/ear/count/4?own=${encodeURIComponent(card)}&tempo=80&drill=on-notes`);
      await page.waitForSelector("[data-ready] .rhythm-card g.note");
      await page.selectOption("[name=source]", "File");
      for (const [third, says, notes] of [
        [146.83, /^Played right: every note came in its place\.$/, "4 of 4"],
        [164.81, /^Played right: every note came in its place\. D3: /, "3 of 4"],
      ]) {
        const before = await page.getAttribute("#stage", "data-take");
        await page.setInputFiles("[name=file]", take(third));
        await page.click("[data-go]");
        await page.waitForFunction(
          (old) => document.querySelector("#stage").dataset.take && document.querySelector("#stage").dataset.take !== old,
          before,
          { timeout: 30000 },
        );
        assert.match((await page.textContent("[data-summary]")).trim(), says);
        assert.match(await page.textContent("[data-verdict], .what"), new RegExp(notes));
      }
    });
  });

  it("shows a class its cards, turned by key or remote, and names no score", { timeout: 60000 }, async () => {
    await visit({}, async (page) => {
      await page.goto(`${address}/ear/class?upto=9`);
      await page.waitForSelector("[data-ready]");
      assert.match(await page.textContent("[data-class-card]:not([hidden]) .place"), /^1 of/);
      await page.keyboard.press("PageDown");
      await page.keyboard.press("ArrowRight");
      assert.match(await page.textContent("[data-class-card]:not([hidden]) .place"), /^3 of/);
      await page.waitForSelector("[data-class-card]:not([hidden]) svg .note");
      await page.keyboard.press("PageUp");
      assert.match(await page.textContent("[data-class-card]:not([hidden]) .place"), /^2 of/);
      await page.locator("h1").click();
      await page.keyboard.press("Space");
      await page.waitForFunction(() => /^[1-4]$/.test(document.querySelector("[data-class-count]").textContent));
      await page.keyboard.press("Space");
    });
  });
});
