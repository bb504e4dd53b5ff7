import { describe, expect, it } from '@jest/globals';
import { applyEdit, type ShowEdit } from '../edit';
import { assetId, layerId, showId, slideId } from '../ids';
import { emptyShow, type Show } from '../show';
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
    narration: null,
    layers: [
      { kind: 'picture', id: layerId('p'), assetId: asset, move: { kind: 'automatic' } },
      { kind: 'words', id: layerId(`w${id}`), title: '', subtitle: '', place: 'top' },
    ],
  })),
};
const raised = (edit: object) => raiseEdit(edit, 1, show);

describe('what was kept by format 1', () => {
  it('is a show of today’s format: its methods are said, an empty list of marks and what cannot be written are gone', () => {
    const { methods: _methods, ...before } = { ...show, version: 1, title: 'Re\u0000gatta', marks: {} };
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
    expect(edit).toEqual({ kind, [list]: ['1', '2'].map((slide) => ({ slideId: slide, layerId: 'p', ...part })) });
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
    const old = { ...show, version: 2 };
    expect(raiseShow(old)).toEqual({ ...show, version: FORMAT_VERSION });
    const lengths = { kind: 'set-lengths', lengths: [{ slideId: '1', lengthMs: 900 }] };
    const edit = raiseEdit({ kind: 'together', name: 'set it', edits: [lengths] }, 2, show);
    const result = applyEdit(show, edit);
    expect(result.ok && result.show.slides[0]).toEqual({ ...show.slides[0], lengthMs: 900 });
    expect(raiseEdit({ kind: 'rename-show', title: 'x' }, 2, show)).toEqual({ kind: 'rename-show', title: 'x' });
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
