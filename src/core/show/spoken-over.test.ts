import { describe, expect, it } from '@jest/globals';
import type { AssetFacts } from './asset-facts';
import { USUAL_BREATH } from './breath';
import { assetId, cueId } from './ids';
import { blankSlide } from './new-slide';
import { offsetHereMs, voiceHere, type PlacedSound } from './placed-sound';
import type { Slide } from './show';
import { spokenJoined, spokenSplit, unspoken, withSpoken } from './spoken-over';

const VOICE = assetId('1'.repeat(64));
const BELL = assetId('2'.repeat(64));
const facts = new Map<typeof VOICE, AssetFacts>([
  [VOICE, { kind: 'sound', lengthMs: 4000, title: null, artist: null }],
  [BELL, { kind: 'sound', lengthMs: 900, title: null, artist: null }],
]);
const voice = (id: string, offsetMs: number) => voiceHere(cueId(id), VOICE, offsetMs);
const bell = (id: string, offsetMs: number): PlacedSound => ({
  ...voiceHere(cueId(id), BELL, offsetMs),
  kind: 'effect',
});
const slide = (id: string, more: Partial<Slide> = {}): Slide => ({
  ...blankSlide(5000, '#000000', () => id),
  ...more,
});
const caption = (fromMs: number, toMs: number, text: string) => ({ fromMs, toMs, text });
const newId = (id: PlacedSound['id'], of: Slide) => cueId(`${id}-${of.id}`);

describe('what is said over a slide', () => {
  const spoken = slide('a', {
    sounds: [voice('v', 700)],
    script: 'We set out.',
    captions: { en: [caption(700, 2000, 'We set out.')] },
    breath: { beforeMs: 100, afterMs: 200 },
    chapter: 'Dusk',
  });
  it('leaves with nothing of it staying, and comes back as it was', () => {
    const bare = unspoken(spoken);
    expect(Object.keys(bare).filter((name) => ['script', 'captions', 'breath', 'chapter'].includes(name))).toEqual([]);
    expect(bare.sounds).toEqual([]);
    const { chapter: _chapter, ...rest } = spoken;
    expect(withSpoken(bare, spoken)).toEqual(rest);
  });
  it('takes the place of what was said there before', () => {
    expect(withSpoken(spoken, { sounds: [] })).toEqual({ ...unspoken(spoken), chapter: 'Dusk' });
  });
});

describe('slides that become one', () => {
  it('have all said over the one that was said over any of them, where only one was spoken over', () => {
    const joined = spokenJoined([slide('a'), slide('b', { sounds: [voice('v', 700)], script: 'Only here.' })], newId);
    expect(joined).toEqual({ lengthMs: 5000, sounds: [voice('v', 700)], script: 'Only here.' });
  });
  it('say one after the other what was said over several, and last as long as all', () => {
    const { lengthMs, sounds, script, captions, breath } = spokenJoined(
      [
        slide('a', {
          sounds: [voice('v', 700)],
          script: 'First.',
          captions: { en: [caption(700, 6500, 'First.')] },
          breath: { beforeMs: 50, afterMs: 60 },
        }),
        slide('b', {
          lengthMs: 6000,
          sounds: [voice('v', 300)],
          script: 'Second.',
          captions: { en: [caption(300, 900, 'Second.')] },
        }),
      ],
      newId,
    );
    expect([lengthMs, script, breath]).toEqual([11_000, 'First.\nSecond.', { beforeMs: 50, afterMs: 60 }]);
    // Two of one name would be one.
    expect(sounds.map((sound) => [sound.id, offsetHereMs(sound)])).toEqual([
      ['v', 700],
      ['v-b', 5300],
    ]);
    // The first was read on over the second: now it ends where that begins.
    expect(captions!.en).toEqual([caption(700, 5300, 'First.'), caption(5300, 5900, 'Second.')]);
  });
  it('are as long as the longest where nothing is said', () => {
    expect(spokenJoined([slide('a'), slide('b', { lengthMs: 8000 })], newId)).toEqual({ lengthMs: 8000, sounds: [] });
  });
});

describe('a slide that is cut in two', () => {
  it('has its voice go on without a gap and without a fade in the second', () => {
    const { before, after } = spokenSplit({}, slide('a', { sounds: [voice('v', 700)] }), 2700, facts);
    expect(before.sounds).toEqual([{ ...voice('v', 700), trimEndMs: 2000, fadeOutMs: 0 }]);
    expect(after.sounds).toEqual([{ ...voice('v', 0), trimStartMs: 2000, fadeInMs: 0 }]);
    // Nothing waits between the two.
    expect([before.breath!.afterMs, after.breath!.beforeMs]).toEqual([0, 0]);
    expect(before.breath!.beforeMs).toBe(USUAL_BREATH.beforeMs);
  });
  it.each([
    [400, [], ['v']],
    [4900, ['v'], []],
  ])('at %i ms leaves a voice whole where that does not meet it', (atMs, before, after) => {
    const split = spokenSplit({}, slide('a', { sounds: [voice('v', 700)] }), atMs, facts);
    expect(split.before.sounds.map(({ id }) => id)).toEqual(before);
    expect(split.after.sounds.map(({ id }) => id)).toEqual(after);
    for (const sound of [...split.before.sounds, ...split.after.sounds]) expect(sound.trimEndMs).toBeUndefined();
    if (after.length > 0) expect(offsetHereMs(split.after.sounds[0]!)).toBe(300);
  });
  it('keeps short sounds whole on the side on which they begin', () => {
    const { before, after } = spokenSplit(
      {},
      slide('a', { sounds: [bell('one', 2500), bell('two', 3100)] }),
      3000,
      facts,
    );
    expect(before.sounds).toEqual([bell('one', 2500)]);
    expect(after.sounds).toEqual([bell('two', 100)]);
    expect([before.breath, after.breath]).toEqual([undefined, undefined]);
  });
  it('parts its captions and keeps the script with the first', () => {
    const { before, after } = spokenSplit(
      {},
      slide('a', { script: 'One. Two.', captions: { en: [caption(500, 1500, 'One.'), caption(3000, 4000, 'Two.')] } }),
      2000,
      facts,
    );
    expect([before.script, before.captions]).toEqual(['One. Two.', { en: [caption(500, 1500, 'One.')] }]);
    expect([after.script, after.captions]).toEqual([undefined, { en: [caption(1000, 2000, 'Two.')] }]);
  });
  it('joined again says the same at the same moments', () => {
    for (const atMs of [900, 1850, 2700, 4100]) {
      const whole = slide('a', { lengthMs: 6000, sounds: [voice('v', 700), bell('b', 5000)] });
      const { before, after } = spokenSplit({}, whole, atMs, facts);
      const parts = [slide('a', { lengthMs: atMs, ...before }), slide('b', { lengthMs: 6000 - atMs, ...after })];
      const joined = spokenJoined(parts, newId);
      // What is heard, as moments of the slide and of the file, stretch by stretch.
      const heard = (sounds: readonly PlacedSound[]) =>
        sounds.filter(({ kind }) => kind === 'voice').map((sound) => offsetHereMs(sound) - sound.trimStartMs);
      expect(new Set(heard(joined.sounds))).toEqual(new Set(heard(whole.sounds)));
      expect(joined.lengthMs).toBe(6000);
      const rings = joined.sounds.find(({ kind }) => kind === 'effect')!;
      expect(offsetHereMs(rings)).toBe(5000);
    }
  });
});
