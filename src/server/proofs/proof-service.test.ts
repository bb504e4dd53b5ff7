import { mkdtemp, rm } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { afterEach, beforeEach, describe, expect, it } from '@jest/globals';
import sharp from 'sharp';
import { assetId, showId } from '../../core/show/ids';
import { openDatabase, type OpenDatabase } from '../database/open-database';
import { sheetEntries, shows } from '../database/schema';
import { createEvents } from '../events';
import { proofPicture } from './proof-picture';
import { createProofService, type ProofService } from './proof-service';

const SHOW = showId('ours');
const [a, b, never] = ['a', 'b', 'c'].map((letter) => assetId(letter.repeat(64))) as [
  ReturnType<typeof assetId>,
  ReturnType<typeof assetId>,
  ReturnType<typeof assetId>,
];
let folder: string;
let database: OpenDatabase;
let proofs: ProofService;
let clock: number;
let told: number;

beforeEach(async () => {
  folder = await mkdtemp(path.join(tmpdir(), 'tanager-proof-'));
  database = await openDatabase(`file:${path.join(folder, 'proof.db')}`);
  clock = 1000;
  told = 0;
  const events = createEvents();
  events.listen(SHOW, ({ kind }) => {
    if (kind === 'proofs') told += 1;
  });
  proofs = createProofService(database, events, () => clock);
  const row = { revision: 0, slideCount: 0, lengthMs: 0, createdAt: 0, changedAt: 0, title: 'Regatta' };
  await database.db.insert(shows).values({ ...row, id: SHOW });
  await database.db.insert(sheetEntries).values(
    [a, b].map((id) => ({
      id: `entry-${id}`,
      showId: SHOW,
      assetId: id,
      fileName: 'x.jpg',
      byteCount: 1,
      state: 'ready' as const,
      addedAt: 0,
    })),
  );
});
afterEach(async () => {
  database.close();
  await rm(folder, { recursive: true, force: true });
});

const WANTED = { label: ' The choir ', pictures: [a, b, a], longestPx: 640, watermark: null, endsAt: null };
async function opened(more: Partial<typeof WANTED> & { endsAt?: number | null } = {}) {
  await proofs.open('studio', SHOW, { ...WANTED, ...more } as typeof WANTED);
  return (await proofs.list(SHOW))[0]!;
}

describe('a proof', () => {
  it('shows each picture once, and none that is not on the sheet', async () => {
    const { token, pictureCount, label } = await opened();
    expect([pictureCount, label]).toEqual([2, 'The choir']);
    expect((await proofs.find(token))!.pictures).toEqual([a, b]);
    expect(await proofs.open('studio', SHOW, { ...WANTED, pictures: [never] })).toBeNull();
  });
  it('keeps the latest mark of each picture, tells the studio, and forgets what was wiped off', async () => {
    const { token } = await opened();
    told = 0;
    await proofs.mark(token, { assetId: a, mark: 'keep', note: '' });
    await proofs.mark(token, { assetId: a, mark: 'leave-out', note: 'eyes shut' });
    await proofs.mark(token, { assetId: b, mark: 'linger', note: '' });
    await proofs.mark(token, { assetId: b, mark: null, note: '' });
    expect(await proofs.mark(token, { assetId: never, mark: 'keep', note: '' })).toBe('not-there');
    const [row] = await proofs.list(SHOW);
    expect(row!.marks).toEqual([{ assetId: a, mark: 'leave-out', note: 'eyes shut' }]);
    expect(row!.tally).toMatchObject({ leaveOut: 1, unmarked: 1, notes: 1 });
    expect(told).toBe(4);
  });
  it('stands once it is sent, until the studio lets it be changed again', async () => {
    const { id, token } = await opened();
    await proofs.mark(token, { assetId: a, mark: 'keep', note: '' });
    expect(await proofs.send(token, ' Ilka ')).toBe('done');
    expect([
      await proofs.send(token, 'Ilka'),
      await proofs.mark(token, { assetId: b, mark: 'keep', note: '' }),
    ]).toEqual(['sent', 'sent']);
    expect((await proofs.list(SHOW))[0]).toMatchObject({ sentBy: 'Ilka', sentAt: 1000, tally: { keep: 1 } });
    await proofs.change(SHOW, id, { sent: false });
    expect(await proofs.mark(token, { assetId: b, mark: 'keep', note: '' })).toBe('done');
  });
  it('is not there once its time is over, it is shut or removed, and never another show’s', async () => {
    const { id, token } = await opened({ endsAt: 2000 } as never);
    expect(await proofs.change(showId('another'), id, { shut: true })).toBe(false);
    expect(await proofs.remove(showId('another'), id)).toBe(false);
    clock = 2001;
    expect([await proofs.find(token), await proofs.send(token, 'Ilka')]).toEqual([null, 'not-there']);
    await proofs.change(SHOW, id, { endsAt: null });
    expect(await proofs.find(token)).not.toBeNull();
    await proofs.change(SHOW, id, { shut: true });
    expect(await proofs.mark(token, { assetId: a, mark: 'keep', note: '' })).toBe('not-there');
    expect(await proofs.remove(SHOW, id)).toBe(true);
    expect(await proofs.list(SHOW)).toEqual([]);
  });
});

describe('a picture of a proof', () => {
  const print = () =>
    sharp({ create: { width: 1200, height: 800, channels: 3, background: '#406080' } })
      .withExif({ IFD0: { Make: 'Harrow' }, IFD3: { GPSLatitude: '51/1 30/1 0/1' } })
      .jpeg()
      .toBuffer();
  it('is no longer than was chosen, never larger than it was, and tells nothing of place or camera', async () => {
    const small = await sharp(await proofPicture(await print(), 640, null)).metadata();
    expect([small.width, small.height, small.exif]).toEqual([640, 427, undefined]);
    expect((await sharp(await proofPicture(await print(), 2400, null)).metadata()).width).toBe(1200);
  });
  it.each(['Harrow Lane', 'Αρχείο', '하로 레인'])('has “%s” all over it', async (words) => {
    const [plain, marked] = await Promise.all(
      [null, words].map(async (over) =>
        sharp(await proofPicture(await print(), 640, over))
          .greyscale()
          .raw()
          .toBuffer(),
      ),
    );
    const quarters = [0, 1, 2, 3].map((quarter) => {
      const from = Math.floor((plain!.length * quarter) / 4);
      let changed = 0;
      for (let at = from; at < from + plain!.length / 4; at += 1)
        if (Math.abs(plain![at]! - marked![at]!) > 16) changed += 1;
      return changed / (plain!.length / 4);
    });
    expect(Math.min(...quarters)).toBeGreaterThan(0.01);
  });
});
