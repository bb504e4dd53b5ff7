import path from 'node:path';
import { afterAll, beforeAll, describe, expect, it } from '@jest/globals';
import { prepareShow } from '../../core/frame/plan-frame';
import type { AssetFacts, PictureFacts } from '../../core/show/asset-facts';
import { assetId, layerId, showId, slideId, type AssetId } from '../../core/show/ids';
import type { Layer, WordsLayer } from '../../core/show/layer';
import { emptyShow, type Show, type Slide } from '../../core/show/show';
import { okLab } from '../../core/keys/colour';
import { applyEdit } from '../../core/show/edit';
import { lookOver } from '../../core/snags/look-over';
import type { SnagLook } from '../../core/snags/snag';
import { createFileReader } from '../../server/assets/file-reader';
import { lookAtFile } from '../../server/assets/look-at-file';
import { storeFor } from '../../server/films/draw-segment';
import { openNodeDrawing } from '../../server/films/node-drawing';
import { openChecking, seeSlide, type Checking } from './checking';
import { fixesThatHelp, whatReadsBest } from './try-fixes';

const [DUSK, PIES] = [assetId('a'.repeat(64)), assetId('b'.repeat(64))];
const FILES = new Map<AssetId, string>([
  [DUSK, path.resolve('demo/files/PE_0412.jpg')],
  [PIES, path.resolve('demo/files/PE_0426.jpg')],
]);
const facts = new Map<AssetId, AssetFacts>();
let checking: Checking;
let close: () => void;

beforeAll(async () => {
  for (const [id, file] of FILES) facts.set(id, (await lookAtFile(file)).facts);
  const drawing = await openNodeDrawing();
  const reader = createFileReader((id) => FILES.get(id)!, facts);
  const store = storeFor(drawing, reader);
  checking = openChecking(drawing.kernels, store, { widthPx: 1920, heightPx: 1080 });
  close = () => {
    checking.close();
    store.close();
    reader.close();
  };
});
afterAll(() => close());

const words = (more: Partial<WordsLayer>): WordsLayer => ({
  kind: 'words',
  id: layerId('w'),
  title: 'Three hundred lanterns',
  subtitle: '',
  place: 'bottom',
  ...more,
});
const slide = (id: string, layers: readonly Layer[], more: Partial<Slide> = {}): Slide => ({
  id: slideId(id),
  lengthMs: 4000,
  transition: { kind: 'dissolve', lengthMs: 800 },
  backing: { kind: 'colour', colour: '#808080' },
  layers,
  sounds: [],
  ...more,
});
const picture = (id: AssetId): Layer => ({
  kind: 'picture',
  id: layerId('p'),
  assetId: id,
  move: { kind: 'automatic' },
});
const showOf = (...slides: readonly Slide[]): Show => ({ ...emptyShow(showId('x'), 'x'), slides });

async function lookAt(show: Show, known: SnagLook['prepared']['facts'] = facts): Promise<SnagLook> {
  const prepared = prepareShow(show, known);
  const seen = new Map();
  for (const [index, one] of show.slides.entries()) seen.set(one.id, await seeSlide(checking, prepared, index));
  return { prepared, files: new Map(), seen, films: [], now: '2026-11-27T00:00:00' };
}
const wordsSeen = (look: SnagLook, id: string) => look.seen.get(slideId(id))!.words[0]!;

describe('what is measured in frames', () => {
  it.each([
    ['#ffffff', '#000000', 21],
    ['#000000', '#ffffff', 21],
    ['#767676', '#ffffff', 4.5],
    ['#ff0000', '#0000ff', 2.15],
  ])('is the contrast of letters of %s on %s, as drawn', async (colour, ground, contrast) => {
    const layer = words({ style: { colour, shadow: 'none', weight: 800 } });
    const look = await lookAt(showOf(slide('s', [layer], { backing: { kind: 'colour', colour: ground } })));
    const { legibility } = wordsSeen(look, 's').worst!;
    expect(legibility.contrast / contrast).toBeGreaterThan(0.82);
    expect(legibility.contrast / contrast).toBeLessThan(1.12);
  });

  it('is where words stand, and how large their letters are', async () => {
    const look = await lookAt(showOf(slide('s', [words({ place: 'top-left', style: { size: 0.1 } })])));
    const { margins, size, scale } = wordsSeen(look, 's');
    expect(margins!.left).toBeCloseTo((0.075 * 9) / 16, 1);
    expect(margins!.top).toBeGreaterThan(0.06);
    expect(margins!.top).toBeLessThan(0.12);
    expect(margins!.right).toBeGreaterThan(0.2);
    expect([size, scale]).toEqual([0.1, 1]);
  });

  it('is what fields in words are filled with', async () => {
    const look = await lookAt({
      ...showOf(slide('s', [words({ title: '{title}', subtitle: '{place}' })])),
      title: 'Regatta',
    });
    expect(wordsSeen(look, 's').worst).not.toBeNull();
    const nothing = await lookAt(showOf(slide('s', [words({ title: '{place}' })])));
    expect(nothing.seen.get(slideId('s'))!.words).toEqual([]);
  });

  it('is the worst moment: words that a bright picture dissolves under are faint only then', async () => {
    const white = words({
      style: { colour: '#ffffff', shadow: 'none' },
      come: { entrance: { way: 'none', by: 'all', atMs: 0, lengthMs: 0 }, exit: null },
    });
    const dark = slide('dark', [{ ...white, id: layerId('w') }], { backing: { kind: 'colour', colour: '#000000' } });
    const keyed: Layer = {
      kind: 'solid',
      id: layerId('glare'),
      colour: '#ffffff',
      channels: {
        opacity: {
          keys: [
            { at: { tied: 'start', ms: 0 }, value: 0 },
            { at: { tied: 'start', ms: 2000 }, value: 0 },
            { at: { tied: 'start', ms: 4000 }, value: 0.95 },
          ],
        } as never,
      },
    };
    const calm = wordsSeen(await lookAt(showOf(dark)), 'dark').worst!;
    const glaring = wordsSeen(await lookAt(showOf({ ...dark, layers: [keyed, ...dark.layers] })), 'dark').worst!;
    expect(calm.legibility.contrast).toBeGreaterThan(15);
    expect(glaring.legibility.contrast).toBeLessThan(2);
    expect(glaring.offsetMs).toBeGreaterThan(3000);
  });

  it('is the face that words lie over, through the move and the place of the picture', async () => {
    const known = facts.get(DUSK) as PictureFacts;
    const face = { left: 0.4, top: 0.4, width: 0.2, height: 0.2, score: 0.95, sharpness: 0.5 };
    const withFace = new Map<AssetId, AssetFacts>([
      ...facts,
      [DUSK, { ...known, focus: { faces: [face], subjects: [], salient: null, sharpness: 0.5 } }],
    ]);
    const still: Layer = { ...(picture(DUSK) as Extract<Layer, { kind: 'picture' }>), move: { kind: 'still' } };
    const look = await lookAt(
      showOf(
        slide('over', [still, words({ place: 'centre' })]),
        slide('beside', [still, words({ place: 'bottom-right', title: 'Lanterns' })]),
      ),
      withFace,
    );
    expect(wordsSeen(look, 'over').face!.share).toBeGreaterThan(0.25);
    expect(wordsSeen(look, 'beside').face).toBeNull();
    const snag = lookOver(look, ['words-over-face'])[0]!;
    const fixes = await fixesThatHelp(checking, look, snag);
    expect(fixes.length).toBeGreaterThan(0);
    for (const { edit } of fixes) {
      const result = applyEdit(look.prepared.show, edit);
      if (!result.ok) throw new Error(result.sentence);
      expect(lookOver(await lookAt(result.show, withFace), ['words-over-face', 'words-off-frame'])).toEqual([]);
    }
  });

  it('offers only what helps: faint words get a colour, a shadow, a box or a place in which they are read', async () => {
    const faint = slide('s', [picture(PIES), words({ style: { colour: '#e0a060', shadow: 'none' }, place: 'centre' })]);
    const look = await lookAt(showOf(faint));
    const [snag] = lookOver(look, ['faint-words']);
    expect(snag).toBeDefined();
    const fixes = await fixesThatHelp(checking, look, snag!);
    expect(fixes.length).toBeGreaterThanOrEqual(2);
    for (const { edit } of fixes) {
      const result = applyEdit(look.prepared.show, edit);
      if (!result.ok) throw new Error(result.sentence);
      expect(lookOver(await lookAt(result.show), ['faint-words'])).toEqual([]);
      expect(result.show.slides.length).toBe(1);
    }
  });

  it('offers words in a colour of the picture they lie over, light or deep, where they are read', async () => {
    const known = facts.get(PIES) as PictureFacts;
    const seen = new Map<AssetId, AssetFacts>([
      ...facts,
      [PIES, { ...known, colours: ['#808080', '#c05a2a', '#204060'] }],
    ]);
    const faint = slide('s', [picture(PIES), words({ style: { colour: '#e0a060', shadow: 'none' }, place: 'centre' })]);
    const look = await lookAt(showOf(faint), seen);
    const fixes = await fixesThatHelp(checking, look, lookOver(look, ['faint-words'])[0]!);
    const coloured = fixes.filter(({ name }) => name.endsWith('colour of the picture'));
    expect(coloured.length).toBeGreaterThan(0);
    for (const { edit, name } of coloured) {
      const result = applyEdit(look.prepared.show, edit);
      if (!result.ok) throw new Error(result.sentence);
      expect(lookOver(await lookAt(result.show, seen), ['faint-words'])).toEqual([]);
      const { colour } = (result.show.slides[0]!.layers[1] as Extract<Layer, { kind: 'words' }>).style!;
      const [lightness, a, b] = okLab(colour as string);
      // Of the orange, not the grey.
      expect([lightness > 0.5, a > 0.01, b > 0.01]).toEqual([name.startsWith('A light'), true, true]);
    }
    const grey = new Map<AssetId, AssetFacts>([...facts, [PIES, { ...known, colours: ['#808080'] }]]);
    const plain = await lookAt(showOf(faint), grey);
    const others = await fixesThatHelp(checking, plain, lookOver(plain, ['faint-words'])[0]!);
    expect(others.some(({ name }) => name.endsWith('colour of the picture'))).toBe(false);
  });

  it('finds where words read best, and says nothing when they do already', async () => {
    const faint = showOf(
      slide('s', [picture(PIES), words({ style: { colour: '#e0a060', shadow: 'none' }, place: 'centre' })]),
    );
    const look = await lookAt(faint);
    const best = await whatReadsBest(checking, look, slideId('s'), layerId('w'));
    const result = applyEdit(faint, best!.edit);
    if (!result.ok) throw new Error(result.sentence);
    const after = await lookAt(result.show);
    expect(wordsSeen(after, 's').worst!.legibility.clear).toBeGreaterThan(6);
    expect(await whatReadsBest(checking, after, slideId('s'), layerId('w'))).toBeNull();
  });

  it('sees flashes of a layer that comes and goes five times a second, and none of pictures that stay long enough', async () => {
    const cuts = Array.from({ length: 12 }, (_, n) =>
      slide(`f${n}`, [], {
        lengthMs: 400,
        transition: { kind: 'cut' },
        backing: { kind: 'colour', colour: n % 2 === 0 ? '#000000' : '#ffffff' },
      }),
    );
    const calm = await lookAt(showOf(...cuts));
    expect([...calm.seen.values()].map(({ flashes }) => flashes)).toEqual(cuts.map(() => null));
    const keys = Array.from({ length: 20 }, (_, n) => ({
      at: { tied: 'start', ms: 100 * n },
      value: n % 2,
      easing: 'hold',
    }));
    const strobe: Layer = {
      kind: 'solid',
      id: layerId('strobe'),
      colour: '#ffffff',
      channels: { opacity: { keys } as never },
    };
    const look = await lookAt(showOf(slide('s', [strobe], { backing: { kind: 'colour', colour: '#000000' } })));
    expect(look.seen.get(slideId('s'))!.flashes!.perSecond).toBeGreaterThanOrEqual(4);
    expect(lookOver(look, ['flashing'])).toMatchObject([{ grave: true, slideId: 's' }]);
  });
});
