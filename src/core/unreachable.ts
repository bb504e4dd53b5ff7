/** Ends an exhaustive switch: the compiler objects when a kind was forgotten, and a stray value is quoted at run time. */
export function unreachable(value: never): never {
  throw new TypeError(`every kind must be handled, got ${JSON.stringify(value)}`);
}
