// What is said where nothing at all comes from a microphone.
export const silentWords = "The microphone is silent. Is it switched on, and is it the right one?";

// Takes sound in, from the microphone or from the practice player, and gives back one piece of it as a WAV.
export class Capture {
  #context;
  #node;
  #blocks = [];
  #release = () => {};

  // Called with each block as it comes.
  onblock = null;

  // Called where nothing at all comes from the microphone, and again, with false, once something does.
  onsilent = null;
  #listensFrom = null;
  #silent = false;

  constructor(context) {
    this.#context = context;
  }

  async open() {
    await this.#context.audioWorklet.addModule(new URL("capture-worklet.js", import.meta.url));
    this.#node = new AudioWorkletNode(this.#context, "capture", { numberOfOutputs: 1 });
    this.#node.port.onmessage = (event) => {
      this.#blocks.push(event.data);
      this.#hearsNothing(event.data);
      this.onblock?.(event.data);
    };
    // A node that leads nowhere is not run; this one leads to silence.
    const silence = new GainNode(this.#context, { gain: 0 });
    this.#node.connect(silence).connect(this.#context.destination);
  }

  // A room is never as still as a line that is off: what stays under this for so long is no sound (peak; seconds; ours).
  #hearsNothing({ from, samples }) {
    const stillest = 0.0002,
      seconds = 2.5;
    if (this.#listensFrom === null) return;
    const hears = samples.some((sample) => Math.abs(sample) > stillest);
    if (hears) this.#listensFrom = from + samples.length;
    const silent = from + samples.length - this.#listensFrom > seconds * this.#context.sampleRate;
    if (silent === this.#silent) return;
    this.#silent = silent;
    this.onsilent?.(silent);
  }

  // Every kind of processing is off: it destroys what is to be measured. A microphone that goes away is told at once.
  async fromMicrophone(lost) {
    const stream = await navigator.mediaDevices.getUserMedia({
      audio: { echoCancellation: false, noiseSuppression: false, autoGainControl: false, channelCount: 1 },
    });
    const [track] = stream.getAudioTracks();
    if (track.muted) {
      track.stop();
      throw new Error("The microphone is muted. Switch it on, at its own switch or in the system's settings, and start again.");
    }
    track.onended = () => lost?.("The microphone went away in the middle of the take. Plug it in again and start once more.");
    track.onmute = () => lost?.("The microphone was muted in the middle of the take. Switch it on and start once more.");
    this.#context.createMediaStreamSource(stream).connect(this.#node);
    this.#listensFrom = this.#context.currentTime * this.#context.sampleRate;
    this.#release = () => {
      track.onended = track.onmute = null;
      track.stop();
    };
  }

  // Before and after what is played there is silence, which is heard as such.
  fromPlayer(buffer, at) {
    const source = new AudioBufferSourceNode(this.#context, { buffer });
    const silence = new ConstantSourceNode(this.#context, { offset: 0 });
    silence.connect(this.#node);
    source.connect(this.#node);
    source.connect(this.#context.destination);
    silence.start();
    source.start(at);
    this.#release = () => [source, silence].forEach((each) => each.stop());
  }

  // Waits until everything up to a moment of the audio clock has come through; a busy page gets it late. Not for ever.
  async reach(moment) {
    for (let waited = 0; waited < 3000; waited += 50) {
      const last = this.#blocks.at(-1);
      if (last && last.from + last.samples.length >= moment * this.#context.sampleRate) return;
      await new Promise((resolve) => setTimeout(resolve, 50));
    }
  }

  close() {
    this.#release();
    this.#node?.disconnect();
  }

  // What was heard between two moments of the audio clock; blocks that never came are silence, and counted.
  wav(from, to) {
    const rate = this.#context.sampleRate;
    const start = Math.round(from * rate);
    const samples = new Float32Array(Math.max(0, Math.round(to * rate) - start));
    let covered = 0;
    for (const block of this.#blocks) {
      const at = block.from - start;
      covered += Math.max(0, Math.min(samples.length, at + block.samples.length) - Math.max(0, at));
      for (let i = Math.max(0, -at); i < block.samples.length && at + i < samples.length; i++) samples[at + i] = block.samples[i];
    }
    return { wav: encode(samples, rate), missing: Math.max(0, samples.length - covered) / rate };
  }
}

// A sound as a WAV, with so much silence before and after it.
export function wavOf(buffer, before, after) {
  const [lead, tail] = [before, after].map((seconds) => Math.round(seconds * buffer.sampleRate));
  const samples = new Float32Array(lead + buffer.length + tail);
  samples.set(buffer.getChannelData(0), lead);
  return encode(samples, buffer.sampleRate);
}

function encode(samples, rate) {
  const view = new DataView(new ArrayBuffer(44 + 2 * samples.length));
  const text = (at, letters) => [...letters].forEach((letter, i) => view.setUint8(at + i, letter.charCodeAt(0)));
  text(0, "RIFF");
  view.setUint32(4, 36 + 2 * samples.length, true);
  text(8, "WAVEfmt ");
  view.setUint32(16, 16, true);
  view.setUint16(20, 1, true);
  view.setUint16(22, 1, true);
  view.setUint32(24, rate, true);
  view.setUint32(28, 2 * rate, true);
  view.setUint16(32, 2, true);
  view.setUint16(34, 16, true);
  text(36, "data");
  view.setUint32(40, 2 * samples.length, true);
  samples.forEach((sample, i) => view.setInt16(44 + 2 * i, Math.max(-1, Math.min(1, sample)) * 32767, true));
  return new Blob([view], { type: "audio/wav" });
}
