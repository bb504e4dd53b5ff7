import { stat } from 'node:fs/promises';
import path from 'node:path';
import { and, eq } from 'drizzle-orm';
import type { DiscProgress } from '../../core/disc/disc-making';
import { hashOfFile } from '../blobs/content-hash';
import type { OpenDatabase } from '../database/open-database';
import { discs } from '../database/schema';
import { FilmFailedError } from '../films/film-failed-error';
import { failureSentence } from '../films/film-row';
import type { FilmService } from '../films/film-service';
import type { KeptFiles } from '../films/kept-files';
import type { JobKindOfWork } from '../jobs/job-runner';
import type { TakenJob } from '../jobs/job';
import { DiscProgramError } from './disc-programs';
import { NO_MOUNT, withLogo, type DiscSources } from './disc-sources';
import { makeImage, type DiscSource } from './make-image';

interface MakingParts {
  readonly database: OpenDatabase;
  readonly films: FilmService;
  readonly sources: DiscSources;
  readonly kept: KeptFiles;
  readonly folder: string;
  readonly now?: () => number;
}

export const imageFile = (folder: string, id: string): string => path.join(folder, `${id}.iso`);
export const workFolderOf = (folder: string, id: string): string => path.join(folder, `${id}.work`);

const MOST_TRIES = 3;

/** The work on the image of a disc. What of its films and pages was drawn is kept: after the server ended anyhow it goes on from there. */
export function makingDisc({ database, films, sources, kept, folder, now = Date.now }: MakingParts): JobKindOfWork {
  const { db } = database;
  return {
    kind: 'disc',
    // Its workers fill the machine.
    atOnce: 1,
    mostTries: MOST_TRIES,
    async work({ job, signal, progress }) {
      const id = job.key;
      const [row] = await db.select().from(discs).where(eq(discs.id, id));
      if (!row) throw new Error('a disc that is made is not there');
      const { plan, studioId } = row;
      const { shows, faults } = await sources.showsOf(studioId, plan);
      if (faults.length > 0) throw new FilmFailedError(faults.join(' '), '');
      const mount = await sources.mountOf(studioId, plan);
      if (!mount) throw new FilmFailedError(NO_MOUNT, '');
      const gathered: DiscSource[] = [];
      let missing = 0;
      for (const show of shows) {
        const source = await films.sourceOf(show, 'looked-at');
        missing += source.missingCount;
        gathered.push({ show, ...source });
      }
      const outFile = imageFile(folder, id);
      const made = await makeImage({
        ...withLogo({ plan, sources: gathered, ...mount, studio: await sources.studioOf(studioId) }),
        ...{ outFile, kept, signal },
        workFolder: workFolderOf(folder, id),
        onProgress: (far) => progress(far satisfies DiscProgress),
      });
      const imageHash = await hashOfFile(outFile);
      const { size } = await stat(outFile);
      const lacking = made.problems.length + missing;
      const { walked, pictureKbits } = made;
      return async (transaction) => {
        await transaction
          .update(discs)
          .set({
            ...{ state: 'ready', problem: null, byteCount: size, imageHash, madeAt: now() },
            madeOf: sources.madeOf(plan, shows),
            report: {
              label: walked.label,
              pictureKbits,
              titleCount: walked.titleCount,
              chapterCount: walked.chapterCount,
              pageCount: walked.pageCount,
              pressCount: walked.pressCount,
              told: [
                ...made.told,
                ...(lacking > 0
                  ? [`${lacking} ${lacking === 1 ? 'file is' : 'files are'} missing from it or could not be read.`]
                  : []),
              ],
            },
          })
          .where(and(eq(discs.id, id), eq(discs.state, 'making')));
      };
    },
    failed(job: TakenJob, error) {
      const problem =
        error === null
          ? 'Making this disc ended the server again and again, so it is not tried any more.'
          : error instanceof DiscProgramError
            ? error.message
            : failureSentence(error);
      return {
        problem,
        commit: async (transaction) => {
          await transaction
            .update(discs)
            .set({ state: 'failed', problem })
            .where(and(eq(discs.id, job.key), eq(discs.state, 'making')));
        },
      };
    },
  };
}
