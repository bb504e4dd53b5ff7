import path from 'node:path';
import { backUp, bringBack, type BackupProgress, type BackupReport } from '../server/backup/backup';
import { objectSettings } from '../server/blobs/object-store';
import { dataFolder } from '../server/paths';
import { parsedArgs } from './parsed-args';
import type { Surroundings } from './tanager';
import { UsageError } from './usage-error';

/** Backs up everything people made into a folder, or brings it back from one. */
export async function backupCommand(
  which: 'backup' | 'bring-back',
  args: readonly string[],
  { folder, out, tell }: Surroundings,
): Promise<number> {
  const { place, json } = parse(which, args);
  if (process.env.DATABASE_URL && !process.env.DATABASE_URL.startsWith('file:'))
    throw new Error('The database lies elsewhere (DATABASE_URL), so it has to be backed up there.');
  const elsewhere = objectSettings();
  if (which === 'backup' && elsewhere)
    tell(
      `Files lie in the bucket “${elsewhere.bucket}”, which has to be backed up there: this takes the database, and copies that happen to lie here.\n`,
    );
  const named = path.resolve(folder, place);
  const progress = progressLine(tell);
  const report =
    which === 'backup' ? await backUp(dataFolder(), named, progress) : await bringBack(named, dataFolder(), progress);
  for (const problem of report.problems) tell(`${problem}\n`);
  const movedTo = 'movedTo' in report ? (report as { movedTo: string | null }).movedTo : null;
  if (json) out(`${JSON.stringify({ ...report, from: which === 'backup' ? dataFolder() : named })}\n`);
  else out(`${sentenceOf(which, report)}${movedTo ? ` What lay there before is in ${movedTo}.` : ''}\n`);
  return report.problems.length > 0 ? 1 : 0;
}

function sentenceOf(which: 'backup' | 'bring-back', { fileCount, copiedCount, byteCount }: BackupReport): string {
  const size = `${(byteCount / 1e6).toFixed(1)} MB`;
  return which === 'backup'
    ? `Backed up: ${fileCount} files, ${size}; ${copiedCount} of them were new.`
    : `Brought back: ${fileCount} files, ${size}.`;
}

function parse(which: string, args: readonly string[]): { place: string; json: boolean } {
  const parsed = parsedArgs(args, { json: { type: 'boolean' } });
  const [place, ...more] = parsed.positionals;
  if (place === undefined || more.length > 0) throw new UsageError(`${which} takes one folder.`);
  return { place, json: parsed.values.json ?? false };
}

function progressLine(tell: (text: string) => void): (progress: BackupProgress) => void {
  let toldTenth = -1;
  return ({ filesDone, fileCount, bytesDone }) => {
    const tenth = Math.floor((10 * filesDone) / fileCount);
    if (tenth === toldTenth) return;
    toldTenth = tenth;
    tell(`${filesDone}/${fileCount} files  ${(bytesDone / 1e6).toFixed(0)} MB\n`);
  };
}
