import { createHash } from 'node:crypto';

/** Digits that count: what machines round differently lies below them. */
const DIGITS = 7;

/** A short name for a value, the same for values that differ by no more than how a machine rounds. */
export function fingerprint(value: unknown): string {
  return createHash('sha256').update(JSON.stringify(value, rounded)).digest('base64url').slice(0, 10);
}

function rounded(_key: string, value: unknown): unknown {
  if (typeof value === 'number') return Math.abs(value) < 1e-9 ? 0 : Number(value.toPrecision(DIGITS));
  if (value instanceof Map) return [...value];
  if (ArrayBuffer.isView(value)) return [...(value as Float32Array)];
  return value;
}
