import { describe, expect, it } from '@jest/globals';
import { SHOW_PARTS } from '../show/schemas/slide-schema';
import { jsonSchemas } from './json-schema';
import {
  either,
  ID,
  kinds,
  later,
  list,
  maybe,
  number,
  object,
  oneOf,
  orNull,
  record,
  text,
  truth,
  whole,
  type Schema,
} from './schema';

const of = (schema: Schema) => jsonSchemas('#/components/schemas/').of(schema);

describe('a schema as JSON Schema', () => {
  it.each<[string, Schema, object]>([
    ['text', text(5, 1), { type: 'string', minLength: 1, maxLength: 5 }],
    ['an id', ID, { type: 'string', minLength: 1, maxLength: 40, pattern: '^[\\w-]{1,40}$' }],
    ['a whole number', whole(1, 9), { type: 'integer', minimum: 1, maximum: 9 }],
    ['a list', list(truth, 3, 1), { type: 'array', items: { type: 'boolean' }, minItems: 1, maxItems: 3 }],
    ['a choice', oneOf(['a', 'b']), { type: 'string', enum: ['a', 'b'] }],
    ['what may be null', orNull(truth), { anyOf: [{ type: 'boolean' }, { type: 'null' }] }],
    ['sorts', either({ when: 'number', then: number(0, 1) }), { anyOf: [{ type: 'number', minimum: 0, maximum: 1 }] }],
  ])('says %s', (_, schema, json) => {
    expect(of(schema)).toEqual(json);
  });
  it('says which parts of an object may be left out, and that there are no others', () => {
    expect(of(object<{ a: unknown; b?: unknown }>({ a: truth, b: maybe(truth) }))).toMatchObject({
      required: ['a'],
      additionalProperties: false,
    });
  });
  it('tells kinds apart by their name', () => {
    const found = of(kinds<{ kind: 'x'; n: number } | { kind: 'y' }>({ x: { n: whole(0, 1) }, y: {} })) as {
      oneOf: { properties: Record<string, unknown> }[];
    };
    expect(found.oneOf.map(({ properties }) => properties.kind)).toEqual([{ const: 'x' }, { const: 'y' }]);
  });
  it('says names to values', () => {
    expect(of(record(ID, truth, 4))).toMatchObject({
      type: 'object',
      additionalProperties: { type: 'boolean' },
      maxProperties: 4,
    });
  });
  it('refers to what holds itself, once', () => {
    const tree: Schema = object<{ inner: unknown }>({
      inner: list(
        later(() => tree),
        2,
      ),
    });
    const schemas = jsonSchemas('#/');
    expect(schemas.of(tree)).toMatchObject({ properties: { inner: { items: { $ref: '#/Part1' } } } });
    expect(Object.keys(schemas.shared)).toEqual(['Part1']);
  });
  it('says a whole show, layers in groups and all', () => {
    const schemas = jsonSchemas('#/components/schemas/');
    schemas.of(object<object>(SHOW_PARTS as never));
    expect(Object.keys(schemas.shared).length).toBeGreaterThan(0);
    expect(JSON.stringify(schemas.shared).length).toBeLessThan(200_000);
  });
});
