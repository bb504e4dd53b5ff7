import { createWriteStream } from 'node:fs';
import { mkdtemp, readFile, rm, writeFile } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { pipeline } from 'node:stream/promises';
import { afterAll, beforeAll, describe, expect, it } from '@jest/globals';
import { ZipFile } from 'yazl';
import { openStrangeArchive, type ArchiveLimits } from './strange-archive';

let folder: string;
beforeAll(async () => {
  folder = await mkdtemp(path.join(tmpdir(), 'tanager-archive-'));
});
afterAll(() => rm(folder, { recursive: true, force: true }));

const LIMITS: ArchiveLimits = { mostEntries: 20, mostBytes: 1_000_000 };
let count = 0;

async function zipped(fill: (zip: ZipFile) => void): Promise<string> {
  const file = path.join(folder, `${(count += 1)}.zip`);
  const zip = new ZipFile();
  fill(zip);
  zip.end();
  await pipeline(zip.outputStream, createWriteStream(file));
  return file;
}

/** A ZIP whose bytes were changed after it was written. */
async function tampered(file: string, change: (bytes: Buffer) => void): Promise<string> {
  const bytes = await readFile(file);
  change(bytes);
  const to = path.join(folder, `${(count += 1)}.zip`);
  await writeFile(to, bytes);
  return to;
}

const renamed = (from: string, to: string) => (bytes: Buffer) => {
  for (let at = bytes.indexOf(from); at >= 0; at = bytes.indexOf(from, at + 1)) bytes.write(to, at);
};

describe('a ZIP of unknown origin', () => {
  it('gives what is in it, as text and unpacked under a name of ours', async () => {
    const file = await zipped((zip) => {
      zip.addBuffer(Buffer.from('{"a":1}'), 'note.json');
      zip.addBuffer(Buffer.from('picture'), 'files/one.jpg');
      zip.addEmptyDirectory('files');
    });
    const archive = await openStrangeArchive(file, LIMITS);
    expect(archive.names).toEqual(['note.json', 'files/one.jpg']);
    expect(await archive.text('note.json', 100)).toBe('{"a":1}');
    const at = await archive.unpack('files/one.jpg', path.join(folder, 'out'), 'hash.jpg');
    expect([path.basename(at), await readFile(at, 'utf8')]).toEqual(['hash.jpg', 'picture']);
    archive.close();
  });
  it.each<[string, (zip: ZipFile) => void, ((bytes: Buffer) => void) | null, string]>([
    ['leads out of it', (zip) => zip.addBuffer(Buffer.from('x'), 'aa/bb'), renamed('aa/bb', '../bb'), 'damaged'],
    ['begins at the root', (zip) => zip.addBuffer(Buffer.from('x'), 'aa/bb'), renamed('aa/bb', '/a/bb'), 'damaged'],
    [
      'names a file twice',
      (zip) => ['A.txt', 'a.TXT'].forEach((name) => zip.addBuffer(Buffer.from('x'), name)),
      null,
      'twice',
    ],
    ['holds a link', (zip) => zip.addBuffer(Buffer.from('/etc/passwd'), 'l', { mode: 0o120777 }), null, 'a link'],
    [
      'holds too many files',
      (zip) => Array.from({ length: 30 }, (_, n) => zip.addBuffer(Buffer.from('x'), `f${n}`)),
      null,
      'too many',
    ],
    ['is too large', (zip) => zip.addBuffer(Buffer.alloc(2_000_000, 1), 'f', { compress: false }), null, 'too large'],
    ['grows beyond measure', (zip) => zip.addBuffer(Buffer.alloc(900_000), 'f'), null, 'beyond measure'],
  ])('that %s is refused with a sentence', async (_what, fill, change, says) => {
    const file = await zipped(fill);
    await expect(openStrangeArchive(change ? await tampered(file, change) : file, LIMITS)).rejects.toThrow(says);
  });
  it('that is none, or was cut off, is refused with a sentence', async () => {
    const none = path.join(folder, 'none.zip');
    await writeFile(none, 'not a zip at all');
    await expect(openStrangeArchive(none, LIMITS)).rejects.toThrow('no ZIP file');
    const whole = await readFile(await zipped((zip) => zip.addBuffer(Buffer.alloc(5000, 7), 'f')));
    await writeFile(none, whole.subarray(0, whole.length - 30));
    await expect(openStrangeArchive(none, LIMITS)).rejects.toThrow('no ZIP file');
  });
  it('whose contents are not what they say is refused when they are read', async () => {
    const file = await zipped((zip) => zip.addBuffer(Buffer.from('hello hello hello'), 'f', { compress: false }));
    const bad = await tampered(file, (bytes) => bytes.writeUInt32LE(4, bytes.lastIndexOf('PK\u0001\u0002') + 24));
    const archive = await openStrangeArchive(bad, LIMITS).catch((error: Error) => error);
    if (!(archive instanceof Error)) await expect(archive.text('f', 100)).rejects.toThrow('damaged');
    else expect(archive.message).toMatch('damaged');
  });
});
