import { describe, expect, it } from '@jest/globals';
import { applyEdit, type ShowEdit } from '../show/edit';
import type { AssetFacts } from '../show/asset-facts';
import { assetId, cueId, layerId, showId, slideId } from '../show/ids';
import { voiceHere } from '../show/placed-sound';
import { emptyShow, type Show, type Slide } from '../show/show';
import { soundSpans } from '../sound/sound-spans';
import { withItsLengths } from './follow-music';
import { slideSpans } from './slide-span';
import { breathsSet } from './wait-for-voices';

const voiceId = (seconds: number) => assetId(String(seconds % 10).repeat(64));
const facts = new Map<ReturnType<typeof assetId>, AssetFacts>(
  [1, 2, 4, 8, 9].map((seconds) => [
    voiceId(seconds),
    { kind: 'sound', lengthMs: seconds * 1000, title: null, artist: null } satisfies AssetFacts,
  ]),
);
const slide = (id: string, more: Partial<Slide> = {}): Slide => ({
  id: slideId(id),
  lengthMs: 5000,
  transition: { kind: 'dissolve', lengthMs: 1000 },
  backing: { kind: 'automatic' },
  layers: [],
  sounds: [],
  ...more,
});
const show: Show = {
  ...emptyShow(showId('waits'), 'Waits'),
  slides: ['a', 'b', 'c', 'd'].map((id) => slide(id)),
};

function after(before: Show, ...edits: readonly ShowEdit[]): Show {
  return edits.reduce((now, asked) => {
    const { edit } = withItsLengths(now, facts, asked);
    const result = applyEdit(now, edit);
    if (!result.ok) throw new Error(result.sentence);
    return result.show;
  }, before);
}
const speak = (on: string, seconds: number, more = {}): ShowEdit => ({
  kind: 'add-sounds',
  slideId: slideId(on),
  runs: [{ afterId: null, sounds: [{ ...voiceHere(cueId(`v-${on}`), voiceId(seconds), 700), ...more }] }],
});
const lengths = (of: Show) => of.slides.map(({ lengthMs }) => lengthMs);

describe('slides wait for their voices', () => {
  it('lasts as long as its voice with the breath before and after, longer or shorter than it was', () => {
    expect(lengths(after(show, speak('b', 8)))).toEqual([5000, 700 + 8000 + 900, 5000, 5000]);
    expect(lengths(after(show, speak('b', 2)))).toEqual([5000, 3600, 5000, 5000]);
  });
  it('lasts as others do again when its voice goes, and undoing brings the voice and the length back as one step', () => {
    const spoken = after(show, speak('b', 8));
    const gone = after(spoken, { kind: 'remove-sounds', slideId: slideId('b'), soundIds: [cueId('v-b')] });
    expect(lengths(gone)).toEqual([5000, 5000, 5000, 5000]);
    const { edit } = withItsLengths(show, facts, speak('b', 8));
    const done = applyEdit(show, edit);
    const back = done.ok && applyEdit(done.show, done.inverse);
    expect(back && back.ok && back.show).toEqual(show);
  });
  it('is only made longer where a hand holds its length, or a clip', () => {
    const held = after(show, { kind: 'set-lengths', lengths: [{ slideId: slideId('b'), lengthMs: 6000 }] });
    expect(lengths(after(held, speak('b', 2)))[1]).toBe(6000);
    const longer = after(held, speak('b', 8));
    expect([longer.slides[1]!.lengthMs, longer.slides[1]!.chosen?.length]).toEqual([9600, 'hand']);
    const clip = {
      ...show,
      slides: [
        slide('a', {
          layers: [{ kind: 'clip', id: layerId('k'), assetId: voiceId(9), trimStartMs: 0, soundGainDb: 0 }],
        }),
      ],
    };
    expect(lengths(after(clip, speak('a', 2)))).toEqual([5000]);
  });
  it('cannot be made shorter than its voice, and says so', () => {
    const spoken = after(show, speak('b', 8));
    const asked: ShowEdit = { kind: 'set-lengths', lengths: [{ slideId: slideId('b'), lengthMs: 4000 }] };
    const { edit, unmet } = withItsLengths(spoken, facts, asked);
    expect(edit).toEqual({ kind: 'set-lengths', lengths: [{ slideId: 'b', lengthMs: 9600 }] });
    expect(unmet).toBe('Slide 2 lasts 9.6 s: its voice takes that long, with the silence around it.');
    expect(
      lengths(after(spoken, { kind: 'set-lengths', lengths: [{ slideId: slideId('b'), lengthMs: 12_000 }] }))[1],
    ).toBe(12_000);
  });
  it('is left as it is, too short or not, by edits that say nothing of voices and lengths', () => {
    const cut: Show = {
      ...show,
      slides: [slide('a', { sounds: [voiceHere(cueId('v'), voiceId(8), 700)] }), ...show.slides.slice(1)],
    };
    const worded = after(cut, {
      kind: 'set-words',
      slideId: slideId('a'),
      layerId: layerId('w'),
      words: { title: 'Dusk', subtitle: '', place: 'top' },
    });
    expect(lengths(worded)).toEqual([5000, 5000, 5000, 5000]);
  });
  it('follows another take, a trim, and a take that rests', () => {
    const two = after(show, speak('b', 8), {
      kind: 'add-sounds',
      slideId: slideId('b'),
      runs: [{ afterId: cueId('v-b'), sounds: [{ ...voiceHere(cueId('second'), voiceId(4), 700), resting: true }] }],
    });
    expect(lengths(two)[1]).toBe(9600);
    const set = (id: string, properties: object): ShowEdit => ({
      kind: 'set-sound',
      slideId: slideId('b'),
      soundId: cueId(id),
      properties,
    });
    const other = after(two, {
      kind: 'together',
      name: 'choose a take',
      edits: [set('v-b', { resting: true }), set('second', { resting: null })],
    });
    expect(lengths(other)[1]).toBe(700 + 4000 + 900);
    expect(soundSpans(other, facts).map(({ sound }) => sound.id)).toEqual(['second']);
    expect(lengths(after(other, set('second', { trimEndMs: 3000 })))[1]).toBe(700 + 3000 + 900);
  });
  it('keeps its voice wherever it is moved', () => {
    const moved = after(show, speak('b', 8), {
      kind: 'move-slides',
      runs: [{ slideIds: [slideId('b')], afterId: slideId('d') }],
    });
    expect(moved.slides.map(({ id, lengthMs, sounds }) => [id, lengthMs, sounds.length])).toEqual([
      ['a', 5000, 0],
      ['c', 5000, 0],
      ['d', 5000, 0],
      ['b', 9600, 1],
    ]);
  });
  it('lets a voice that runs on be heard out before the next begins', () => {
    const over = after(show, speak('a', 9, { runsOn: true }), speak('c', 2));
    expect(lengths(over)).toEqual([5000, 5600, 3600, 5000]);
    const [first, second] = soundSpans(over, facts);
    expect(second!.startMs - first!.endMs).toBeGreaterThanOrEqual(700);
  });
  it('cuts none of 20 voices, each with its breath within a frame', () => {
    const many: Show = { ...show, slides: Array.from({ length: 20 }, (_, index) => slide(`s${index}`)) };
    const all = after(many, ...many.slides.map((one, index) => speak(one.id, [1, 2, 4, 8, 9][index % 5]!)));
    const frameMs = 1000 / 30;
    const spans = slideSpans(all.slides);
    soundSpans(all, facts).forEach(({ sound, startMs, endMs }, index) => {
      expect(endMs - startMs).toBe([1000, 2000, 4000, 8000, 9000][index % 5]);
      expect(Math.abs(startMs - spans[index]!.startMs - 700)).toBeLessThanOrEqual(frameMs);
      expect(Math.abs(spans[index]!.endMs - endMs - 900)).toBeLessThanOrEqual(frameMs);
      expect(sound.id).toBe(`v-s${index}`);
    });
  });
});

describe('the breath around voices', () => {
  it('of the show moves every voice and every length that goes by it, as one step', () => {
    const spoken = after(show, speak('b', 8), speak('c', 2));
    const own = after(spoken, breathsSet(spoken, [slideId('c')], { beforeMs: 0, afterMs: 100 }));
    expect(lengths(own)).toEqual([5000, 9600, 2100, 5000]);
    const wide = after(own, breathsSet(own, null, { beforeMs: 2000, afterMs: 1500 }));
    expect(lengths(wide)).toEqual([5000, 2000 + 8000 + 1500, 2100, 5000]);
    expect(wide.slides[1]!.sounds[0]!.starts).toEqual({ at: 'here', offsetMs: 2000 });
    const back = after(wide, breathsSet(wide, null, null));
    expect(lengths(back)).toEqual(lengths(own));
  });
});
