import { describe, expect, it } from '@jest/globals';
import type { AssetFacts } from '../../core/show/asset-facts';
import { assetId, layerId, slideId } from '../../core/show/ids';
import type { Slide } from '../../core/show/show';
import type { SheetEntry } from '../../server/assets/contact-sheet';
import { EVERYTHING, filtered, prints, slidesByAsset, toLayIn, type SheetFilter, type SheetOrder } from './sheet-view';

const picture = (widthPx: number, heightPx: number, takenAt: string | null = null): AssetFacts => ({
  kind: 'picture',
  widthPx,
  heightPx,
  hasTransparency: false,
  takenAt,
  camera: null,
  brightness: 0.5,
});
const entry = (name: string, facts: AssetFacts | null, addedAt = 0): SheetEntry => ({
  id: name,
  assetId: assetId(name.padEnd(64, '0')),
  fileName: `${name}.jpg`,
  byteCount: 1,
  addedAt,
  state: facts ? 'ready' : 'arrived',
  problem: null,
  made: null,
  facts,
});

const sheet = [
  entry('p10', picture(6000, 4000, '2031-06-14T21:00:00'), 1),
  entry('p9', picture(4000, 6000, '2031-06-14T20:00:00'), 2),
  entry('q', picture(3000, 3000), 3),
  entry('c', { kind: 'clip', widthPx: 1920, heightPx: 1080, lengthMs: 5000, hasSound: true, takenAt: null }, 4),
  entry('s', { kind: 'sound', lengthMs: 5000, title: null, artist: null }),
  entry('n', null),
];
const all = prints(sheet, 'taken');
const marks = { [sheet[0]!.assetId]: 'keep', [sheet[1]!.assetId]: 'linger', [sheet[2]!.assetId]: 'leave-out' } as const;
const used = new Map([[sheet[0]!.assetId as string, [1]]]);
const names = (entries: readonly SheetEntry[]) => entries.map((one) => one.id);

describe('the contact sheet', () => {
  it.each<[SheetOrder, string[]]>([
    ['taken', ['p9', 'p10', 'c', 'q']],
    ['name', ['c', 'p9', 'p10', 'q']],
    ['size', ['p9', 'p10', 'q', 'c']],
    ['arrived', ['c', 'q', 'p9', 'p10']],
  ])('by %s; sounds and what is still looked at are not on it', (order, expected) =>
    expect(names(prints(sheet, order))).toEqual(expected),
  );
  it('shows a press of the release once when the camera wrote RAW beside the finished picture', () => {
    const raw = { ...entry('r', { ...picture(1620, 1080), raw: true } as AssetFacts), fileName: 'q.CR3' };
    expect(names(prints([...sheet, raw], 'name'))).toEqual(['c', 'p9', 'p10', 'q']);
    expect(names(prints([raw], 'name'))).toEqual(['r']);
  });
  it.each<[Partial<SheetFilter>, string[]]>([
    [{}, ['p9', 'p10', 'c', 'q']],
    [{ mark: 'kept' }, ['p9', 'p10']],
    [{ mark: 'linger' }, ['p9']],
    [{ mark: 'leave-out' }, ['q']],
    [{ mark: 'unmarked' }, ['c']],
    [{ shape: 'tall' }, ['p9']],
    [{ shape: 'square' }, ['q']],
    [{ shape: 'wide' }, ['p10', 'c']],
    [{ kind: 'clip' }, ['c']],
    [{ use: 'used' }, ['p10']],
    [{ use: 'unused', mark: 'kept' }, ['p9']],
  ])('shows only what is asked for: %j', (filter, expected) =>
    expect(names(filtered(all, { ...EVERYTHING, ...filter }, used, marks))).toEqual(expected),
  );
});

describe('what would be laid into the order', () => {
  it('is what is chosen, even when it is in already', () =>
    expect(toLayIn(all, new Set(['p10', 'q']), used, marks)).toEqual({ entries: [sheet[0], sheet[2]], why: 'chosen' }));
  it('else what is kept and not in yet', () =>
    expect([names(toLayIn(all, new Set(), used, marks).entries), toLayIn(all, new Set(), used, marks).why]).toEqual([
      ['p9'],
      'kept',
    ]));
  it('and while nothing is kept, all that is neither in nor left out', () => {
    const out = { [sheet[2]!.assetId]: 'leave-out' } as const;
    expect([names(toLayIn(all, new Set(), used, out).entries), toLayIn(all, new Set(), used, out).why]).toEqual([
      ['p9', 'c'],
      'unused',
    ]);
  });
});

it('slidesByAsset counts a picture once a slide, in groups and on backs too', () => {
  const slide: Slide = {
    id: slideId('a'),
    lengthMs: 1000,
    transition: { kind: 'cut' },
    backing: { kind: 'automatic' },
    sounds: [],
    layers: [
      {
        kind: 'picture',
        id: layerId('1'),
        assetId: sheet[0]!.assetId,
        move: { kind: 'still' },
        back: { assetId: sheet[1]!.assetId },
      },
      {
        kind: 'group',
        id: layerId('2'),
        layers: [{ kind: 'picture', id: layerId('3'), assetId: sheet[0]!.assetId, move: { kind: 'still' } }],
      },
    ],
  };
  expect([...slidesByAsset([slide, { ...slide, id: slideId('b') }])]).toEqual([
    [sheet[0]!.assetId, [1, 2]],
    [sheet[1]!.assetId, [1, 2]],
  ]);
});
