// How much memory a show of some gigabytes takes on its way out and in as one file, beside how fast a plain copy of it is: npm run bench:bundle [megabytes]
import { randomFillSync } from 'node:crypto';
import { createWriteStream } from 'node:fs';
import { copyFile, mkdtemp, open, rm } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { pipeline } from 'node:stream/promises';
import { openServer } from '../src/server/running-server';

const FILES = 20;
const megabytes = Number(process.argv.at(-1)) || 4000;
const folder = await mkdtemp(path.join(tmpdir(), 'tanager-bench-bundle-'));
process.env.TANAGER_DATA = path.join(folder, 'data');
const server = await openServer();
const { id } = await server.shows.create('Large');
const piece = Buffer.alloc(1024 * 1024);
for (let index = 0; index < FILES; index += 1) {
  const file = path.join(folder, `clip-${index}.mp4`);
  const handle = await open(file, 'w');
  for (let written = 0; written < megabytes / FILES; written += 1) await handle.write(randomFillSync(piece));
  await handle.close();
  await server.sheet.takeIn(id, file, path.basename(file), 'move');
}

let mostMb = 0;
const watching = setInterval(() => {
  mostMb = Math.max(mostMb, process.memoryUsage().rss / 1e6);
}, 20);
async function measured(what: string, work: () => Promise<unknown>): Promise<number> {
  mostMb = process.memoryUsage().rss / 1e6;
  const before = mostMb;
  const from = performance.now();
  await work();
  const seconds = (performance.now() - from) / 1000;
  process.stdout.write(
    `${what}: ${seconds.toFixed(1)} s, ${(megabytes / seconds).toFixed(0)} MB/s, memory ${before.toFixed(0)} MB before, ${mostMb.toFixed(0)} MB at most\n`,
  );
  return seconds;
}

const out = path.join(folder, 'large.show.zip');
const saving = await measured('saved', async () => {
  const written = await server.bundles.write(id);
  await pipeline(written!.bytes, createWriteStream(out));
});
const copying = await measured('copied', () => copyFile(out, `${out}.copy`));
const taking = await measured('taken in', async () => {
  await server.bundles.order('another', `${out}.copy`, 'large.show.zip');
  server.runner.start(['bundle']);
  await server.runner.idle('bundle');
});
const [intake] = await server.bundles.list('another');
process.stdout.write(
  `${intake!.state}, ${intake!.bad.length} bad; against a plain copy: saved ${(saving / copying).toFixed(2)}, taken in ${(taking / copying).toFixed(2)}\n`,
);
clearInterval(watching);
await server.close();
await rm(folder, { recursive: true, force: true });
