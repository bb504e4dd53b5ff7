// The app with live reloading, for working on it: npm run dev
import path from 'node:path';
import { ensureInstalled, ensurePrograms, root, run, runQuietly } from './ensure.mjs';

await ensurePrograms({ ffmpeg: 'ffmpeg', ffprobe: 'ffmpeg', dvdauthor: 'dvdauthor', genisoimage: 'genisoimage' });
await ensureInstalled();
await runQuietly('Building the drawing and film parts', process.execPath, [path.join(root, 'scripts/build-parts.mjs')]);
process.exitCode = await run(process.execPath, [
  path.join(root, 'node_modules/next/dist/bin/next'),
  'dev',
  '-p',
  process.env.PORT ?? '3217',
  '-H',
  process.env.HOST ?? '127.0.0.1',
]);
