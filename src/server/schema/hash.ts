/** A file’s hash as 64 lower-case hexadecimal digits: the only thing from outside that may become part of a path. */
export function isHash(value: unknown): value is string {
  return typeof value === 'string' && /^[0-9a-f]{64}$/.test(value);
}
