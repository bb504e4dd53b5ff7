import { createWriteStream } from 'node:fs';
import { readdir } from 'node:fs/promises';
import path from 'node:path';
import { pipeline } from 'node:stream/promises';
import { ZipFile } from 'yazl';

/** Puts the files of a folder into a ZIP, in the order of their names, as they are: pictures do not get smaller. */
export async function zipFolder(folder: string, outFile: string, signal?: AbortSignal): Promise<void> {
  const zip = new ZipFile();
  for (const name of (await readdir(folder)).toSorted())
    zip.addFile(path.join(folder, name), name, { compress: false });
  zip.end();
  await pipeline(zip.outputStream, createWriteStream(outFile), ...(signal ? [{ signal }] : []));
}
