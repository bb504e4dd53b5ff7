import { mkdtemp, rm } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { afterEach, beforeEach, describe, expect, it } from '@jest/globals';
import { assetId } from '../../core/show/ids';
import { openDatabase, type OpenDatabase } from '../database/open-database';
import { createFactStore, type FactStore } from './fact-store';

let folder: string;
let database: OpenDatabase;
let facts: FactStore;
const [a, b] = ['a', 'b'].map((digit) => assetId(digit.repeat(64))) as [
  ReturnType<typeof assetId>,
  ReturnType<typeof assetId>,
];
beforeEach(async () => {
  folder = await mkdtemp(path.join(tmpdir(), 'tanager-facts-'));
  database = await openDatabase(`file:${path.join(folder, 'facts.db')}`);
  facts = createFactStore(database);
  await facts.put(database.db, a, 'basics', 1, 'as it was seen first');
  await facts.put(database.db, a, 'basics', 2, 'as it is seen now');
  await facts.put(database.db, b, 'basics', 1, 'seen once');
});
afterEach(async () => {
  database.close();
  await rm(folder, { recursive: true, force: true });
});
const known = async (pinned: number | null, studio: string | null = null) =>
  Object.fromEntries(await facts.of<string>('basics', [a, b], pinned, studio));

describe('what is known about files', () => {
  it('is by the latest method, or by the one a show was made with', async () => {
    expect(await known(null)).toEqual({ [a]: 'as it is seen now', [b]: 'seen once' });
    expect(await known(1)).toEqual({ [a]: 'as it was seen first', [b]: 'seen once' });
  });
  it('is never changed once it was found out', async () => {
    await facts.put(database.db, a, 'basics', 2, 'otherwise');
    expect((await known(2))[a]).toBe('as it is seen now');
  });
  it('says of which files a newer method has not spoken yet', async () => {
    expect(await facts.missing('basics', [a, b], 2)).toEqual([b]);
  });
  it('gives way to what a person says, in that person’s studio alone, until it is taken back', async () => {
    expect(await facts.correct('studio', a, 'basics', 'as I know it')).toBeNull();
    expect((await known(1, 'studio'))[a]).toBe('as I know it');
    expect((await known(1, 'another'))[a]).toBe('as it was seen first');
    expect(await facts.correct('studio', a, 'basics', 'as I know better')).toBe('as I know it');
    expect(await facts.correct('studio', a, 'basics', null)).toBe('as I know better');
    expect((await known(1, 'studio'))[a]).toBe('as it was seen first');
  });
});
