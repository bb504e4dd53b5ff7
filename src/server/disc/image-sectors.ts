import { open, type FileHandle } from 'node:fs/promises';
import { DiscUnreadableError } from '../../core/disc/reading/bytes';
import { SECTOR, type ReadSectors } from '../../core/disc/reading/image-files';

/** Opens an image so that its sectors can be read one by one. */
export async function openSectors(file: string): Promise<{ readonly read: ReadSectors; close(): Promise<void> }> {
  const handle: FileHandle = await open(file, 'r');
  return {
    async read(first, count) {
      const wanted = Buffer.alloc(count * SECTOR);
      const { bytesRead } = await handle.read(wanted, 0, wanted.length, first * SECTOR);
      if (bytesRead < wanted.length) throw new DiscUnreadableError(`the image ends before sector ${first + count}`);
      return wanted;
    },
    close: () => handle.close(),
  };
}
