import { CLIP_FRAMES_PER_SECOND } from '../../frame/frame-plan';
import type { PreparedShow } from '../../frame/plan-frame';
import { seenLayers, type ClipLayer } from '../../show/layer';
import { layerIn } from '../../show/pile';
import { ownClipRate } from '../../timing/clip-rate';
import { FRAME_RATES, framesPerSecond, rateName, type FrameRate } from '../../timing/frame-rate';
import { allOf, called, slidesOf, type SlideLook } from '../helpers';
import type { SnagFix, SnagKind } from '../snag';

/** Below this, movement falls apart into pictures. */
const FEWEST = 18;
const NEAR = 0.01;
/** By so much a clip may go faster or slower than it was filmed without anybody noticing: films are shown on television four in a hundred faster. */
const UNSEEN = 0.05;

interface PlayedClip {
  readonly place: SlideLook;
  readonly layer: ClipLayer;
  readonly uneven: boolean;
  /** Films read it at its own rate. */
  readonly byOwn: boolean;
  /** Frames a second as it is played. */
  readonly rate: number;
}

/** The clips whose rate is known. */
function* clipsOf(prepared: PreparedShow): Generator<PlayedClip> {
  for (const place of slidesOf(prepared))
    for (const layer of seenLayers(place.slide.layers)) {
      const known = layer.kind === 'clip' ? prepared.facts.get(layer.assetId) : undefined;
      if (layer.kind !== 'clip' || known?.kind !== 'clip' || known.framesPerSecond === undefined) continue;
      const byOwn = ownClipRate(known) !== null;
      yield { place, layer, uneven: known.uneven === true, byOwn, rate: known.framesPerSecond * (layer.speed ?? 1) };
    }
}

/** Whether each frame of one is seen for as many frames of the other, as every other. */
function goesInto(clip: number, film: number): boolean {
  const ratio = clip >= film ? clip / film : film / clip;
  return Math.abs(ratio - Math.round(ratio)) <= NEAR * ratio;
}

/** Whether a clip moves evenly in a film of so many frames a second. */
function isEven({ rate, uneven, byOwn }: Omit<PlayedClip, 'place' | 'layer'>, film: number): boolean {
  if (rate < FEWEST || uneven) return false;
  return goesInto(rate, film) && (byOwn || goesInto(rate, CLIP_FRAMES_PER_SECOND));
}

/**
 * The rates at which more of a show's clips move evenly than at its own, the best first; of those that are as good, the one nearest to the clips'.
 */
export function betterRates(prepared: PreparedShow): readonly FrameRate[] {
  const clips = [...clipsOf(prepared)];
  const even = (film: number) => clips.filter((clip) => isEven(clip, film)).length;
  const now = even(framesPerSecond(prepared.show.frame.rate));
  const away = (film: number) =>
    clips.reduce((sum, { rate }) => sum + Math.abs(Math.log(film / rate)), 0) / Math.max(1, clips.length);
  return Object.values(FRAME_RATES)
    .map((rate) => ({ rate, each: framesPerSecond(rate) }))
    .filter(({ each }) => even(each) > now)
    .sort((a, b) => even(b.each) - even(a.each) || away(a.each) - away(b.each))
    .map(({ rate }) => rate);
}

export const stutteringClip: SnagKind = {
  title: 'Clips that stutter',
  advice:
    'Choose in Send as many frames a second as most of your clips have, or bring this one at as many as the film has.',
  place: 'gather',
  *find(look) {
    const film = framesPerSecond(look.prepared.show.frame.rate);
    for (const clip of clipsOf(look.prepared)) {
      if (isEven(clip, film)) continue;
      const { place, layer, rate, uneven } = clip;
      yield {
        grave: false,
        slideId: place.slide.id,
        layerId: layer.id,
        assetId: layer.assetId,
        of: layer.id,
        ...allOf(place),
        sentence:
          rate < FEWEST
            ? `${called(look, layer.assetId)} shows only ${rate.toFixed(0)} pictures a second.`
            : uneven
              ? `The frames of ${called(look, layer.assetId)} come unevenly, about ${rate.toFixed(0)} a second.`
              : `${called(look, layer.assetId)} has ${rounded(rate)} frames a second, which do not go evenly into the film’s ${rounded(film)}.`,
      };
    }
  },
  fixes({ prepared }, { slideId, layerId }) {
    const slide = prepared.show.slides.find(({ id }) => id === slideId);
    const layer = slide && layerId ? layerIn(slide.layers, layerId) : null;
    const known = layer?.kind === 'clip' ? prepared.facts.get(layer.assetId) : undefined;
    if (!slide || layer?.kind !== 'clip' || known?.kind !== 'clip' || known.framesPerSecond === undefined) return [];
    const own = known.framesPerSecond;
    const rates = betterRates(prepared).map((rate): SnagFix => ({
      name: `Make the show ${rateName(rate)} frames a second`,
      edit: { kind: 'set-rate', rate },
    }));
    const played = (name: string, speed: number): SnagFix => ({
      name,
      edit: {
        kind: 'put-layer',
        slideId: slide.id,
        layer: speed === 1 ? withoutSpeed(layer) : { ...layer, speed },
      },
    });
    const speed = evenSpeed(own, framesPerSecond(prepared.show.frame.rate));
    return [
      ...(layer.speed === undefined ? [] : [played('Play it as fast as it was filmed', 1)]),
      ...(speed === null ? [] : [played(`Play it at ${Math.round(1000 * speed) / 10} % of its speed`, speed)]),
      ...rates.slice(0, 2),
    ];
  },
};

/** The speed next to the clip's own at which its frames go evenly into the film's; null when that is too far away. */
function evenSpeed(own: number, film: number): number | null {
  const times = own >= film ? Math.round(own / film) : 1 / Math.round(film / own);
  const speed = Math.round((10_000 * film * times) / own) / 10_000;
  return speed !== 1 && Math.abs(speed - 1) <= UNSEEN ? speed : null;
}

function withoutSpeed({ speed: _speed, ...layer }: ClipLayer): ClipLayer {
  return layer;
}

const rounded = (rate: number) => String(Math.round(100 * rate) / 100);
