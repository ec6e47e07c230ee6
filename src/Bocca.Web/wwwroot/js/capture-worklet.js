// Hands on what is heard, block by block, with the moment of its first sample on the audio clock.
class Capture extends AudioWorkletProcessor {
  process(inputs) {
    const heard = inputs[0]?.[0];
    if (heard) this.port.postMessage({ from: currentFrame, samples: heard.slice() });
    return true;
  }
}

registerProcessor("capture", Capture);
