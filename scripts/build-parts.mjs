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
for (const folder of ['dist', 'public/drawing', 'public/fonts', 'public/sound']) mkdirSync(folder, { recursive: true });

// Families a person chooses from come first, then those that stand in for scripts they lack. Every file is one subset, fetched only when a text needs it.
const FAMILIES = [
  {
    name: 'bricolage',
    package: '@fontsource-variable/bricolage-grotesque',
    file: 'bricolage-grotesque-{}-wght-normal',
    subsets: ['latin', 'latin-ext', 'vietnamese'],
    variable: true,
  },
  {
    name: 'instrument',
    package: '@fontsource-variable/instrument-sans',
    file: 'instrument-sans-{}-wght-normal',
    subsets: ['latin', 'latin-ext'],
    variable: true,
  },
  {
    name: 'spline-mono',
    package: '@fontsource-variable/spline-sans-mono',
    file: 'spline-sans-mono-{}-wght-normal',
    subsets: ['latin', 'latin-ext'],
    variable: true,
  },
  {
    name: 'fraunces',
    package: '@fontsource-variable/fraunces',
    file: 'fraunces-{}-wght-normal',
    subsets: ['latin', 'latin-ext', 'vietnamese'],
    variable: true,
  },
  {
    name: 'caveat',
    package: '@fontsource-variable/caveat',
    file: 'caveat-{}-wght-normal',
    subsets: ['latin', 'latin-ext', 'cyrillic', 'cyrillic-ext'],
    variable: true,
  },
  {
    name: 'playfair',
    package: '@fontsource-variable/playfair-display',
    file: 'playfair-display-{}-wght-normal',
    subsets: ['latin', 'latin-ext', 'vietnamese', 'cyrillic'],
    variable: true,
  },
  {
    name: 'bodoni',
    package: '@fontsource-variable/bodoni-moda',
    file: 'bodoni-moda-{}-wght-normal',
    subsets: ['latin', 'latin-ext'],
    variable: true,
  },
  {
    name: 'vollkorn',
    package: '@fontsource-variable/vollkorn',
    file: 'vollkorn-{}-wght-normal',
    subsets: ['latin', 'latin-ext', 'vietnamese', 'cyrillic'],
    variable: true,
  },
  {
    name: 'cinzel',
    package: '@fontsource-variable/cinzel',
    file: 'cinzel-{}-wght-normal',
    subsets: ['latin', 'latin-ext'],
    variable: true,
  },
  {
    name: 'oswald',
    package: '@fontsource-variable/oswald',
    file: 'oswald-{}-wght-normal',
    subsets: ['latin', 'latin-ext', 'vietnamese', 'cyrillic'],
    variable: true,
  },
  {
    name: 'josefin',
    package: '@fontsource-variable/josefin-sans',
    file: 'josefin-sans-{}-wght-normal',
    subsets: ['latin', 'latin-ext', 'vietnamese'],
    variable: true,
  },
  {
    name: 'outfit',
    package: '@fontsource-variable/outfit',
    file: 'outfit-{}-wght-normal',
    subsets: ['latin', 'latin-ext'],
    variable: true,
  },
  {
    name: 'space-grotesk',
    package: '@fontsource-variable/space-grotesk',
    file: 'space-grotesk-{}-wght-normal',
    subsets: ['latin', 'latin-ext', 'vietnamese'],
    variable: true,
  },
  {
    name: 'quicksand',
    package: '@fontsource-variable/quicksand',
    file: 'quicksand-{}-wght-normal',
    subsets: ['latin', 'latin-ext', 'vietnamese'],
    variable: true,
  },
  {
    name: 'dancing-script',
    package: '@fontsource-variable/dancing-script',
    file: 'dancing-script-{}-wght-normal',
    subsets: ['latin', 'latin-ext', 'vietnamese'],
    variable: true,
  },
  {
    name: 'plain',
    package: '@fontsource-variable/noto-sans',
    file: 'noto-sans-{}-wght-normal',
    subsets: ['greek', 'greek-ext', 'cyrillic', 'cyrillic-ext', 'vietnamese'],
    variable: true,
  },
  {
    name: 'arabic',
    package: '@fontsource-variable/noto-sans-arabic',
    file: 'noto-sans-arabic-{}-wght-normal',
    subsets: ['arabic'],
    variable: true,
  },
  {
    name: 'hebrew',
    package: '@fontsource-variable/noto-sans-hebrew',
    file: 'noto-sans-hebrew-{}-wght-normal',
    subsets: ['hebrew'],
    variable: true,
  },
  {
    name: 'devanagari',
    package: '@fontsource-variable/noto-sans-devanagari',
    file: 'noto-sans-devanagari-{}-wght-normal',
    subsets: ['devanagari'],
    variable: true,
  },
  {
    name: 'thai',
    package: '@fontsource-variable/noto-sans-thai',
    file: 'noto-sans-thai-{}-wght-normal',
    subsets: ['thai'],
    variable: true,
  },
  {
    name: 'chinese',
    package: '@fontsource-variable/noto-sans-sc',
    file: 'noto-sans-sc-{}-wght-normal',
    subsets: null,
    variable: true,
  },
  {
    name: 'korean',
    package: '@fontsource-variable/noto-sans-kr',
    file: 'noto-sans-kr-{}-wght-normal',
    subsets: null,
    variable: true,
  },
  {
    name: 'traditional-chinese',
    package: '@fontsource-variable/noto-sans-tc',
    file: 'noto-sans-tc-{}-wght-normal',
    subsets: null,
    variable: true,
  },
  {
    name: 'emoji',
    package: '@fontsource/noto-color-emoji',
    file: 'noto-color-emoji-{}-400-normal',
    subsets: ['emoji'],
    variable: false,
  },
];

function kernels() {
  const folder = 'src/drawing/kernels';
  const stamp = createHash('sha256');
  for (const name of readdirSync(folder).sort())
    if (!name.includes('.test.')) stamp.update(readFileSync(path.join(folder, name)));
  const hash = stamp.digest('hex');
  const out = 'public/drawing/kernels.wasm';
  if (existsSync(out) && existsSync('dist/kernels.hash') && readFileSync('dist/kernels.hash', 'utf8') === hash) return;
  execFileSync(
    process.execPath,
    [
      'node_modules/assemblyscript/bin/asc.js',
      `${folder}/index.ts`,
      '-o',
      out,
      '--runtime',
      'minimal',
      '-O3',
      '--noAssert',
      '--enable',
      'simd',
      '--enable',
      'nontrapping-f2i',
      '--enable',
      'bulk-memory',
      '--initialMemory',
      '64',
    ],
    { stdio: ['ignore', 'inherit', 'inherit'] },
  );
  writeFileSync('dist/kernels.hash', hash);
}

async function fonts() {
  const index = [];
  for (const family of FAMILIES) {
    const folder = `node_modules/${family.package}`;
    const ranges = JSON.parse(readFileSync(`${folder}/unicode.json`, 'utf8'));
    for (const subset of family.subsets ?? Object.keys(ranges)) {
      const part = subset.replace(/[[\]]/g, '');
      const file = family.file.replace('{}', part);
      if (!existsSync(`${folder}/files/${file}.woff2`)) continue;
      // The one file of all emoji carries the ranges of its parts.
      const covered = ranges[subset] ?? Object.values(ranges).join(',');
      index.push({
        file,
        family: family.name,
        variable: family.variable,
        ranges: covered
          .split(',')
          .map((range) =>
            range
              .replace('U+', '')
              .split('-')
              .map((end) => Number.parseInt(end, 16)),
          )
          .map(([from, to]) => [from, to ?? from]),
      });
      const out = `public/fonts/${file}.ttf`;
      if (!existsSync(out)) writeFileSync(out, await wawoff2.decompress(readFileSync(`${folder}/files/${file}.woff2`)));
    }
  }
  writeFileSync('public/fonts/index.json', JSON.stringify(index));
}

async function bundles() {
  cpSync('node_modules/harfbuzzjs/dist/harfbuzz.wasm', 'public/drawing/harfbuzz.wasm');
  const common = { bundle: true, format: 'esm', sourcemap: false, logLevel: 'warning', target: 'es2023' };
  const entries = [
    {
      ...common,
      entryPoints: {
        'film-worker': 'src/server/films/film-worker.ts',
        decoder: 'src/server/decoding/decoder-process.ts',
        'band-player': 'src/server/band/band-player.ts',
        pieces: 'src/server/band/play-pieces.ts',
        'body-reader': 'src/server/http/read-body-worker.ts',
        tanager: 'src/cli/tanager.ts',
        worker: 'src/server/farm/run-worker.ts',
        seed: 'demo/seed/seed.ts',
      },
      outdir: 'dist',
      outExtension: { '.js': '.mjs' },
      platform: 'node',
      target: 'node20',
      packages: 'external',
    },
    // `module` is only reached in Node.
    {
      ...common,
      entryPoints: {
        worker: 'src/ui/viewer/drawing-worker.ts',
        'plate-worker': 'src/ui/viewer/plate-worker.ts',
        'check-worker': 'src/ui/snags/check-worker.ts',
        'band-worker': 'src/ui/sound/band-worker.ts',
      },
      outdir: 'public/drawing',
      platform: 'browser',
      external: ['module'],
      minify: true,
    },
    // Scripts of a page from a disk, where modules cannot be opened: what waits at the top of them waits in a function.
    {
      ...common,
      entryPoints: { drawing: 'src/ui/page/drawing-from-page.ts', plates: 'src/ui/page/plates-from-page.ts' },
      outdir: 'dist/page',
      platform: 'browser',
      external: ['module'],
      define: { 'import.meta.url': JSON.stringify('https://page.invalid/') },
      banner: { js: '(async () => {' },
      footer: { js: '})();' },
      minify: true,
    },
    {
      ...common,
      format: 'iife',
      entryPoints: { player: 'src/ui/page/play-page.ts' },
      outdir: 'dist/page',
      platform: 'browser',
      minify: true,
    },
    {
      ...common,
      entryPoints: { limiter: 'src/ui/viewer/limiter-worklet.ts', recorder: 'src/ui/booth/recorder-worklet.ts' },
      outdir: 'public/sound',
      platform: 'browser',
      minify: true,
    },
  ];
  await Promise.all(
    entries
      .filter((entry) => Object.values(entry.entryPoints).every((file) => existsSync(file)))
      .map((entry) => esbuild.build(entry)),
  );
}

/** What tones HDR clips down, as tables that ffmpeg reads. */
async function toneTables() {
  const { outputFiles } = await esbuild.build({
    entryPoints: ['src/core/light/hdr.ts'],
    bundle: true,
    format: 'esm',
    write: false,
  });
  const code = outputFiles[0].text;
  const { toneTable } = await import(`data:text/javascript,${encodeURIComponent(code)}`);
  for (const hdr of ['pq', 'hlg']) writeFileSync(`dist/tone-${hdr}.cube`, toneTable(hdr));
}

kernels();
await Promise.all([fonts(), bundles(), toneTables()]);
