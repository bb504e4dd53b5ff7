import { STEEPEST } from '../../keys/smooth';
import type { ColourKey, KeyedColour } from '../../keys/colour';
import { EASING_NAMES, type EasingPart } from '../../keys/easing';
import {
  checked,
  COLOUR,
  either,
  list,
  maybe,
  number,
  object,
  oneOf,
  truth,
  whole,
  type Schema,
} from '../../schema/schema';
import { LONGEST_SLIDE_MS, MOST_KEYS } from '../limits';
import type { Key, KeyedChannel } from '../../keys/channel';

const CURVE = object<{ bezier: unknown }>({
  bezier: checked<readonly number[]>(list(number(-10, 10), 4, 4), (points) =>
    [points[0], points[2]].every((x) => x! >= 0 && x! <= 1) ? null : 'the x of a curve’s points must lie within 0…1',
  ),
});

const NAMED = { when: 'string', then: oneOf(EASING_NAMES) } as const;
const PART = checked<EasingPart>(
  object<EasingPart>({
    of: either(NAMED, { when: 'object', then: CURVE }),
    from: number(0, 1),
    to: number(0, 1),
  }),
  ({ from, to }) => (from < to ? null : 'the part of a curve must end after it begins'),
);

/** What transitions and moves take: curves from end to end. */
export const WHOLE_EASING: Schema = either(NAMED, { when: 'object', then: CURVE });
export const EASING: Schema = either(NAMED, { when: 'object', has: 'of', then: PART }, { when: 'object', then: CURVE });

const FROM_AN_END = { ms: whole(0, LONGEST_SLIDE_MS) };

export const KEY_TIME: Schema = {
  is: 'kinds',
  by: 'tied',
  kinds: { start: FROM_AN_END, end: FROM_AN_END, stretch: { share: number(0, 1) } },
};

const SLOPE = number(-STEEPEST, STEEPEST);
export const SLOPES: Schema = object<NonNullable<Key['slopes']>>({ in: SLOPE, out: SLOPE });

const made = new Map<string, Schema>();

/** A number, or keys with values within the same bounds. */
export function channel(least: number, most: number): Schema {
  const name = `${least} ${most}`;
  const known = made.get(name);
  if (known) return known;
  const key = object<Key>({
    at: KEY_TIME,
    value: number(least, most),
    easing: maybe(EASING),
    slopes: maybe(SLOPES),
  });
  const schema = either(
    { when: 'number', then: number(least, most) },
    {
      when: 'object',
      then: object<KeyedChannel>({
        keys: list(key, MOST_KEYS, 1),
        smooth: maybe(truth),
        still: maybe(number(least, most)),
      }),
    },
  );
  made.set(name, schema);
  return schema;
}

/** A colour, or keys with colours. */
export const COLOUR_CHANNEL: Schema = either(
  { when: 'string', then: COLOUR },
  {
    when: 'object',
    then: object<KeyedColour>({
      keys: list(object<ColourKey>({ at: KEY_TIME, colour: COLOUR, easing: maybe(EASING) }), MOST_KEYS, 1),
      still: maybe(COLOUR),
    }),
  },
);

/** 0…1. */
export const SHARE = channel(0, 1);
/** −1…1. */
export const AMOUNT = channel(-1, 1);
