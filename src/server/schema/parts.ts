import * as yup from 'yup';
import { isHash } from './hash';

/** Building blocks of the schemas. Numbers have bounds, objects no unknown parts, and what depends on a kind is chosen by it. */
export const idSchema = () =>
  yup
    .string()
    .matches(/^[\w-]{1,40}$/, '${path} must be an id')
    .required();
export const hashSchema = () =>
  yup
    .string()
    .test('hash', '${path} must be a hash of 64 hexadecimal digits', (value) => isHash(value))
    .required();
export const milliseconds = (least: number, most: number) => yup.number().integer().min(least).max(most).required();
export const decibels = () => yup.number().min(-100).max(24).required();
export const closed = <Shape extends yup.ObjectShape>(shape: Shape) =>
  yup.object(shape).noUnknown('${path} has an unknown part: ${unknown}').required();

/** A schema chosen by the value's `kind`. */
export function byKind(schemas: Record<string, yup.Schema>): yup.Lazy<unknown> {
  return yup.lazy((value: unknown) => {
    const kind = (value as { kind?: unknown } | null | undefined)?.kind;
    return typeof kind === 'string' && Object.hasOwn(schemas, kind)
      ? schemas[kind]!
      : yup.mixed().test('kind', `\${path} must have one of the kinds ${Object.keys(schemas).join(', ')}`, () => false);
  });
}

export const kind = (name: string) => yup.string().oneOf([name]).required();
export const number = (least: number, most: number) => yup.number().min(least).max(most);
export const colour = () => yup.string().matches(/^#[0-9a-f]{6}$/i, '${path} must read #rrggbb');
/** A part that may be left out; what is there must be whole. */
export const optional = <Shape extends yup.ObjectShape>(shape: Shape) =>
  yup.object(shape).noUnknown('${path} has an unknown part: ${unknown}').optional().default(undefined);
export const oneOf = <Value extends string>(values: readonly Value[]) => yup.string().oneOf([...values]);

/** A schema made at its first use and kept: making one takes far longer than checking with it. */
export function once<Made>(make: () => Made): () => Made {
  let made: Made | null = null;
  return () => (made ??= make());
}
const ABSENT = yup.mixed().optional();
/** Nothing, or what the schema says; decided by the value. */
export const absent = () => ABSENT;
