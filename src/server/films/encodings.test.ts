import { describe, expect, it } from '@jest/globals';
import type { FilmSpec } from '../../core/film/film-spec';
import { FRAME_RATES } from '../../core/timing/frame-rate';
import { AS_DRAWN, evenedArgs, segmentEncoding } from './encodings';

const spec: FilmSpec = {
  purpose: 'hand',
  format: 'mp4',
  shape: '16:9',
  widthPx: 640,
  heightPx: 360,
  rate: FRAME_RATES['30']!,
  quality: 'good',
} as FilmSpec;

/** What is divided where: frame and factor. */
const zonesOf = (args: readonly string[]): [number, number][] => {
  const zones = /:zones=([^:]*)/.exec(args[args.indexOf('-x264-params') + 1] ?? '')?.[1];
  return (zones?.split('/') ?? []).map((zone): [number, number] => {
    const [from, to, by] = zone.split(',');
    expect(from).toBe(to);
    return [Number(from), Number(by!.slice(2))];
  });
};

describe('the ends of a segment', () => {
  const encoding = segmentEncoding(spec);
  it('get as much as in the middle of a film: the first frame what whole pictures get, the last ones more the nearer the end', () => {
    const zones = zonesOf(evenedArgs(encoding, 180));
    expect(zones[0]).toEqual([0, 1.4]);
    const last = zones.slice(1);
    expect(last.map(([frame]) => frame)).toEqual([172, 173, 174, 175, 176, 177, 178, 179]);
    expect(last.map(([, by]) => by).every((by, at) => at === 0 || by >= last[at - 1]![1])).toBe(true);
    expect(last.every(([, by]) => by > 1 && by < 1.5)).toBe(true);
  });
  it('are let be where nothing goes on, where there are hardly any frames between them, and by other encoders', () => {
    expect(zonesOf(evenedArgs(encoding, 180, { first: false, last: false }))).toEqual([]);
    expect(zonesOf(evenedArgs(encoding, 180, { first: true, last: false }))).toEqual([[0, 1.4]]);
    expect(evenedArgs(encoding, 12)).toBe(encoding.args);
    for (const other of [
      AS_DRAWN,
      segmentEncoding({ ...spec, format: 'hevc' }),
      segmentEncoding({ ...spec, format: 'vp9' }),
    ])
      expect(evenedArgs(other, 180)).toBe(other.args);
  });
});
