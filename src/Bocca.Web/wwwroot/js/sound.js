// The one audio context of the page, and the library that plays on it, fetched when the first sound is wanted.
let tone;
const [loudestDb, quietDb, quietSeconds] = [-12, -18, 2];

export async function audio() {
  if (!tone) {
    await new Promise((resolve, reject) => {
      const script = Object.assign(document.createElement("script"), {
        src: new URL("../lib/Tone.js", import.meta.url),
        onload: resolve,
        onerror: () => reject(new Error("The sound library did not load.")),
      });
      document.head.append(script);
    });
    tone = window.Tone;
    tone.setContext(new AudioContext({ latencyHint: "interactive" }));
    // Ears: whatever sounds begins quiet, perhaps in headphones, and is capped (dB below full scale; ours).
    const out = tone.getDestination();
    out.chain(new tone.Limiter(loudestDb));
    out.volume.value = quietDb;
    out.volume.rampTo(0, quietSeconds);
  }
  await tone.start();
  return { tone, context: tone.getContext().rawContext };
}

// When a finger came down, on the clock of the sound; a busy page hears of it later.
export const momentOf = (event, context) => context.currentTime - (performance.now() - event.timeStamp) / 1000;

// A sound that came as the base64 of a WAV.
export const decoded = (context, wav) => context.decodeAudioData(Uint8Array.from(atob(wav), (letter) => letter.charCodeAt(0)).buffer);

// Plays a sound in the place of one that may still play.
export function instead(context, sound, playing) {
  playing?.stop();
  const source = new AudioBufferSourceNode(context, { buffer: sound });
  source.connect(context.destination);
  source.start();
  return source;
}

export const countIn = 4;

// Clicks at moments of the audio clock, the accented ones higher; gives back what silences those still to come.
export function clicks(tone, moments) {
  const synth = new tone.Synth({
    oscillator: { type: "triangle" },
    envelope: { attack: 0.001, decay: 0.03, sustain: 0, release: 0.02 },
    volume: -10,
  });
  const out = new tone.Gain(1).toDestination();
  synth.connect(out);
  for (const { at, accent } of moments) synth.triggerAttackRelease(accent ? "A5" : "E5", 0.03, at);
  return () => {
    out.gain.value = 0;
    // What is scheduled plays out unheard; a synth taken away under it would complain.
    setTimeout(() => (synth.dispose(), out.dispose()), 1000 * Math.max(0, moments.at(-1).at - tone.now()) + 1000);
  };
}

// While a microphone listens nothing clicks after the count-in: it would be heard.
export function countInClicks(tone, begin, beat) {
  return clicks(
    tone,
    Array.from({ length: countIn }, (_, i) => ({ at: begin + i * beat, accent: i === 0 })),
  );
}

const voice = { oscillator: { type: "custom", partials: [1, 0.85, 0.7, 0.5, 0.35, 0.25, 0.16, 0.1, 0.06] }, volume: -14 };

// A voice on ah: the harmonics near its formants stand out (published: Peterson and Barney 1952, a woman's ah).
const formants = [
  [850, 100],
  [1220, 120],
  [2810, 180],
];
const sung = (hertz) =>
  Array.from(
    { length: 16 },
    (_, i) => formants.reduce((sum, [at, wide], rank) => sum + 1 / (1 + (((i + 1) * hertz - at) / wide) ** 2) / (rank + 1), 0.12) / (i + 1),
  );

// A plain brass-like voice that goes away by itself a while after it ends; short notes are let go at once.
function singer(tone, ends, release = 0.15, timbre = voice) {
  const synth = new tone.Synth({ ...timbre, envelope: { attack: 0.04, decay: 0.1, sustain: 0.85, release }, portamento: 0.04 });
  const out = new tone.Gain(1).toDestination();
  synth.connect(out);
  setTimeout(() => (synth.dispose(), out.dispose()), 1000 * (ends - tone.now()) + 1500);
  return { synth, silence: () => (out.gain.value = 0) };
}

// A note on its own, to be heard before playing.
export function note(tone, hertz, at, seconds, release) {
  singer(tone, at + seconds, release).synth.triggerAttackRelease(hertz, seconds, at);
}

// A model in tempo: notes that are bound go on without a new start. Gives back when it ends, and what silences it.
export function line(tone, notes, at, beat, timbre) {
  const ends = at + Math.max(...notes.map((each) => each.startBeat + each.beats)) * beat;
  const { synth, silence } = singer(
    tone,
    ends,
    0.15,
    timbre === "sung" ? { oscillator: { type: "custom", partials: sung(notes[0].hertz) }, volume: -12 } : voice,
  );
  for (const [i, { hertz, startBeat, beats, bound, glides }] of notes.entries()) {
    const [from, to] = [at + startBeat * beat, at + (startBeat + beats) * beat];
    if (!bound) synth.triggerAttack(hertz, from);
    else if (glides) synth.frequency.exponentialRampToValueAtTime(hertz, to);
    else synth.setNote(hertz, from);
    // Two starts in a row keep apart, as the tongue does.
    if (!notes[i + 1]?.bound) synth.triggerRelease(to - (notes[i + 1]?.startBeat * beat + at - to < 0.02 ? 0.05 : 0));
  }
  return { ends, silence };
}

// What went wrong, in a sentence, and the way round it.
// What an answer that is none says; a page in its place says nothing here.
export async function refusal(response, otherwise) {
  return response.headers.get("content-type")?.startsWith("text/plain") ? response.text() : otherwise;
}

export function inWords(problem, instead) {
  if (problem.name === "NotAllowedError") return `The microphone is not allowed. Allow it for this page in the browser, or ${instead}.`;
  if (problem.name === "NotFoundError") return `No microphone was found. Plug one in, or ${instead}.`;
  if (problem.name === "NotReadableError") return `Something else is using the microphone. Close it, or ${instead}.`;
  if (problem instanceof TypeError) return "Bocca does not answer. Is it still running? Nothing saved is lost.";
  return problem.message;
}
