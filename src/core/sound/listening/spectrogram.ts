import FFT from 'fft.js';

// Looked up once: these are asked for each sample.
const { sqrt, log10 } = Math;

/** Samples for listening: one channel at this rate; beats are told by what lies below 11 kHz. */
export const LISTENING_RATE = 22_050;
/** Samples between two frames: about 100 frames a second. */
export const HOP = 220;
export const FRAMES_PER_SECOND = LISTENING_RATE / HOP;

/** 46 ms: short enough to tell two drum strokes apart, long enough to tell two low notes apart. */
const WINDOW = 1024;
/** For pitches: 186 ms, once in four frames. */
const PITCH_WINDOW = 4096;
export const PITCH_STRIDE = 4;
const BANDS_AN_OCTAVE = 12;
const LOWEST_HZ = 40;
const HIGHEST_HZ = 10_500;
const LOWEST_PITCH_HZ = 65;
const HIGHEST_PITCH_HZ = 2100;

/** A song's sound as pictures of its frequencies. Frame `i` is centred on sample `i × HOP`. */
export interface Spectrogram {
  readonly frameCount: number;
  readonly bandCount: number;
  /** Centre of each band. */
  readonly bandHz: readonly number[];
  /** `frameCount × bandCount`, log-compressed magnitudes. */
  readonly bands: Float32Array;
  /** Twelve pitch classes, once in `PITCH_STRIDE` frames, each group with length 1 (or all 0 in silence). */
  readonly chroma: Float32Array;
  readonly chromaCount: number;
}

/** Magnitudes in bands of equal width in pitch, and pitch classes. @param samples one channel at `LISTENING_RATE` */
export function spectrogram(samples: Float32Array): Spectrogram {
  const frameCount = Math.max(1, Math.ceil(samples.length / HOP));
  const edges = bandEdges();
  const bandCount = edges.length - 2;
  const bands = new Float32Array(frameCount * bandCount);
  const magnitudes = magnitudesOf(WINDOW);
  for (let frame = 0; frame < frameCount; frame += 1) {
    const spectrum = magnitudes(samples, frame * HOP);
    for (let band = 0; band < bandCount; band += 1)
      bands[frame * bandCount + band] = log10(1 + triangle(spectrum, edges, band));
  }
  return { frameCount, bandCount, bandHz: edges.slice(1, -1).map(binHz), bands, ...chromaOf(samples, frameCount) };
}

const binHz = (bin: number) => (bin * LISTENING_RATE) / WINDOW;

/** Bins at which the triangles of the bands begin, peak and end, without those that low bands would share. */
function bandEdges(): number[] {
  const bins: number[] = [];
  for (let hz = LOWEST_HZ; hz < HIGHEST_HZ; hz *= 2 ** (1 / BANDS_AN_OCTAVE)) {
    const bin = Math.round((hz * WINDOW) / LISTENING_RATE);
    if (bin > 0 && bin !== bins.at(-1) && bin < WINDOW / 2) bins.push(bin);
  }
  return bins;
}

function triangle(spectrum: Float32Array, edges: readonly number[], band: number): number {
  const [from, peak, to] = [edges[band]!, edges[band + 1]!, edges[band + 2]!];
  let sum = spectrum[peak]!;
  for (let bin = from + 1; bin < peak; bin += 1) sum += (spectrum[bin]! * (bin - from)) / (peak - from);
  for (let bin = peak + 1; bin < to; bin += 1) sum += (spectrum[bin]! * (to - bin)) / (to - peak);
  return sum;
}

function chromaOf(samples: Float32Array, frameCount: number): { chroma: Float32Array; chromaCount: number } {
  const chromaCount = Math.ceil(frameCount / PITCH_STRIDE);
  const chroma = new Float32Array(chromaCount * 12);
  const magnitudes = magnitudesOf(PITCH_WINDOW);
  const pitchOf = Array.from({ length: PITCH_WINDOW / 2 }, (_, bin) => {
    const hz = (bin * LISTENING_RATE) / PITCH_WINDOW;
    if (hz < LOWEST_PITCH_HZ || hz > HIGHEST_PITCH_HZ) return -1;
    return ((Math.round(12 * Math.log2(hz / 440)) % 12) + 12) % 12;
  });
  for (let at = 0; at < chromaCount; at += 1) {
    const spectrum = magnitudes(samples, at * PITCH_STRIDE * HOP);
    const group = chroma.subarray(at * 12, at * 12 + 12);
    pitchOf.forEach((pitch, bin) => {
      if (pitch >= 0) group[pitch] = group[pitch]! + log10(1 + spectrum[bin]!);
    });
    const length = Math.hypot(...group);
    if (length > 1e-3) for (let pitch = 0; pitch < 12; pitch += 1) group[pitch] = group[pitch]! / length;
    else group.fill(0);
  }
  return { chroma, chromaCount };
}

/** Magnitudes of a Hann-windowed stretch centred on a sample; silence lies before and after the song. */
function magnitudesOf(size: number): (samples: Float32Array, centre: number) => Float32Array {
  const fft = new FFT(size);
  const window = Float32Array.from({ length: size }, (_, at) => 0.5 - 0.5 * Math.cos((2 * Math.PI * at) / size));
  const input = new Float64Array(size);
  const output = new Float64Array(2 * size);
  const magnitudes = new Float32Array(size / 2);
  return (samples, centre) => {
    const from = centre - size / 2;
    for (let at = 0; at < size; at += 1) {
      const index = from + at;
      input[at] = index >= 0 && index < samples.length ? samples[index]! * window[at]! : 0;
    }
    fft.realTransform(output, input);
    for (let bin = 0; bin < size / 2; bin += 1) {
      const [re, im] = [output[2 * bin]!, output[2 * bin + 1]!];
      magnitudes[bin] = sqrt(re * re + im * im);
    }
    return magnitudes;
  };
}
