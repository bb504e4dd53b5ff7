import { describe, expect, it } from '@jest/globals';
import { comfortableMs, readingSpeed, wordsToRead } from './reading-speed';

describe('words to read', () => {
  it.each([
    ['', 0],
    ['One two\nthree', 3],
    ['— · —', 0],
    ['The year 2031', 3],
    ['Été à Port-Ellery', 3],
    ['中文字幕', 2.5],
    ['ภาษา', 2.5],
    ['سفن الفوانيس', 2],
    ['Boats 船', 1.625],
  ])('“%s” are %d', (text, count) => expect(wordsToRead(text)).toBeCloseTo(count, 1));
});

describe('reading speed', () => {
  const credits = Array.from({ length: 40 }, (_, index) => `Name ${index}`).join('\n');
  it('is told in words a minute', () => expect(readingSpeed('one two three four', 2000).wordsPerMinute).toBe(120));
  it('is easy, quick or too fast', () => {
    expect([60_000, 25_000, 10_000].map((overMs) => readingSpeed(credits, overMs).ease)).toEqual([
      'easy',
      'quick',
      'too-fast',
    ]);
  });
  it('knows how long is enough', () => {
    expect(readingSpeed(credits, comfortableMs(credits)).ease).toBe('easy');
    expect(readingSpeed(credits, comfortableMs(credits) * 0.9).ease).toBe('quick');
    expect(comfortableMs('')).toBe(0);
  });
});
