// Draws docs/gallery from the demo's pictures.
import path from 'node:path';
import { pathToFileURL } from 'node:url';
import * as esbuild from 'esbuild';
import { ensureInstalled, ensurePrograms, root, run } from './ensure.mjs';

await ensurePrograms({ ffmpeg: 'ffmpeg' });
await ensureInstalled();
await run(process.execPath, [path.join(root, 'scripts/build-parts.mjs')]);
const outfile = path.join(root, 'dist', 'gallery.mjs');
await esbuild.build({
  entryPoints: [path.join(root, 'demo/gallery/gallery.ts')],
  outfile,
  bundle: true,
  format: 'esm',
  platform: 'node',
  target: 'node20',
  packages: 'external',
  logLevel: 'warning',
});
await import(pathToFileURL(outfile).href);
