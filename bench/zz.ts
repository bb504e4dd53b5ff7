import { readdir, writeFile } from 'node:fs/promises';
import path from 'node:path';
import sharp from 'sharp';
import { loadModel } from '../src/server/focus/models';
import { resized } from '../src/server/focus/rgb-picture';

const folder = '/tmp/wp/all';
const rows: unknown[] = [];
async function look(rgb: Buffer, w: number, h: number) {
  const model = await loadModel('centernet');
  const input = await resized({ rgb, widthPx: w, heightPx: h }, { left: 0, top: 0, width: 1, height: 1 }, 512, 512, 512);
  const [d] = await model.run(Float32Array.from(input), 512, 'tower_0/detections');
  const all: [number, number, number, number][] = [];
  for (let at = 0; at + 5 < d!.length; at += 6) {
    const [x1, y1, x2, y2, score, name] = d!.subarray(at, at + 6) as unknown as number[];
    if (score! < 0.25) continue;
    all.push([name!, Math.round(100 * score!) / 100, Math.round((x2! - x1!) / 5.12), Math.round((y2! - y1!) / 5.12)]);
  }
  return all;
}
for (const name of (await readdir(folder)).sort()) {
  const base = sharp(path.join(folder, name)).rotate().resize(1024, 1024, { fit: 'inside', withoutEnlargement: true }).flatten({ background: '#808080' }).toColourspace('srgb').removeAlpha();
  const png = await base.png().toBuffer();
  const turns = [];
  for (const turn of [0, 90, 270, 180]) {
    const { data, info } = await sharp(png).rotate(turn).removeAlpha().raw().toBuffer({ resolveWithObject: true });
    if (info.channels !== 3) continue;
    turns.push(await look(data, info.width, info.height));
  }
  rows.push({ name, turns });
}
await writeFile('/tmp/turns.json', JSON.stringify(rows));
