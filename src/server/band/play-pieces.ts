import path from 'node:path';
import { PIECES } from '../../core/sound/band/pieces';
import { playToFile } from './play-to-file';

const KBITS = 72;

/** Plays all pieces that ship with Tanager. @returns the names of their files */
export async function playPieces(folder: string, tell: (line: string) => void): Promise<string[]> {
  const names: string[] = [];
  for (const { name, title, wishes } of PIECES) {
    await playToFile(wishes, { as: 'opus', out: path.join(folder, `${name}.ogg`), title, kbits: KBITS });
    names.push(`${name}.ogg`);
    tell(title);
  }
  return names;
}
