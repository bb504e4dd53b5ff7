import { compose } from '../../core/sound/band/compose';
import type { BandWishes } from '../../core/sound/band/band-wishes';
import { BAND_METHOD, type Piece } from '../../core/sound/band/piece';
import { BAND_ARTIST, titleOfPiece } from '../../core/sound/band/piece-facts';
import { playPiece } from '../../core/sound/band/playing/play-piece';
import { BAND_RATE } from '../../core/sound/band/playing/tone';
import { feedSamples } from '../ffmpeg/feed-samples';
import { BAND_TAG } from './band-tag';

export interface PlayedFile {
  /** `opus` is small and says what it is; `wav` is for other programs: 24 bits. */
  readonly as: 'opus' | 'wav';
  readonly out: string;
  /** Instead of what it would be called. */
  readonly title?: string;
  readonly kbits?: number;
  readonly signal?: AbortSignal;
  /** 0…1, as it goes on. */
  readonly onProgress?: (share: number) => void;
}

/** Plays a piece into a file. The same wishes give the same bytes. */
export async function playToFile(wishes: BandWishes, how: PlayedFile): Promise<Piece> {
  const piece = compose(wishes);
  const tags = {
    title: how.title ?? titleOfPiece(piece),
    artist: BAND_ARTIST,
    [BAND_TAG]: JSON.stringify({ method: BAND_METHOD, wishes }),
  };
  const encoded =
    how.as === 'opus'
      ? ['-c:a', 'libopus', '-b:a', `${how.kbits ?? 144}k`, '-f', 'opus']
      : ['-c:a', 'pcm_s24le', '-f', 'wav'];
  await feedSamples(
    blocks(piece, how.onProgress),
    { rate: BAND_RATE, channels: 2 },
    [
      ...Object.entries(tags).flatMap(([name, value]) => ['-metadata', `${name}=${value}`]),
      '-fflags',
      '+bitexact',
      '-flags:a',
      '+bitexact',
      ...encoded,
      '-y',
      how.out,
    ],
    how.signal,
  );
  return piece;
}

async function* blocks(piece: Piece, onProgress?: (share: number) => void): AsyncGenerator<Float32Array> {
  const playing = playPiece(piece);
  let given = 0;
  for (let block = playing.next(); block; block = playing.next()) {
    yield block;
    given += block.length / 2;
    onProgress?.(given / playing.frameCount);
    // Others have their turn.
    await new Promise((resolve) => setImmediate(resolve));
  }
}
