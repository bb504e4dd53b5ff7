import {
  anything,
  HASH,
  ID,
  list,
  number,
  object,
  oneOf,
  orNull,
  text,
  truth,
  whole,
  type Schema,
} from '../../core/schema/schema';
import {
  BURN_STATES,
  DISC_STAGES,
  DISC_STATES,
  type BurnRow,
  type DiscProgress,
  type DiscReport,
} from '../../core/disc/disc-making';
import type { DiscFar, DiscLine } from '../disc/disc-service';
import type { DiscSeen, SeenFilm } from '../disc/seen-disc';

/** What the routes of video discs answer. */

const COUNT = whole(0, 1e12);
const NAME = text(4096);
const LONG = Number.MAX_SAFE_INTEGER;
const LENGTH = number(0, 1e12);

export const DISC_LIST: Schema = object<{ discs: unknown }>({
  discs: list(object<DiscLine>({ id: ID, title: NAME, filmCount: COUNT, state: oneOf(DISC_STATES) }), LONG),
});

const DISC_REPORT = object<DiscReport>({
  ...{ label: NAME, pictureKbits: COUNT, titleCount: COUNT, chapterCount: COUNT, pageCount: COUNT, pressCount: COUNT },
  told: list(NAME, LONG),
});
export const DISC_FAR: Schema = object<DiscFar>({
  state: oneOf(DISC_STATES),
  progress: orNull(object<DiscProgress>({ stage: oneOf(DISC_STAGES), share: number(0, 1), leftMs: orNull(LENGTH) })),
  ...{ problem: orNull(NAME), byteCount: orNull(whole(0, 1e15)), report: orNull(DISC_REPORT), driveDoor: orNull(NAME) },
  burns: list(
    object<BurnRow>({
      ...{ id: ID, state: oneOf(BURN_STATES), share: number(0, 1) },
      ...{ problem: orNull(NAME), serial: orNull(NAME), orderedAt: whole(0, 1e15) },
    }),
    LONG,
  ),
});
export const DISC: Schema = object<DiscSeen>({
  ...{ id: ID, plan: anything, state: oneOf(DISC_STATES), isOld: truth, stamp: NAME, report: orNull(DISC_REPORT) },
  films: list(
    object<SeenFilm>({
      ...{ showId: ID, title: NAME, lengthMs: LENGTH },
      chapters: list(object<SeenFilm['chapters'][number]>({ title: NAME, startMs: LENGTH }), LONG),
    }),
    LONG,
  ),
  ...{ pages: list(anything, LONG), fit: orNull(anything), colours: anything },
  ...{ faults: list(NAME, LONG), told: list(NAME, LONG) },
  mounts: list(object<DiscSeen['mounts'][number]>({ id: NAME, name: NAME, shelf: NAME }), LONG),
  songs: list(object<DiscSeen['songs'][number]>({ id: HASH, name: NAME }), LONG),
});
