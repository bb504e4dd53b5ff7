// Three hundred photographs of 24 MP through the page's own upload, until every print can be seen, and until the larger prints are there: npm run bench:intake [COUNT]
import { mkdtemp, readdir, rm, writeFile } from 'node:fs/promises';
import { availableParallelism, tmpdir } from 'node:os';
import path from 'node:path';
import sharp from 'sharp';
import { ask, dropFiles, openApp, openBrowser, openPage } from '../e2e/app';

const COUNT = Number(process.argv[3] ?? 300);
const app = await openApp();
const folder = await mkdtemp(path.join(tmpdir(), 'tanager-bench-'));
process.stdout.write(`making ${COUNT} photographs of 6000 × 4000 …\n`);
const noise = await sharp({
  create: {
    width: 6000,
    height: 4000,
    channels: 3,
    background: '#000',
    noise: { type: 'gaussian', mean: 120, sigma: 46 },
  },
})
  .blur(0.6)
  .jpeg({ quality: 92 })
  .toBuffer();
const scenes = (await readdir('demo/files')).filter((name) => /^PE_.*\.jpg$/.test(name)).slice(0, 4);
const files: string[] = [];
const bases = await Promise.all(
  scenes.map(async (name) =>
    sharp(path.join('demo/files', name))
      .resize(6000, 4000, { fit: 'cover' })
      .composite([{ input: noise, blend: 'soft-light' }])
      .jpeg({ quality: 93 })
      .withExif({ IFD0: { Model: 'Orrery F2' } })
      .toBuffer(),
  ),
);
for (let index = 0; index < COUNT; index += 1) {
  const file = path.join(folder, `P_${String(index).padStart(4, '0')}.jpg`);
  // The same pixels under another hash: a comment after the first marker.
  const base = bases[index % bases.length]!;
  const comment = Buffer.from(`\xff\xfe\x00\x0bphoto${String(index).padStart(4, '0')}`, 'latin1');
  await writeFile(file, Buffer.concat([base.subarray(0, 2), comment, base.subarray(2)]));
  files.push(file);
}
const megabytes = bases.reduce((sum, base) => sum + base.length, 0) / bases.length / 1e6;

const browser = await openBrowser();
const page = await openPage(browser);
const { id } = (await (
  await ask(`${app.address}/api/v1/shows`, {
    method: 'POST',
    headers: { 'content-type': 'application/json' },
    body: JSON.stringify({ title: 'Intake' }),
  })
).json()) as { id: string };
await page.goto(`${app.address}/shows/${id}/gather`);
await page.waitForSelector('[data-part=gather]');
const startedMs = performance.now();
let longest = 0;
await page.exposeFunction('stood', (ms: number) => {
  longest = Math.max(longest, ms);
});
await page.evaluate(() => {
  let last = performance.now();
  setInterval(() => {
    const now = performance.now();
    if (now - last > 100) void (window as unknown as { stood(ms: number): void }).stood(now - last);
    last = now;
  }, 10);
});
await dropFiles(page, '[data-part=gather]', files);
const entries = async () =>
  (
    (await (await ask(`${app.address}/api/v1/shows/${id}/sheet`)).json()) as {
      entries: { assetId: string; state: string }[];
    }
  ).entries;
let arrivedMs = 0;
for (;;) {
  const now = await entries();
  if (now.length === COUNT && arrivedMs === 0) arrivedMs = performance.now() - startedMs;
  if (now.filter((entry) => entry.state === 'ready').length === COUNT) break;
  // Asking costs the server something as well.
  await new Promise((resolve) => {
    setTimeout(resolve, 1000);
  });
}
const readyMs = performance.now() - startedMs;
process.stdout.write(
  `${COUNT} photographs of 24 MP, ${megabytes.toFixed(1)} MB each, on ${availableParallelism()} cores\n`,
);
process.stdout.write(`all uploaded                    ${(arrivedMs / 1000).toFixed(1).padStart(8)} s\n`);
process.stdout.write(
  `every print can be seen         ${(readyMs / 1000).toFixed(1).padStart(8)} s   (${(((readyMs / COUNT) * 300) / 1000).toFixed(1)} s for 300)\n`,
);
process.stdout.write(`longest the page stood still    ${longest.toFixed(0).padStart(8)} ms\n`);
const derived = path.join(app.dataFolder, 'blobs/derived');
const largeCount = async () =>
  (await readdir(derived, { recursive: true })).filter((name) => name.endsWith('/960.jpg')).length;
const hurry = performance.now();
while ((await largeCount()) < Math.min(COUNT, 40) && performance.now() - hurry < 120_000)
  await new Promise((resolve) => {
    setTimeout(resolve, 500);
  });
process.stdout.write(
  `larger prints behind it         ${((performance.now() - hurry) / Math.max(1, await largeCount()) / 1000).toFixed(2).padStart(8)} s each\n`,
);
await browser.close();
await app.close();
await rm(folder, { recursive: true, force: true });
process.exit(0);
