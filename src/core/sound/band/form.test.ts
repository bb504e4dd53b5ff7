import { describe, expect, it } from '@jest/globals';
import fc from 'fast-check';
import { BAND_LENGTH_MS, BAND_MOODS, BAND_STYLES, type BandWishes } from './band-wishes';
import { planForm, type Form } from './form';
import { styleNamed } from './styles';

const wishes = (more: Partial<BandWishes>): BandWishes => ({
  ...{ style: 'folk-guitar', mood: 'warm', energy: 0.5, lengthMs: 120_000, seed: 1 },
  ...more,
});
const formOf = (more: Partial<BandWishes>, hasOnlyTune = false): Form => {
  const wanted = wishes(more);
  return planForm(wanted, styleNamed(wanted.style), hasOnlyTune);
};
const barAt = ({ beatsMs, beatsABar }: Form, bar: number) => beatsMs[bar * beatsABar]!;
const MOMENT = fc.record({
  atMs: fc.integer({ min: 0, max: BAND_LENGTH_MS.most }),
  what: fc.constantFrom('chapter' as const, 'lingers' as const),
});

describe('the form of a piece', () => {
  it('is bars without gaps, beats that rise, and a last chord with time to ring, whatever is wished', () => {
    fc.assert(
      fc.property(
        fc.constantFrom(...BAND_STYLES),
        fc.constantFrom(...BAND_MOODS),
        fc.double({ min: 0, max: 1, noNaN: true }),
        fc.integer({ min: BAND_LENGTH_MS.least, max: BAND_LENGTH_MS.most }),
        fc.array(MOMENT, { maxLength: 12 }),
        fc.boolean(),
        (style, mood, energy, lengthMs, moments, hasOnlyTune) => {
          const rising = moments.toSorted((a, b) => a.atMs - b.atMs);
          const form = formOf({ style, mood, energy, lengthMs, moments: rising }, hasOnlyTune);
          let bar = 0;
          for (const phrase of form.phrases) {
            expect(phrase.firstBar).toBe(bar);
            expect(phrase.bars).toBeGreaterThan(0);
            expect(phrase.energy >= 0.08 && phrase.energy <= 1).toBe(true);
            if (hasOnlyTune) expect(phrase.tune).not.toBeNull();
            bar += phrase.bars;
          }
          expect(bar).toBe(form.bars);
          expect(form.phrases.at(-1)!.kind).toBe('ending');
          expect(form.beatsMs).toHaveLength(form.bars * form.beatsABar + 1);
          expect(form.beatsMs.every((ms, beat) => beat === 0 || ms > form.beatsMs[beat - 1]!)).toBe(true);
          const { ringMs } = styleNamed(style);
          const rings = lengthMs - form.beatsMs.at(-1)!;
          const usual = Math.min(ringMs, 0.28 * lengthMs);
          expect(rings).toBeGreaterThan(0.69 * usual);
          expect(rings).toBeLessThan(1.31 * usual);
          for (const [at, section] of form.sections.entries())
            expect(section.firstBar).toBe(form.phrases.find((phrase) => phrase.section === at)!.firstBar);
        },
      ),
      { numRuns: 150 },
    );
  });
  it('plays at the tempo that is asked for, but for what whole bars need', () => {
    for (const style of BAND_STYLES)
      for (const lengthMs of [60_000, 181_000, 600_000])
        expect(Math.abs(formOf({ style, lengthMs, bpm: 96 }).bpm / 96 - 1)).toBeLessThan(0.05);
  });
  it('turns where a chapter begins, and goes down where a picture lingers', () => {
    const chapters = [47_000, 93_000, 141_000];
    const moments = chapters.map((atMs) => ({ atMs, what: 'chapter' as const }));
    const form = formOf({ lengthMs: 200_000, moments });
    const starts = form.sections.map(({ firstBar }) => barAt(form, firstBar));
    const barMs = form.beatsMs.at(-1)! / form.bars;
    for (const atMs of chapters)
      expect(Math.min(...starts.map((start) => Math.abs(start - atMs)))).toBeLessThan(2.6 * barMs);
    const lingers = formOf({ lengthMs: 200_000, moments: [{ atMs: 100_000, what: 'lingers' }] });
    const plain = formOf({ lengthMs: 200_000 });
    const at = plain.phrases.findLastIndex(({ firstBar }) => firstBar * barMs <= 100_000);
    expect(lingers.phrases[at]!.energy).toBeLessThan(plain.phrases[at]!.energy - 0.15);
  });
  it('brings its tune back, goes elsewhere between, and ends as it began', () => {
    const { phrases } = formOf({ lengthMs: 300_000 });
    const tunes = phrases.flatMap(({ tune, kind }) => (tune === null || kind === 'ending' ? [] : [tune]));
    expect(new Set(tunes).size).toBeGreaterThan(1);
    expect([tunes[0], tunes.at(-1)]).toEqual([0, 0]);
    expect(Math.max(...phrases.map(({ heard }) => heard))).toBeGreaterThan(0);
  });
  it('of a few seconds is a tune and its end', () => {
    const { phrases } = formOf({ lengthMs: 9000 });
    expect(phrases.map(({ kind }) => kind).filter((kind) => kind === 'intro')).toEqual([]);
    expect(phrases.length).toBeLessThanOrEqual(2);
  });
});
