import { PITCH_STRIDE, type Spectrogram } from './spectrogram';

/** Groups of pitches before and after a moment that are compared: about 0.2 s each. */
const REACH = 6;
const MOST = 4;

/** How much the harmony changes at each frame: the angle between the pitch classes before and after, with mean 0 and deviation 1 over the song. */
export function harmonicChange({ chroma, chromaCount, frameCount }: Spectrogram): Float32Array {
  const change = new Float32Array(chromaCount);
  for (let at = 0; at < chromaCount; at += 1) {
    let [both, before, after] = [0, 0, 0];
    for (let pitch = 0; pitch < 12; pitch += 1) {
      let [p, q] = [0, 0];
      for (let by = 1; by <= REACH; by += 1) {
        p += chroma[(at - by) * 12 + pitch] ?? 0;
        q += chroma[(at + by - 1) * 12 + pitch] ?? 0;
      }
      both += p * q;
      before += p * p;
      after += q * q;
    }
    change[at] = before > 0 && after > 0 ? 1 - both / Math.sqrt(before * after) : 0;
  }
  const mean = change.reduce((sum, value) => sum + value, 0) / Math.max(1, chromaCount);
  const variance = change.reduce((sum, value) => sum + (value - mean) ** 2, 0) / Math.max(1, chromaCount);
  const deviation = Math.sqrt(variance) + 1e-6;
  return Float32Array.from({ length: frameCount }, (_, frame) => {
    const place = frame / PITCH_STRIDE;
    const left = Math.floor(place);
    const from = change[left] ?? 0;
    const value = from + ((change[left + 1] ?? from) - from) * (place - left);
    return Math.min(MOST, (value - mean) / deviation);
  });
}
