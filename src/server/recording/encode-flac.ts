import { feedSamples } from '../ffmpeg/feed-samples';

/** Packs one channel without losing anything a microphone gives: 24 bits. */
export function encodeFlac(samples: AsyncIterable<Float32Array>, rate: number, out: string): Promise<void> {
  return feedSamples(samples, { rate, channels: 1 }, ['-c:a', 'flac', '-sample_fmt', 's32', '-f', 'flac', '-y', out]);
}
