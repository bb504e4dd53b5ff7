import * as yup from 'yup';

export type Parsed<Value> = { readonly ok: true; readonly value: Value } | { readonly ok: false; readonly problem: string };

/** Validates without converting anything; the problem names the first three faults in plain words. */
export function parse<Value>(schema: yup.Schema<Value>, input: unknown): Parsed<Value> {
  try {
    return { ok: true, value: schema.validateSync(input, { strict: true, abortEarly: false }) as Value };
  } catch (error) {
    if (!(error instanceof yup.ValidationError)) throw error;
    const more = error.errors.length > 3 ? ` (and ${error.errors.length - 3} more)` : '';
    return { ok: false, problem: error.errors.slice(0, 3).join('; ') + more };
  }
}
