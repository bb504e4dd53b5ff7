import { describe, expect, it } from '@jest/globals';
import { songAfter, voiceHere } from '../../core/show/placed-sound';
import { cueId, assetId, layerId, showId, slideId } from '../../core/show/ids';
import { FORMAT_VERSION } from '../../core/show/format/version';
import { emptyShow, type Show } from '../../core/show/show';
import { EDIT } from '../../core/show/edits/edit-records';
import { parse } from './parse';
import { parseShow, parseShowFile } from './show-schema';

const asset = assetId('a'.repeat(64));
const framing = { x: 0.5, y: 0.5, width: 1, height: 1, turnDegrees: 0 };
const show: Show = {
  ...emptyShow(showId('regatta'), 'Regatta'),
  slides: [
    {
      id: slideId('a'),
      lengthMs: 5000,
      transition: { kind: 'dissolve', lengthMs: 1000 },
      backing: { kind: 'colour', colour: '#102030' },
      sounds: [voiceHere(cueId('v'), asset, 200)],
      layers: [
        {
          kind: 'picture',
          id: layerId('p'),
          assetId: asset,
          move: { kind: 'set', first: framing, last: { ...framing, width: 0.5, height: 0.5 } },
        },
        { kind: 'clip', id: layerId('c'), assetId: asset, trimStartMs: 0, soundGainDb: 0 },
        { kind: 'words', id: layerId('w'), title: '', subtitle: 'at dusk', place: 'top' },
      ],
    },
  ],
  cues: [songAfter(cueId('q'), asset, 3000)],
};

/** The show with one part changed, by a path such as `slides.0.lengthMs`. */
function changed(path: string, value: unknown): unknown {
  const copy = structuredClone(show) as unknown as Record<string, unknown>;
  const names = path.split('.');
  const last = names.pop()!;
  let at = copy;
  for (const name of names) at = at[name] as Record<string, unknown>;
  at[last] = value;
  return copy;
}

describe('parseShow', () => {
  it('takes a show and gives it back as it is', () => {
    expect(parseShow(structuredClone(show))).toEqual({ ok: true, value: show });
  });
  it.each<[string, unknown]>([
    ['format', 'something-else'],
    ['version', 1],
    ['version', 2],
    ['version', 3],
    ['version', FORMAT_VERSION + 1],
    ['title', 7],
    ['title', 'x'.repeat(301)],
    ['extra', 1],
    ['frame.widthPx', 0],
    ['frame.rate', Number.NaN],
    ['frame.heightPx', Infinity],
    ['slides', null],
    ['slides', 'many'],
    ['slides.0', null],
    ['slides.0.id', '../../etc'],
    ['slides.0.lengthMs', -1],
    ['slides.0.lengthMs', '5000'],
    ['slides.0.lengthMs', 1.5],
    ['slides.0.lengthMs', Number.NaN],
    ['slides.0.transition', { kind: 'explode' }],
    ['slides.0.transition', { kind: 'constructor' }],
    ['slides.0.transition', null],
    ['slides.0.transition.lengthMs', -5],
    ['slides.0.backing.colour', 'url(x)'],
    ['slides.0.layers.0.assetId', 'abc'],
    ['slides.0.layers.0.assetId', 'A'.repeat(64)],
    ['slides.0.layers.0.move', { kind: 'set', first: framing }],
    ['slides.0.layers.0.move.first.width', 0],
    ['slides.0.layers.0.crop', { ...framing, x: 2 }],
    ['slides.0.layers.0.crop', { ...framing, height: 0 }],
    ['slides.0.layers.0.crop', { x: 0.5 }],
    ['slides.0.layers.1.crop', { ...framing, x: 2 }],
    ['slides.0.layers.1.back', { assetId: asset }],
    ['slides.0.layers.1.move', { kind: 'automatic' }],
    ['slides.0.layers.1.after', 'once'],
    [
      'slides.0.layers.1.freezes',
      [
        { atMs: 900, lengthMs: 500 },
        { atMs: 300, lengthMs: 500 },
      ],
    ],
    ['slides.0.layers.1.freezes', [{ atMs: 900, lengthMs: 20 }]],
    ['slides.0.layers.0.move.first.x', Number.NaN],
    ['slides.0.layers.2.title', undefined],
    ['slides.0.layers.2.title', 'x'.repeat(2001)],
    ['slides.0.layers.2.place', 'everywhere'],
    ['slides.0.layers.2.title', 'cut \u0000 off'],
    ['slides.0.layers.2.name', 'half \ud83d'],
    ['title', 'rings \u0007'],
    ['frame.widthPx', 7680 * 4],
    ['frame.heightPx', 16],
    ['marks', {}],
    ['cues', [show.cues[0], show.cues[0]]],
    ['slides.0.layers', Array.from({ length: 10_000 }, () => show.slides[0]!.layers[0])],
    ['slides.0.sounds', undefined],
    ['slides.0.sounds.0.starts', { at: 'after' }],
    ['slides.0.sounds.0.starts.offsetMs', -1],
    ['slides.0.sounds.0.ends', { at: 'slide', slideId: 'gone', offsetMs: 0 }],
    ['cues.0.starts', { at: 'here', offsetMs: 0 }],
    ['cues.0.starts', { at: 'slide', slideId: 'gone', offsetMs: 0 }],
    ['cues.0.kind', 'noise'],
    ['frame.rate', { frames: 30000, seconds: 100 }],
    ['frame.rate', { frames: 29.97, seconds: 1 }],
    ['slides.0.layers.0.shapes', { '9:16': { place: 'top' } }],
    ['slides.0.layers.0.shapes', { tall: {} }],
    ['slides.0.layers.2.shapes', { '9:16': { move: { kind: 'still' } } }],
    ['cues.0.gainDb', 1000],
    ['cues', {}],
  ])('refuses %s = %j with a sentence', (path, value) => {
    const parsed = parseShow(changed(path, value));
    expect(parsed).toMatchObject({ ok: false, problem: expect.stringMatching(/.{8,}/) });
  });
  it.each([[null], [undefined], ['text'], [[]], [42]])('refuses %j as a whole', (input) => {
    expect(parseShow(input).ok).toBe(false);
  });
  it('refuses two slides with one id', () => {
    expect(parseShow({ ...show, slides: [show.slides[0], show.slides[0]] })).toEqual({
      ok: false,
      problem: 'two slides have the same id',
    });
  });
  it('wants the files named in a saved show', () => {
    expect(parseShowFile({ ...show, files: { [asset]: 'a.jpg' } }).ok).toBe(true);
    for (const files of [undefined, null, { nope: 'a.jpg' }, { [asset]: 7 }, { [asset]: '' }])
      expect(parseShowFile({ ...show, files }).ok).toBe(false);
  });
});

describe('the schema of edits', () => {
  it.each<unknown>([
    { kind: 'add-slides', runs: [{ afterId: null, slides: show.slides }] },
    { kind: 'remove-slides', slideIds: ['a'] },
    { kind: 'move-slides', runs: [{ afterId: 'b', slideIds: ['a'] }] },
    { kind: 'set-words', slideId: 'a', layerId: 'w', words: null },
    { kind: 'set-cues', cues: [] },
    { kind: 'remove-sounds', slideId: 'a', soundIds: ['v'] },
    { kind: 'rename-show', title: 'x' },
  ])('takes %j', (edit) => {
    expect(parse(EDIT, edit)).toEqual({ ok: true, value: edit });
  });
  it.each<unknown>([
    null,
    {},
    { kind: 'toString' },
    { kind: 'remove-slides' },
    { kind: 'remove-slides', slideIds: [] },
    { kind: 'remove-slides', slideIds: ['a'], more: 1 },
    { kind: 'set-default-length', lengthMs: Infinity },
    { kind: 'rename-show', title: '' },
    { kind: 'add-slides', runs: [{ slides: show.slides }] },
    { kind: 'set-move', slideId: 'a', layerId: 'w', move: {} },
  ])('refuses %j', (edit) => {
    expect(parse(EDIT, edit).ok).toBe(false);
  });
});
