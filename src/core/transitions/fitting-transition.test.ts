import { describe, expect, it } from '@jest/globals';
import type { PlannedMove } from '../motion/automatic-move';
import type { Framing } from '../motion/framing';
import type { AssetFacts, ClipFacts, PictureFacts } from '../show/asset-facts';
import { fittingTransition, type SeamSide } from './fitting-transition';

const framing = (x: number, y: number, width: number): Framing => ({ x, y, width, height: width, turnDegrees: 0 });
const move = (first: Framing, last: Framing): PlannedMove => ({ name: 'still', first, last });
const STILL = move(framing(0.5, 0.5, 0.9), framing(0.5, 0.5, 0.9));
const CLOSER = move(framing(0.5, 0.5, 1), framing(0.5, 0.5, 0.85));
const BACK = move(framing(0.5, 0.5, 0.85), framing(0.5, 0.5, 1));
/** What is seen goes to the left: the framing goes to the right. */
const LEFT = move(framing(0.4, 0.5, 0.8), framing(0.6, 0.5, 0.8));
const RIGHT = move(framing(0.6, 0.5, 0.8), framing(0.4, 0.5, 0.8));
const UP = move(framing(0.5, 0.4, 0.8), framing(0.5, 0.6, 0.8));
const LEFT_AND_CLOSER = move(framing(0.47, 0.5, 1), framing(0.53, 0.5, 0.7));

const picture = (more: Partial<PictureFacts> = {}): PictureFacts => ({
  kind: 'picture',
  widthPx: 3000,
  heightPx: 2000,
  hasTransparency: false,
  takenAt: '2025-06-14T18:00:00',
  camera: 'one',
  brightness: 0.45,
  ...more,
});
const clip = (takenAt: string | null): ClipFacts => ({
  kind: 'clip',
  widthPx: 1920,
  heightPx: 1080,
  lengthMs: 5000,
  hasSound: true,
  takenAt,
});
const side = (facts: AssetFacts | undefined, moves = STILL, chapter?: string): SeamSide => ({
  slide: chapter === undefined ? {} : { chapter },
  facts,
  move: moves,
});
const TWIN = '0f'.repeat(32);
const NEARLY = `${'0f'.repeat(30)}00ff`;
const OTHER = 'c3'.repeat(32);

const SUNSET = picture({ meanColour: '#b06a3c' });
const LAMPS = picture({ meanColour: '#a8703a' });
const SEA = picture({ meanColour: '#4f7fa8' });
const FOG = picture({ meanColour: '#8c9092' });

/** Twenty-six pairs, with what an editor would do. */
const PAIRS: readonly (readonly [what: string, leaving: SeamSide, coming: SeamSide, kind: string])[] = [
  ['two quiet pictures', side(picture()), side(picture()), 'dissolve'],
  ['the first of a chapter', side(picture()), side(picture(), STILL, 'The evening'), 'dip'],
  ['the first of a chapter, though both go left', side(picture(), LEFT), side(picture(), LEFT, 'On'), 'dip'],
  ['two clips of one scene', side(clip('2025-06-14T18:00:00')), side(clip('2025-06-14T18:03:00')), 'cut'],
  ['two clips that do not say when', side(clip(null)), side(clip(null)), 'cut'],
  ['two clips of two days', side(clip('2025-06-14T18:00:00')), side(clip('2025-06-16T18:00:00')), 'dip'],
  ['a clip after a picture', side(picture()), side(clip('2025-06-14T18:10:00')), 'dissolve'],
  ['two of a burst', side(picture({ likeness: TWIN })), side(picture({ likeness: NEARLY })), 'dissolve'],
  ['two views that differ', side(picture({ likeness: TWIN })), side(picture({ likeness: OTHER })), 'dissolve'],
  ['the same evening, four hours later', side(picture()), side(picture({ takenAt: '2025-06-14T22:30:00' })), 'dip'],
  ['an hour later', side(picture()), side(picture({ takenAt: '2025-06-14T19:00:00' })), 'dissolve'],
  ['both go to the left', side(picture(), LEFT), side(picture(), LEFT), 'push'],
  ['both go to the right', side(picture(), RIGHT), side(picture(), RIGHT), 'push'],
  ['both go upwards', side(picture(), UP), side(picture(), UP), 'push'],
  ['one to the left, one to the right', side(picture(), LEFT), side(picture(), RIGHT), 'dissolve'],
  ['one comes closer, the next goes back', side(picture(), CLOSER), side(picture(), BACK), 'zoom-through'],
  ['both come closer', side(picture(), CLOSER), side(picture(), CLOSER), 'dissolve'],
  ['closer above all, and a little aside', side(picture(), LEFT_AND_CLOSER), side(picture(), LEFT), 'dissolve'],
  ['from night to snow', side(picture({ brightness: 0.15 })), side(picture({ brightness: 0.8 })), 'burn'],
  ['a sunset and lamps at dusk', side(SUNSET), side(LAMPS), 'dissolve'],
  ['a sunset and the blue sea', side(SUNSET), side(SEA), 'wipe'],
  ['the blue sea and a sunset, both going left', side(SEA, LEFT), side(SUNSET, LEFT), 'push'],
  ['the blue sea and a fog without colour', side(SEA), side(FOG), 'dissolve'],
  ['a sunset and a picture of unknown colour', side(SUNSET), side(picture()), 'dissolve'],
  ['a dark sunset and a bright sea', side({ ...SUNSET, brightness: 0.2 }), side({ ...SEA, brightness: 0.7 }), 'burn'],
  ['from snow to night', side(picture({ brightness: 0.8 })), side(picture({ brightness: 0.15 })), 'dip'],
];

describe('the transition that fits', () => {
  it.each(PAIRS)('%s', (_what, leaving, coming, kind) => {
    const { transition, reason } = fittingTransition(leaving, coming);
    expect(transition.kind).toBe(kind);
    expect(reason).toMatch(/^[A-Z].+\.$/);
  });
  it('pushes the way what is seen goes, and says so', () => {
    const found = (moves: PlannedMove) => fittingTransition(side(picture(), moves), side(picture(), moves));
    expect(found(LEFT)).toMatchObject({ transition: { direction: 'left' }, reason: 'Both go to the left.' });
    expect(found(RIGHT)).toMatchObject({ transition: { direction: 'right' } });
    expect(found(UP)).toMatchObject({ transition: { direction: 'up' }, reason: 'Both go upwards.' });
  });
  it('lets one colour carry a long dissolve, and says so', () => {
    expect(fittingTransition(side(SUNSET), side(LAMPS))).toEqual({
      transition: { kind: 'dissolve', lengthMs: 1600 },
      reason: 'Both are of one colour, which carries a long dissolve.',
    });
    expect(fittingTransition(side(SEA), side(FOG)).transition).toEqual({ kind: 'dissolve', lengthMs: 1000 });
  });
  it('goes by clocks that were put right', () => {
    const late = picture({ camera: 'late', takenAt: '2025-06-14T23:00:00' });
    const clocks = { late: -5 * 3_600_000 };
    expect(fittingTransition(side(picture()), side(late)).transition.kind).toBe('dip');
    expect(fittingTransition(side(picture()), side(late), clocks).transition.kind).toBe('dissolve');
  });
  it('says how long lies between', () => {
    const after = (takenAt: string) => fittingTransition(side(picture()), side(picture({ takenAt }))).reason;
    expect(after('2025-06-14T22:00:00')).toBe('Between them lie 4 hours.');
    expect(after('2025-06-17T18:00:00')).toBe('Between them lie 3 days.');
  });
  it('knows what to do where nothing is known', () => {
    const nothing: SeamSide = { slide: {}, facts: undefined, move: undefined };
    expect(fittingTransition(nothing, nothing).transition).toEqual({ kind: 'dissolve', lengthMs: 1000 });
    expect(fittingTransition(side(picture({ takenAt: 'once' })), side(picture())).transition.kind).toBe('dissolve');
  });
});
