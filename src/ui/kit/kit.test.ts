import { describe, expect, it } from '@jest/globals';
import { clock, clockTenths, megabytes } from './clock';
import { selectionAfterClick, selectionAfterStep } from './selection';
import { momentToPx, ORDER_PAD_PX, rowPlaces } from '../arrange/row-heights';
import { slideId } from '../../core/show/ids';

const none = { shiftKey: false, ctrlKey: false, metaKey: false };
const order = ['a', 'b', 'c', 'd', 'e'];

describe('selecting with the habits of a file manager', () => {
  it('takes one alone', () =>
    expect(selectionAfterClick(order, new Set(['a', 'b']), 'a', 'd', none)).toEqual({ ids: ['d'], anchor: 'd' }));
  it('takes a range either way with Shift, again from the same anchor', () => {
    expect(selectionAfterClick(order, new Set(['c']), 'c', 'e', { ...none, shiftKey: true })).toEqual({
      ids: ['c', 'd', 'e'],
      anchor: 'c',
    });
    expect(selectionAfterClick(order, new Set(['c', 'd', 'e']), 'c', 'a', { ...none, shiftKey: true })).toEqual({
      ids: ['a', 'b', 'c'],
      anchor: 'c',
    });
  });
  it('adds and takes away with Ctrl or Cmd, and adds a range with both', () => {
    expect(selectionAfterClick(order, new Set(['a']), 'a', 'c', { ...none, ctrlKey: true }).ids).toEqual(['a', 'c']);
    expect(selectionAfterClick(order, new Set(['a', 'c']), 'c', 'a', { ...none, metaKey: true }).ids).toEqual(['c']);
    expect(
      selectionAfterClick(order, new Set(['a']), 'c', 'd', { ...none, ctrlKey: true, shiftKey: true }).ids,
    ).toEqual(['a', 'c', 'd']);
  });
  it('takes one alone with Shift when the anchor has gone', () =>
    expect(selectionAfterClick(order, new Set<string>(), 'gone', 'b', { ...none, shiftKey: true }).ids).toEqual(['b']));
  it('steps and stretches with the arrows, stopping at the ends', () => {
    expect(selectionAfterStep(order, 'b', 'b', 1, false)).toEqual({ ids: ['c'], anchor: 'c', focus: 'c' });
    expect(selectionAfterStep(order, 'b', 'c', 1, true)).toEqual({ ids: ['b', 'c', 'd'], anchor: 'b', focus: 'd' });
    expect(selectionAfterStep(order, 'e', 'e', 1, false)?.focus).toBe('e');
    expect(selectionAfterStep(order, null, null, 1, false)?.focus).toBe('a');
    expect(selectionAfterStep([], null, null, 1, false)).toBeNull();
  });
});

describe('clocks', () => {
  it.each([
    [0, '0:00.0'],
    [3249, '0:03.2'],
    [61_000, '1:01.0'],
    [599_999, '9:59.9'],
  ])('%d ms in tenths', (ms, text) => expect(clockTenths(ms)).toBe(text));
  it.each([
    [156_900, '2:37'],
    [59_600, '1:00'],
    [3_725_000, '1:02:05'],
  ])('%d ms', (ms, text) => expect(clock(ms)).toBe(text));
  it.each([
    [900, '1 KB'],
    [236_000, '236 KB'],
    [4_400_000, '4.4 MB'],
    [44_041_392, '44 MB'],
  ])('%d bytes', (bytes, text) => expect(megabytes(bytes)).toBe(text));
});

describe('rows of the order', () => {
  const spans = [5000, 500, 12_000].map((lengthMs, slideIndex, all) => {
    const startMs = all.slice(0, slideIndex).reduce((sum, value) => sum + value, 0);
    return {
      slideId: slideId(String(slideIndex)),
      slideIndex,
      startMs,
      endMs: startMs + lengthMs,
      transitionMs: 0,
      leavesMs: startMs + lengthMs,
    };
  });
  it('are alike in even scale and as high as they are long in true scale, never too small to take hold of', () => {
    expect(rowPlaces(spans, 'even').heights).toEqual([132, 132, 132]);
    expect(rowPlaces(spans, 'true').heights).toEqual([120, 34, 288]);
  });
  it('say where a moment lies', () => {
    const places = rowPlaces(spans, 'true');
    expect(momentToPx(spans, places, 2, 11_500)).toBe(ORDER_PAD_PX + 120 + 34 + 144);
  });
});
