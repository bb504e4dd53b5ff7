// Draws segments of films for servers that share a queue: npm run worker. Installs and builds what is missing first.
import path from 'node:path';
import { pathToFileURL } from 'node:url';
import { ensureInstalled, ensurePrograms, root, runQuietly } from './ensure.mjs';

process.env.TANAGER_HOME ??= root;
await ensurePrograms({ ffmpeg: 'ffmpeg', ffprobe: 'ffmpeg' });
await ensureInstalled();
await runQuietly('Building the parts', process.execPath, [path.join(root, 'scripts/build-parts.mjs')]);
await import(pathToFileURL(path.join(root, 'dist/worker.mjs')).href);
