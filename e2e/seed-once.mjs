// Before the first driven test: the demo's data are made once, and every test that begins with the demo copies them.
import { spawn } from 'node:child_process';
import { mkdtemp, rm } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import path from 'node:path';
import once, { over } from '../scripts/jest-once.mjs';

let folder = null;

export default async function seedOnce() {
  await once();
  folder = await mkdtemp(path.join(tmpdir(), 'tanager-seeded-'));
  const env = {
    ...process.env,
    NODE_OPTIONS: '',
    NODE_ENV: 'production',
    TANAGER_DATA: folder,
    TANAGER_SEED: 'prepared',
  };
  const code = await new Promise((resolve) => {
    spawn(process.execPath, ['dist/seed.mjs'], { env, stdio: 'inherit' }).on('close', resolve);
  });
  if (code !== 0) throw new Error('the demo could not be seeded; run npm run build first');
  process.env.TANAGER_SEEDED = folder;
}

export const unseed = async () => {
  await over();
  if (folder) await rm(folder, { recursive: true, force: true });
};
