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
