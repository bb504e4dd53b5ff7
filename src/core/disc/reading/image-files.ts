import { bytesOf, DiscUnreadableError } from './bytes';

export const SECTOR = 2048;

/** Reads whole sectors of an image. */
export type ReadSectors = (first: number, count: number) => Promise<Uint8Array>;

/** Where a file lies in an image. */
export interface ImageFile {
  readonly name: string;
  readonly firstSector: number;
  readonly byteCount: number;
}

export interface ReadImage {
  readonly label: string;
  /** All of the image. */
  readonly sectorCount: number;
  /** What lies in its folder of films. */
  readonly files: readonly ImageFile[];
}

/** The folder of films in an image's ISO 9660 file system (ECMA-119). @throws {DiscUnreadableError} */
export async function readImage(read: ReadSectors): Promise<ReadImage> {
  const volume = bytesOf(await read(16, 1));
  if (volume.text(1, 5) !== 'CD001') throw new DiscUnreadableError('there is no file system in it');
  const root = entry(volume.from(156));
  const folder = (await entries(read, root.firstSector, root.byteCount)).find(({ name }) => name === 'VIDEO_TS');
  if (!folder) throw new DiscUnreadableError('it has no folder of films');
  const files = await entries(read, folder.firstSector, folder.byteCount);
  return {
    label: volume.text(40, 32).trim(),
    sectorCount: volume.u32(84),
    files: files.map((file) => ({ ...file, name: file.name.replace(/;\d+$/, '') })),
  };
}

async function entries(read: ReadSectors, first: number, byteCount: number): Promise<ImageFile[]> {
  const all = await read(first, Math.ceil(byteCount / SECTOR));
  const found: ImageFile[] = [];
  for (let at = 0; at < byteCount;) {
    const length = all[at]!;
    if (length === 0) at = (Math.floor(at / SECTOR) + 1) * SECTOR;
    else {
      found.push(entry(bytesOf(all.subarray(at, at + length))));
      at += length;
    }
  }
  // The first two are the folder itself and the one above.
  return found.slice(2);
}

function entry(record: ReturnType<typeof bytesOf>): ImageFile {
  return { firstSector: record.u32(6), byteCount: record.u32(14), name: record.text(33, record.u8(32)) };
}
