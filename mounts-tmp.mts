import { readdirSync } from 'node:fs';
import sharp from 'sharp';
import { createCanvas, GlobalFonts } from '@napi-rs/canvas';
import { planFrame, prepareShow } from './src/core/frame/plan-frame';
import { groundOf, withMount } from './src/core/mounts/lay-mount';
import { SHIPPED_MOUNTS } from './src/core/mounts/shipped/shipped-mounts';
import { takesOf } from './src/core/mounts/mount';
import { slideFromAsset } from './src/core/show/new-slide';
import { emptyShow } from './src/core/show/show';
import { frameOfShape } from './src/core/show/shape';
import { createPainter } from './src/drawing/paint/paint-frame';
import { pixelsOf } from './src/drawing/planes/surface';
import { createFileReader } from './src/server/assets/file-reader';
import { storeFor } from './src/server/films/draw-segment';
import { openNodeDrawing } from './src/server/films/node-drawing';
import { lookAndFind } from './src/server/focus/look-and-find';
import { hashOfFile } from './src/server/blobs/content-hash';
const [shape = '16:9', set = 'mixed', only = '', out = '/tmp/mounts.png', moments = ''] = process.argv.slice(2);
const demo = readdirSync('demo/files').filter((n) => /^PE.*jpg$/.test(n)).map((n) => 'demo/files/' + n);
const ph = ['p1','p2','p3','p4','p5'].map((n) => `/tmp/ph/${n}.jpg`);
const crowd = 'node_modules/@vladmandic/human/assets/samples.jpg';
const sets: Record<string, string[]> = { mixed: [...ph, ...demo].slice(0, 26), demo, upright: readdirSync('/tmp/set-upright').map((n) => '/tmp/set-upright/' + n), wide: readdirSync('/tmp/set-wide').map((n) => '/tmp/set-wide/' + n), tiny: readdirSync('/tmp/set-tiny').map((n) => '/tmp/set-tiny/' + n) };
const facts = new Map<any, any>(); const files = new Map<any, string>(); const order: any[] = [];
const add = async (f: string) => { const id = await hashOfFile(f); if (!facts.has(id)) { files.set(id, f); facts.set(id, await lookAndFind(f)); order.push(id); } return id; };
for (const f of sets[set]!) await add(f);
const many = await add(crowd); order.pop();
const logo = await add('demo/files/regatta-emblem.png'); order.pop();
const look = JSON.parse(process.env.LOOK ?? 'null') ?? { letters: { title: 'fraunces', text: 'instrument', weight: 500, spacing: 0 }, palette: { ink: '#1d2230', paper: '#f6f1e7', accent: '#b5472f', soft: '#cdbfa6' } };
let base: any = emptyShow('x' as any, process.env.TITLE ?? 'Midsummer on the island');
base = { ...base, frame: frameOfShape(shape as any, base.frame) };
let n = 0; const newId = () => 'n' + (n += 1);
const drawing = await openNodeDrawing();
const store = storeFor(drawing, createFileReader((id: any) => files.get(id)!, facts));
GlobalFonts.registerFromPath('public/fonts/instrument-sans-latin-wght-normal.ttf', 'Label');
const area = 300 * 170; const ar = base.frame.widthPx / base.frame.heightPx;
const ch = Math.round(Math.sqrt(area / ar) / 2) * 2, cw = Math.round(ch * ar / 2) * 2;
const mounts = SHIPPED_MOUNTS.filter((m) => !only || only.split(',').includes(m.id) || m.shelf === only);
const cells: { label: string; px: Buffer }[] = [];
const painter = createPainter(drawing.kernels, cw, ch);
for (const mount of mounts) {
  const fits = mount.fits(base.frame, look as any);
  const counts = [...new Set(fits.map(takesOf))];
  const wanted = process.env.COUNTS ? counts : [counts[Math.floor(counts.length / 2)]!];
  for (const count of wanted) {
  const ids = mount.id === 'face-to-face' ? [many] : Array.from({ length: Math.max(1, count) }, (_, i) => order[(i + Number(process.env.FROM ?? 0)) % order.length]);
  const slides = ids.map((id: any) => slideFromAsset(id, facts.get(id), 5000, newId)).map((s: any, i: number) => i === 0 && !/Openers/.test(mount.shelf) ? { ...s, layers: [...s.layers, { kind: 'words', id: 'w', title: process.env.WORDS ?? 'The boat house', subtitle: 'Breakfast for forty', place: 'bottom' }] } : s);
  const show = { ...base, slides };
  const laid = withMount(groundOf(show, slides.map((s: any) => s.id), newId), { mount, look: look as any, facts, studio: { name: 'Harrow Lane Pictures', contact: 'hello@harrowlane.example', logo }, newId });
  if (!laid.ok) { console.log(mount.id, laid.sentence); continue; }
  const made = laid.show.slides.find((s: any) => s.mounted)!;
  const alone = { ...laid.show, slides: [{ ...made, transition: { kind: 'cut' } }], cues: [] } as any;
  const prepared = prepareShow(alone, facts);
  for (const at of moments ? moments.split(',').map(Number) : [mount.posterMs]) {
    const plan = planFrame(prepared, Math.min(at, made.lengthMs - 40), { widthPx: cw, heightPx: ch })!;
    await store.prepare(plan);
    for (const [id, e] of store.problems()) console.log(mount.id, files.get(id), (e as any).message);
    cells.push({ label: `${mount.name} ${count} ${at}`, px: Buffer.from(pixelsOf(drawing.kernels, painter.paint(plan, store)).rgba) });
  }}
}
const columns = Math.max(3, Math.floor(1300 / (cw + 8)));
const canvas = createCanvas(columns * (cw + 8) + 8, Math.ceil(cells.length / columns) * (ch + 24) + 8);
const c = canvas.getContext('2d'); c.fillStyle = '#888'; c.fillRect(0, 0, canvas.width, canvas.height); c.font = '13px Label';
cells.forEach((cell, i) => { const x = 8 + (i % columns) * (cw + 8), y = 8 + Math.floor(i / columns) * (ch + 24); const im = c.createImageData(cw, ch); im.data.set(cell.px); c.putImageData(im, x, y); c.fillStyle = '#000'; c.fillText(cell.label, x, y + ch + 14); });
await sharp(canvas.toBuffer('image/png')).toFile(out);
console.log(cells.length, cw, ch);
process.exit(0);
