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

export const countIn = 4;

// Clicks in the count-in only: the microphone would hear any that came later.
export function countInClicks(tone, begin, beat) {
  const synth = new tone.Synth({ oscillator: { type: "triangle" }, envelope: { attack: 0.001, decay: 0.03, sustain: 0, release: 0.02 }, volume: -10 }).toDestination();
  for (let i = 0; i < countIn; i++) synth.triggerAttackRelease(i === 0 ? "A5" : "E5", 0.03, begin + i * beat);
}

// What went wrong, in a sentence, and the way round it.
export function inWords(problem, instead) {
  if (problem.name === "NotAllowedError") return `The microphone is not allowed. Allow it for this page in the browser, or ${instead}.`;
  if (problem.name === "NotFoundError") return `No microphone was found. Plug one in, or ${instead}.`;
  if (problem.name === "NotReadableError") return `Something else is using the microphone. Close it, or ${instead}.`;
  if (problem instanceof TypeError) return "Bocca does not answer. Is it still running? Nothing saved is lost.";
  return problem.message;
}
