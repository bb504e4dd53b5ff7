import { describe, expect, it } from '@jest/globals';
import { lettersLeftOut } from './cut-paste';

const field = (value: string, maxLength: number, from = value.length, to = from) => ({
  value,
  maxLength,
  selectionStart: from,
  selectionEnd: to,
});

describe('letters that a field leaves out of what is pasted', () => {
  it('are those beyond its end, what is chosen making room', () => {
    expect(lettersLeftOut(field('', 5), 'seven!!')).toBe(2);
    expect(lettersLeftOut(field('abcd', 5), 'xy')).toBe(1);
    expect(lettersLeftOut(field('abcd', 5, 0, 4), 'xy')).toBe(0);
    expect(lettersLeftOut(field('abcd', 5, 1, 3), 'wxyz')).toBe(1);
  });
  it('are none where it holds whatever comes', () => {
    expect(lettersLeftOut(field('abcd', -1), 'x'.repeat(9000))).toBe(0);
  });
});
