'use client';

import { clsx } from 'clsx';
import { useEffect, useMemo, useRef, useState } from 'react';
import type { PreparedShow } from '../../core/frame/plan-frame';
import type { LostPicture } from '../../core/film/lost-in-shape';
import { factsInUse } from '../../core/motion/crop';
import type { Framing } from '../../core/motion/framing';
import { fitFraming } from '../../core/motion/framing';
import type { Move } from '../../core/show/layer';
import type { ShapeName } from '../../core/show/shape';
import { FramedPicture } from '../arrange/framed-picture';
import { framedView, type FramedView } from '../arrange/framed-view';
import { FramingHands } from '../bench/framing-hands';
import { FramingTable } from '../bench/framing-table';
import { Button } from '../kit/button';
import { Dialog } from '../kit/dialog';
import { useShow } from '../show/show-provider';
import type { ViewerHands } from '../viewer/use-viewer';
import { Viewer } from '../viewer/viewer';
import { layerOf, LostPrint } from './lost-print';

interface ShapeDialogProps {
  readonly shape: ShapeName;
  readonly name: string;
  readonly own: PreparedShow;
  readonly shaped: PreparedShow;
  readonly all: readonly LostPicture[];
  readonly onClose: () => void;
}

const MOST = { widthPx: 330, heightPx: 230 };

/** The show in another shape: watched, and its pictures framed otherwise for that shape alone. */
export function ShapeDialog({ shape, name, own, shaped, all, onClose }: ShapeDialogProps) {
  const [at, setAt] = useState(0);
  const viewer = useRef<ViewerHands>(null);
  const chosen = all[Math.min(at, all.length - 1)];
  const momentMs = useMemo(() => {
    const span = chosen && shaped.spans[chosen.slideIndex];
    return span ? (span.startMs + span.transitionMs + span.endMs) / 2 : 0;
  }, [chosen, shaped]);
  useEffect(() => {
    const timer = setTimeout(() => viewer.current?.seek(momentMs), 300);
    return () => clearTimeout(timer);
  }, [momentMs]);
  return (
    <Dialog title={`${name}: the show in ${shape}`} open onClose={onClose} className="h-[700px] w-[1120px]">
      <div className="flex min-h-0 flex-1 gap-5" data-part="shape-dialog">
        <div className="min-w-0 flex-1 overflow-hidden rounded-lg">
          <Viewer ref={viewer} show={shaped.show} />
        </div>
        <div className="flex w-[360px] shrink-0 flex-col">
          {chosen ? (
            <>
              <Correcting key={chosen.layerId} shape={shape} own={own} shaped={shaped} entry={chosen} />
              <p className="mt-4 mb-1.5 text-soft">
                {all.length === 1 ? 'One picture loses something' : `${all.length} pictures lose something`}
              </p>
              <ul
                className="grid min-h-0 flex-1 auto-rows-min grid-cols-3 gap-1.5 overflow-y-auto scroll-thin"
                aria-label="Pictures that lose something"
              >
                {all.map((entry, index) => (
                  <li key={entry.layerId}>
                    <button
                      type="button"
                      aria-pressed={entry === chosen}
                      onClick={() => setAt(index)}
                      className={clsx(
                        'block w-full rounded-md border p-1 text-left',
                        entry === chosen ? 'border-red bg-red-wash/50' : 'border-rule hover:border-soft',
                      )}
                    >
                      <span className="grid h-[62px] place-items-center overflow-hidden">
                        <LostPrint entry={entry} shaped={shaped} widthPx={100} heightPx={62} />
                      </span>
                      <span className="mt-0.5 block text-xs text-soft">
                        <span className="sr-only">Slide </span>
                        <span className="tabular">{entry.slideIndex + 1}</span>{' '}
                        {entry.corrected ? (
                          <span className="text-moss">corrected</span>
                        ) : entry.cutsFocus ? (
                          <span className="text-red-deep">cut</span>
                        ) : (
                          <span className="tabular">{Math.round(100 * entry.seen)} % seen</span>
                        )}
                      </span>
                    </button>
                  </li>
                ))}
              </ul>
            </>
          ) : (
            <p className="text-base text-soft">
              In this shape every picture shows what it is about, and hardly less than in the show’s own. Watch it here
              as it will be.
            </p>
          )}
        </div>
      </div>
    </Dialog>
  );
}

interface CorrectingProps {
  readonly shape: ShapeName;
  readonly own: PreparedShow;
  readonly shaped: PreparedShow;
  readonly entry: LostPicture;
}

function Correcting({ shape, own, shaped, entry }: CorrectingProps) {
  const edit = useShow((state) => state.edit);
  const [heldView, setHeldView] = useState<FramedView | null>(null);
  const layer = layerOf(shaped, entry);
  const ownLayer = layerOf(own, entry);
  const facts = shaped.facts.get(entry.assetId);
  const move = shaped.moves.get(entry.slideId)?.get(entry.layerId);
  if (!layer || !ownLayer || !facts || facts.kind === 'sound' || !move) return null;
  const picture = factsInUse(layer, facts);
  const view = heldView ?? framedView(picture, move, MOST);
  const correct = (next: Move | null, joins?: string) => {
    const { move: _move, ...others } = ownLayer.shapes?.[shape] ?? {};
    const correction = next ? { ...others, move: next } : Object.keys(others).length > 0 ? others : null;
    edit(
      {
        kind: 'set-shape',
        corrections: [{ slideId: entry.slideId, layerId: entry.layerId, shape, correction }],
      },
      joins,
    );
  };
  const change = (which: 'first' | 'last' | 'middle', part: Partial<Framing>) => {
    const both = { first: move.first, last: move.last };
    if (which === 'middle') return;
    correct({ ...move.pace, kind: 'set', ...both, [which]: { ...move[which], ...part } }, `shape ${entry.layerId}`);
  };
  const whole = () => {
    const framing = fitFraming(
      picture.widthPx / picture.heightPx,
      shaped.show.frame.widthPx / shaped.show.frame.heightPx,
    );
    correct({ kind: 'set', first: framing, last: framing });
  };
  return (
    <div data-part="correcting">
      <p className="mb-2">
        <span className="font-semibold">
          Slide <span className="tabular">{entry.slideIndex + 1}</span>
        </span>{' '}
        <span className="text-soft">
          shows <span className="tabular">{Math.round(100 * entry.seen)} %</span> of its picture here,{' '}
          <span className="tabular">{Math.round(100 * entry.seenOwn)} %</span> in the show’s own shape
        </span>
      </p>
      <div className="grid h-[236px] place-items-center">
        <div className="relative">
          <FramedPicture
            large
            layer={layer}
            facts={facts}
            move={move}
            widthPx={MOST.widthPx}
            heightPx={MOST.heightPx}
            view={view}
          />
          <FramingHands
            view={view}
            picture={picture}
            first={move.first}
            last={move.last}
            onHold={(held) => setHeldView(held ? view : null)}
            onChange={change}
          />
        </div>
      </div>
      <FramingTable
        framings={[
          { name: 'first', framing: move.first },
          { name: 'last', framing: move.last },
        ]}
        onChange={change}
      />
      <div className="mt-2 flex gap-1.5">
        <Button onClick={whole}>Show all of it</Button>
        {layer.kind === 'picture' && <Button onClick={() => correct({ kind: 'still' })}>Hold it still</Button>}
        <Button disabled={!entry.corrected} onClick={() => correct(null)} data-part="uncorrect">
          As dealt
        </Button>
      </div>
    </div>
  );
}
