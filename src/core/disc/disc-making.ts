/** As they are done. */
export const DISC_STAGES = ['menu', 'films', 'authoring', 'image', 'checking'] as const;
export type DiscStage = (typeof DISC_STAGES)[number];

/** As people are told how far a disc is. */
export const DISC_STAGE_NAMES: Readonly<Record<DiscStage, string>> = {
  menu: 'the menu is drawn',
  films: 'films are made',
  authoring: 'films and menu are put together',
  image: 'the image is written',
  checking: 'every button is tried',
};

/** How far a disc is. */
export interface DiscProgress {
  readonly stage: DiscStage;
  /** Of the stage, 0…1. */
  readonly share: number;
  /** Until the stage is done, by how it went so far; null while nothing can be said. */
  readonly leftMs: number | null;
}

/** Before so much of a stage is done nothing can be said about the rest. */
const ENOUGH = 0.04;

/** Tells how far a disc is, with how long its stage will go on. @param now milliseconds, from any beginning */
export function tellingFar(
  tell: (progress: DiscProgress) => void,
  now: () => number,
): (stage: DiscStage, share: number) => void {
  let stageNow: DiscStage | null = null;
  let begunMs = 0;
  return (stage, share) => {
    if (stage !== stageNow) [stageNow, begunMs] = [stage, now()];
    const leftMs = share > ENOUGH ? Math.round(((now() - begunMs) / share) * (1 - share)) : null;
    tell({ stage, share, leftMs });
  };
}

/** `ready`: there is an image. */
export const DISC_STATES = ['open', 'making', 'ready', 'failed'] as const;
export type DiscState = (typeof DISC_STATES)[number];

/** What is told of an image that was made. */
export interface DiscReport {
  readonly label: string;
  readonly pictureKbits: number;
  readonly titleCount: number;
  readonly chapterCount: number;
  readonly pageCount: number;
  /** Keys that were pressed when it was walked through. */
  readonly pressCount: number;
  /** What came out otherwise than one might think. */
  readonly told: readonly string[];
}

/** `waits`: for a blank disc in the drive. */
export const BURN_STATES = ['waits', 'writing', 'checking', 'done', 'failed', 'stopped'] as const;
export type BurnState = (typeof BURN_STATES)[number];
/** Burns that are not over. */
export const BURNING: readonly BurnState[] = ['waits', 'writing', 'checking'];

/** One copy, as its page shows it. */
export interface BurnRow {
  readonly id: string;
  readonly state: BurnState;
  /** Of what it is at, 0…1. */
  readonly share: number;
  readonly problem: string | null;
  readonly serial: string | null;
  readonly orderedAt: number;
}

/** What lies in a drive. */
export interface DriveState {
  readonly tray: 'open' | 'closed';
  readonly disc: { readonly serial: string; readonly layers: 1 | 2; readonly isBlank: boolean } | null;
  /** In times the speed at which a film is read. */
  readonly speed: number;
}

/** So many copies at once. */
export const MOST_COPIES = 50;
