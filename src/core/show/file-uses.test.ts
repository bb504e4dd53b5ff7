import { describe, expect, it } from '@jest/globals';
import { ASSETS, picture, showOf } from '../layers/slides.testing';
import { assetId, cueId } from './ids';
import { fileUses, mayBe, usesSentence } from './file-uses';
import { songAfter } from './placed-sound';

const SONG = assetId('5'.repeat(64));

describe('where files are used', () => {
  it('names slides by number, music and watermark, and nothing that is not used', () => {
    const show = {
      ...showOf([picture('a')], [picture('b', { assetId: ASSETS[1]! })], [picture('c')]),
      cues: [songAfter(cueId('s'), SONG, 0)],
      watermark: { assetId: ASSETS[1]! } as never,
    };
    const uses = fileUses(show);
    expect(uses.get(ASSETS[0]!)).toEqual({ slides: [1, 3], music: false, watermark: false });
    expect(usesSentence(uses.get(ASSETS[0]!)!)).toBe('slides 1 and 3');
    expect(usesSentence(uses.get(ASSETS[1]!)!)).toBe('slide 2, the watermark');
    expect(usesSentence(uses.get(SONG)!)).toBe('the music');
    expect(uses.has(ASSETS[2]!)).toBe(false);
  });
  it('says how many more there are', () => {
    const slides = Array.from({ length: 9 }, (_, index) => index + 1);
    expect(usesSentence({ slides, music: false, watermark: false })).toBe('slides 1, 2, 3, 4, 5, 6 and 3 more');
  });
  it('takes a file for one that is missing by size, or by name where that is not known', () => {
    expect(mayBe({ fileName: 'a.jpg', byteCount: 5 }, { name: 'moved.jpg', size: 5 })).toBe(true);
    expect(mayBe({ fileName: 'a.jpg', byteCount: 5 }, { name: 'a.jpg', size: 6 })).toBe(false);
    expect(mayBe({ fileName: 'A\u0308.jpg', byteCount: null }, { name: '\u00E4.JPG', size: 6 })).toBe(true);
    expect(mayBe({ fileName: 'a.jpg', byteCount: null }, { name: 'b.jpg', size: 6 })).toBe(false);
    expect(mayBe({ fileName: null, byteCount: null }, { name: 'b.jpg', size: 6 })).toBe(true);
  });
});
