/* global AudioWorkletProcessor, registerProcessor */
// Runs beside the page: hands on what the microphone hears, block after block.
class Microphone extends AudioWorkletProcessor {
  constructor() {
    super();
    this.held = new Float32Array(2048);
    this.filled = 0;
  }

  process(inputs) {
    const heard = inputs[0]?.[0];
    if (!heard) return true;
    for (let i = 0; i < heard.length; i++) {
      this.held[this.filled++] = heard[i];
      if (this.filled === this.held.length) {
        this.port.postMessage(this.held.slice());
        this.filled = 0;
      }
    }
    return true;
  }
}

registerProcessor('microphone', Microphone);
