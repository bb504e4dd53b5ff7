'use client';

import { useMemo, useState } from 'react';
import { chooseBest, type ChosenFor, type OmittedFor } from '../../core/choosing/choose';
import type { Mark } from '../../core/show/mark';
import type { SheetEntry } from '../../server/assets/contact-sheet';
import { Button } from '../kit/button';
import { Choice } from '../kit/choice';
import { Dialog } from '../kit/dialog';
import { NumberField } from '../kit/number-field';
import { useShow } from '../show/show-provider';
import { usePictureUrl } from '../show/file-url';
import { candidatesOf } from './use-stacks';

interface ChooseDialogProps {
  /** All prints of the sheet. */
  readonly sheet: readonly SheetEntry[];
  readonly onClose: () => void;
}

const PEOPLE = { none: 'nobody in it', few: 'one or two people', many: 'many people' } as const;

function reasonOf(reason: ChosenFor): string {
  switch (reason.why) {
    case 'kept':
      return 'you kept it';
    case 'hour':
      return `the best of ${reason.hour.slice(11)} o’clock`;
    case 'best':
      return `best of ${reason.of} alike`;
    case 'time':
      return 'nothing else from then';
    case 'people':
      return PEOPLE[reason.people];
    case 'unlike':
      return 'unlike the others';
    case 'good':
      return 'sharp and clear';
  }
}

function omissionOf(reason: OmittedFor<string>, nameOf: (id: string) => string): string {
  switch (reason.why) {
    case 'left-out':
      return 'you left it out';
    case 'alike':
      return `like ${nameOf(reason.id)}`;
    case 'blinks':
      return `somebody blinks; not in ${nameOf(reason.id)}`;
    case 'blurred':
      return 'not sharp';
    case 'enough':
      return 'enough of its time and kind';
  }
}

/** Chooses about so many of the pictures, shows which and why, and marks them kept as one step. */
export function ChooseDialog({ sheet, onClose }: ChooseDialogProps) {
  const pictureUrl = usePictureUrl();
  const show = useShow((state) => state.show);
  const edit = useShow((state) => state.edit);
  const candidates = useMemo(() => candidatesOf(sheet, show.clocks), [sheet, show.clocks]);
  const [count, setCount] = useState(() => Math.max(1, Math.min(40, Math.round(candidates.length / 3))));
  const [side, setSide] = useState<'chosen' | 'omitted'>('chosen');
  const byId = useMemo(() => new Map(sheet.map((entry) => [entry.id, entry])), [sheet]);
  const choosing = useMemo(() => {
    const markOf = (id: string): Mark | null => show.marks?.[byId.get(id)!.assetId] ?? null;
    return chooseBest(candidates, count, markOf);
  }, [candidates, count, show.marks, byId]);
  const unknown = candidates.filter(({ facts }) => !facts.focus).length;
  const listed =
    side === 'chosen'
      ? choosing.chosen.map(({ id, reason }) => ({ id, text: reasonOf(reason) }))
      : choosing.omitted.map(({ id, reason }) => ({
          id,
          text: omissionOf(reason, (other) => byId.get(other)!.fileName),
        }));
  const fresh = choosing.chosen.filter(({ reason }) => reason.why !== 'kept');
  const keep = () => {
    edit({
      kind: 'together',
      name: `keep the ${fresh.length} chosen pictures`,
      edits: [{ kind: 'set-marks', marks: fresh.map(({ id }) => ({ assetId: byId.get(id)!.assetId, mark: 'keep' })) }],
    });
    onClose();
  };
  return (
    <Dialog title="Choose for me" open onClose={onClose} className="w-[940px]">
      <div className="flex flex-wrap items-center gap-x-3 gap-y-2" data-part="choose-for-me">
        About
        <NumberField
          label="How many pictures"
          value={count}
          min={1}
          max={Math.max(1, candidates.length)}
          digits={0}
          onCommit={(value) => setCount(Math.round(value))}
        />
        of <span className="tabular">{candidates.length}</span> pictures, spread over the time, over people and places.
        What you kept stays, what you left out stays out.
        {unknown > 0 && (
          <span className="text-saffron-deep">
            <span className="tabular">{unknown}</span> are still being looked into; they count as sharp and without
            people.
          </span>
        )}
      </div>
      <div className="mt-3 flex items-center gap-3">
        <Choice
          label="Which are shown"
          value={side}
          onChange={setSide}
          options={[
            { value: 'chosen', label: `chosen ${choosing.chosen.length}` },
            { value: 'omitted', label: `not chosen ${choosing.omitted.length}` },
          ]}
        />
      </div>
      <ul
        className="mt-3 grid h-[46vh] grid-cols-6 content-start gap-3 overflow-y-auto rounded-lg border border-rule bg-paper p-3 scroll-thin"
        aria-label={side === 'chosen' ? 'Chosen pictures' : 'Pictures that were not chosen'}
        tabIndex={0}
      >
        {listed.map(({ id, text }) => {
          const entry = byId.get(id)!;
          return (
            <li key={id} data-choice={id} className="min-w-0">
              <span className="block bg-print p-1 shadow-print">
                {/* The print is already as small as it is shown. */}
                {/* eslint-disable-next-line @next/next/no-img-element */}
                <img
                  src={pictureUrl(entry.assetId, 320)}
                  alt={entry.fileName}
                  loading="lazy"
                  decoding="async"
                  className="h-[76px] w-full object-cover"
                />
              </span>
              <span className="mt-1 block truncate text-xs text-soft" title={`${entry.fileName}: ${text}`}>
                {text}
              </span>
            </li>
          );
        })}
      </ul>
      <div className="mt-4 flex justify-end gap-2">
        <Button onClick={onClose}>Not now</Button>
        <Button look="main" disabled={fresh.length === 0} onClick={keep} data-part="keep-chosen">
          {fresh.length === choosing.chosen.length ? `Keep these ${fresh.length}` : `Keep ${fresh.length} more`}
        </Button>
      </div>
    </Dialog>
  );
}
