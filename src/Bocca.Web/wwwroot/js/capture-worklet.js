// Hands on what is heard in blocks of some 20 ms, each with the moment of its first sample on the audio clock: a message for each of the
// quanta it is heard in would keep a page busy.
const quanta = 8;

class Capture extends AudioWorkletProcessor {
  #from = 0;
  #heard = [];

  process(inputs) {
    const heard = inputs[0]?.[0];
    if (heard) {
      if (this.#heard.length === 0) this.#from = currentFrame;
      this.#heard.push(heard.slice());
    }
    if (this.#heard.length === quanta || (!heard && this.#heard.length > 0)) this.#hand();
    return true;
  }

  #hand() {
    const samples = new Float32Array(this.#heard.reduce((count, each) => count + each.length, 0));
    let at = 0;
    for (const each of this.#heard) {
      samples.set(each, at);
      at += each.length;
    }
    this.port.postMessage({ from: this.#from, samples }, [samples.buffer]);
    this.#heard = [];
  }
}

registerProcessor("capture", Capture);
