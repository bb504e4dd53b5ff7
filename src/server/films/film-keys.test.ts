import { describe, expect, it } from '@jest/globals';
import { planFilm, type FilmSegment } from '../../core/film/plan-film';
import type { FilmFormatName } from '../../core/film/film-formats';
import type { FilmSpec } from '../../core/film/film-spec';
import { prepareShow } from '../../core/frame/plan-frame';
import { showId } from '../../core/show/ids';
import { blankSlide } from '../../core/show/new-slide';
import { emptyShow } from '../../core/show/show';
import { segmentEncoding } from './encodings';
import { segmentKey } from './film-keys';

const empty = emptyShow(showId('s'), 'Equal slides');
const prepared = prepareShow(
  { ...empty, slides: [0, 1, 2].map((at) => blankSlide(5000, '#204060', () => `s${at}`)) },
  new Map(),
);
const FRAME = { widthPx: 640, heightPx: 360 };
const spec = {
  purpose: 'hand',
  shape: '16:9',
  ...FRAME,
  rate: prepared.show.frame.rate,
  quality: 'good',
} as Omit<FilmSpec, 'format'>;
const [first] = planFilm(prepared).segments as [FilmSegment];

/** The key of the first slide's frames, were so many frames of another segment before them. */
const keyAfter = (format: FilmFormatName, follows: number, version = 'one') =>
  segmentKey(version, prepared, { ...first, follows }, FRAME, segmentEncoding({ ...spec, format } as FilmSpec));

describe('the name a segment is kept under', () => {
  it.each(['mp4', 'vp9', 'ffv1'] as const)('is the same wherever its frames are in a film in %s', (format) => {
    expect(keyAfter(format, 0)).toBe(keyAfter(format, 150));
  });
  it.each(['hevc', 'av1'] as const)('tells one that begins a film in %s from one that goes on', (format) => {
    expect(keyAfter(format, 0)).not.toBe(keyAfter(format, 150));
    expect(keyAfter(format, 120)).toBe(keyAfter(format, 150));
  });
  it('is one that begins a film in AV1 where the segment before ends with a complete group', () => {
    const { wholePictureEvery, ofFrames } = segmentEncoding({ ...spec, format: 'av1' } as FilmSpec).groups!;
    expect(keyAfter('av1', wholePictureEvery + ofFrames + 1)).toBe(keyAfter('av1', 0));
  });
  it('tells drawings by another build, and other formats', () => {
    const keys = [keyAfter('mp4', 0), keyAfter('mp4', 0, 'another'), keyAfter('hevc', 0), keyAfter('av1', 0)];
    expect(new Set(keys).size).toBe(keys.length);
  });
});
