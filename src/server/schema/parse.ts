import * as yup from 'yup';

export type Parsed<Value> =
  { readonly ok: true; readonly value: Value } | { readonly ok: false; readonly problem: string };

/** Validates without converting anything; the problem names the first three faults in plain words. */
export function parse<Value>(schema: yup.Schema<Value>, input: unknown): Parsed<Value> {
  if (isTooDeep(input)) return { ok: false, problem: `it is nested more than ${DEEPEST} deep` };
  try {
    return { ok: true, value: schema.validateSync(input, { strict: true, abortEarly: false }) as Value };
  } catch (error) {
    if (!(error instanceof yup.ValidationError)) throw error;
    const more = error.errors.length > 3 ? ` (and ${error.errors.length - 3} more)` : '';
    return { ok: false, problem: error.errors.slice(0, 3).join('; ') + more };
  }
}

/** Deeper than any document of ours, and far from what exhausts the stack of a schema that follows it down. */
const DEEPEST = 80;

function isTooDeep(input: unknown): boolean {
  let level: unknown[] = [input];
  for (let depth = 0; level.length > 0; depth += 1) {
    if (depth > DEEPEST) return true;
    level = level.flatMap((value) => (typeof value === 'object' && value !== null ? Object.values(value) : []));
  }
  return false;
}
