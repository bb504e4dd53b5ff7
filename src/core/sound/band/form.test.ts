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
  it('gives what does not divide into phrases of four to its opening, which is longer in a long piece; a short one has it at its end', () => {
    const lengths = Array.from({ length: 120 }, (_, at) =>
      formOf({ style: 'march', bpm: 116, lengthMs: 17_000 + 1700 * at }),
    );
    for (const { bars, phrases } of lengths) {
      const [first] = phrases;
      const middles = phrases.filter(({ kind }) => kind !== 'intro' && kind !== 'ending');
      const ending = phrases.at(-1)!;
      const rest = bars % 4;
      if (bars < 8) continue;
      expect(middles.every((phrase) => phrase.bars === 4)).toBe(true);
      if (bars < 12) {
        expect([bars, first!.kind === 'intro', ending.bars]).toEqual([bars, false, 4 + rest]);
        continue;
      }
      const opening = first!.kind === 'intro' ? first!.bars : 0;
      expect([bars, opening, ending.bars]).toEqual([bars, rest + (bars >= 28 && rest < 2 ? 4 : 0), 4]);
    }
    expect(new Set(lengths.map(({ bars }) => bars % 4)).size).toBe(4);
  });
  it('slows down over its last two bars, over its last one and less when it is short, and before that keeps its pace', () => {
    const gapsOf = ({ beatsMs }: Form) => beatsMs.slice(1).map((ms, beat) => ms - beatsMs[beat]!);
    // Without rubato and with some slowing.
    const style = 'latin';
    const { slowing, rubato, beatsABar } = styleNamed(style);
    expect([rubato, beatsABar]).toEqual([0, 4]);
    const long = gapsOf(formOf({ style, lengthMs: 120_000 }));
    const short = formOf({ style, lengthMs: 17_000 });
    expect(short.bars).toBeLessThan(16);
    const shortGaps = gapsOf(short);
    expect(long.at(-1)! / long[0]!).toBeCloseTo(1 + slowing, 6);
    expect(shortGaps.at(-1)! / shortGaps[0]!).toBeCloseTo(1 + (slowing * short.bars) / 16, 6);
    const slowed = (gaps: readonly number[]) => gaps.filter((gap) => gap > gaps[0]! * 1.0001).length;
    expect([slowed(long), slowed(shortGaps)]).toEqual([8, 4]);
    expect(long.every((gap, beat) => beat === 0 || gap >= long[beat - 1]! - 1e-6)).toBe(true);
  });
});
