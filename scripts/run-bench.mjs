// Runs a benchmark from bench/: node scripts/run-bench.mjs film
import path from 'node:path';
import { pathToFileURL } from 'node:url';
import * as esbuild from 'esbuild';
import { ensureInstalled, ensurePrograms, root, run } from './ensure.mjs';

const name = process.argv[2];
if (!/^[a-z]+$/.test(name ?? '')) throw new Error('name a benchmark: film, frame, viewer or crawl');
await ensurePrograms({
  ffmpeg: 'ffmpeg',
  ...(name === 'disc' && { dvdauthor: 'dvdauthor', genisoimage: 'genisoimage', lsdvd: 'lsdvd' }),
});
await ensureInstalled();
await run(process.execPath, [path.join(root, 'scripts/build-parts.mjs')]);
const outfile = path.join(root, 'dist', `bench-${name}.mjs`);
await esbuild.build({
  entryPoints: [path.join(root, 'bench', `${name}.ts`)],
  outfile,
  bundle: true,
  format: 'esm',
  platform: 'node',
  target: 'node20',
  packages: 'external',
  logLevel: 'warning',
});
await import(pathToFileURL(outfile).href);
