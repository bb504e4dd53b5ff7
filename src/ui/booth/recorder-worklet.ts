// Runs on the browser’s sound thread: hands on what the microphone gives, sample for sample.

declare const registerProcessor: (name: string, processor: unknown) => void;
declare const AudioWorkletProcessor: new () => { readonly port: MessagePort };

/** 43 ms at 48 kHz: fewer messages than blocks of sound, and still soon on its way. */
const BLOCK = 2048;

class RecorderProcessor extends AudioWorkletProcessor {
  #block = new Float32Array(BLOCK);
  #count = 0;

  process([input]: Float32Array[][]): boolean {
    const samples = input?.[0];
    if (!samples) return true;
    for (const sample of samples) {
      this.#block[this.#count] = sample;
      this.#count += 1;
      if (this.#count < BLOCK) continue;
      this.port.postMessage(this.#block, [this.#block.buffer]);
      this.#block = new Float32Array(BLOCK);
      this.#count = 0;
    }
    return true;
  }
}

registerProcessor('recorder', RecorderProcessor);
