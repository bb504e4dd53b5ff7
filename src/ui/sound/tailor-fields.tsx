'use client';

import { Ban, ChevronLeft, ChevronRight, Pin, Play, Scissors } from 'lucide-react';
import type { FactsById } from '../../core/show/asset-facts';
import type { SoundProperties } from '../../core/show/edits/set-sound';
import type { PlacedSound } from '../../core/show/placed-sound';
import { onceThroughMs, pieceRuns, showMomentOf, tailoringOf } from '../../core/sound/song-runs';
import type { SoundSpan } from '../../core/sound/sound-spans';
import { movedJoin, TAILORED_SHARE, type TailorJoin, type TailorWishes } from '../../core/sound/tailor/tailor-song';
import { MOST_KEPT_JOINS } from '../../core/show/limits';
import { Button } from '../kit/button';
import { clock } from '../kit/clock';
import { useShow } from '../show/show-provider';

interface TailorFieldsProps {
  readonly cue: PlacedSound;
  readonly span: SoundSpan | null;
  readonly facts: FactsById;
  readonly onChange: (properties: SoundProperties) => void;
  /** Plays from there for a few seconds. */
  readonly onHear: (fromMs: number, toMs: number) => void;
}

const AROUND_JOIN_MS = 4000;

/** A song made as long as the show, with its real ending: the joins it takes, heard one by one, and what is to be left out. */
export function TailorFields({ cue, span, facts, onChange, onHear }: TailorFieldsProps) {
  const pace = useShow((state) => state.show.pace);
  const known = facts.get(cue.assetId);
  const listening = known?.kind === 'sound' ? known.listening : undefined;
  const wishes = cue.tailored;
  if (cue.kind !== 'song') return null;
  const tailored = span && wishes ? tailoringOf(span, facts) : null;
  const set = (next: TailorWishes) => {
    const kept = Object.entries(next).filter(([, list]) => list !== undefined && (list as unknown[]).length > 0);
    onChange({ tailored: Object.fromEntries(kept) as TailorWishes });
  };
  const begin = () =>
    onChange({
      tailored: {},
      loops: null,
      // Its own ending is heard: it need not be faded away.
      fadeOutMs: 0,
      ...(cue.ends.at === 'own-end' && { ends: { at: 'show-end', beforeMs: 0 } }),
    });
  if (!wishes)
    return (
      <p className="mt-3 flex flex-wrap items-center gap-2">
        <Button className="h-7 px-2.5" data-part="tailor" disabled={!listening?.joints} onClick={begin}>
          <Scissors size={13} /> Tailor it to end with the show
        </Button>
        <span className="flex-1 text-xs text-soft">
          {listening && !listening.joints
            ? 'This song is too short or too long to be tailored.'
            : pace
              ? 'Made longer or shorter where it goes on alike, with its real ending. Now the pictures follow it: let them lead first.'
              : 'Made longer or shorter where it goes on alike, with its real beginning and its real ending.'}
        </span>
      </p>
    );
  const ownMs = onceThroughMs(cue, facts);
  const wantedMs = span ? span.endMs - span.startMs : 0;
  const runs = span && tailored ? pieceRuns(span, facts) : [];
  const sections = listening?.sections ?? [];
  const joins = tailored?.joins ?? [];
  const keptCount = joins.filter(({ kept }) => kept).length;
  /** The joins that must be made, in the order in which they come, when one of them is (or is no longer) to be made. */
  const keeping = (at: number, isKept: boolean, moved?: { fromMs: number; toMs: number }) => {
    const keep = joins.flatMap((one, index) => {
      const own = [{ fromMs: one.fromMs, toMs: one.toMs }];
      if (index !== at) return one.kept ? own : [];
      return isKept ? [moved ?? own[0]!] : [];
    });
    set({ ...wishes, keep });
  };
  /** The nearest join before or after one, a few beats away, at which the song goes on alike. */
  const beside = (join: TailorJoin, way: -1 | 1) => {
    if (!listening?.joints) return null;
    for (let beats = 1; beats <= 4 * listening.joints.aBar; beats += 1) {
      const moved = movedJoin(listening.joints, join, way * beats);
      if (moved) return moved;
    }
    return null;
  };
  const isWithout = (startMs: number) => wishes.without?.some((one) => Math.abs(one.fromMs - startMs) < 1) ?? false;
  return (
    <section aria-label="Tailored" data-part="tailored" className="mt-3 rounded-lg bg-field p-3">
      <p className="flex flex-wrap items-center gap-x-3 gap-y-1">
        <b className="text-saffron-deep">
          {tailored
            ? `Tailored from ${clock(ownMs)} to ${clock(wantedMs)}`
            : 'It cannot be tailored to this length, so it plays as it is'}
        </b>
        {tailored && Math.abs(tailored.speed - 1) > 0.0005 && (
          <span className="tabular text-xs text-soft">
            played {Math.abs(100 * (tailored.speed - 1)).toFixed(1)} % {tailored.speed > 1 ? 'faster' : 'slower'}
          </span>
        )}
        <Button look="quiet" className="ml-auto h-7 px-2" onClick={() => onChange({ tailored: null })}>
          as it is again
        </Button>
      </p>
      {!tailored && (
        <p className="mt-1 text-xs text-soft">
          From {clock(TAILORED_SHARE.least * ownMs)} to {clock(TAILORED_SHARE.most * ownMs)} can be had of it
          {wishes.avoid || wishes.without ? ', with what is left out put back if need be' : ''}.
        </p>
      )}
      {tailored && joins.length === 0 && <p className="mt-1 text-soft">No join is needed.</p>}
      {tailored?.withoutKept && (
        <p className="mt-1 text-red-deep" data-part="joins-not-kept">
          At this length {wishes.keep!.length === 1 ? 'the join you keep' : 'the joins you keep'} cannot be made; it is
          joined otherwise until it can.
        </p>
      )}
      <ul className="mt-1 flex flex-col">
        {joins.map((join, index) => {
          const run = runs[index + 1]!;
          const atMs = run.startMs;
          return (
            <li
              key={`${join.fromMs} ${join.toMs} ${index}`}
              data-part="tailor-join"
              className="flex items-center gap-2"
            >
              <span className="tabular w-12">{clock(atMs)}</span>
              <span className="tabular text-soft">
                {clock(join.fromMs)} → {clock(join.toMs)}
              </span>
              <span className={join.quality < 0.5 ? 'text-red-deep' : 'text-soft'}>{likeness(join.quality)}</span>
              <span className="ml-auto flex">
                <Button
                  look="quiet"
                  square
                  className="size-7"
                  aria-pressed={join.kept === true}
                  aria-label={`Always make the join at ${clock(atMs)}`}
                  title={
                    !join.kept && keptCount >= MOST_KEPT_JOINS
                      ? `${MOST_KEPT_JOINS} joins at most can be kept`
                      : 'Keep this one, whatever length the song is made to'
                  }
                  disabled={!join.kept && keptCount >= MOST_KEPT_JOINS}
                  onClick={() => keeping(index, !join.kept)}
                >
                  <Pin size={13} fill={join.kept ? 'currentColor' : 'none'} />
                </Button>
                {([-1, 1] as const).map((way) => {
                  const moved = beside(join, way);
                  const Sign = way < 0 ? ChevronLeft : ChevronRight;
                  return (
                    <Button
                      key={way}
                      look="quiet"
                      square
                      className="size-7"
                      disabled={!moved || (!join.kept && keptCount >= MOST_KEPT_JOINS)}
                      aria-label={`Make the join at ${clock(atMs)} ${way < 0 ? 'earlier' : 'later'} in the song`}
                      onClick={() => moved && keeping(index, true, moved)}
                    >
                      <Sign size={13} />
                    </Button>
                  );
                })}
                <Button
                  look="quiet"
                  square
                  className="size-7"
                  aria-label={`Hear the join at ${clock(atMs)}`}
                  onClick={() =>
                    onHear(Math.max(0, atMs - AROUND_JOIN_MS), showMomentOf(run, run.fromMs) + AROUND_JOIN_MS)
                  }
                >
                  <Play size={13} />
                </Button>
                <Button
                  look="quiet"
                  square
                  className="size-7"
                  aria-label={`Not the join at ${clock(atMs)}: find another`}
                  onClick={() =>
                    set({ ...wishes, avoid: [...(wishes.avoid ?? []), { fromMs: join.fromMs, toMs: join.toMs }] })
                  }
                >
                  <Ban size={13} />
                </Button>
              </span>
            </li>
          );
        })}
      </ul>
      {sections.length > 1 && (
        <div role="group" aria-label="Sections that are heard" className="mt-2 flex flex-wrap gap-1.5">
          {sections.map((section) => (
            <button
              key={section.startMs}
              type="button"
              aria-pressed={!isWithout(section.startMs)}
              title={isWithout(section.startMs) ? 'Left out: put it back' : 'Leave it out'}
              onClick={() =>
                set({
                  ...wishes,
                  without: isWithout(section.startMs)
                    ? wishes.without!.filter((one) => Math.abs(one.fromMs - section.startMs) >= 1)
                    : [...(wishes.without ?? []), { fromMs: section.startMs, toMs: section.endMs }],
                })
              }
              className={
                isWithout(section.startMs)
                  ? 'h-6 rounded-sm border border-rule px-2 text-xs text-soft line-through'
                  : 'h-6 rounded-sm border border-saffron-deep/50 bg-saffron/15 px-2 text-xs'
              }
            >
              {section.label} <span className="tabular">{clock(section.startMs)}</span>
            </button>
          ))}
        </div>
      )}
      {wishes.keep && (tailored?.withoutKept || !tailored) && (
        <Button look="quiet" className="mt-1 h-6 px-1.5 text-xs" onClick={() => set({ ...wishes, keep: undefined })}>
          keep {wishes.keep.length === 1 ? 'it' : 'them'} no longer
        </Button>
      )}
      {wishes.avoid && (
        <Button look="quiet" className="mt-1 h-6 px-1.5 text-xs" onClick={() => set({ ...wishes, avoid: undefined })}>
          allow{' '}
          {wishes.avoid.length === 1
            ? 'the join that was refused'
            : `the ${wishes.avoid.length} joins that were refused`}{' '}
          again
        </Button>
      )}
    </section>
  );
}

function likeness(quality: number): string {
  if (quality >= 0.75) return 'as good as the same';
  if (quality >= 0.5) return 'as alike as its own bars';
  return 'it will be heard';
}
