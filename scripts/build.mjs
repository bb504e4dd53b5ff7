// Builds everything: the parts and the application. The application only when its sources changed since the last build.
import { createHash } from 'node:crypto';
import { existsSync, readdirSync, readFileSync, statSync, writeFileSync } from 'node:fs';
import path from 'node:path';
import { root, runQuietly } from './ensure.mjs';

await runQuietly('Building the drawing and film parts', process.execPath, [path.join(root, 'scripts/build-parts.mjs')]);

const stamp = createHash('sha256');
for (const name of ['src', 'package-lock.json', 'next.config.ts', 'postcss.config.mjs', 'tsconfig.json'])
  add(path.join(root, name));
const hash = stamp.digest('hex');
const stampFile = path.join(root, '.next/built-from');
if (!(existsSync(stampFile) && readFileSync(stampFile, 'utf8') === hash)) {
  await runQuietly('Building the application', process.execPath, [
    path.join(root, 'node_modules/next/dist/bin/next'),
    'build',
  ]);
  writeFileSync(stampFile, hash);
}

function add(file) {
  if (statSync(file).isDirectory()) {
    for (const name of readdirSync(file).sort()) add(path.join(file, name));
    return;
  }
  if (/\.test\.tsx?$/.test(file)) return;
  stamp.update(path.relative(root, file));
  stamp.update(readFileSync(file));
}
