// From nothing to the running app with the demo show: npm run demo
import { spawn } from 'node:child_process';
import { randomBytes } from 'node:crypto';
import path from 'node:path';
import { ensureInstalled, ensurePrograms, root, runQuietly } from './ensure.mjs';

const startedMs = Date.now();
const port = process.env.PORT ?? '3217';
const host = process.env.HOST ?? '127.0.0.1';
// Phones in the hall may be remotes: a door of its own listens beyond this machine, for what is paired and nothing else.
const hall = process.argv.includes('--hall');

await ensurePrograms({ ffmpeg: 'ffmpeg', ffprobe: 'ffmpeg', dvdauthor: 'dvdauthor', genisoimage: 'genisoimage' });
await ensureInstalled();
await runQuietly('Building', process.execPath, [path.join(root, 'scripts/build.mjs')]);
await runQuietly('Seeding the demo show', process.execPath, [path.join(root, 'dist/seed.mjs'), '--whole']);

// Signs in once, whoever reads it here: nothing is open to others of this machine, or to who comes through a proxy.
const entry = randomBytes(24).toString('base64url');

const server = spawn(
  process.execPath,
  [path.join(root, 'node_modules/next/dist/bin/next'), 'start', '-p', port, '-H', host],
  {
    cwd: root,
    stdio: ['ignore', 'pipe', 'inherit'],
    env: {
      TANAGER_FOLDER: path.join(root, 'demo/files'),
      ...process.env,
      ...(hall && { TANAGER_HALL: process.env.TANAGER_HALL ?? '1' }),
      TANAGER_ENTRY: entry,
      NODE_ENV: 'production',
      NEXT_TELEMETRY_DISABLED: '1',
      // The server ends in good order by itself.
      NEXT_MANUAL_SIG_HANDLE: 'true',
      PORT: port,
      HOST: host,
    },
  },
);
for (const signal of ['SIGINT', 'SIGTERM']) process.on(signal, () => server.kill(signal));
server.on('close', (code) => process.exit(code ?? 0));
server.stdout.on('data', (chunk) => process.env.TANAGER_VERBOSE && process.stdout.write(chunk));

// By name: browsers allow passkeys at names only.
const address = `http://${['0.0.0.0', '127.0.0.1'].includes(host) ? 'localhost' : host}:${port}`;
for (;;) {
  const answered = await fetch(address).then(
    (response) => response.ok,
    () => false,
  );
  if (answered) break;
  await new Promise((resolve) => setTimeout(resolve, 200));
}
process.stdout.write(
  `Tanager is at ${address}/enter#${entry}  (signs in once; ready in ${((Date.now() - startedMs) / 1000).toFixed(1)} s; Ctrl C ends it)\n`,
);
