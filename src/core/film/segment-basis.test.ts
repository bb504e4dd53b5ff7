import { describe, expect, it } from '@jest/globals';
import { planFrame, prepareShow, type PreparedShow } from '../frame/plan-frame';
import type { AssetFacts } from '../show/asset-facts';
import { assetId, layerId, showId, type AssetId } from '../show/ids';
import { slideFromAsset } from '../show/new-slide';
import { applyEdit, type ShowEdit } from '../show/edit';
import { emptyShow, type Show } from '../show/show';
import { momentOfFrame } from '../timing/frames';
import { planFilm } from './plan-film';
import { basisOfFramesAfter, segmentBasis } from './segment-basis';

const PICTURES = ['a', 'b', 'c', 'd', 'e', 'f', 'g', 'h'].map((letter) =>
  assetId(letter.repeat(64).replace(/[g-z]/g, '1')),
);
const facts = new Map<AssetId, AssetFacts>(
  PICTURES.map((id, index) => [
    id,
    {
      kind: 'picture',
      widthPx: 3000 + index,
      heightPx: 2000,
      hasTransparency: false,
      takenAt: null,
      camera: null,
      brightness: 0.5,
    },
  ]),
);
let counted = 0;
const show: Show = {
  ...emptyShow(showId('s'), 'Boats'),
  slides: PICTURES.map((id) => slideFromAsset(id, facts.get(id)!, 5000, () => `n${(counted += 1)}`)),
};
const FRAME = { widthPx: 640, heightPx: 360 };
/** Words that are there from the first frame on. */
const AT_ONCE = { entrance: { way: 'none', by: 'all', atMs: 0, lengthMs: 0 }, exit: null } as const;
const bases = (prepared: PreparedShow) =>
  planFilm(prepared).segments.map((segment) => segmentBasis(prepared, segment, FRAME));
const basesOf = (of: Show) => bases(prepareShow(of, facts));
const edited = (of: Show, edit: ShowEdit): Show => {
  const result = applyEdit(of, edit);
  if (!result.ok) throw new Error(JSON.stringify(result));
  return result.show;
};
const made = (before: readonly string[], after: readonly string[]) =>
  after.filter((basis) => !before.includes(basis)).length;

describe('what a segment depends on', () => {
  const before = basesOf(show);
  const [first, second, third] = show.slides as [
    Show['slides'][number],
    Show['slides'][number],
    Show['slides'][number],
  ];

  it('is one for each slide of some seconds here', () => expect(new Set(before).size).toBe(8));
  it('is the same wherever a slide stands: moving one makes itself, the one after it, the one after where it was, and one that would repeat its new neighbour anew', () => {
    const after = basesOf(
      edited(show, { kind: 'move-slides', runs: [{ slideIds: [third.id], afterId: show.slides[5]!.id }] }),
    );
    expect(made(before, after)).toBeLessThanOrEqual(4);
  });
  it('changes with a title in its own segment and in the one that it leaves under', () => {
    const after = basesOf(
      edited(show, {
        kind: 'set-words',
        slideId: second.id,
        layerId: layerId('w'),
        words: { title: 'Port', subtitle: '', place: 'bottom-left' },
      }),
    );
    expect(made(before, after)).toBe(2);
  });
  it('is of the frames after it, for what looks at them, only what is seen in those', () => {
    const prepared = prepareShow(show, facts);
    const after = (of: PreparedShow) =>
      planFilm(of).segments.map((segment) => basisOfFramesAfter(of, segment, 5, FRAME));
    const titled = (appears: boolean) =>
      prepareShow(
        edited(show, {
          kind: 'set-words',
          slideId: second.id,
          layerId: layerId('w'),
          words: { title: 'Port', subtitle: '', place: 'bottom-left', ...(appears && { come: AT_ONCE }) },
        }),
        facts,
      );
    const changed = (of: PreparedShow) =>
      after(of).flatMap((basis, index) => (basis === after(prepared)[index] ? [] : [index]));
    // Of the second slide, after its own segment, where it leaves; and after the first one's where its words are there at once.
    expect(changed(titled(false))).toEqual([1]);
    expect(changed(titled(true))).toEqual([0, 1]);
    expect(after(prepared).at(-1)).toBe('[]');
    expect(JSON.parse(after(prepared)[0]!)).toHaveLength(5);
  });
  it('does not change with what is only heard, read or remembered', () => {
    const edits: ShowEdit[] = [
      { kind: 'set-scripts', scripts: [{ slideId: first.id, script: 'We set out at dusk.' }] },
      { kind: 'set-chapters', chapters: [{ slideId: first.id, name: 'Dusk' }] },
      { kind: 'rename-show', title: 'Other boats' },
    ];
    expect(basesOf(edits.reduce(edited, show))).toEqual(before);
  });
  it('does not change with how a picture is framed in another shape', () => {
    const layer = first.layers[0]!;
    const corrected = edited(show, {
      kind: 'set-shape',
      corrections: [{ slideId: first.id, layerId: layer.id, shape: '9:16', correction: { move: { kind: 'still' } } }],
    });
    expect(basesOf(corrected)).toEqual(before);
  });
  it('says of equal segments that their frames are equal, and of moved ones too', () => {
    const prepared = prepareShow(show, facts);
    const swapped = prepareShow(
      edited(show, { kind: 'move-slides', runs: [{ slideIds: [third.id], afterId: null }] }),
      facts,
    );
    const known = new Map(
      planFilm(prepared).segments.map((segment) => [segmentBasis(prepared, segment, FRAME), segment]),
    );
    let compared = 0;
    for (const segment of planFilm(swapped).segments) {
      const same = known.get(segmentBasis(swapped, segment, FRAME));
      if (!same) continue;
      for (const offset of [0, 7, 31, 149]) {
        const rounded = (plan: unknown) =>
          JSON.stringify(plan, (_key, value: unknown) =>
            typeof value === 'number' ? Number(value.toPrecision(9)) : value,
          );
        const at = (of: PreparedShow, frame: number) =>
          rounded(planFrame(of, momentOfFrame(frame, show.frame.rate), FRAME));
        expect(at(swapped, segment.firstFrame + offset)).toBe(at(prepared, same.firstFrame + offset));
        compared += 1;
      }
    }
    expect(compared).toBeGreaterThan(15);
  });
});
