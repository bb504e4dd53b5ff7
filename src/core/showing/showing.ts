import { momentOfFrame } from '../timing/frames';
import type { FrameRate } from '../timing/frame-rate';
import { slideIndexAt, type SlideSpan } from '../timing/slide-span';
import { unreachable } from '../unreachable';

/** Where a showing is. */
export type ShowingPhase =
  /** Nothing has been shown yet. */
  | 'before'
  | 'running'
  /** A slide is over and stays until it is told to go on. */
  | 'waiting'
  /** The picture is held where it is. */
  | 'held'
  | 'ended';

export interface ShowingState {
  readonly phase: ShowingPhase;
  readonly momentMs: number;
  /** Nothing but black is seen; what runs goes on. */
  readonly black: boolean;
  /** Every slide waits, not only those that say so. */
  readonly byHand: boolean;
  /** From its end it goes on at its beginning. */
  readonly loops: boolean;
  /** The picture that shows edges, colours and sides of the hall. */
  readonly test: boolean;
}

export type ShowingCommand =
  | { readonly do: 'start' }
  | { readonly do: 'next' }
  | { readonly do: 'back' }
  /** To a slide, counted from 0. */
  | { readonly do: 'go'; readonly slide: number }
  | { readonly do: 'black' }
  | { readonly do: 'hold' }
  | { readonly do: 'by-hand'; readonly on: boolean }
  | { readonly do: 'loop'; readonly on: boolean }
  | { readonly do: 'test' };

/** What is to be done after a command: play a stretch, stand still at a moment, or nothing. */
export type ShowingMove =
  | { readonly kind: 'play'; readonly fromMs: number; readonly untilMs: number }
  | { readonly kind: 'stand'; readonly atMs: number }
  | null;

/** The parts of a show that a showing goes by. */
export interface ShownShow {
  readonly spans: readonly SlideSpan[];
  /** Whether a slide waits to be told to go on. */
  readonly waits: readonly boolean[];
  readonly lengthMs: number;
  readonly rate: FrameRate;
}

export const BEFORE: ShowingState = {
  phase: 'before',
  momentMs: 0,
  black: false,
  byHand: false,
  loops: false,
  test: false,
};

/** A step back within this of a slide's beginning goes to the slide before. */
const BACK_AGAIN_MS = 2000;

interface Step {
  readonly state: ShowingState;
  readonly move: ShowingMove;
}

/** What a command does. A command that makes no sense where the showing is leaves it as it is. */
export function afterCommand(show: ShownShow, state: ShowingState, command: ShowingCommand): Step {
  const { spans } = show;
  const index = slideIndexAt(spans, state.momentMs) ?? 0;
  if (spans.length === 0) return { state, move: null };
  switch (command.do) {
    case 'start':
      return playFrom(show, { ...state, test: false }, 0);
    case 'next': {
      if (state.phase === 'before') return playFrom(show, { ...state, test: false }, 0);
      if (state.phase === 'held') return playFrom(show, state, state.momentMs);
      if (state.phase === 'ended') return state.loops ? playFrom(show, state, 0) : { state, move: null };
      const next = spans[index + 1];
      return next ? playFrom(show, state, next.startMs) : toEnd(show, state);
    }
    case 'back': {
      if (state.phase === 'before') return { state, move: null };
      const inside = state.momentMs - spans[index]!.startMs;
      const to = inside > BACK_AGAIN_MS || index === 0 ? index : index - 1;
      return playFrom(show, state, spans[to]!.startMs);
    }
    case 'go': {
      const span = spans[command.slide];
      return span ? playFrom(show, { ...state, test: false }, span.startMs) : { state, move: null };
    }
    case 'black':
      return { state: { ...state, black: !state.black }, move: null };
    case 'hold':
      if (state.phase === 'held') return playFrom(show, state, state.momentMs);
      if (state.phase !== 'running') return { state, move: null };
      return { state: { ...state, phase: 'held' }, move: { kind: 'stand', atMs: state.momentMs } };
    case 'by-hand': {
      const changed = { ...state, byHand: command.on };
      // Where it stops next has changed.
      return state.phase === 'running' ? playFrom(show, changed, state.momentMs) : { state: changed, move: null };
    }
    case 'loop':
      return { state: { ...state, loops: command.on }, move: null };
    case 'test':
      return { state: { ...state, test: !state.test }, move: null };
    default:
      return unreachable(command);
  }
}

/** What happens when the stretch that played is through: it waits where a slide does, the last one too, or the show has ended. */
export function afterStretch(show: ShownShow, state: ShowingState): Step {
  const index = slideIndexAt(show.spans, state.momentMs) ?? 0;
  const waits = index < show.spans.length - 1 || state.byHand || show.waits[index];
  return waits && state.phase === 'running'
    ? { state: { ...state, phase: 'waiting' }, move: null }
    : toEnd(show, state);
}

function toEnd(show: ShownShow, state: ShowingState): Step {
  return state.loops
    ? playFrom(show, state, 0)
    : { state: { ...state, phase: 'ended', momentMs: Math.max(0, show.lengthMs - 1) }, move: null };
}

function playFrom(show: ShownShow, state: ShowingState, fromMs: number): Step {
  const untilMs = untilFrom(show, state, fromMs);
  return { state: { ...state, phase: 'running', momentMs: fromMs }, move: { kind: 'play', fromMs, untilMs } };
}

/** Where it stops by itself: the end of the first slide from there on that waits, else of the show. */
function untilFrom({ spans, waits, lengthMs, rate }: ShownShow, { byHand }: ShowingState, fromMs: number): number {
  const frameMs = momentOfFrame(1, rate);
  const stop = spans.find((span, index) => (byHand || waits[index]) && span.endMs > fromMs + frameMs);
  return stop ? stop.endMs : lengthMs;
}

/** What a presenter is told of a moment. */
export interface ShowingTold {
  readonly slide: number;
  readonly goneMs: number;
  readonly leftMs: number;
}

export function toldOf({ spans, lengthMs }: ShownShow, { momentMs, phase }: ShowingState): ShowingTold {
  const slide = slideIndexAt(spans, momentMs) ?? 0;
  if (phase === 'before') return { slide: 0, goneMs: 0, leftMs: lengthMs };
  if (phase === 'ended') return { slide, goneMs: lengthMs, leftMs: 0 };
  return { slide, goneMs: momentMs, leftMs: Math.max(0, lengthMs - momentMs) };
}
