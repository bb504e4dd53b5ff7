'use client';

import { DndContext, PointerSensor, useDraggable, useDroppable, useSensor, useSensors } from '@dnd-kit/core';
import { clsx } from 'clsx';
import { ArrowLeft, ArrowRight } from 'lucide-react';
import type { Run } from '../../core/mounts/deal-out';
import type { Subject } from '../../core/mounts/lay-mount';
import { pictureWindows } from '../../core/mounts/mount';
import { Button } from '../kit/button';
import { usePictureUrl } from '../show/file-url';

interface WindowListProps {
  readonly runs: readonly Run[];
  readonly subjects: readonly Subject[];
  /** Two windows of a run change their pictures. */
  readonly onMove: (run: number, from: number, to: number) => void;
}

/** Which picture goes to which window: drag one onto another, or move it by its arrows. */
export function WindowList({ runs, subjects, onMove }: WindowListProps) {
  const sensors = useSensors(useSensor(PointerSensor, { activationConstraint: { distance: 4 } }));
  return (
    <DndContext
      id="windows"
      sensors={sensors}
      onDragEnd={({ active, over }) => {
        const [run, from] = String(active.id).split(' ').map(Number);
        const [otherRun, to] = String(over?.id ?? '')
          .split(' ')
          .map(Number);
        if (over && run === otherRun && from !== to) onMove(run!, from!, to!);
      }}
    >
      {runs.map((run, index) => (
        <ul
          key={index}
          aria-label={runs.length > 1 ? `Windows, laid the ${index + 1}. time` : 'Windows'}
          className="flex flex-wrap gap-2"
          data-part="windows"
        >
          {pictureWindows(run.fit).map((window, at) => (
            <WindowCell
              key={at}
              id={`${index} ${at}`}
              name={run.fit.windows[window]!.name}
              subject={run.filled[at] === null ? null : (subjects[run.filled[at]!] ?? null)}
              onBack={at > 0 ? () => onMove(index, at, at - 1) : null}
              onOn={at < run.filled.length - 1 ? () => onMove(index, at, at + 1) : null}
            />
          ))}
        </ul>
      ))}
    </DndContext>
  );
}

function WindowCell({
  id,
  name,
  subject,
  onBack,
  onOn,
}: {
  id: string;
  name: string;
  subject: Subject | null;
  onBack: (() => void) | null;
  onOn: (() => void) | null;
}) {
  const pictureUrl = usePictureUrl();
  const { setNodeRef: setDragRef, listeners, isDragging } = useDraggable({ id });
  const { setNodeRef: setDropRef, isOver } = useDroppable({ id });
  return (
    <li
      ref={setDropRef}
      className={clsx('w-[118px]', isOver && !isDragging && 'outline-[3px] outline-offset-2 outline-red')}
    >
      <div
        ref={setDragRef}
        {...listeners}
        className={clsx('h-[74px] cursor-grab touch-none bg-print p-[3px] shadow-print', isDragging && 'opacity-40')}
      >
        {subject ? (
          // eslint-disable-next-line @next/next/no-img-element
          <img
            src={pictureUrl(subject.layer.assetId, 320)}
            alt=""
            draggable={false}
            className="h-full w-full object-cover"
          />
        ) : (
          <span className="grid h-full place-items-center text-xs text-soft">empty</span>
        )}
      </div>
      <div className="mt-0.5 flex items-center">
        <span className="mr-auto truncate text-xs text-soft" title={name}>
          {name}
        </span>
        <Button
          look="quiet"
          square
          className="size-5"
          aria-label={`${name}: change with the one before`}
          disabled={!onBack}
          onClick={() => onBack?.()}
        >
          <ArrowLeft size={11} />
        </Button>
        <Button
          look="quiet"
          square
          className="size-5"
          aria-label={`${name}: change with the next`}
          disabled={!onOn}
          onClick={() => onOn?.()}
        >
          <ArrowRight size={11} />
        </Button>
      </div>
    </li>
  );
}
