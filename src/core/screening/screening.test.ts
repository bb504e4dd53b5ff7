import { describe, expect, it } from '@jest/globals';
import fc from 'fast-check';
import { slideId } from '../show/ids';
import { embedOf } from './embed';
import { holdsLink, placesOfNotes, type KeptNote } from './guest-note';
import { notesTable } from './notes-table';
import { contrast } from '../light/contrast';
import { screeningLook } from './screening-look';
import { filmFor, type ShownFilm } from './shown-film';
import { mergedStretches, MOST_STRETCHES, watchedOf, type Stretch } from './watched';

const note = (id: string, more: Partial<KeptNote> = {}): KeptNote => ({
  id,
  screeningId: 's',
  replyTo: null,
  atMs: 75_250,
  kind: 'note',
  by: 'guest',
  name: 'Ilka',
  words: 'How lovely',
  createdAt: 0,
  state: 'open',
  slideId: slideId('b'),
  before: [slideId('a')],
  ...more,
});
const slides = (...ids: string[]) => ids.map((id) => ({ id: slideId(id) }));
const ids = (notes: ReadonlyMap<unknown, readonly KeptNote[]>) =>
  [...notes].map(([at, all]) => [at, all.map(({ id }) => id)]);

describe('where a note stands', () => {
  it('is its slide, wherever that was moved', () => {
    expect(ids(placesOfNotes(slides('c', 'b', 'a'), [note('n')]).on)).toEqual([['b', ['n']]]);
  });
  it('is where its slide was, when that is gone: after the nearest before it that is still there', () => {
    const left = note('n', { slideId: slideId('d'), before: [slideId('c'), slideId('b'), slideId('a')] });
    expect(ids(placesOfNotes(slides('a', 'b', 'e'), [left]).after)).toEqual([['b', ['n']]]);
    expect(ids(placesOfNotes(slides('e'), [left]).after)).toEqual([[null, ['n']]]);
  });
  it('leaves answers to their notes', () => {
    const { on, after } = placesOfNotes(slides('b'), [note('n', { replyTo: 'm' })]);
    expect(on.size + after.size).toBe(0);
  });
});

describe('links in notes', () => {
  it.each(['see https://lenses.example', 'WWW.lenses.example', 'go to lenses.com now', '<a href=x>', '[url=x]'])(
    '%s is held back',
    (words) => expect(holdsLink(words)).toBe(true),
  );
  it.each(['Lovely! 10/10.', 'at 3.30 it gets blurred.Next one too', 'Ilka & Tom', 'what a day … ok.'])(
    '%s is not',
    (words) => expect(holdsLink(words)).toBe(false),
  );
});

describe('stretches that were watched', () => {
  const stretch = fc.tuple(fc.integer({ min: 0, max: 900 }), fc.integer({ min: 1, max: 100 }));
  it('are sorted and apart, and cover what they covered', () => {
    fc.assert(
      fc.property(fc.array(stretch, { maxLength: 40 }), (all) => {
        const stretches = all.map(([from, length]): Stretch => [from, from + length]);
        const merged = mergedStretches(stretches, 1000);
        const covers = (by: readonly Stretch[], at: number) => by.some(([from, to]) => from <= at && at < to);
        for (let at = 0.5; at < 1000; at += 1) expect(covers(merged, at)).toBe(covers(stretches, at));
        merged.slice(1).forEach(([from], index) => expect(from).toBeGreaterThan(merged[index]![1]));
      }),
    );
  });
  it('stay so few that nobody fills the disk with them', () => {
    const all = Array.from({ length: 1000 }, (_, index): Stretch => [10 * index, 10 * index + 1]);
    expect(mergedStretches(all, 10_000)).toHaveLength(MOST_STRETCHES);
  });
  it('make a curve in which a part seen by half counts half', () => {
    expect(watchedOf([[[0, 1000]], [[0, 250]]], 1000, 2)).toEqual({
      viewings: 2,
      curve: [0.75, 0.5],
      seen: 0.625,
      toTheEnd: 0.5,
    });
    expect(watchedOf([], 1000, 2)).toEqual({ viewings: 0, curve: [0, 0], seen: 0, toTheEnd: 0 });
  });
});

describe('a screening’s look', () => {
  it('reads in any studio’s colours', () => {
    const colour = fc.integer({ min: 0, max: 0xffffff }).map((value) => `#${value.toString(16).padStart(6, '0')}`);
    fc.assert(
      fc.property(colour, colour, colour, (ink, paper, accent) => {
        const look = screeningLook({ ink, paper, accent, soft: ink });
        expect(contrast(look.letters, look.ground)).toBeGreaterThanOrEqual(7);
        expect(contrast(look.soft, look.ground)).toBeGreaterThanOrEqual(4.5);
        expect(contrast(look.accent, look.ground)).toBeGreaterThanOrEqual(3);
        expect(contrast(look.onAccent, look.accent)).toBeGreaterThanOrEqual(4.5);
      }),
    );
  });
});

describe('which quality is taken', () => {
  const film = (widthPx: number, megabits: number): ShownFilm => ({
    id: String(widthPx),
    widthPx,
    heightPx: (widthPx * 9) / 16,
    bitsASecond: megabits * 1e6,
  });
  const films = [film(3840, 20), film(1920, 6), film(1280, 3)];
  it.each([
    ['a large window on a good line', 3000, null, '3840'],
    ['a usual window', 1900, null, '1920'],
    ['a phone', 720, null, '1280'],
    ['a usual window on a slow line', 1900, 4, '1280'],
    ['any window on a line that carries none', 1900, 1, '1280'],
  ])('%s', (_says, shownPx, line, wanted) => {
    expect(filmFor(films, shownPx, line === null ? null : line * 1e6).id).toBe(wanted);
  });
});

describe('what is handed to other programs', () => {
  it('is code in the film’s shape, no larger than asked, in which titles cannot break out', () => {
    const upright = embedOf('https://x.example/s/t/embed', '"><script>', { widthPx: 1080, heightPx: 1920 }, 800, 600);
    expect([upright.width, upright.height]).toEqual([337, 599]);
    expect(upright.html).toContain('title="&quot;&gt;&lt;script&gt;"');
    expect(embedOf('a', 'b', { widthPx: 1920, heightPx: 1080 }, Infinity, Infinity)).toMatchObject({
      width: 640,
      height: 360,
    });
  });
  it('is a table that spreadsheets open and do not run', () => {
    const table = notesTable(
      [note('n', { words: '=HYPERLINK("x")', name: 'A, B' }), note('m', { replyTo: 'n', slideId: slideId('gone') })],
      slides('a', 'b'),
    );
    expect(table.startsWith('\uFEFFmoment,slide,kind')).toBe(true);
    expect(table).toContain(`1:15.2,2,note,"A, B","'=HYPERLINK(""x"")",open`);
    expect(table).toContain('1:15.2,,note,Ilka,How lovely,open,1970-01-01T00:00:00.000Z,"\'=HYPERLINK(""x"")"');
  });
});
