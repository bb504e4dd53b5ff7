// Bytes and samples are compared at once: one after the other, as Jest does it, takes seconds for one picture.
import { expect } from '@jest/globals';

const { isView } = ArrayBuffer;
const { from, compare } = Buffer;
const bytesOf = (view) => from(view.buffer, view.byteOffset, view.byteLength);

expect.addEqualityTesters([
  (one, other) =>
    isView(one) && isView(other) && one.constructor === other.constructor
      ? compare(bytesOf(one), bytesOf(other)) === 0
      : undefined,
]);
