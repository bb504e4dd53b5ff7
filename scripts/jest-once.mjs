// Before the first test: what commands find out about files is kept for one run, and not among the person's own.
import { mkdtemp, rm } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import path from 'node:path';

let folder = null;

export default async function once() {
  folder = await mkdtemp(path.join(tmpdir(), 'tanager-facts-'));
  process.env.TANAGER_FACTS = folder;
}

export const over = async () => {
  if (folder) await rm(folder, { recursive: true, force: true });
};
