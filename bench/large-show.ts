import { copyFile } from 'node:fs/promises';
import path from 'node:path';
import { ask, type App } from '../e2e/app';
import type { PictureFacts } from '../src/core/show/asset-facts';
import { assetId, layerId, showId, type AssetId } from '../src/core/show/ids';
import { slideFromAsset } from '../src/core/show/new-slide';
import { emptyShow, type Show, type Slide } from '../src/core/show/show';
import { openBlobStore } from '../src/server/blobs/blob-store';
import { openDatabase } from '../src/server/database/open-database';
import { assets, sheetEntries } from '../src/server/database/schema';
import { createEvents } from '../src/server/events';
import { createFactStore } from '../src/server/facts/fact-store';
import { createShowService } from '../src/server/shows/show-service';

/**
 * A large show beside the demo show of a running application. Facts and prints are made up, so that it takes seconds: what is measured is the page.
 *
 * @param titled every so manieth slide has a title; none when left out
 */
export async function putLargeShow(app: App, count: number, titled?: number): Promise<Show> {
  const demo = ((await (await ask(`${app.address}/api/v1/shows/lantern-regatta`)).json()) as { show: Show }).show;
  const database = await openDatabase(`file:${path.join(app.dataFolder, 'tanager.db')}`);
  const blobs = openBlobStore(path.join(app.dataFolder, 'blobs'));
  const sources = demo.slides
    .flatMap((slide) => (slide.layers[0]?.kind === 'picture' ? [slide.layers[0].assetId] : []))
    .filter((id, index, all) => all.indexOf(id) === index)
    .slice(0, 20);
  const ids: AssetId[] = Array.from({ length: count }, (_, index) =>
    assetId(`e${index.toString(16).padStart(63, '0')}`),
  );
  let counted = 0;
  const newId = () => `n${(counted += 1)}`;
  const slideOf = (id: AssetId, index: number): Slide => {
    const slide = slideFromAsset(id, facts(index), 3000 + (index % 7) * 500, newId);
    if (titled === undefined || index % titled > 0) return slide;
    const title = { kind: 'words', title: `Picture ${index}`, subtitle: 'of a long day', place: 'bottom' } as const;
    return { ...slide, layers: [...slide.layers, { ...title, id: layerId(newId()) }] };
  };
  const show: Show = { ...emptyShow(showId('wedding'), 'A wedding'), slides: ids.map(slideOf), cues: demo.cues };
  await createShowService(database, createEvents()).put(show);
  for (const [index, id] of ids.entries()) {
    await database.db.insert(assets).values({ id, mime: 'image/jpeg', byteCount: 9_000_000 });
    await createFactStore(database).put(database.db, id, 'basics', 2, facts(index));
    await database.db.insert(sheetEntries).values({
      id: `entry-${index}`,
      showId: show.id,
      assetId: id,
      fileName: `W_${String(index).padStart(4, '0')}.jpg`,
      byteCount: 9_000_000,
      state: 'ready',
      problem: null,
      addedAt: index,
    });
    const source = await blobs.localDerived(sources[index % sources.length]!, '320.jpg');
    for (const width of [320, 960, 1920, 2880])
      await blobs.putDerived(id, `${width}.jpg`, (part) => copyFile(source, part));
  }
  database.close();
  return show;
}

const facts = (index: number): PictureFacts => ({
  kind: 'picture',
  widthPx: 6000,
  heightPx: 4000,
  hasTransparency: false,
  takenAt: `2031-06-14T${String(10 + (Math.floor(index / 300) % 12))}:${String(Math.floor(index / 5) % 60).padStart(2, '0')}:00`,
  camera: 'Orrery F2',
  brightness: 0.5,
});
