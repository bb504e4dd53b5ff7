import { describe, expect, it } from '@jest/globals';
import { applyEdit, type ShowEdit } from './edit';
import { offsetHereMs, songAfter, voiceHere } from './placed-sound';
import { assetId, cueId, layerId, showId, slideId } from './ids';
import {
  addToSlide,
  joinSlides,
  laidOut,
  layoutOf,
  layoutsFor,
  partSlide,
  picturesOf,
  windowsOf,
  type Layout,
} from './layout';
import { copyOfSlide } from './new-slide';
import { contentOf, emptyShow, type Show, type Slide } from './show';

const [sea, boat, song] = ['a', 'b', 'c'].map((digit) => assetId(digit.repeat(64))) as [
  ReturnType<typeof assetId>,
  ReturnType<typeof assetId>,
  ReturnType<typeof assetId>,
];
const slide = (name: string, lengthMs = 5000): Slide => ({
  id: slideId(name),
  lengthMs,
  transition: { kind: 'cut' },
  backing: { kind: 'automatic' },
  sounds: [],
  layers: [{ kind: 'picture', id: layerId(`picture-${name}`), assetId: sea, move: { kind: 'automatic' } }],
});
const show: Show = {
  ...emptyShow(showId('s'), 'Regatta'),
  slides: [
    slide('a'),
    slide('b', 7000),
    {
      ...slide('c'),
      layers: [...slide('c').layers, { kind: 'words', id: layerId('w'), title: 'Dusk', subtitle: '', place: 'top' }],
    },
  ],
  cues: [songAfter(cueId('q'), song, 3000)],
};
const framed: Slide = {
  ...slide('f'),
  layers: [
    {
      kind: 'picture',
      id: layerId('p'),
      assetId: sea,
      move: {
        kind: 'set',
        first: { x: 0.4, y: 0.5, width: 0.5, height: 0.5, turnDegrees: 0 },
        last: { x: 0.5, y: 0.5, width: 0.6, height: 0.6, turnDegrees: 0 },
      },
      light: { exposure: 1 },
      back: { assetId: sea },
    },
  ],
  backing: { kind: 'picture', assetId: sea },
};
let counted = 0;
const newId = () => `n${(counted += 1)}`;

function applied(edit: ShowEdit, to = show): { show: Show; inverse: ShowEdit } {
  const result = applyEdit(to, edit);
  if (!result.ok) throw new Error(result.reason);
  return result;
}

describe('marks', () => {
  it('are set, changed and wiped off, and undone exactly', () => {
    const marked = applied({
      kind: 'set-marks',
      marks: [
        { assetId: sea, mark: 'keep' },
        { assetId: boat, mark: 'linger' },
      ],
    });
    expect(marked.show.marks).toEqual({ [sea]: 'keep', [boat]: 'linger' });
    expect(applied(marked.inverse, marked.show).show).toEqual(show);
    expect(
      applied(
        {
          kind: 'set-marks',
          marks: [
            { assetId: sea, mark: null },
            { assetId: boat, mark: 'leave-out' },
          ],
        },
        marked.show,
      ).show.marks,
    ).toEqual({ [boat]: 'leave-out' });
  });
});

describe('a swapped file', () => {
  it('stands wherever the other was, framed and lit as before, and goes back exactly', () => {
    const before = { ...show, slides: [...show.slides, framed] };
    const swapped = applied({ kind: 'swap-file', from: sea, to: boat }, before);
    expect(swapped.show.slides.at(-1)).toEqual({
      ...framed,
      backing: { kind: 'picture', assetId: boat },
      layers: [{ ...framed.layers[0], assetId: boat, back: { assetId: boat } }],
    });
    expect(JSON.stringify(swapped.show)).not.toContain(sea);
    expect(applied(swapped.inverse, swapped.show).show).toEqual(before);
  });
  it('swaps a song, and leaves slides alone that do not use the file', () => {
    const swapped = applied({ kind: 'swap-file', from: song, to: boat });
    expect(swapped.show.cues[0]!.assetId).toBe(boat);
    expect(swapped.show.slides[0]).toBe(show.slides[0]);
    expect(applied(swapped.inverse, swapped.show).show).toEqual(show);
  });
  it('is refused when nothing uses the file', () => {
    expect(applyEdit(show, { kind: 'swap-file', from: boat, to: sea })).toMatchObject({
      ok: false,
      reason: 'file-not-used',
    });
  });
});

describe('several edits as one step', () => {
  it('are undone together, and none is done when one is refused', () => {
    const edit: ShowEdit = {
      kind: 'together',
      name: 'cut two',
      edits: [
        { kind: 'remove-slides', slideIds: [slideId('b')] },
        { kind: 'rename-show', title: 'Dusk' },
      ],
    };
    const both = applied(edit);
    expect([both.show.slides.length, both.show.title]).toEqual([2, 'Dusk']);
    expect(applied(both.inverse, both.show).show).toEqual(show);
    expect(
      applyEdit(show, {
        ...edit,
        edits: [...edit.edits, { kind: 'set-backing', slideId: slideId('gone'), backing: { kind: 'automatic' } }],
      }),
    ).toMatchObject({ ok: false, reason: 'slide-not-found' });
  });
  it('are undone last one first', () => {
    const id = show.slides[0]!.id;
    const lengths = [4000, 5000, 6000].map((lengthMs): ShowEdit => ({
      kind: 'set-lengths',
      lengths: [{ slideId: id, lengthMs }],
    }));
    const changed = applied({ kind: 'together', name: 'change it thrice', edits: lengths });
    expect(changed.inverse).toMatchObject({
      edits: [
        { lengths: [{ lengthMs: 5000 }] },
        { lengths: [{ lengthMs: 4000 }] },
        { lengths: [{ lengthMs: show.slides[0]!.lengthMs }] },
      ],
    });
    expect(applied(changed.inverse, changed.show).show).toEqual(show);
  });
  it('what names several slides is done to those that are still there', () => {
    const changed = applied({
      kind: 'set-lengths',
      lengths: [
        { slideId: slideId('gone'), lengthMs: 900 },
        { slideId: slideId('b'), lengthMs: 900 },
      ],
    });
    expect(changed.show.slides.map((entry) => entry.lengthMs)).toEqual([5000, 900, 5000]);
    expect(
      applied({
        kind: 'move-slides',
        runs: [{ slideIds: [slideId('gone'), slideId('c')], afterId: null }],
      }).show.slides.map((entry) => entry.id),
    ).toEqual(['c', 'a', 'b']);
  });
  it('going to a version changes everything but who the show is, and back', () => {
    const other = { ...contentOf(show), title: 'Before', slides: [], marks: { [sea]: 'keep' as const } };
    const gone = applied({ kind: 'set-content', content: other });
    expect(gone.show).toEqual({ format: 'tanager-show', version: show.version, id: 's', ...other });
    expect(applied(gone.inverse, gone.show).show).toEqual(show);
  });
});

describe('layouts', () => {
  it.each<[Layout, number]>(
    [2, 3, 4, 5, 7, 12].flatMap((count) => layoutsFor(count).map((layout): [Layout, number] => [layout, count])),
  )('%s of %i stand inside the frame, apart from each other, and fill nearly all of it', (layout, count) => {
    const windows = windowsOf(layout, count, show.frame);
    expect(windows).toHaveLength(count);
    const edges = windows.map(
      ({ x, y, width, height }) => [x - width / 2, y - height / 2, x + width / 2, y + height / 2] as const,
    );
    for (const [left, top, right, bottom] of edges)
      expect(Math.min(left, top, 1 - right, 1 - bottom)).toBeGreaterThan(-1e-9);
    for (const [index, one] of edges.entries())
      for (const other of edges.slice(index + 1))
        expect(one[0] >= other[2] || other[0] >= one[2] || one[1] >= other[3] || other[1] >= one[3]).toBe(true);
    expect(windows.reduce((sum, window) => sum + window.width * window.height, 0)).toBeGreaterThan(0.9);
  });
  it('joins slides into one with all their pictures, the longest length and the first words there are', () => {
    const joined = applied(joinSlides(show, [slideId('c'), slideId('a'), slideId('b')], 'side-by-side')!);
    expect(joined.show.slides).toHaveLength(1);
    const [only] = joined.show.slides as [Slide];
    expect([only.id, only.lengthMs, only.layers.map((layer) => layer.kind), layoutOf(only, show.frame)]).toEqual([
      'a',
      7000,
      ['picture', 'picture', 'picture', 'words'],
      'side-by-side',
    ]);
    expect(applied(joined.inverse, joined.show).show).toEqual(show);
  });
  it('says what was said over them one after the other, on a slide that lasts as long, and gives parted pictures no voice of their own', () => {
    const spoken = {
      ...show,
      slides: show.slides.map((entry) => ({
        ...entry,
        script: `On ${entry.id}.`,
        sounds: [voiceHere(cueId('v'), sea, 700)],
        captions: { de: [{ fromMs: 700, toMs: 900, text: entry.id }] },
      })),
    };
    const joined = applied(
      joinSlides(
        spoken,
        spoken.slides.map((entry) => entry.id),
        'grid',
      )!,
      spoken,
    ).show;
    const [only] = joined.slides as [Slide];
    const starts = spoken.slides.map((_, index) =>
      spoken.slides.slice(0, index).reduce((sum, entry) => sum + entry.lengthMs, 0),
    );
    expect(only.lengthMs).toBe(starts.at(-1)! + spoken.slides.at(-1)!.lengthMs);
    expect(only.sounds.map((sound) => offsetHereMs(sound))).toEqual(starts.map((startMs) => startMs + 700));
    expect(new Set(only.sounds.map((sound) => sound.id)).size).toBe(only.sounds.length);
    expect(only.script).toBe(spoken.slides.map((entry) => `On ${entry.id}.`).join('\n'));
    expect(only.captions!.de!.map(({ fromMs }) => fromMs)).toEqual(starts.map((startMs) => startMs + 700));
    const [, ...others] = applied(partSlide(joined, only, newId)!, joined).show.slides;
    expect(others.map(({ sounds, script, captions }) => [sounds, script, captions])).toEqual(
      others.map(() => [[], undefined, undefined]),
    );
  });
  it('keeps every script when one of them has a voice, which begins when it did, and clips captions that would overlap', () => {
    const [a, b, c] = show.slides as [Slide, Slide, Slide];
    const slides = [
      { ...a, script: 'Before.', captions: { en: [{ fromMs: 0, toMs: 90_000, text: 'long' }] } },
      { ...b, sounds: [voiceHere(cueId('v'), sea, 700)], captions: { en: [{ fromMs: 100, toMs: 900, text: 'next' }] } },
      c,
    ];
    const joined = applied(
      joinSlides(
        { ...show, slides },
        slides.map((entry) => entry.id),
        'grid',
      )!,
      { ...show, slides },
    ).show.slides[0]!;
    expect(joined.script).toBe('Before.');
    expect(joined.captions!.en!.map(({ fromMs, toMs }) => [fromMs, toMs])).toEqual([
      [0, a.lengthMs + 100],
      [a.lengthMs + 100, a.lengthMs + 900],
    ]);
  });
  it('parts them again, each picture with the frame to itself', () => {
    const joined = applied(
      joinSlides(
        show,
        show.slides.map((entry) => entry.id),
        'grid',
      )!,
    ).show;
    const parted = applied(partSlide(joined, joined.slides[0]!, newId)!, joined).show;
    expect(
      parted.slides.map((entry) => [picturesOf(entry).length, entry.backing.kind, picturesOf(entry)[0]!.channels]),
    ).toEqual(Array(3).fill([1, 'automatic', undefined]));
    expect(new Set(parted.slides.flatMap((entry) => entry.layers.map((layer) => layer.id))).size).toBe(4);
  });
  it('puts a picture beside the others in the layout they are in', () => {
    const two = applied(joinSlides(show, [slideId('a'), slideId('b')], 'stacked')!).show;
    const three = applied(
      addToSlide(two, two.slides[0]!, {
        kind: 'picture',
        id: layerId('x'),
        assetId: boat,
        move: { kind: 'automatic' },
      })!,
      two,
    ).show;
    expect([
      layoutOf(three.slides[0]!, show.frame),
      picturesOf(three.slides[0]!).map((layer) => layer.assetId),
    ]).toEqual(['stacked', [sea, sea, boat]]);
  });
  it('refuses to join one slide, or more pictures than can be seen', () => {
    expect(joinSlides(show, [slideId('a')], 'grid')).toBeNull();
    const many = { ...show, slides: Array.from({ length: 13 }, (_, index) => slide(`m${index}`)) };
    expect(
      joinSlides(
        many,
        many.slides.map((entry) => entry.id),
        'grid',
      ),
    ).toBeNull();
  });
  it('refuses to join, part or add to what would lose something: second words, groups', () => {
    const [a, b, c] = show.slides as [Slide, Slide, Slide];
    const join = (...slides: Slide[]) =>
      joinSlides(
        { ...show, slides },
        slides.map((entry) => entry.id),
        'grid',
      );
    const words = c.layers[1]!;
    const grouped: Slide = { ...b, layers: [{ kind: 'group', id: layerId('g'), layers: b.layers }] };
    expect([join(a, c), join({ ...a, layers: [...a.layers, words] }, c)]).toEqual([expect.anything(), null]);
    expect([
      join(a, grouped),
      addToSlide(show, grouped, { kind: 'picture', id: layerId('x'), assetId: boat, move: { kind: 'automatic' } }),
    ]).toEqual([null, null]);
  });
  it('keeps keyed channels that do not place the picture', () => {
    const turned: Slide = {
      ...slide('t'),
      layers: [
        {
          kind: 'picture',
          id: layerId('t'),
          assetId: sea,
          move: { kind: 'automatic' },
          channels: { turnDegrees: 3, x: 0.2 },
        },
      ],
    };
    const pictures = [...picturesOf(turned), ...picturesOf(slide('u'))];
    expect(laidOut(turned, pictures, 'stacked', show.frame).layers[0]!.channels).toMatchObject({
      turnDegrees: 3,
      x: 0.5,
    });
  });
});

describe('a copied slide', () => {
  it('has new ids throughout, and its masks and tethers point to the copies', () => {
    const original: Slide = {
      ...slide('o'),
      layers: [
        {
          kind: 'group',
          id: layerId('g'),
          layers: [
            { kind: 'solid', id: layerId('s'), colour: '#102030' },
            {
              kind: 'solid',
              id: layerId('m'),
              colour: '#ffffff',
              mask: { by: 'brightness', cuts: [layerId('s')] },
              tether: { to: layerId('s'), position: true },
            },
          ],
        },
      ],
    };
    const copy = copyOfSlide(original, newId);
    const [group] = copy.layers;
    if (group?.kind !== 'group') throw new Error('the group is gone');
    const [solid, mask] = group.layers;
    expect([mask!.mask!.cuts, mask!.tether!.to]).toEqual([[solid!.id], solid!.id]);
    expect(JSON.stringify(copy)).not.toMatch(/"(o|g|s|m)"/);
  });
});
