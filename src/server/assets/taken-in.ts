import { setTimeout as wait } from 'node:timers/promises';
import { hashOfFile } from '../blobs/content-hash';
import { Refusal } from '../http/refusal';
import type { ShowId } from '../../core/show/ids';
import type { ContactSheet, SheetEntry } from './contact-sheet';

const LOOKED_AT_WITHIN_MS = 60_000;

/** Brings a file that was made here onto a show's sheet. @returns its entry, once it has been looked at */
export async function takenIn(
  sheet: Pick<ContactSheet, 'takeIn' | 'entries'>,
  show: ShowId,
  file: string,
  name: string,
  made: SheetEntry['made'],
  how: 'move' | 'copy' = 'move',
): Promise<SheetEntry> {
  const id = await hashOfFile(file);
  await sheet.takeIn(show, file, name, how, id, made);
  const until = performance.now() + LOOKED_AT_WITHIN_MS;
  for (;;) {
    const entry = (await sheet.entries(show)).find((one) => one.assetId === id);
    if (entry?.state === 'ready') return entry;
    if (entry?.state === 'refused') throw new Refusal(422, entry.problem ?? 'What was made cannot be read.');
    if (performance.now() > until)
      throw new Refusal(503, 'The server is busy with other files. What was made is safe; try again in a while.');
    await wait(60);
  }
}
