import { describe, expect, it } from '@jest/globals';
import { applyEdit, type ShowEdit } from './edit';
import { editSentence } from './edit-sentence';
import { songAfter, voiceHere } from './placed-sound';
import { assetId, cueId, layerId, showId, slideId, type SlideId } from './ids';
import { emptyShow, type Show, type Slide } from './show';

const asset = assetId('a'.repeat(64));
const ids = (...names: string[]) => names.map(slideId);

function slide(name: string): Slide {
  return {
    id: slideId(name),
    lengthMs: 5000,
    transition: { kind: 'dissolve', lengthMs: 1000 },
    backing: { kind: 'automatic' },
    sounds: [],
    layers: [{ kind: 'picture', id: layerId(`picture of ${name}`), assetId: asset, move: { kind: 'automatic' } }],
  };
}

const show: Show = { ...emptyShow(showId('s'), 'Regatta'), slides: ['a', 'b', 'c', 'd', 'e'].map(slide) };
const orderOf = (of: Show) => of.slides.map((entry) => entry.id).join('');

function applied(edit: ShowEdit, to = show): { show: Show; inverse: ShowEdit } {
  const result = applyEdit(to, edit);
  if (!result.ok) throw new Error(result.reason);
  return result;
}

describe('applyEdit', () => {
  it.each<[string, ShowEdit, string]>([
    ['adds at the start', { kind: 'add-slides', runs: [{ afterId: null, slides: [slide('x')] }] }, 'xabcde'],
    [
      'adds after a slide',
      { kind: 'add-slides', runs: [{ afterId: slideId('b'), slides: [slide('x'), slide('y')] }] },
      'abxycde',
    ],
    [
      'adds at the end when the slide it should follow has gone',
      { kind: 'add-slides', runs: [{ afterId: slideId('gone'), slides: [slide('x')] }] },
      'abcdex',
    ],
    ['removes scattered slides', { kind: 'remove-slides', slideIds: ids('a', 'c', 'd') }, 'be'],
    ['moves one to the start', { kind: 'move-slides', runs: [{ slideIds: ids('d'), afterId: null }] }, 'dabce'],
    [
      'moves several to the end in the order given',
      { kind: 'move-slides', runs: [{ slideIds: ids('c', 'a'), afterId: slideId('e') }] },
      'bdeca',
    ],
  ])('%s', (_name, edit, order) => {
    expect(orderOf(applied(edit).show)).toBe(order);
  });

  it.each<ShowEdit>([
    { kind: 'add-slides', runs: [{ afterId: slideId('c'), slides: [slide('x')] }] },
    { kind: 'remove-slides', slideIds: ids('a', 'b', 'd') },
    { kind: 'remove-slides', slideIds: ids('a', 'b', 'c', 'd', 'e') },
    { kind: 'move-slides', runs: [{ slideIds: ids('e', 'a', 'c'), afterId: slideId('b') }] },
    {
      kind: 'set-lengths',
      lengths: [
        { slideId: slideId('b'), lengthMs: 900 },
        { slideId: slideId('d'), lengthMs: 7000 },
      ],
    },
    { kind: 'set-transitions', transitions: [{ slideId: slideId('c'), transition: { kind: 'cut' } }] },
    {
      kind: 'set-words',
      slideId: slideId('a'),
      layerId: layerId('w'),
      words: { title: 'Port Ellery', subtitle: '', place: 'top' },
    },
    { kind: 'set-move', slideId: slideId('a'), layerId: layerId('picture of a'), move: { kind: 'still' } },
    { kind: 'set-backing', slideId: slideId('a'), backing: { kind: 'colour', colour: '#102030' } },
    {
      kind: 'add-sounds',
      slideId: slideId('a'),
      runs: [{ afterId: null, sounds: [voiceHere(cueId('v'), asset, 500)] }],
    },
    { kind: 'add-sounds', slideId: null, runs: [{ afterId: null, sounds: [songAfter(cueId('r'), asset, 0)] }] },
    {
      kind: 'set-cues',
      cues: [songAfter(cueId('q'), asset, 3000)],
    },
    { kind: 'set-default-length', lengthMs: 4000 },
    { kind: 'rename-show', title: 'Evening' },
  ])('is undone and done again exactly: $kind', (edit) => {
    const done = applied(edit);
    expect(done.show).not.toEqual(show);
    const undone = applied(done.inverse, done.show);
    expect(undone.show).toEqual(show);
    expect(applied(undone.inverse, undone.show).show).toEqual(done.show);
    expect(editSentence(edit).length).toBeGreaterThan(5);
  });

  it('leaves the identity of slides it does not touch', () => {
    const { show: after } = applied({ kind: 'set-lengths', lengths: [{ slideId: slideId('b'), lengthMs: 900 }] });
    expect(after.slides.map((entry, index) => entry === show.slides[index])).toEqual([true, false, true, true, true]);
  });

  it('changes and then removes words without piling up layers', () => {
    const words = { kind: 'set-words', slideId: slideId('a'), layerId: layerId('w') } as const;
    const one = applied({ ...words, words: { title: 'One', subtitle: '', place: 'top' } }).show;
    const two = applied({ ...words, words: { title: 'Two', subtitle: 'and more', place: 'bottom' } }, one).show;
    expect(two.slides[0]!.layers).toHaveLength(2);
    expect(two.slides[0]!.layers[1]).toMatchObject({ title: 'Two', place: 'bottom' });
    expect(applied({ ...words, words: null }, two).show.slides[0]).toEqual(show.slides[0]);
  });

  it.each<[ShowEdit, string]>([
    [{ kind: 'remove-slides', slideIds: ids('nowhere') }, 'slide-not-found'],
    [{ kind: 'move-slides', runs: [{ slideIds: ids('nowhere'), afterId: null }] }, 'slide-not-found'],
    [{ kind: 'set-lengths', lengths: [{ slideId: slideId('nowhere'), lengthMs: 900 }] }, 'slide-not-found'],
    [{ kind: 'set-move', slideId: slideId('a'), layerId: layerId('none'), move: { kind: 'still' } }, 'layer-not-found'],
    [{ kind: 'add-slides', runs: [{ afterId: null, slides: [slide('a')] }] }, 'slide-already-there'],
  ])('refuses what it cannot do: %j', (edit, reason) => {
    expect(applyEdit(show, edit)).toMatchObject({ ok: false, reason, sentence: expect.stringMatching(/^[A-Z].+\.$/) });
  });

  it('restores any removal and any move in a long show (every edit of a storm undone in turn)', () => {
    let current: Show = { ...show, slides: Array.from({ length: 60 }, (_, index) => slide(`n${index}`)) };
    const before = current;
    const undo: ShowEdit[] = [];
    let state = 7;
    const next = (n: number) => {
      state = (state * 48271) % 2147483647;
      return state % n;
    };
    for (let step = 0; step < 200; step += 1) {
      const names: SlideId[] = [
        ...new Set(Array.from({ length: 1 + next(5) }, () => current.slides[next(current.slides.length)]!.id)),
      ];
      const edit: ShowEdit =
        step % 3 === 0 && current.slides.length > 20
          ? { kind: 'remove-slides', slideIds: names }
          : {
              kind: 'move-slides',
              runs: [
                { slideIds: names, afterId: current.slides.find((entry) => !names.includes(entry.id))?.id ?? null },
              ],
            };
      const result = applied(edit, current);
      undo.push(result.inverse);
      current = result.show;
    }
    for (const inverse of undo.reverse()) current = applied(inverse, current).show;
    expect(current).toEqual(before);
  });
});
