import { describe, expect, it } from '@jest/globals';
import { applyEdit, type ShowEdit } from '../edit';
import { assetId, layerId, showId, slideId } from '../ids';
import { parseStoredShow } from '../../../server/schema/show-schema';
import { faultOfShow } from '../faults';
import { contentOf, emptyShow, type Show } from '../show';
import { NewerFormatError, raiseContent, raiseEdit, raiseShow } from './raise';
import { FORMAT_VERSION } from './version';

const asset = assetId('a'.repeat(64));
const show: Show = {
  ...emptyShow(showId('s'), 'Regatta'),
  slides: ['1', '2'].map((id) => ({
    id: slideId(id),
    lengthMs: 3000,
    transition: { kind: 'cut' },
    backing: { kind: 'automatic' },
    sounds: [],
    layers: [
      { kind: 'picture', id: layerId('p'), assetId: asset, move: { kind: 'automatic' } },
      { kind: 'words', id: layerId(`w${id}`), title: '', subtitle: '', place: 'top' },
    ],
  })),
};
const raised = (edit: object) => raiseEdit(edit, 1, show);
/** The same show as versions 1 to 3 wrote it. */
const written = (version: number) => ({
  ...show,
  version,
  frame: { widthPx: 1920, heightPx: 1080, framesPerSecond: 30 },
  slides: show.slides.map(({ sounds: _sounds, ...slide }) => ({ ...slide, narration: null })),
});

describe('what was kept by format 1', () => {
  it('is a show of today’s format: its methods are said, an empty list of marks and what cannot be written are gone', () => {
    const { methods: _methods, ...before } = { ...written(1), title: 'Re\u0000gatta', marks: {} };
    expect(raiseShow(before)).toEqual({ ...show, version: FORMAT_VERSION, methods: { basics: 1 } });
    expect(raiseContent({ title: 'x', marks: { [asset]: 'keep' } }, 1)).toEqual({
      title: 'x',
      marks: { [asset]: 'keep' },
      methods: { basics: 1 },
    });
  });
  it.each([
    ['set-light', 'lights', { light: { exposure: 1 } }],
    ['set-edge', 'edges', { edge: { feather: 0.1 } }],
    ['set-crops', 'crops', { crop: null, move: { kind: 'still' } }],
  ])('names layers by their slides in %s, wherever they lie', (kind, list, part) => {
    const edit = raised({ kind, [list]: [{ layerId: 'p', ...part }] });
    const by = kind === 'set-light' ? { by: null } : {};
    expect(edit).toEqual({
      kind,
      [list]: ['1', '2'].map((slide) => ({ slideId: slide, layerId: 'p', ...part, ...by })),
    });
    expect(applyEdit(show, edit).ok).toBe(true);
    expect(applyEdit(show, raised({ kind, [list]: [{ layerId: 'gone', ...part }] }))).toMatchObject({
      ok: false,
      reason: 'layer-not-found',
    });
  });
  it('is brought up inside of steps and versions too', () => {
    const step = raised({
      kind: 'together',
      name: 'both',
      edits: [
        { kind: 'set-light', lights: [{ layerId: 'w1', light: null }] },
        { kind: 'set-content', content: { title: 'x' } },
      ],
    });
    expect(step).toMatchObject({
      edits: [{ kind: 'rename-show', title: 'Regatta' }, { content: { methods: { basics: 1 } } }],
    });
  });
  it('does nothing where it did nothing', () => {
    const removed = raised({ kind: 'set-words', slideId: '1', layerId: 'never', words: null });
    const result = applyEdit(show, removed);
    expect(result.ok && result.show).toEqual(show);
  });
});

describe('what was kept by format 2', () => {
  it('holds no length and no transition, since nobody can tell who chose them', () => {
    expect(raiseShow(written(2))).toEqual({ ...show, version: FORMAT_VERSION });
    const lengths = { kind: 'set-lengths', lengths: [{ slideId: '1', lengthMs: 900 }] };
    const edit = raiseEdit({ kind: 'together', name: 'set it', edits: [lengths] }, 2, show);
    const result = applyEdit(show, edit);
    expect(result.ok && result.show.slides[0]).toEqual({ ...show.slides[0], lengthMs: 900 });
    expect(raiseEdit({ kind: 'rename-show', title: 'x' }, 2, show)).toEqual({ kind: 'rename-show', title: 'x' });
  });
});

describe('what was kept by format 3', () => {
  const voice = { assetId: asset, offsetMs: 700, gainDb: -2 };
  const cue = { id: 'q', assetId: asset, trimStartMs: 100, gainDb: -3, fadeInMs: 0, fadeOutMs: 3000 };
  const before = {
    ...written(3),
    frame: { widthPx: 1920, heightPx: 1080, framesPerSecond: 29.97 },
    slides: written(3).slides.map((slide, index) => ({ ...slide, narration: index === 0 ? voice : null })),
    cues: [cue, { ...cue, id: 'r' }],
  };
  it('has songs that follow each other, its narration as a voice on the slide, and a rate of whole numbers', () => {
    const after = parseStoredShow(before);
    expect(after).toMatchObject({
      ok: true,
      value: {
        version: FORMAT_VERSION,
        frame: { rate: { frames: 30_000, seconds: 1001 } },
        cues: [
          { ...cue, kind: 'song', starts: { at: 'after' }, ends: { at: 'own-end' } },
          { ...cue, id: 'r', kind: 'song', starts: { at: 'after' }, ends: { at: 'own-end' } },
        ],
        slides: [
          {
            sounds: [
              { kind: 'voice', assetId: asset, starts: { at: 'here', offsetMs: 700 }, gainDb: -2, trimStartMs: 0 },
            ],
          },
          { sounds: [] },
        ],
      },
    });
  });
  it('sets, changes and takes off narrations as its edits did', () => {
    let now = show;
    const set = (narration: object | null) => {
      const result = applyEdit(now, raiseEdit({ kind: 'set-narration', slideId: '1', narration }, 3, now));
      expect(result.ok).toBe(true);
      if (result.ok) now = result.show;
      return now.slides[0]!.sounds.map((sound) => [sound.starts, sound.gainDb]);
    };
    expect(set(null)).toEqual([]);
    expect(set(voice)).toEqual([[{ at: 'here', offsetMs: 700 }, -2]]);
    expect(set({ ...voice, offsetMs: 900 })).toEqual([[{ at: 'here', offsetMs: 900 }, -2]]);
    expect(set(null)).toEqual([]);
    expect(now).toEqual(show);
  });
  it('brings slides, songs and whole contents in, also within steps, and holds nothing by a hand', () => {
    const [one] = before.slides;
    const step = {
      kind: 'together',
      name: 'all of it',
      edits: [
        { kind: 'set-content', content: { ...before, slides: [one] } },
        { kind: 'add-slides', runs: [{ afterId: null, slides: [{ ...one, id: 'new' }] }] },
        { kind: 'put-slides', slides: [{ ...one, lengthMs: 900 }] },
        { kind: 'set-cues', cues: [cue] },
        { kind: 'set-move', slideId: 'new', layerId: 'p', move: { kind: 'still' } },
        { kind: 'set-light', lights: [{ slideId: 'new', layerId: 'p', light: { sepia: 1 } }] },
        { kind: 'set-backing', slideId: 'new', backing: { kind: 'automatic' } },
        { kind: 'set-words', slideId: 'new', layerId: 'w1', words: { title: 'x', subtitle: '', place: 'top' } },
      ],
    };
    (step.edits[0] as { content: Record<string, unknown> }).content = { ...contentOf(before as never), slides: [one] };
    const result = applyEdit(show, raiseEdit(step, 3, show));
    expect(result.ok && faultOfShow(result.show)).toBeNull();
    if (!result.ok) return;
    expect(result.show.slides.map((slide) => [slide.id, slide.lengthMs, slide.sounds.length, slide.chosen])).toEqual([
      ['new', 3000, 1, undefined],
      ['1', 900, 1, undefined],
    ]);
    expect(result.show.slides[0]!.layers.map((layer) => layer.chosen)).toEqual([undefined, undefined]);
    expect(result.show.cues).toMatchObject([{ id: 'q', kind: 'song', starts: { at: 'after' } }]);
  });
});

describe('what was kept by format 11', () => {
  const dissolve = { kind: 'dissolve', lengthMs: 900 } as const;
  const words = { kind: 'words', id: 'w', title: 'x', subtitle: '', place: 'top' };
  const slides = [
    { id: '1', transition: dissolve, layers: [words] },
    { id: '2', transition: dissolve, layers: [{ kind: 'group', id: 'g', layers: [words] }] },
    { id: '3', transition: dissolve, layers: [{ kind: 'solid', id: 's' }] },
    { id: '4', transition: { kind: 'cut' }, layers: [words] },
  ];
  const over = { ...dissolve, overWords: true };
  const transitions = [over, over, dissolve, { kind: 'cut' }];

  it('has transitions that go on taking their time from words, wherever the words lie, and no others', () => {
    const content = raiseContent({ slides }, 11) as { slides: { transition: unknown }[] };
    expect(content.slides.map(({ transition }) => transition)).toEqual(transitions);
  });
  it('has them under a mount and without a plumage, too', () => {
    const dressed = { ...slides[0], mounted: { run: 'r', before: slides }, bare: { transition: dissolve } };
    const content = raiseContent({ slides: [dressed, { ...dressed, layers: [], bare: {} }] }, 11) as {
      slides: { transition: unknown; bare: unknown; mounted: { before: { transition: unknown }[] } }[];
    };
    for (const { mounted } of content.slides)
      expect(mounted.before.map(({ transition }) => transition)).toEqual(transitions);
    expect(content.slides.map(({ transition, bare }) => [transition, bare])).toEqual([
      [over, { transition: over }],
      [dissolve, {}],
    ]);
  });
  it('says so in edits that bring slides or transitions, too', () => {
    const here = { ...show, slides: slides as never };
    const entries = slides.map(({ id, transition }) => ({ slideId: id, transition }));
    const raisedFrom = (edit: object) => raiseEdit(edit, 11, here);
    const withThem = slides.map((slide, at) => ({ ...slide, transition: transitions[at] }));
    expect(raisedFrom({ kind: 'put-slides', slides })).toEqual({ kind: 'put-slides', slides: withThem });
    expect(raisedFrom({ kind: 'set-content', content: { slides } })).toEqual({
      kind: 'set-content',
      content: { slides: withThem },
    });
    expect(
      raisedFrom({
        kind: 'together',
        edits: [
          { kind: 'add-slides', runs: [{ afterId: null, slides }] },
          { kind: 'set-transitions', transitions: entries },
        ],
      }),
    ).toEqual({
      kind: 'together',
      edits: [
        { kind: 'add-slides', runs: [{ afterId: null, slides: withThem }] },
        {
          kind: 'set-transitions',
          transitions: entries.map((entry, at) => ({ ...entry, transition: transitions[at] })),
        },
      ],
    });
  });
});

describe('other formats', () => {
  it('today’s is left as it is', () => {
    const edit: ShowEdit = { kind: 'rename-show', title: 'x' };
    expect([raiseShow(show), raiseEdit(edit, FORMAT_VERSION, show)]).toEqual([show, edit]);
  });
  it('a newer one is refused kindly', () => {
    expect(() => raiseShow({ ...show, version: FORMAT_VERSION + 1 })).toThrow(NewerFormatError);
    expect(() => raiseEdit({}, FORMAT_VERSION + 1, show)).toThrow(/newer version of Tanager.*nothing of it is lost/);
  });
  it.each([[null], ['text'], [[1]], [{ title: 'no version' }]])(
    'what is none (%j) comes back for the schema to refuse',
    (input) => {
      expect(raiseShow(input)).toBe(input);
    },
  );
});
