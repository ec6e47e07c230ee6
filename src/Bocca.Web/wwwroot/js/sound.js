// The one audio context of the page, and the library that plays on it, fetched when the first sound is wanted.
let tone;

export async function audio() {
  if (!tone) {
    await new Promise((resolve, reject) => {
      const script = Object.assign(document.createElement("script"), { src: "/lib/Tone.js", onload: resolve, onerror: () => reject(new Error("The sound library did not load.")) });
      document.head.append(script);
    });
    tone = window.Tone;
    tone.setContext(new AudioContext({ latencyHint: "interactive" }));
  }
  await tone.start();
  return { tone, context: tone.getContext().rawContext };
}

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
  const synth = new tone.Synth({ oscillator: { type: "triangle" }, envelope: { attack: 0.001, decay: 0.03, sustain: 0, release: 0.02 }, volume: -10 });
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
  return clicks(tone, Array.from({ length: countIn }, (_, i) => ({ at: begin + i * beat, accent: i === 0 })));
}

// A model note of a soft, plain voice, to be heard before playing.
export function model(tone, hertz, at, seconds) {
  const synth = new tone.Synth({ oscillator: { type: "fattriangle", count: 2, spread: 6 }, envelope: { attack: 0.04, decay: 0.1, sustain: 0.8, release: 0.15 }, volume: -14 }).toDestination();
  synth.triggerAttackRelease(hertz, seconds, at);
  setTimeout(() => synth.dispose(), 1000 * (at - tone.now() + seconds) + 1500);
}

// What went wrong, in a sentence, and the way round it.
export function inWords(problem, instead) {
  if (problem.name === "NotAllowedError") return `The microphone is not allowed. Allow it for this page in the browser, or ${instead}.`;
  if (problem.name === "NotFoundError") return `No microphone was found. Plug one in, or ${instead}.`;
  if (problem.name === "NotReadableError") return `Something else is using the microphone. Close it, or ${instead}.`;
  if (problem instanceof TypeError) return "Bocca does not answer. Is it still running? Nothing saved is lost.";
  return problem.message;
}
