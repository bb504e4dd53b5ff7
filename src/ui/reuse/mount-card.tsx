'use client';

import { useEffect, useRef, useState } from 'react';
import { withMount, type Ground, type LayMount } from '../../core/mounts/lay-mount';
import { takesOf, type Mount } from '../../core/mounts/mount';
import { makePrint } from '../viewer/print-maker';

const HIGH_PX = 180;

interface MountCardProps {
  readonly mount: Mount;
  readonly ground: Ground;
  readonly common: Pick<LayMount, 'look' | 'facts' | 'studio' | 'newId'>;
  readonly picked: boolean;
  readonly onPick: () => void;
}

/** One mount with the person's pictures in it, at the moment that stands for it. */
export function MountCard({ mount, ground, common, picked, onPick }: MountCardProps) {
  const canvas = useRef<HTMLCanvasElement>(null);
  const [fault, setFault] = useState<string | null>(null);
  const { frame } = ground.show;
  useEffect(() => {
    let gone = false;
    const laid = withMount(ground, { ...common, mount, tooMany: 'leave' });
    const slide = laid.ok ? laid.show.slides.find(({ id }) => laid.slideIds.includes(id)) : undefined;
    const draw = async () => {
      if (!laid.ok || !slide) return setFault(laid.ok ? null : laid.sentence);
      setFault(null);
      const bitmap = await makePrint({
        show: { ...laid.show, cues: [], slides: [{ ...slide, transition: { kind: 'cut' }, sounds: [] }] },
        facts: common.facts,
        momentMs: Math.min(mount.posterMs, slide.lengthMs - 50),
        widthPx: 16 * Math.max(1, Math.round((HIGH_PX * frame.widthPx) / frame.heightPx / 16)),
        heightPx: HIGH_PX,
      });
      const place = canvas.current;
      if (gone || !bitmap || !place) return;
      place.width = bitmap.width;
      place.height = bitmap.height;
      place.getContext('2d')?.drawImage(bitmap, 0, 0);
    };
    void draw();
    return () => {
      gone = true;
    };
  }, [mount, ground, common, frame]);
  const takes = [...new Set(mount.fits(frame, common.look).map(takesOf))].sort((a, b) => a - b);
  return (
    <button
      type="button"
      aria-pressed={picked}
      onClick={onPick}
      title={mount.description}
      data-part="mount-card"
      data-mount={mount.id}
      className="group block w-full text-left"
    >
      <span
        className="grid place-items-center overflow-hidden bg-field outline-offset-2 group-aria-pressed:outline-[3px] group-aria-pressed:outline-red"
        style={{ aspectRatio: Math.max(0.75, frame.widthPx / frame.heightPx) }}
      >
        {fault ? (
          <span className="p-3 text-center text-soft">{fault}</span>
        ) : (
          <canvas ref={canvas} aria-hidden="true" className="max-h-full max-w-full" />
        )}
      </span>
      <span className="mt-1 flex items-baseline justify-between gap-2">
        <span className="truncate text-base font-medium">{mount.name}</span>
        <span className="tabular shrink-0 text-xs text-soft">{countOf(takes)}</span>
      </span>
    </button>
  );
}

function countOf(takes: readonly number[]): string {
  const [least, most] = [takes[0] ?? 0, takes.at(-1) ?? 0];
  if (most === 0) return 'no picture';
  if (least === most) return most === 1 ? '1 picture' : `${most} pictures`;
  return `${least}–${most} pictures`;
}
