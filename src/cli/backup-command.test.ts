import { mkdtemp, rm } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { afterAll, beforeAll, expect, it } from '@jest/globals';
import { backupCommand } from './backup-command';

let folder: string;
const before = { ...process.env };
beforeAll(async () => {
  folder = await mkdtemp(path.join(tmpdir(), 'tanager-backup-cli-'));
  process.env.TANAGER_DATA = path.join(folder, 'data');
});
afterAll(async () => {
  process.env = before;
  await rm(folder, { recursive: true, force: true });
});

it('a backup says that files in a bucket are not in it', async () => {
  const told: string[] = [];
  const surroundings = { folder, out: () => {}, tell: (text: string) => void told.push(text) };
  await backupCommand('backup', ['to'], surroundings as never).catch(() => {});
  expect(told.join('')).not.toContain('bucket');
  process.env.TANAGER_S3_BUCKET = 'evenings';
  await backupCommand('backup', ['to'], surroundings as never).catch(() => {});
  expect(told.join('')).toContain('Files lie in the bucket “evenings”, which has to be backed up there');
});
