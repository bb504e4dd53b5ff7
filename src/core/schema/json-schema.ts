import { unreachable } from '../unreachable';
import type { Parts, Schema } from './schema';

/** A JSON Schema (2020-12), as OpenAPI 3.1 takes it. */
export type JsonSchema = Readonly<Record<string, unknown>>;

/** Schemas as JSON Schema. What holds itself is kept apart and referred to. */
export interface JsonSchemas {
  of(schema: Schema): JsonSchema;
  /** Those that are referred to, by name. */
  readonly shared: Readonly<Record<string, JsonSchema>>;
}

/** In letters: longer parts of a document are said apart. */
const LONG = 900;

/** @param at where those that are referred to lie, such as `#/components/schemas/` */
export function jsonSchemas(at: string): JsonSchemas {
  const names = new Map<Schema, string>();
  const shared: Record<string, JsonSchema> = {};

  const objectOf = (parts: Parts, more: Record<string, unknown> = {}): JsonSchema => ({
    type: 'object',
    properties: {
      ...more,
      ...Object.fromEntries(Object.entries(parts).map(([name, part]) => [name, of(part)])),
    },
    required: [...Object.keys(more), ...Object.keys(parts).filter((name) => parts[name]!.is !== 'maybe')],
    additionalProperties: false,
  });
  /** What is long is said once and referred to from then on. */
  function of(schema: Schema): JsonSchema {
    const name = names.get(schema);
    if (name !== undefined) return { $ref: at + name };
    const said = plain(schema);
    return (schema.is === 'object' || schema.is === 'kinds') && JSON.stringify(said).length > LONG
      ? kept(schema, said)
      : said;
  }
  function plain(schema: Schema): JsonSchema {
    switch (schema.is) {
      case 'text':
        return {
          type: 'string',
          ...(schema.least > 0 && { minLength: schema.least }),
          ...(schema.most < Number.MAX_SAFE_INTEGER && { maxLength: schema.most }),
          ...(schema.like && { pattern: schema.like.pattern.source }),
        };
      case 'number':
        return { type: schema.whole ? 'integer' : 'number', minimum: schema.least, maximum: schema.most };
      case 'truth':
        return { type: 'boolean' };
      case 'one-of':
        return { type: 'string', enum: [...schema.values] };
      case 'object':
        return objectOf(schema.parts);
      case 'list':
        return {
          type: 'array',
          items: of(schema.of),
          ...(schema.least > 0 && { minItems: schema.least }),
          ...(schema.most < Number.MAX_SAFE_INTEGER && { maxItems: schema.most }),
        };
      case 'kinds':
        return {
          oneOf: Object.entries(schema.kinds).map(([kind, parts]) => objectOf(parts, { [schema.by]: { const: kind } })),
        };
      case 'either':
        return { anyOf: schema.choices.map(({ then }) => of(then)) };
      case 'record':
        return {
          type: 'object',
          propertyNames: of(schema.keys),
          additionalProperties: of(schema.values),
          ...(schema.least > 0 && { minProperties: schema.least }),
          maxProperties: schema.most,
        };
      case 'anything':
        return {};
      case 'maybe':
        return of(schema.of);
      case 'or-null':
        return { anyOf: [of(schema.of), { type: 'null' }] };
      case 'later':
        return sharedOf(schema.of());
      case 'checked':
        return of(schema.of);
      default:
        return unreachable(schema);
    }
  }
  function sharedOf(schema: Schema): JsonSchema {
    const known = names.get(schema);
    if (known !== undefined) return { $ref: at + known };
    const name = nextName();
    names.set(schema, name);
    shared[name] = plain(schema);
    return { $ref: at + name };
  }
  function kept(schema: Schema, said: JsonSchema): JsonSchema {
    const known = names.get(schema);
    if (known !== undefined) return { $ref: at + known };
    const name = nextName();
    names.set(schema, name);
    shared[name] = said;
    return { $ref: at + name };
  }
  const nextName = () => `Part${names.size + 1}`;
  return { of, shared };
}
