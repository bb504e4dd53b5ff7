import * as yup from 'yup';
import type { Schema } from '../../core/schema/schema';
import { yupOf } from './yup-of';

export type Parsed<Value> =
  { readonly ok: true; readonly value: Value } | { readonly ok: false; readonly problem: string };

/** Deeper than any document of ours, and far from what exhausts the stack of a schema that follows it down. */
const DEEPEST = 80;
/** A sentence for a person; names and values from outside could make it as long as what was sent. */
const LONGEST_PROBLEM = 400;

/**
 * Validates without converting anything. It stops at the first fault, and looks at counts before contents: refusing costs less than sending. The problem
 * names the fault in plain words.
 *
 * @param fault what must hold of the whole, as a sentence about what is wrong
 */
export function parse<Value>(schema: Schema, input: unknown, fault?: (value: Value) => string | null): Parsed<Value> {
  if (isTooDeep(input)) return refused(`it is nested more than ${DEEPEST} deep`);
  try {
    const value = yupOf<Value>(schema).validateSync(input, { strict: true }) as Value;
    const said = fault?.(value) ?? null;
    return said === null ? { ok: true, value } : refused(said);
  } catch (error) {
    if (!(error instanceof yup.ValidationError)) throw error;
    return refused(error.errors[0] ?? 'it is not as it should be');
  }
}

function refused(problem: string): Parsed<never> {
  return { ok: false, problem: problem.length > LONGEST_PROBLEM ? `${problem.slice(0, LONGEST_PROBLEM)} …` : problem };
}

function isTooDeep(input: unknown): boolean {
  const waiting: { readonly value: object; readonly depth: number }[] = [];
  const look = (value: unknown, depth: number) => {
    if (typeof value === 'object' && value !== null) waiting.push({ value, depth });
  };
  look(input, 1);
  for (let next = waiting.pop(); next; next = waiting.pop()) {
    if (next.depth > DEEPEST) return true;
    for (const inner of Array.isArray(next.value) ? (next.value as unknown[]) : Object.values(next.value))
      look(inner, next.depth + 1);
  }
  return false;
}
