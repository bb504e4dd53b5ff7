import type { Writing } from '../database/open-database';

/** What kinds of work there are. */
export type JobKind =
  'film' | 'look' | 'proxy' | 'focus' | 'hear' | 'publish' | 'bundle' | 'series' | 'hook' | 'disc' | 'burn';

/** Work to be done later, with everything that is needed to do it, so that it can be done anywhere. */
export interface NewJob {
  readonly kind: JobKind;
  readonly studioId: string;
  /** What it is about; while one of the same kind and key is not ended there is no second. */
  readonly key: string;
  /** Plain data. */
  readonly data: unknown;
  /** Higher ones come first; 0 is usual. */
  readonly priority?: number;
  /** Not before this moment (milliseconds since 1970). */
  readonly notBefore?: number;
}

/** Work somebody has taken. */
export interface TakenJob {
  readonly id: string;
  readonly kind: JobKind;
  readonly studioId: string;
  readonly key: string;
  readonly data: unknown;
  /** Grows with each taking; what came of an earlier one can no longer be committed. */
  readonly fence: number;
  /** This one among those since anything of it was last finished, from 1. */
  readonly tries: number;
}

export interface WaitingJob {
  /** In vain until now. */
  readonly tries: number;
  /** Why the last one was. */
  readonly problem: string | null;
  /** Milliseconds since 1970. */
  readonly notBefore: number;
}

export interface JobTally {
  readonly waiting: number;
  readonly running: number;
}

/** Where work waits. SQLite is behind it here; a queue for many machines can be. */
export interface JobStore {
  /** @returns false when there is one of that kind and key already */
  add(job: NewJob): Promise<boolean>;
  /** The same within a transaction that is under way. */
  addWithin(transaction: Writing, job: NewJob): Promise<boolean>;
  /** Takes the next of these kinds whose turn has come. */
  take(kinds: readonly JobKind[], holder: string): Promise<TakenJob | null>;
  /** @returns false when the lease is lost: somebody else has taken it, or it was cancelled */
  renew(job: TakenJob): Promise<boolean>;
  /**
   * Tells how far it is.
   *
   * @param finished something of it is done for good, so that a try that ends now was not in vain
   * @returns false when the lease is lost
   */
  progress(job: TakenJob, value: unknown, finished: boolean): Promise<boolean>;
  /** Commits what came of it and ends it, both or neither. @returns false when the lease is lost: nothing was written then */
  finish(job: TakenJob, commit: (transaction: Writing) => Promise<void>): Promise<boolean>;
  /** Ends it as failed, and commits what that means. @returns false when the lease is lost */
  fail(job: TakenJob, problem: string, commit: (transaction: Writing) => Promise<void>): Promise<boolean>;
  /** To be tried again after a pause that grows with the tries, or soon when this try does not count. */
  postpone(job: TakenJob, problem: string, counts: boolean): Promise<void>;
  /** The server ends in good order: somebody else may take it at once, and this try does not count. */
  giveBack(job: TakenJob): Promise<void>;
  /** Ends it whether it waits or runs. @returns whether there was one */
  cancel(kind: JobKind, key: string): Promise<boolean>;
  /** What waits is taken before everything else of its kind. @returns whether it waits */
  first(kind: JobKind, key: string): Promise<boolean>;
  /** Leases that nobody holds any more, because what held them is known to be gone, are free at once. */
  freeAll(): Promise<void>;
  /** How far unended work of a kind is, by its keys. */
  progressOf(kind: JobKind, keys: readonly string[]): Promise<ReadonlyMap<string, unknown>>;
  /** Unended work of a kind that waits for its turn, by its keys. */
  waitingOf(kind: JobKind, keys: readonly string[]): Promise<ReadonlyMap<string, WaitingJob>>;
  isUnended(kind: JobKind, key: string): Promise<boolean>;
  /** Whether any of a kind waits for its turn. */
  hasWaiting(kind: JobKind): Promise<boolean>;
  /** Forgets work that ended some time ago. */
  cleanUp(): Promise<void>;
  tally(): Promise<JobTally>;
}
