// Runs on the browser’s sound thread: the limiter that the film’s mix goes through, so that both sound the same.
import { createLimiter } from '../../core/sound/limiter';

declare const registerProcessor: (name: string, processor: unknown) => void;
declare const AudioWorkletProcessor: new () => object;

class LimiterProcessor extends AudioWorkletProcessor {
  readonly #limiter = createLimiter();
  #block = new Float32Array(0);

  process([input]: Float32Array[][], [output]: Float32Array[][]): boolean {
    const [left, right] = output!;
    const count = left!.length;
    if (this.#block.length !== 2 * count) this.#block = new Float32Array(2 * count);
    const fromLeft = input?.[0];
    const fromRight = input?.[1] ?? fromLeft;
    for (let frame = 0; frame < count; frame += 1) {
      this.#block[2 * frame] = fromLeft?.[frame] ?? 0;
      this.#block[2 * frame + 1] = fromRight?.[frame] ?? 0;
    }
    this.#limiter.run(this.#block);
    for (let frame = 0; frame < count; frame += 1) {
      left![frame] = this.#block[2 * frame]!;
      if (right) right[frame] = this.#block[2 * frame + 1]!;
    }
    return true;
  }
}

registerProcessor('limiter', LimiterProcessor);
