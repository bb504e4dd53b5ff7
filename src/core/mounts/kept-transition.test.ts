import { describe, expect, it } from '@jest/globals';
import { layerId } from '../show/ids';
import { faultOfShow } from '../show/faults';
import { assetIdsOfSlides, type Show, type Slide } from '../show/show';
import { withFileSwapped } from '../show/swap-file';
import type { TransitionOverTime } from '../show/transition';
import { COMING, LEAVING } from '../show/window-id';
import { builtFrom, isAsKept, keptTransition, transitionDocument } from './kept-transition';
import { faultOfMount, filesOfMount } from './mount-document';
import { asset, showOf } from './mounts.testing';

const FRAME = showOf(1).frame;
const about = { name: 'Ours', author: '', shelf: 'Our own' };
/** Two pictures and a frill over them. */
const slide: Slide = {
  ...showOf(1).slides[0]!,
  backing: { kind: 'colour', colour: '#203040' },
  layers: [
    {
      kind: 'picture',
      id: layerId('a'),
      assetId: asset(0),
      move: { kind: 'automatic' },
      crop: { x: 0.5, y: 0.5, width: 0.5, height: 0.5, turnDegrees: 0 },
    },
    { kind: 'clip', id: layerId('b'), assetId: asset(1), trimStartMs: 100, soundGainDb: 0, channels: { width: 0.5 } },
    { kind: 'drawing', id: layerId('c'), assetId: asset(2) },
  ],
};
const built = () => {
  const made = builtFrom(slide, asset(0), asset(1), 'Ours');
  if (typeof made === 'string') throw new Error(made);
  return made;
};
const withTransition = (transition: TransitionOverTime): Show => {
  const show = showOf(2);
  return { ...show, slides: [show.slides[0]!, { ...show.slides[1]!, transition }] };
};

describe('a transition of one’s own', () => {
  it('is made of a slide: two of its pictures stand for the slides, whole and still, the rest goes along', () => {
    const transition = built();
    expect(transition).toMatchObject({ kind: 'built', name: 'Ours', ofMs: 5000, colour: '#203040' });
    expect(transition.layers).toEqual([
      { kind: 'picture', id: 'a', assetId: LEAVING, move: { kind: 'still' } },
      { kind: 'picture', id: 'b', assetId: COMING, move: { kind: 'still' }, channels: { width: 0.5 } },
      slide.layers[2],
    ]);
    expect(faultOfShow(withTransition(transition))).toBeNull();
  });
  it('needs two different pictures of the slide', () => {
    expect(builtFrom(slide, asset(0), asset(0), '')).toMatch(/two pictures/);
    expect(builtFrom(slide, asset(0), asset(9), '')).toMatch(/two pictures/);
  });
  it('brings the files along that it is made of, and no windows', () => {
    const show = withTransition(built());
    expect(assetIdsOfSlides(show.slides)).toEqual([asset(0), asset(1), asset(2)]);
    expect(assetIdsOfSlides(withFileSwapped(show, asset(2), asset(7)).slides)).toEqual([asset(0), asset(1), asset(7)]);
    const document = transitionDocument(about, built(), FRAME, new Map([[asset(2), 'frill.svg']]));
    expect([filesOfMount(document), document.files, faultOfMount(document)]).toEqual([
      [asset(2)],
      { [asset(2)]: 'frill.svg' },
      null,
    ]);
  });
  it('is told from what it was changed to, but not by its length', () => {
    const document = transitionDocument(
      about,
      { kind: 'wipe', lengthMs: 700, direction: 'up', softness: 0.3 },
      FRAME,
      new Map(),
    );
    const kept = keptTransition('k1', document)!;
    expect(kept).toMatchObject({ id: 'k1', name: 'Ours', transition: { kind: 'wipe', kept: 'k1' } });
    expect(isAsKept({ ...kept.transition, lengthMs: 2000 }, kept)).toBe(true);
    expect(isAsKept({ ...kept.transition, softness: 0.9 } as TransitionOverTime, kept)).toBe(false);
    expect(keptTransition('k2', { ...document, holds: undefined } as never)).toBeNull();
    expect(
      faultOfMount({
        ...document,
        fits: [{ ...document.fits[0]!, slides: [{ ...document.fits[0]!.slides[0]!, transition: { kind: 'cut' } }] }],
      }),
    ).toMatch(/no transition/);
  });
});
