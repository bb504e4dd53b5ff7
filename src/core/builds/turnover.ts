import type { Channel, Key } from '../keys/channel';
import type { AssetId } from '../show/ids';
import type { PictureLayer } from '../show/layer';

/** A picture that turns about an axis and shows another on its back. */
export interface TurnoverPlan {
  readonly back: AssetId;
  /** `upright`: about its upright middle line, like a page in a stand; `level`: about its level one, like a tilting sign. */
  readonly axis: 'upright' | 'level';
  readonly beginMs: number;
  readonly lengthMs: number;
  /** How far it steps back while it turns, so that its near side stays on the frame: in heights of the frame. */
  readonly stepsBack: number;
}

export const USUAL_TURNOVER: Omit<TurnoverPlan, 'back'> = {
  axis: 'upright',
  beginMs: 2000,
  lengthMs: 1800,
  stepsBack: 0.7,
};
/** How long the back is looked at afterwards. */
const LOOKED_AT_MS = 2500;

export function turnoverNeedsMs({ beginMs, lengthMs }: TurnoverPlan): number {
  return beginMs + lengthMs + LOOKED_AT_MS;
}

/** The layer turning over. Half way it stands exactly edge-on: the turn is even about its middle, whatever its easing. */
export function turnover(layer: PictureLayer, plan: TurnoverPlan): PictureLayer {
  const { beginMs, lengthMs, stepsBack } = plan;
  const key = (share: number, value: number): Key => ({
    at: { tied: 'start', ms: Math.round(beginMs + share * lengthMs) },
    value,
  });
  const turned: Channel = { keys: [key(0, 0), key(1, 180)] };
  const z: Channel = { keys: [key(0, 0), key(0.5, -stepsBack), key(1, 0)] };
  const { tiltXDegrees: _x, tiltYDegrees: _y, ...channels } = layer.channels ?? {};
  return {
    ...layer,
    back: { assetId: plan.back },
    channels: {
      ...channels,
      ...(plan.axis === 'upright' ? { tiltYDegrees: turned } : { tiltXDegrees: turned }),
      ...(stepsBack > 0 && { z }),
    },
  };
}
