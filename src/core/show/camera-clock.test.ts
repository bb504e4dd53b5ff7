import { describe, expect, it } from '@jest/globals';
import type { ClipFacts, PictureFacts } from './asset-facts';
import { cameraName, cameraOf, shiftBetween, shifted, takenAt } from './camera-clock';
import { applyEdit } from './edit';
import { showId } from './ids';
import { emptyShow } from './show';

const picture = (camera: string | null, time: string | null): PictureFacts => ({
  kind: 'picture',
  widthPx: 6000,
  heightPx: 4000,
  hasTransparency: false,
  takenAt: time,
  camera,
  brightness: 0.5,
});
const clip: ClipFacts = {
  kind: 'clip',
  widthPx: 1920,
  heightPx: 1080,
  lengthMs: 1000,
  hasSound: false,
  takenAt: '2031-06-14T19:00:00',
};

describe('when a picture was taken', () => {
  it.each(['valueOf', 'constructor', '__proto__', 'hasOwnProperty'])('is told for a camera called “%s” too', (name) => {
    const facts = picture(name, '2031-06-14T21:00:00');
    const show = emptyShow(showId('clocks'), 'Clocks');
    expect(takenAt(facts, { Tern: 60_000 })).toBe('2031-06-14T21:00:00');
    const put = applyEdit(show, { kind: 'set-clocks', clocks: [{ camera: name, shiftMs: 60_000 }] });
    if (!put.ok) throw new Error(put.sentence);
    expect(takenAt(facts, put.show.clocks)).toBe('2031-06-14T21:01:00');
    expect(applyEdit(put.show, put.inverse)).toMatchObject({ ok: true, show });
  });
  it('is what its camera says, put right by that camera’s clock, whatever lens was on it', () => {
    const clocks = { 'Tern TX-2': 3 * 3_600_000 + 12 * 60_000 };
    expect(takenAt(picture('Tern TX-2, 35 mm', '2031-06-14T21:08:33'), clocks)).toBe('2031-06-15T00:20:33');
    expect(takenAt(picture('Tern TX-2, 85 mm', '2031-12-31T23:00:00'), clocks)).toBe('2032-01-01T02:12:00');
    expect(takenAt(picture('Wren', '2031-06-14T21:08:33'), clocks)).toBe('2031-06-14T21:08:33');
    expect(takenAt(picture('Tern TX-2, 35 mm', null), clocks)).toBeNull();
  });
  it('can be put right for clips, and for pictures that name no camera', () => {
    expect([cameraName(cameraOf(clip)), cameraName(cameraOf(picture(null, null)))]).toEqual([
      'clips',
      'pictures that name no camera',
    ]);
    expect(takenAt(clip, { [cameraOf(clip)]: 7_200_000 })).toBe('2031-06-14T21:00:00');
  });
  it('is told from one picture of which it is known', () => {
    expect(shiftBetween('2031-06-14T21:08:33', '2031-06-14T17:56:33')).toBe(-(3 * 3_600_000 + 12 * 60_000));
    expect(shifted('2031-03-30T01:59:59', 1000)).toBe('2031-03-30T02:00:00');
    expect([shiftBetween('soon', '2031-06-14T17:56:33'), shiftBetween('2031-06-14T17:56:33', '')]).toEqual([
      null,
      null,
    ]);
  });
});

describe('set-clocks', () => {
  const show = emptyShow(showId('s'), '');
  it('puts several right in one step, and wrong again in one', () => {
    const result = applyEdit(show, {
      kind: 'set-clocks',
      clocks: [
        { camera: 'Tern', shiftMs: 5000 },
        { camera: 'Wren', shiftMs: -5000 },
      ],
    });
    expect(result.ok && result.show.clocks).toEqual({ Tern: 5000, Wren: -5000 });
    const back = result.ok && applyEdit(result.show, result.inverse);
    expect(back && back.ok && back.show).toEqual(show);
  });
});
