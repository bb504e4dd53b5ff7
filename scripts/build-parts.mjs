// Builds what Next does not: the kernels, the fonts, the browser's drawing worker, the film worker and the command line. Each part only when its sources changed.
import { execFileSync } from 'node:child_process';
import { createHash } from 'node:crypto';
import { cpSync, existsSync, mkdirSync, readdirSync, readFileSync, writeFileSync } from 'node:fs';
import path from 'node:path';
import { fileURLToPath } from 'node:url';
import * as esbuild from 'esbuild';
import wawoff2 from 'wawoff2';

const root = path.dirname(path.dirname(fileURLToPath(import.meta.url)));
process.chdir(root);
for (const folder of ['dist', 'public/drawing', 'public/fonts']) mkdirSync(folder, { recursive: true });

const FONTS = {
  'bricolage-grotesque': ['latin', 'latin-ext', 'vietnamese'],
  'instrument-sans': ['latin', 'latin-ext'],
};

function kernels() {
  const folder = 'src/drawing/kernels';
  const stamp = createHash('sha256');
  for (const name of readdirSync(folder).sort()) if (!name.includes('.test.')) stamp.update(readFileSync(path.join(folder, name)));
  const hash = stamp.digest('hex');
  const out = 'public/drawing/kernels.wasm';
  if (existsSync(out) && existsSync('dist/kernels.hash') && readFileSync('dist/kernels.hash', 'utf8') === hash) return;
  execFileSync(process.execPath, ['node_modules/assemblyscript/bin/asc.js', `${folder}/index.ts`, '-o', out, '--runtime', 'minimal', '-O3', '--noAssert',
    '--enable', 'simd', '--enable', 'nontrapping-f2i', '--enable', 'bulk-memory', '--initialMemory', '64'], { stdio: ['ignore', 'inherit', 'inherit'] });
  writeFileSync('dist/kernels.hash', hash);
}

async function fonts() {
  for (const [family, subsets] of Object.entries(FONTS)) {
    for (const subset of subsets) {
      const out = `public/fonts/${family}-${subset}.ttf`;
      if (existsSync(out)) continue;
      writeFileSync(out, await wawoff2.decompress(readFileSync(`node_modules/@fontsource-variable/${family}/files/${family}-${subset}-wght-normal.woff2`)));
    }
  }
}

async function bundles() {
  cpSync('node_modules/harfbuzzjs/dist/harfbuzz.wasm', 'public/drawing/harfbuzz.wasm');
  const common = { bundle: true, format: 'esm', sourcemap: false, logLevel: 'warning', target: 'es2023' };
  const entries = [
    { ...common, entryPoints: { 'film-worker': 'src/server/films/film-worker.ts', tanager: 'src/cli/tanager.ts', seed: 'demo/seed/seed.ts' }, outdir: 'dist', outExtension: { '.js': '.mjs' }, platform: 'node', target: 'node20', packages: 'external' },
    // `module` is only reached in Node.
    { ...common, entryPoints: { worker: 'src/ui/viewer/drawing-worker.ts' }, outdir: 'public/drawing', platform: 'browser', external: ['module'], minify: true },
  ];
  await Promise.all(entries.filter((entry) => Object.values(entry.entryPoints).every((file) => existsSync(file))).map((entry) => esbuild.build(entry)));
}

kernels();
await Promise.all([fonts(), bundles()]);
