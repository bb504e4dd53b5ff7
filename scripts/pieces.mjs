// Plays the pieces that ship with Tanager into public/pieces. They are kept with the source; this is needed only when the band or the list changes.
import { mkdir, readdir, rm } from 'node:fs/promises';
import path from 'node:path';
import { ensureInstalled, ensurePrograms, root, runQuietly } from './ensure.mjs';

await Promise.all([ensureInstalled(), ensurePrograms({ ffmpeg: 'ffmpeg', ffprobe: 'ffmpeg' })]);
await runQuietly('Building the parts', process.execPath, [path.join(root, 'scripts/build-parts.mjs')]);
const { playPieces } = await import(path.join(root, 'dist/pieces.mjs'));
const folder = path.join(root, 'public/pieces');
await mkdir(folder, { recursive: true });
const names = await playPieces(folder, (line) => process.stdout.write(`${line}\n`));
for (const name of await readdir(folder)) if (!names.includes(name)) await rm(path.join(folder, name));
