import { describe, expect, it } from '@jest/globals';
import { prepareShow } from '../../frame/plan-frame';
import type { AssetFacts, ClipFacts } from '../../show/asset-facts';
import { applyEdit } from '../../show/edit';
import { assetId, layerId, showId, type AssetId } from '../../show/ids';
import type { ClipLayer } from '../../show/layer';
import { blankSlide } from '../../show/new-slide';
import { emptyShow, type Show } from '../../show/show';
import { FRAME_RATES, rateName } from '../../timing/frame-rate';
import { fixesOf, lookAfter, lookOver } from '../look-over';
import type { SnagLook } from '../snag';
import { betterRates } from './stuttering-clip';

interface Played {
  /** Frames a second as it was filmed. */
  readonly filmed: number;
  readonly uneven?: true;
  readonly speed?: number;
}

const idOf = (index: number): AssetId => assetId(String(index % 10).repeat(64));

/** A show of so many frames a second, a clip on each slide. */
function lookAt(rate: string, clips: readonly Played[]): SnagLook {
  const slides = clips.map(({ speed }, index) => ({
    ...blankSlide(4000, '#000000', () => `s${index}`),
    layers: [
      {
        ...{ kind: 'clip', id: layerId(`c${index}`), assetId: idOf(index), trimStartMs: 0, soundGainDb: 0 },
        ...(speed !== undefined && { speed }),
      } as ClipLayer,
    ],
  }));
  const empty = emptyShow(showId('x'), 'Clips');
  const show: Show = { ...empty, slides, frame: { ...empty.frame, rate: FRAME_RATES[rate]! } };
  const facts = new Map(
    clips.map(({ filmed, uneven }, index): [AssetId, AssetFacts] => {
      const clip: ClipFacts = {
        ...{ kind: 'clip', widthPx: 1920, heightPx: 1080, lengthMs: 9000, hasSound: false, takenAt: null },
        framesPerSecond: filmed,
        ...(uneven && { uneven }),
      };
      return [idOf(index), clip];
    }),
  );
  const files = new Map(
    [...facts.keys()].map((id) => [id, { name: `${id[0]}.mp4`, state: 'ready', madeHere: false } as const]),
  );
  return { prepared: prepareShow(show, facts), files, seen: new Map(), films: [], now: '2026-11-29T12:00:00' };
}
const stutters = (look: SnagLook) => lookOver(look, ['stuttering-clip']);
const offered = (look: SnagLook) => fixesOf(look, stutters(look)[0]!).map(({ name }) => name);

describe('clips that stutter', () => {
  it.each([
    ['30', 30],
    ['30', 60],
    ['30', 29.97],
    ['60', 30],
    ['24', 24],
    ['24', 23.976],
    ['24', 48],
    ['25', 50],
    ['29.97', 59.94],
    ['60', 20],
  ])('are none in a film of %s a second filmed at %d', (rate, filmed) => {
    expect(stutters(lookAt(rate, [{ filmed }]))).toEqual([]);
  });
  it.each([
    ['30', 25, /25 frames a second, which do not go evenly into the film’s 30\.$/],
    ['25', 30, /30 frames a second, which do not go evenly into the film’s 25\.$/],
    ['30', 24, /24 frames a second/],
    ['60', 25, /25 frames a second/],
    ['30', 12, /shows only 12 pictures a second\.$/],
  ])('are told in a film of %s a second filmed at %d', (rate, filmed, sentence) => {
    const [snag, ...more] = stutters(lookAt(rate, [{ filmed }]));
    expect([snag!.sentence, more]).toEqual([expect.stringMatching(sentence), []]);
  });
  it('are told where frames come unevenly, and where one is played so slowly that it falls apart', () => {
    expect(stutters(lookAt('30', [{ filmed: 30, uneven: true }]))[0]!.sentence).toMatch(/come unevenly/);
    expect(stutters(lookAt('30', [{ filmed: 30, speed: 0.25 }]))[0]!.sentence).toMatch(/only 8 pictures/);
  });
});

describe('the rate that suits the clips of a show', () => {
  const names = (rate: string, clips: readonly Played[]) => betterRates(lookAt(rate, clips).prepared).map(rateName);
  it('is theirs, or nearest to theirs of those that hold it evenly', () => {
    expect(names('30', [{ filmed: 24 }])[0]).toBe('24');
    expect(names('30', [{ filmed: 25 }]).slice(0, 2)).toEqual(['25', '50']);
  });
  it('is that of most of them', () => {
    expect(names('30', [{ filmed: 25 }, { filmed: 25 }, { filmed: 24 }])[0]).toBe('25');
  });
  it('is none where no other would be better', () => {
    expect(names('30', [{ filmed: 30 }, { filmed: 60 }])).toEqual([]);
    expect(names('30', [{ filmed: 30, uneven: true }])).toEqual([]);
    expect(names('30', [{ filmed: 25 }, { filmed: 30 }])).toEqual([]);
    expect(names('30', [])).toEqual([]);
  });
});

describe('the ways out for a clip that stutters', () => {
  it.each([
    ['30', { filmed: 25 }, ['Make the show 25 frames a second', 'Make the show 50 frames a second']],
    [
      '24',
      { filmed: 25 },
      ['Play it at 96 % of its speed', 'Make the show 25 frames a second', 'Make the show 50 frames a second'],
    ],
    [
      '25',
      { filmed: 24 },
      ['Play it at 104.2 % of its speed', 'Make the show 24 frames a second', 'Make the show 23.976 frames a second'],
    ],
    ['30', { filmed: 60, speed: 0.25 }, ['Play it as fast as it was filmed']],
    ['30', { filmed: 30, uneven: true }, []],
    ['30', { filmed: 12 }, []],
  ] as const)('in a film of %s a second, played as %p, are %p', (rate, played, names) => {
    expect(offered(lookAt(rate, [played]))).toEqual(names);
  });
  it('lead out of it, leave the other clips as they were, and can be undone', () => {
    const look = lookAt('24', [{ filmed: 24 }, { filmed: 25 }]);
    const fixes = fixesOf(look, stutters(look)[0]!);
    expect(fixes.map(({ name }) => name)).toEqual(['Play it at 96 % of its speed']);
    for (const { edit } of fixes) {
      expect(stutters(lookAfter(look, edit)!)).toEqual([]);
      const result = applyEdit(look.prepared.show, edit);
      if (!result.ok) throw new Error(result.sentence);
      expect(result.show.slides[0]).toBe(look.prepared.show.slides[0]);
      const back = applyEdit(result.show, result.inverse);
      expect(back.ok && back.show).toEqual(look.prepared.show);
    }
  });
});
