import fc from 'fast-check';
import { unreachable } from '../unreachable';
import type { Parts, Schema } from './schema';

/** How much is dealt: lists are short and groups shallow, so that thousands of documents are dealt in seconds. */
const MOST_IN_A_LIST = 3;
const DEEPEST = 3;

/** Deals those parts that tests want to choose for themselves, such as ids that exist; null for the others. `name` is what the part is called. */
type Special = (schema: Schema, name: string) => fc.Arbitrary<unknown> | null;

const NOTHING_SPECIAL: Special = () => null;
/** What was made of each schema: a deal of groups within groups would otherwise make its parts anew, thousands of times. */
const made = new WeakMap<Special, Map<Schema, Map<string, fc.Arbitrary<unknown>>>>();

/** Random values that a schema takes. */
export function arbitraryOf(
  schema: Schema,
  special: Special = NOTHING_SPECIAL,
  depth = 0,
  name = '',
): fc.Arbitrary<unknown> {
  const bySchema = entryOf(made, special, () => new Map<Schema, Map<string, fc.Arbitrary<unknown>>>());
  const byPlace = entryOf(bySchema, schema, () => new Map<string, fc.Arbitrary<unknown>>());
  // Beyond the deepest all depths are alike.
  const held = Math.min(depth, DEEPEST + 1);
  return entryOf(byPlace, `${held} ${name}`, () => special(schema, name) ?? freshOf(schema, special, held, name));
}

function entryOf<Key, Value>(
  map: { get(key: Key): Value | undefined; set(key: Key, value: Value): unknown },
  key: Key,
  make: () => Value,
): Value {
  const known = map.get(key);
  if (known !== undefined) return known;
  const value = make();
  map.set(key, value);
  return value;
}

function freshOf(schema: Schema, special: Special, depth: number, name: string): fc.Arbitrary<unknown> {
  const of = (inner: Schema, deeper = 0, part = name) => arbitraryOf(inner, special, depth + deeper, part);
  switch (schema.is) {
    case 'text':
      return schema.like
        ? fc.constantFrom(...schema.like.samples)
        : fc.string({ minLength: schema.least, maxLength: Math.min(schema.most, schema.least + 8) });
    case 'number': {
      const [least, most] = [schema.least, schema.most];
      return schema.whole ? fc.integer({ min: least, max: most }) : fc.double({ min: least, max: most, noNaN: true });
    }
    case 'truth':
      return fc.boolean();
    case 'one-of':
      return fc.constantFrom(...schema.values);
    case 'object':
      return partsOf(schema.parts, of);
    case 'list': {
      if (depth > DEEPEST && schema.least === 0) return fc.constant([]);
      return fc.array(of(schema.of, 1), {
        minLength: schema.least,
        maxLength: Math.min(schema.most, schema.least + MOST_IN_A_LIST),
      });
    }
    case 'kinds':
      return fc.oneof(
        ...Object.entries(schema.kinds).map(([kind, parts]) =>
          partsOf(parts, of).map((rest) => ({ [schema.by]: kind, ...rest })),
        ),
      );
    case 'either':
      return fc.oneof(...schema.choices.map((choice) => of(choice.then)));
    case 'record':
      return fc.dictionary(of(schema.keys) as fc.Arbitrary<string>, of(schema.values), {
        minKeys: schema.least,
        maxKeys: Math.min(schema.most, 3),
      });
    case 'anything':
      return fc.jsonValue();
    case 'maybe':
      return fc.option(of(schema.of), { nil: undefined, freq: 2 });
    case 'or-null':
      return fc.option(of(schema.of), { nil: null });
    case 'later':
      return fc.constant(null).chain(() => of(schema.of(), 1));
    case 'checked':
      return repaired(of(schema.of)).filter((value) => schema.fault(value as never) === null);
    default:
      return unreachable(schema);
  }
}

/** Lists whose numbers must rise are put in order rather than dealt until they happen to be. */
function repaired(dealt: fc.Arbitrary<unknown>): fc.Arbitrary<unknown> {
  return dealt.map((value) => {
    if (
      !Array.isArray(value) ||
      !value.every((one) => typeof one === 'object' && one !== null && 'at' in one && typeof one.at === 'number')
    )
      return value;
    return value.map((one: object, index) => ({ ...one, at: index / value.length }));
  });
}

function partsOf(
  parts: Parts,
  of: (schema: Schema, deeper?: number, name?: string) => fc.Arbitrary<unknown>,
): fc.Arbitrary<Record<string, unknown>> {
  const dealt = Object.entries(parts).map(([name, schema]) => [name, of(schema, 0, name)] as const);
  return fc
    .record(Object.fromEntries(dealt))
    .map((record) => Object.fromEntries(Object.entries(record).filter(([, value]) => value !== undefined)));
}
