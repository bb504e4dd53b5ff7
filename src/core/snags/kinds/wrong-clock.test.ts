import { describe, expect, it } from '@jest/globals';
import type { PictureFacts } from '../../show/asset-facts';
import { lookAfter, fixesOf, lookOver } from '../look-over';
import { asset, clean, likeness, lookAt, picture, withFacts, type Laid } from '../looks.testing';

/** Pictures of the show as a second camera took them, by number. */
const by = (
  camera: string,
  taken: Readonly<Record<number, string>>,
  more: (n: number) => Partial<PictureFacts> = () => ({}),
) =>
  Object.entries(taken).reduce<Laid>(
    (laid, [n, takenAt]) =>
      withFacts(laid, asset(Number(n)), picture(Number(n), { camera, takenAt, ...more(Number(n)) })),
    clean(),
  );
const told = (laid: Laid) => lookOver(lookAt(laid), ['wrong-clock']).map(({ sentence }) => sentence);
/** What is left to tell once the first way out was taken. */
const after = (laid: Laid) => {
  const look = lookAt(laid);
  const [fix] = fixesOf(look, lookOver(look, ['wrong-clock'])[0]!);
  return { name: fix!.name, left: lookOver(lookAfter(look, fix!.edit)!, ['wrong-clock']) };
};

describe('a camera’s clock', () => {
  it('is right where it says about what the others say', () => {
    expect(told(clean())).toEqual([]);
    expect(told(by('Tern', { 3: '2025-06-14T20:30:00', 5: '2025-06-14T21:05:00' }))).toEqual([]);
    expect(told(by('Tern', { 3: '2025-06-10T08:30:00', 5: '2025-07-01T09:00:00' }))).toEqual([]);
  });
  it('is wrong where it is older than such cameras are', () => {
    const laid = by('Tern', { 3: '1980-01-01T00:00:00', 5: '1980-01-01T00:40:00' });
    expect(told(laid)).toEqual(['The clock of Tern says that its pictures are older than such cameras are.']);
    expect(after(laid)).toEqual({ name: 'Set it by Orrery F2', left: [] });
  });
  it('is wrong where it is of a day to come', () => {
    expect(told(by('Tern', { 3: '2029-03-01T10:00:00' }))).toEqual([
      'The clock of Tern says that its pictures are of a day to come.',
    ]);
  });
  it('is wrong where it is a year away from the camera with most pictures, and more than one says so', () => {
    const laid = by('Tern', { 3: '2024-06-14T20:30:00', 5: '2024-06-14T21:05:00' });
    expect(told(laid)).toEqual([expect.stringMatching(/^The clock of Tern is 36\d days away from Orrery F2\.$/)]);
    expect(after(laid).left).toEqual([]);
    expect(told(by('Tern', { 3: '2024-06-14T20:30:00' }))).toEqual([]);
  });
  it.each([
    ['16:58:00', '16:59:00', '3 h 12 min behind'],
    ['20:42:00', '20:43:00', '32 min ahead of'],
  ])('that says %s where another took the same scenes at ten past eight is %s–%s', (one, other, why) => {
    // The second camera's fifth and sixth pictures show what the first's, of zero and one, show.
    const laid = by('Tern', { 5: `2025-06-14T${one}`, 6: `2025-06-14T${other}` }, (n) => ({
      likeness: likeness(n - 5),
    }));
    expect(told(laid)).toEqual([`The clock of Tern is ${why} Orrery F2: both show the same scenes.`]);
    expect(after(laid).left).toEqual([]);
  });
  it('is not told by scenes that do not agree, or by one alone, or by a few minutes', () => {
    const looks = (n: number) => ({ likeness: likeness(n - 5) });
    expect(told(by('Tern', { 5: '2025-06-14T17:00:00', 6: '2025-06-14T19:40:00' }, looks))).toEqual([]);
    expect(told(by('Tern', { 5: '2025-06-14T17:00:00' }, looks))).toEqual([]);
    expect(told(by('Tern', { 5: '2025-06-14T20:06:00', 6: '2025-06-14T20:07:00' }, looks))).toEqual([]);
  });
  it('is called what people call it where the files do not say', () => {
    const laid = by('', { 3: '1980-01-01T00:00:00' }, () => ({ camera: null }));
    expect(told(laid)).toEqual([
      'The clock of pictures that name no camera says that its pictures are older than such cameras are.',
    ]);
  });
  it('that was put right by hand is asked about with what it says then', () => {
    const laid = by('Tern', { 3: '2024-06-14T20:30:00', 5: '2024-06-14T21:05:00' });
    const right = { ...laid, show: { ...laid.show, clocks: { Tern: 365 * 86_400_000 } } };
    expect(told(right)).toEqual([]);
  });
});
