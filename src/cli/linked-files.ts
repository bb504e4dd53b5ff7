import { mkdir, symlink } from 'node:fs/promises';
import path from 'node:path';

/**
 * Stands for a person's files by links in a folder of ours, so that what is decoded once and kept beside a file is kept there and not among the person's own.
 *
 * @param workFolder is removed by whoever made it
 */
export function linkedFiles(workFolder: string): (file: string) => Promise<string> {
  let counted = 0;
  const folder = path.join(workFolder, 'files');
  return async (file) => {
    await mkdir(folder, { recursive: true });
    const link = path.join(folder, String((counted += 1)));
    await symlink(path.resolve(file), link);
    return link;
  };
}
