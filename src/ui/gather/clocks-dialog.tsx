'use client';

import { format, parseISO } from 'date-fns';
import { useMemo, useState } from 'react';
import { cameraName, cameraOf, shiftBetween, shiftOf, takenAt, type CameraClocks } from '../../core/show/camera-clock';
import type { SheetEntry } from '../../server/assets/contact-sheet';
import { Button } from '../kit/button';
import { Choice } from '../kit/choice';
import { Dialog } from '../kit/dialog';
import { NumberField } from '../kit/number-field';
import { usePictureUrl } from '../show/file-url';
import { useShow } from '../show/show-provider';
import { inTimeOrder, seenFacts } from './sheet-view';

const HOUR = 3_600_000;
const MINUTE = 60_000;
/** Prints shown about the one the dialog was opened for. */
const AROUND = 60;

interface ClocksDialogProps {
  /** The print it was opened for, if any. */
  readonly entry: SheetEntry | null;
  readonly onClose: () => void;
}

/** Puts the clock of a camera right for all its pictures, with the new order before the eye. */
export function ClocksDialog({ entry, onClose }: ClocksDialogProps) {
  const entries = useShow((state) => state.entries);
  const kept = useShow((state) => state.show.clocks);
  const edit = useShow((state) => state.edit);
  const cameras = useMemo(() => camerasOf(entries), [entries]);
  const opened = entry && seenFacts(entry);
  const [camera, setCamera] = useState(() => (opened ? cameraOf(opened) : (cameras[0]?.camera ?? '')));
  const [clocks, setClocks] = useState<CameraClocks>(kept ?? {});
  const shiftMs = shiftOf(clocks, camera);
  const setShift = (next: number) => setClocks({ ...clocks, [camera]: next });
  const size = Math.abs(shiftMs);
  const sign = shiftMs < 0 ? -1 : 1;
  const part = (unit: number, of: number) => Math.floor(size / unit) % of;
  const setPart = (unit: number, before: number, now: number) => setShift(sign * (size + (now - before) * unit));
  const own = opened && cameraOf(opened) === camera && opened.takenAt ? opened : null;
  const changed = cameras.filter((one) => shiftOf(clocks, one.camera) !== shiftOf(kept, one.camera));
  const save = () => {
    if (changed.length > 0)
      edit({
        kind: 'set-clocks',
        clocks: changed.map((one) => ({ camera: one.camera, shiftMs: shiftOf(clocks, one.camera) || null })),
      });
    onClose();
  };
  return (
    <Dialog title="The cameras’ clocks" open onClose={onClose} className="w-[880px]">
      <div className="grid grid-cols-[280px_1fr] gap-6">
        <ul role="radiogroup" aria-label="Camera" className="flex flex-col gap-1.5">
          {cameras.map((one) => (
            <li key={one.camera}>
              <label className="flex cursor-pointer items-baseline gap-2 rounded-md border border-rule px-3 py-2 has-checked:border-red has-checked:bg-red-wash/50">
                <input
                  type="radio"
                  name="camera"
                  checked={one.camera === camera}
                  onChange={() => setCamera(one.camera)}
                  className="accent-red"
                />
                <span className="min-w-0">
                  <b className="mr-1.5">{one.letter}</b>
                  <span className="font-medium">{cameraName(one.camera)}</span>
                  <span className="block text-soft">
                    <span className="tabular">{one.count}</span> {one.count === 1 ? 'file' : 'files'},{' '}
                    <span className="tabular">{shiftWords(shiftOf(clocks, one.camera))}</span>
                  </span>
                </span>
              </label>
            </li>
          ))}
        </ul>
        <div className="flex min-w-0 flex-col gap-4">
          <div className="flex flex-wrap items-center gap-2">
            Its pictures were taken
            <NumberField
              label="Hours"
              value={Math.floor(size / HOUR)}
              min={0}
              max={400_000}
              digits={0}
              unit="h"
              onCommit={(next) => setPart(HOUR, Math.floor(size / HOUR), Math.round(next))}
            />
            <NumberField
              label="Minutes"
              value={part(MINUTE, 60)}
              min={0}
              max={59}
              digits={0}
              unit="min"
              onCommit={(next) => setPart(MINUTE, part(MINUTE, 60), Math.round(next))}
            />
            <NumberField
              label="Seconds"
              value={part(1000, 60)}
              min={0}
              max={59}
              digits={0}
              unit="sec"
              onCommit={(next) => setPart(1000, part(1000, 60), Math.round(next))}
            />
            <Choice
              label="Later or earlier"
              value={sign < 0 ? 'earlier' : 'later'}
              onChange={(which) => setShift((which === 'earlier' ? -1 : 1) * size)}
              options={[
                { value: 'later', label: 'later' },
                { value: 'earlier', label: 'earlier' },
              ]}
            />
            than they say.
          </div>
          {own && (
            <label className="flex flex-wrap items-center gap-2 text-soft">
              Or: {entry!.fileName} was really taken on
              <input
                type="datetime-local"
                step={1}
                aria-label={`When ${entry!.fileName} was really taken`}
                value={takenAt(own, clocks) ?? ''}
                onChange={(event) => {
                  const next = shiftBetween(own.takenAt!, event.target.value);
                  if (next !== null) setShift(next);
                }}
                className="tabular h-8 rounded-md border border-rule bg-field px-2 text-ink"
              />
            </label>
          )}
          <TimeStrip entries={entries} clocks={clocks} cameras={cameras} at={entry} camera={camera} />
          <p className="flex items-center justify-end gap-2">
            <Button onClick={onClose}>Leave them as they are</Button>
            <Button look="main" onClick={save} disabled={changed.length === 0} data-part="set-clocks">
              {changed.length > 0
                ? `Put the times of ${changed.reduce((sum, one) => sum + one.count, 0)} files right`
                : 'Nothing to put right'}
            </Button>
          </p>
        </div>
      </div>
    </Dialog>
  );
}

interface Camera {
  readonly camera: string;
  readonly count: number;
  /** By which its prints are told in the strip. */
  readonly letter: string;
}

/** Those with most pictures first. Files that say no time have no clock to put right. */
function camerasOf(entries: readonly SheetEntry[]): Camera[] {
  const counts = new Map<string, number>();
  for (const entry of entries) {
    const facts = seenFacts(entry);
    if (facts?.takenAt) counts.set(cameraOf(facts), (counts.get(cameraOf(facts)) ?? 0) + 1);
  }
  return [...counts]
    .sort((a, b) => b[1] - a[1])
    .map(([camera, count], index) => ({ camera, count, letter: String.fromCharCode(65 + (index % 26)) }));
}

interface TimeStripProps {
  readonly entries: readonly SheetEntry[];
  readonly clocks: CameraClocks;
  readonly cameras: readonly Camera[];
  readonly at: SheetEntry | null;
  readonly camera: string;
}

/** The prints as they would follow each other. */
function TimeStrip({ entries, clocks, cameras, at, camera }: TimeStripProps) {
  const pictureUrl = usePictureUrl();
  const timed = useMemo(() => {
    const all = inTimeOrder(entries, clocks).filter((entry) => seenFacts(entry)?.takenAt);
    // Where the camera’s pictures lie among the others, unless a print was named.
    const middle = at
      ? all.findIndex((entry) => entry.id === at.id)
      : all.findIndex((entry) => cameraOf(seenFacts(entry)!) === camera);
    const from = Math.max(0, Math.min(middle - AROUND / 2, all.length - AROUND));
    return all.slice(from, from + AROUND);
  }, [entries, clocks, at, camera]);
  return (
    <ol
      aria-label="The pictures in their new order"
      className="flex gap-2 overflow-x-auto rounded-md bg-paper p-3 scroll-thin"
      data-part="time-strip"
    >
      {timed.map((entry) => {
        const facts = seenFacts(entry)!;
        const letter = cameras.find((one) => one.camera === cameraOf(facts))?.letter;
        return (
          <li key={entry.id} data-entry={entry.id} className="w-[84px] shrink-0 text-center">
            {/* eslint-disable-next-line @next/next/no-img-element */}
            <img
              src={pictureUrl(entry.assetId, 320)}
              alt={entry.fileName}
              className="h-[58px] w-[84px] bg-print object-cover p-[3px] shadow-print"
            />
            <span className="tabular mt-1 block text-xs">
              <b>{letter}</b> {format(parseISO(takenAt(facts, clocks)!), 'HH:mm:ss')}
            </span>
          </li>
        );
      })}
    </ol>
  );
}

function shiftWords(shiftMs: number): string {
  if (shiftMs === 0) return 'as they say';
  const size = Math.abs(shiftMs);
  const clock = `${Math.floor(size / HOUR)}:${String(Math.floor(size / MINUTE) % 60).padStart(2, '0')}:${String(Math.floor(size / 1000) % 60).padStart(2, '0')}`;
  return `${clock} ${shiftMs < 0 ? 'earlier' : 'later'}`;
}
