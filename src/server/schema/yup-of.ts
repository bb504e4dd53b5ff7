import * as yup from 'yup';
import type { Parts, Schema } from '../../core/schema/schema';
import { unreachable } from '../../core/unreachable';

/** Making a Yup schema takes far longer than checking with it: each is made once. */
const made = new WeakMap<Schema, yup.Schema>();

/** The Yup schema that checks what a schema of the core says. */
export function yupOf<Value = unknown>(schema: Schema): yup.Schema<Value> {
  let known = made.get(schema);
  if (!known) made.set(schema, (known = make(schema)));
  return known as yup.Schema<Value>;
}

function make(schema: Schema): yup.Schema {
  switch (schema.is) {
    case 'text': {
      const sized = yup.string().defined().min(schema.least).max(schema.most);
      return schema.like ? sized.matches(schema.like.pattern, `\${path} ${schema.like.says}`) : sized;
    }
    case 'number': {
      const bounded = yup.number().required().min(schema.least).max(schema.most);
      return schema.whole ? bounded.integer() : bounded;
    }
    case 'truth':
      return yup.boolean().required();
    case 'one-of':
      return yup
        .string()
        .required()
        .oneOf([...schema.values]);
    case 'object':
      return closed(schema.parts);
    case 'list':
      // The count is looked at before what is in it, so that a flood is refused without being read.
      return yup
        .array(yup.lazy(() => yupOf(schema.of)))
        .defined()
        .min(schema.least)
        .max(schema.most);
    case 'kinds':
      return byKind(schema.by, schema.kinds);
    case 'either': {
      const names = [...new Set(schema.choices.map((choice) => choice.when))].join(' or ');
      const wrong = yup.mixed().test('either', `\${path} must be a ${names}`, () => false);
      return lazily((value) => {
        const choice = schema.choices.find(
          ({ when, has }) =>
            when === typeof value && (has === undefined || (value !== null && has in (value as object))),
        );
        return choice && value !== null ? yupOf(choice.then) : wrong;
      });
    }
    case 'record':
      return recordOf(schema);
    case 'anything':
      return yup.mixed().defined();
    case 'maybe':
      return lazily((value) => (value === undefined ? ABSENT : yupOf(schema.of)));
    case 'or-null':
      return lazily((value) => (value === null ? NOTHING : yupOf(schema.of)));
    case 'later':
      return lazily(() => yupOf(schema.of()));
    case 'checked':
      return checked(schema);
    default:
      return unreachable(schema);
  }
}

const ABSENT = yup.mixed().optional();
const NOTHING = yup.mixed().nullable();

function closed(parts: Parts): yup.Schema {
  const shape = Object.fromEntries(Object.entries(parts).map(([name, part]) => [name, yupOf(part)]));
  return yup.object(shape).noUnknown('${path} has an unknown part: ${unknown}').required();
}

function byKind(by: string, kinds: Readonly<Record<string, Parts>>): yup.Schema {
  const known = new Map<string, yup.Schema>();
  const wrong = yup
    .mixed()
    .test('kind', `\${path} must have one of the kinds ${Object.keys(kinds).join(', ')}`, () => false);
  return lazily((value) => {
    const kind = (value as Record<string, unknown> | null | undefined)?.[by];
    if (typeof kind !== 'string' || !Object.hasOwn(kinds, kind)) return wrong;
    let schema = known.get(kind);
    if (!schema) known.set(kind, (schema = closed({ [by]: { is: 'one-of', values: [kind] }, ...kinds[kind]! })));
    return schema;
  });
}

function recordOf({ keys, values, least, most }: Extract<Schema, { is: 'record' }>): yup.Schema {
  const [key, value] = [yupOf(keys), yupOf(values)];
  return yup
    .object()
    .required()
    .test('entries', `\${path} must have ${least} to ${most} entries of the right kind`, (record: unknown) => {
      const entries = Object.entries(record as object);
      if (entries.length < least || entries.length > most) return false;
      return entries.every(
        ([name, entry]) => key.isValidSync(name, { strict: true }) && value.isValidSync(entry, { strict: true }),
      );
    });
}

/** What must hold of the whole is only asked of what is right part by part. */
function checked({ of, fault }: Extract<Schema, { is: 'checked' }>): yup.Schema {
  const inner = yupOf(of);
  return yup.mixed().test('checked', function check(value) {
    try {
      inner.validateSync(value, { strict: true });
    } catch (error) {
      if (!(error instanceof yup.ValidationError)) throw error;
      const at = this.path || 'it';
      return this.createError({
        message: error.path
          ? `${this.path ? `${this.path}.` : ''}${error.message}`
          : error.message.replace(/^this\b/, at),
      });
    }
    const said = fault(value as never);
    return said === null || this.createError({ message: this.path ? `${this.path}: ${said}` : said });
  });
}

function lazily(choose: (value: unknown) => yup.Schema): yup.Schema {
  return yup.lazy((value: unknown) => choose(value) as yup.Schema<unknown>) as unknown as yup.Schema;
}
