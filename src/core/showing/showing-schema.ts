import { number, object, oneOf, truth, whole, type Schema } from '../schema/schema';
import { LONGEST_SHOW_MS, MOST_SLIDES } from '../show/limits';
import type { ShowingCommand, ShowingPhase } from './showing';

/** What a remote may ask of a showing. */
export const SHOWING_COMMAND: Schema = {
  is: 'kinds',
  by: 'do',
  kinds: {
    start: {},
    next: {},
    back: {},
    go: { slide: whole(0, MOST_SLIDES) },
    black: {},
    hold: {},
    'by-hand': { on: truth },
    loop: { on: truth },
    test: {},
  } satisfies Record<ShowingCommand['do'], object>,
};

/** What a remote shows of it. */
export interface RemoteNews {
  readonly phase: ShowingPhase;
  /** Counted from 1. */
  readonly slide: number;
  readonly slideCount: number;
  readonly goneMs: number;
  readonly leftMs: number;
  readonly black: boolean;
}

const PHASES = ['before', 'running', 'waiting', 'held', 'ended'] as const satisfies readonly ShowingPhase[];

export const REMOTE_NEWS: Schema = object<RemoteNews>({
  phase: oneOf(PHASES),
  slide: whole(0, MOST_SLIDES + 1),
  slideCount: whole(0, MOST_SLIDES),
  goneMs: number(0, LONGEST_SHOW_MS),
  leftMs: number(0, LONGEST_SHOW_MS),
  black: truth,
});
