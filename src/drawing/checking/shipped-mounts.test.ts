import path from 'node:path';
import { afterAll, beforeAll, describe, expect, it } from '@jest/globals';
import { prepareShow } from '../../core/frame/plan-frame';
import { groundOf, withMount } from '../../core/mounts/lay-mount';
import { takesOf, type Mount } from '../../core/mounts/mount';
import { counter, LOOK } from '../../core/mounts/mounts.testing';
import { SHIPPED_MOUNTS } from '../../core/mounts/shipped/shipped-mounts';
import type { AssetFacts, PictureFacts } from '../../core/show/asset-facts';
import { assetId, layerId, showId, type AssetId } from '../../core/show/ids';
import { slideFromAsset } from '../../core/show/new-slide';
import { frameOfShape } from '../../core/show/shape';
import { emptyShow, type Show } from '../../core/show/show';
import { lookOver } from '../../core/snags/look-over';
import type { SlideSeen } from '../../core/snags/slide-seen';
import { createFileReader } from '../../server/assets/file-reader';
import { lookAtFile } from '../../server/assets/look-at-file';
import { storeFor } from '../../server/films/draw-segment';
import { openNodeDrawing, type NodeDrawing } from '../../server/films/node-drawing';
import type { PlateStore } from '../plates/plate-store';
import { openChecking } from './checking';
import { seeWords } from './see-words';

const FILES = new Map<AssetId, string>([
  [assetId('a'.repeat(64)), path.resolve('demo/files/PE_0412.jpg')],
  [assetId('b'.repeat(64)), path.resolve('demo/files/PE_0426.jpg')],
  [assetId('c'.repeat(64)), path.resolve('demo/files/PE_0440.jpg')],
]);
const LOGO = assetId('d'.repeat(64));
const IDS = [...FILES.keys()];
const SHAPES = ['16:9', '4:3', '1:1', '9:16'];
/** Longer than any mount was designed for. */
const LONG = 'Grandmother Ottilie’s ninetieth birthday at the old boat house by the lake';
const facts = new Map<AssetId, AssetFacts>();
let drawing: NodeDrawing;
let store: PlateStore;
let close: () => void;

beforeAll(async () => {
  // As found out of a portrait, a group and one at the side.
  const faces = [
    [{ left: 0.42, top: 0.18, width: 0.16, height: 0.24 }],
    [
      { left: 0.3, top: 0.3, width: 0.1, height: 0.15 },
      { left: 0.55, top: 0.28, width: 0.1, height: 0.15 },
    ],
    [{ left: 0.72, top: 0.4, width: 0.12, height: 0.18 }],
  ];
  for (const [index, [id, file]] of [...FILES].entries()) {
    const known = (await lookAtFile(file)).facts as PictureFacts;
    facts.set(id, {
      ...known,
      focus: {
        faces: faces[index]!.map((box) => ({ ...box, score: 1, sharpness: 0.6 })),
        subjects: [],
        salient: null,
        sharpness: 0.6,
      },
    });
  }
  facts.set(LOGO, facts.get(IDS[0]!)!);
  FILES.set(LOGO, FILES.get(IDS[0]!)!);
  drawing = await openNodeDrawing();
  const reader = createFileReader((id) => FILES.get(id)!, facts);
  store = storeFor(drawing, reader);
  close = () => {
    store.close();
    reader.close();
  };
});
afterAll(() => close());

/** A mount on as many pictures as it takes in the middle of its range, in a frame of a shape. */
function laid(mount: Mount, shape: string): Show {
  const newId = counter('p');
  const empty = emptyShow(showId('show'), LONG);
  const frame = frameOfShape(shape, { ...empty.frame, widthPx: 1280, heightPx: 720 });
  const counts = [...new Set(mount.fits(frame, LOOK).map(takesOf))];
  const count = Math.max(1, counts[Math.floor(counts.length / 2)]!);
  const slides = Array.from({ length: count }, (_, n) => {
    const id = IDS[n % IDS.length]!;
    const slide = slideFromAsset(id, facts.get(id)!, 5000, newId);
    const words = { kind: 'words' as const, id: layerId('w'), title: LONG, subtitle: LONG, place: 'bottom' as const };
    return n === 0 && mount.shelf !== 'Openers' ? { ...slide, layers: [...slide.layers, words] } : slide;
  });
  const show: Show = { ...empty, frame, slides };
  const result = withMount(
    groundOf(
      show,
      slides.map(({ id }) => id),
      newId,
    ),
    {
      mount,
      look: LOOK,
      facts,
      studio: { name: 'Harrow Lane Pictures', contact: 'hello@harrowlane.example', logo: LOGO },
      newId,
    },
  );
  if (!result.ok) throw new Error(result.sentence);
  return { ...result.show, slides: result.show.slides.filter(({ mounted }) => mounted) };
}

describe.each(SHAPES)('the shipped mounts in %s', (shape) => {
  it('cut no face that was found', () => {
    const cut = SHIPPED_MOUNTS.flatMap((mount) => {
      const prepared = prepareShow(laid(mount, shape), facts);
      return lookOver({ prepared, files: new Map(), films: [], seen: new Map() } as never, ['cut-face']).map(
        (snag) => `${mount.id}: ${snag.sentence}`,
      );
    });
    expect(cut).toEqual([]);
  });
  it('let no words leave the frame, however long, nor stand unreadable', async () => {
    const show = laid(SHIPPED_MOUNTS[0]!, shape);
    const checking = openChecking(drawing.kernels, store, show.frame);
    const faults: string[] = [];
    for (const mount of SHIPPED_MOUNTS) {
      const prepared = prepareShow(laid(mount, shape), facts);
      const seen = new Map<string, SlideSeen>();
      for (const [index, slide] of prepared.show.slides.entries())
        seen.set(slide.id, { words: await seeWords(checking, prepared, index), flashes: [] } as never);
      const look = { prepared, files: new Map(), films: [], seen } as never;
      for (const snag of lookOver(look, ['words-off-frame', 'faint-words']))
        if (snag.grave) faults.push(`${mount.id}: ${snag.sentence}`);
    }
    checking.close();
    expect(faults).toEqual([]);
  }, 240_000);
});
