import { describe, expect, it } from '@jest/globals';
import fc from 'fast-check';
import { lanterns, LANTERN_SHAPES, USUAL_LANTERNS } from '../builds/lanterns';
import { loupe, USUAL_LOUPE } from '../builds/loupe';
import { turnover, USUAL_TURNOVER } from '../builds/turnover';
import { fingerprint } from '../fingerprint.testing';
import { aroundOf, ASSETS, FACTS as PLAIN_FACTS, picture, showOf as showOfPiles } from '../layers/slides.testing';
import { groundOf, withMount } from '../mounts/lay-mount';
import { counter, FACTS, given, LOGO, showOf } from '../mounts/mounts.testing';
import { SHIPPED_MOUNTS } from '../mounts/shipped/shipped-mounts';
import { planMix } from '../sound/plan-mix';
import type { AssetFacts, FactsById } from '../show/asset-facts';
import { A, afterStorm, anyEdit, B } from '../show/dealt-edits.testing';
import { layerId } from '../show/ids';
import type { Layer } from '../show/layer';
import { inShape } from '../show/shape';
import type { Show } from '../show/show';
import { sightsAt } from './layer-sight';
import { planFrame, prepareShow, surroundingsOf } from './plan-frame';
import { sidesOfSeam } from './seam-sides';

// A film ordered again, or made further after a newer version was put in, must be the film it was: what a frame is planned to show may change only on purpose.
// Where it is meant to, the snapshots are written anew and the change is seen in them.

const MOMENTS = 9;

/** Everything that decides what a show looks and sounds like. */
function printOf(show: Show, facts: FactsById): string {
  const ready = prepareShow(show, facts);
  const moments = Array.from({ length: MOMENTS }, (_, at) => ((at + 0.37) / MOMENTS) * ready.lengthMs);
  const frame = { widthPx: (480 * show.frame.widthPx) / show.frame.heightPx, heightPx: 480 };
  const last = show.slides.length - 1;
  return fingerprint([
    ready.spans,
    ready.seenFromMs,
    moments.map((moment) => planFrame(ready, moment, frame)),
    show.slides.map(({ id }) => {
      const sides = sidesOfSeam(ready, id);
      return sides && [sides.leaving.move, sides.coming.move];
    }),
    last < 0 ? null : sightsAt(surroundingsOf(ready, last, frame), 700),
    planMix(show, facts),
  ]);
}

describe('a shipped mount is seen as it was', () => {
  it.each(SHIPPED_MOUNTS.map((mount) => [mount.id, mount] as const))('%s', (_id, mount) => {
    const prints = ['16:9', '9:16'].map((shape) => {
      const before = showOf(6, shape);
      const ground = groundOf(
        before,
        before.slides.slice(1, 5).map(({ id }) => id),
        counter('g'),
      );
      const laid = withMount(ground, given({ mount }));
      if (!laid.ok) throw new Error(laid.sentence);
      const watermark = { assetId: LOGO, place: 'top-right', size: 0.2, opacity: 0.7 } as const;
      return printOf({ ...laid.show, watermark }, FACTS);
    });
    expect(prints).toMatchSnapshot();
  });
});

describe('a build is seen as it was', () => {
  const seen = (...layers: Layer[]) => {
    const show = showOfPiles([picture('p0', { move: { kind: 'automatic' } })], layers);
    return ['16:9', '1:1', '9:16'].map((shape) => printOf(inShape(show, shape), PLAIN_FACTS));
  };
  it('a loupe', () => {
    const base = picture('p', { move: { kind: 'automatic' } });
    const places = [
      { x: 0.3, y: 0.4 },
      { x: 0.7, y: 0.6 },
    ];
    const made = loupe(aroundOf(showOfPiles([base])), base, { ...USUAL_LOUPE, places }, layerId('l'));
    expect(seen(base, made)).toMatchSnapshot();
  });
  it.each(['upright', 'level'] as const)('a turnover about its %s line', (axis) => {
    const front = picture('p', { channels: { width: 0.6 } });
    expect(seen(turnover(front, { ...USUAL_TURNOVER, axis, back: ASSETS[1]! }))).toMatchSnapshot();
  });
  it.each(LANTERN_SHAPES)('lanterns that gather to a %s', (shape) => {
    const pictures = Array.from({ length: 12 }, (_, at) => ASSETS[at % ASSETS.length]!);
    const frame = { widthPx: 1920, heightPx: 1080 };
    expect(seen(lanterns({ ...USUAL_LANTERNS, shape, pictures }, frame, layerId('l')))).toMatchSnapshot();
  });
});

const LISTENING = (lengthMs: number) => ({
  loudness: {
    integratedLufs: -19.5,
    truePeakDb: -2,
    curve: Array.from({ length: lengthMs / 500 }, (_, at) => -150 - 40 * (at % 3)),
  },
  heardFromMs: 200,
  heardToMs: lengthMs - 300,
  beats: {
    tempoBpm: 120,
    beatsMs: Array.from({ length: lengthMs / 500 }, (_, at) => 250 + 500 * at),
    beatsABar: 4,
    firsts: Array.from({ length: lengthMs / 2000 }, (_, at) => 4 * at),
    confidence: 0.9,
  },
  sections: [],
  energy: [],
  accentsMs: [],
});
const PICTURE: AssetFacts = {
  kind: 'picture',
  widthPx: 2400,
  heightPx: 3100,
  hasTransparency: false,
  takenAt: '2025-06-12T18:04:00',
  camera: 'Orrery F2',
  brightness: 0.4,
  tonePoints: { black: 0.06, white: 0.9 },
  focus: {
    faces: [{ left: 0.3, top: 0.2, width: 0.2, height: 0.16, score: 0.9, sharpness: 0.5 }],
    subjects: [],
    salient: { left: 0.2, top: 0.2, width: 0.5, height: 0.6 },
    sharpness: 0.6,
    tilt: 1.5,
  },
};
const CLIP: AssetFacts = {
  kind: 'clip',
  widthPx: 1920,
  heightPx: 1080,
  lengthMs: 8000,
  hasSound: true,
  takenAt: null,
  framesPerSecond: 24,
  listening: LISTENING(8000),
};
const SOUND: AssetFacts = { kind: 'sound', lengthMs: 42_000, title: null, artist: null, listening: LISTENING(42_000) };
/** What the two files of dealt shows may be. */
const FILES: readonly (readonly [string, AssetFacts, AssetFacts])[] = [
  ['a picture and a song', PICTURE, SOUND],
  ['a clip and a song', CLIP, SOUND],
  ['a picture and a clip', PICTURE, CLIP],
];

describe('shows that many hands were on look and sound as they did', () => {
  it.each(FILES)('of %s', (_name, a, b) => {
    const facts: FactsById = new Map([
      [A, a],
      [B, b],
    ]);
    const storms = fc.sample(fc.array(anyEdit, { minLength: 6, maxLength: 14 }), { seed: 2, numRuns: 60 });
    const prints = storms.map((storm) => {
      const show = afterStorm(storm);
      return printOf(show, facts);
    });
    expect(prints).toMatchSnapshot();
  });
});
