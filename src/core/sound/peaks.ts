/** Loudest sample of each stretch of a sound, for drawing its waveform. */
export interface Peaks {
  readonly peaksPerSecond: number;
  /** 0…255, full scale is 255. */
  readonly values: Uint8Array;
}

export const PEAKS_PER_SECOND = 50;

/** Collects peaks from blocks of samples as they come. */
export function peakCollector(sampleRate: number): { add(samples: Float32Array): void; finish(): Peaks } {
  const values: number[] = [];
  let counted = 0;
  let loudest = 0;
  return {
    add(samples) {
      for (const sample of samples) {
        loudest = Math.max(loudest, Math.abs(sample));
        counted += 1;
        if (counted >= ((values.length + 1) * sampleRate) / PEAKS_PER_SECOND) flush();
      }
    },
    finish() {
      if (counted > (values.length * sampleRate) / PEAKS_PER_SECOND) flush();
      return { peaksPerSecond: PEAKS_PER_SECOND, values: Uint8Array.from(values) };
    },
  };

  function flush(): void {
    values.push(Math.min(255, Math.round(loudest * 255)));
    loudest = 0;
  }
}
