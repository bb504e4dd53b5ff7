import { EASING_NAMES } from '../../keys/easing';
import { checked, either, list, maybe, number, object, oneOf, whole, type Schema } from '../../schema/schema';
import { LONGEST_SLIDE_MS, MOST_KEYS } from '../limits';
import type { Key } from '../../keys/channel';

const CURVE = object<{ bezier: unknown }>({
  bezier: checked<readonly number[]>(list(number(-10, 10), 4, 4), (points) =>
    [points[0], points[2]].every((x) => x! >= 0 && x! <= 1) ? null : 'the x of a curve’s points must lie within 0…1',
  ),
});

export const EASING: Schema = either({ when: 'string', then: oneOf(EASING_NAMES) }, { when: 'object', then: CURVE });

const FROM_AN_END = { ms: whole(0, LONGEST_SLIDE_MS) };

export const KEY_TIME: Schema = {
  is: 'kinds',
  by: 'tied',
  kinds: { start: FROM_AN_END, end: FROM_AN_END, stretch: { share: number(0, 1) } },
};

const made = new Map<string, Schema>();

/** A number, or keys with values within the same bounds. */
export function channel(least: number, most: number): Schema {
  const name = `${least} ${most}`;
  const known = made.get(name);
  if (known) return known;
  const key = object<Key>({ at: KEY_TIME, value: number(least, most), easing: maybe(EASING) });
  const schema = either(
    { when: 'number', then: number(least, most) },
    { when: 'object', then: object<{ keys: unknown }>({ keys: list(key, MOST_KEYS, 1) }) },
  );
  made.set(name, schema);
  return schema;
}

/** 0…1. */
export const SHARE = channel(0, 1);
/** −1…1. */
export const AMOUNT = channel(-1, 1);
