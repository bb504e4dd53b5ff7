'use client';

import { useState } from 'react';
import type { PreparedShow } from '../../core/frame/plan-frame';
import { LARGEST_ENLARGEMENT } from '../../core/motion/automatic-move';
import { factsInUse } from '../../core/motion/crop';
import type { Framing } from '../../core/motion/framing';
import { placedMove, SIDES, standing, standingOf, type Side, type Standing } from '../../core/motion/placed-move';
import { pictureWindow } from '../../core/motion/plan-moves';
import type { ClipLayer, Move, PictureLayer } from '../../core/show/layer';
import { picturesOf } from '../../core/show/layout';
import { mainLayerOf, type Slide } from '../../core/show/show';
import { FramedPicture } from '../arrange/framed-picture';
import { framedView, type FramedView } from '../arrange/framed-view';
import { Button } from '../kit/button';
import { NumberField } from '../kit/number-field';
import { Pick } from '../kit/pick';
import { useShow } from '../show/show-provider';
import { useChosenSlides } from './chosen-layers';
import { FramingHands } from './framing-hands';

interface RostrumTabProps {
  readonly slide: Slide;
  readonly layer: PictureLayer | ClipLayer;
  readonly prepared: PreparedShow;
  readonly index: number;
}

const MOST = { widthPx: 222, heightPx: 172 };
const STANDINGS: readonly { readonly value: Standing | 'own'; readonly label: string }[] = [
  { value: 'fill', label: 'fills the frame' },
  { value: 'whole', label: 'whole in it' },
];

/** The picture's move by its first and last framing. */
export function RostrumTab({ slide, layer, prepared, index }: RostrumTabProps) {
  const edit = useShow((state) => state.edit);
  const chosen = useChosenSlides(slide);
  const [heldView, setHeldView] = useState<FramedView | null>(null);
  const facts = prepared.facts.get(layer.assetId);
  const move = prepared.moves.get(slide.id)?.get(layer.id);
  const fileName = useShow((state) => state.entries.find((entry) => entry.assetId === layer.assetId)?.fileName);
  if (!facts || facts.kind === 'sound' || !move)
    return <p className="text-soft">Nothing is known about this picture’s file yet.</p>;
  const shown = factsInUse(layer, facts);
  const view = heldView ?? framedView(shown, move, MOST);
  const picture = (
    <FramedPicture
      large
      layer={layer}
      facts={facts}
      move={move}
      widthPx={MOST.widthPx}
      heightPx={MOST.heightPx}
      view={view}
    />
  );
  if (layer.kind === 'clip')
    return (
      <div className="flex gap-5">
        {picture}
        <p className="text-soft">A clip moves by itself and stands still in the frame.</p>
      </div>
    );

  const set = (next: Move, joins?: string) =>
    edit({ kind: 'set-move', slideId: slide.id, layerId: layer.id, move: next }, joins);
  const all =
    chosen.length > 1
      ? chosen.flatMap((other) =>
          picturesOf(other).flatMap((entry) => (entry.kind === 'picture' ? [{ slide: other, layer: entry }] : [])),
        )
      : [{ slide, layer }];
  /** What makes sense for every chosen picture is done to all of them. */
  const setAll = (next: (layer: PictureLayer) => Move, name: string) =>
    edit({
      kind: 'together',
      name: all.length > 1 ? `${name} of ${all.length} pictures` : name,
      edits: all.map((entry) => ({
        kind: 'set-move',
        slideId: entry.slide.id,
        layerId: entry.layer.id,
        move: next(entry.layer),
      })),
    });
  const swapped = (of: PictureLayer): Move => {
    const planned = moveOf(of);
    return planned ? { kind: 'set', first: planned.last, last: planned.first } : of.move;
  };
  const slideWith = (of: PictureLayer) => prepared.show.slides.find((other) => other.layers.includes(of)) ?? slide;
  const moveOf = (of: PictureLayer) => prepared.moves.get(slideWith(of).id)?.get(of.id);
  const windowOf = (of: PictureLayer) => {
    const known = factsInUse(of, prepared.facts.get(of.assetId));
    const span =
      prepared.spans[prepared.show.slides.findIndex((other) => other.layers.includes(of))] ?? prepared.spans[index]!;
    return known?.kind === 'picture'
      ? { known, shape: pictureWindow(of, known, prepared.show.frame, span.leavesMs - span.startMs).shape }
      : null;
  };
  const place = (how: Standing, side: Side) =>
    setAll((of) => {
      const window = windowOf(of);
      const planned = moveOf(of);
      return window && planned ? placedMove(planned, standing(window.known, window.shape, how, side)) : of.move;
    }, 'place the picture');
  const change = (which: 'first' | 'last', part: Partial<Framing>) =>
    set({ kind: 'set', first: move.first, last: move.last, [which]: { ...move[which], ...part } }, `move ${layer.id}`);
  const resize = (which: 'first' | 'last', share: number) =>
    change(which, { width: share, height: (move[which].height * share) / move[which].width });
  const before = index > 0 ? prepared.show.slides[index - 1] : undefined;
  const beforeLayer = before && mainLayerOf(before);
  const beforeMove = beforeLayer && prepared.moves.get(before.id)?.get(beforeLayer.id);
  const window = windowOf(layer)!;
  const stands = standingOf(move, shown, window.shape);
  const pixels = (Math.min(move.first.width, move.last.width) * shown.widthPx) / window.shape.widthPx;

  return (
    <div className="flex gap-4">
      <div className="relative shrink-0 self-start">
        {picture}
        <FramingHands
          view={view}
          picture={shown}
          first={move.first}
          last={move.last}
          onHold={(held) => setHeldView(held ? view : null)}
          onChange={change}
        />
      </div>
      <div className="min-w-0 flex-1">
        <table className="-mx-1 border-separate border-spacing-x-1 border-spacing-y-1">
          <thead>
            <tr className="text-left text-soft">
              <th className="font-normal">
                <span className="sr-only">framing</span>
              </th>
              <th className="font-normal">across</th>
              <th className="font-normal">down</th>
              <th className="font-normal">width %</th>
              <th className="font-normal">turn °</th>
            </tr>
          </thead>
          <tbody>
            {(['first', 'last'] as const).map((which) => (
              <tr key={which}>
                <th scope="row" className="pr-1 text-left">
                  {which === 'first' ? (
                    <>
                      First <span aria-hidden="true">⌜⌟</span>
                    </>
                  ) : (
                    <>
                      Last <span aria-hidden="true">▭</span>
                    </>
                  )}
                </th>
                <td>
                  <NumberField
                    label={`${which} framing, centre across, percent`}
                    value={move[which].x * 100}
                    min={-100}
                    max={200}
                    onCommit={(value) => change(which, { x: value / 100 })}
                  />
                </td>
                <td>
                  <NumberField
                    label={`${which} framing, centre down, percent`}
                    value={move[which].y * 100}
                    min={-100}
                    max={200}
                    onCommit={(value) => change(which, { y: value / 100 })}
                  />
                </td>
                <td>
                  <NumberField
                    label={`${which} framing, width, percent`}
                    value={move[which].width * 100}
                    min={2}
                    max={1000}
                    onCommit={(value) => resize(which, value / 100)}
                  />
                </td>
                <td>
                  <NumberField
                    label={`${which} framing, turn, degrees`}
                    value={move[which].turnDegrees}
                    min={-360}
                    max={360}
                    onCommit={(value) => change(which, { turnDegrees: value })}
                  />
                </td>
              </tr>
            ))}
          </tbody>
        </table>
        <div className="mt-2 flex flex-wrap items-center gap-1.5">
          <Button
            className="h-7"
            aria-pressed={layer.move.kind === 'automatic'}
            onClick={() => setAll(() => ({ kind: 'automatic' }), 'choose the move by itself')}
          >
            by itself
          </Button>
          <Button
            className="h-7"
            aria-pressed={layer.move.kind === 'still'}
            onClick={() => setAll(() => ({ kind: 'still' }), 'stop the move')}
          >
            still
          </Button>
          <Button className="h-7" onClick={() => setAll(swapped, 'swap first and last framing')}>
            swap
          </Button>
          {beforeMove && (
            <Button className="h-7" onClick={() => set({ kind: 'set', first: beforeMove.last, last: move.last })}>
              begin as slide {index} ends
            </Button>
          )}
        </div>
        <div className="mt-2 flex flex-wrap items-center gap-1.5">
          <span className="text-soft">It</span>
          <Pick
            label="How the picture stands in the frame"
            value={stands?.how ?? 'own'}
            groups={[
              { name: null, options: stands ? STANDINGS : [...STANDINGS, { value: 'own', label: 'stands by hand' }] },
            ]}
            onChange={(how) => {
              if (how !== 'own') place(how, stands?.side ?? 'centre');
            }}
          />
          <Pick
            label="Side it is put to"
            value={stands?.side ?? 'centre'}
            groups={[
              {
                name: null,
                options: SIDES.map((side) => ({
                  value: side,
                  label: side === 'centre' ? 'in the middle' : `to the ${side}`,
                })),
              },
            ]}
            onChange={(side) => place(stands?.how ?? 'fill', side)}
          />
        </div>
        <p className="mt-2 text-soft">
          {layer.move.kind === 'automatic' && 'The move was chosen by itself. '}
          {pixels >= 1
            ? 'Sharp to the end: '
            : pixels >= 1 / LARGEST_ENLARGEMENT - 1e-6
              ? 'A little soft at its closest: '
              : 'Too soft at its closest: '}
          <span className="tabular">{pixels.toFixed(1)}</span> picture pixels for each film pixel.
          {all.length > 1 && (
            <>
              {' '}
              Buttons and places apply to all <b className="tabular text-ink">{all.length}</b> chosen pictures.
            </>
          )}
        </p>
        {fileName && (
          <p className="mt-1 truncate text-soft">
            {fileName} ·{' '}
            <span className="tabular">
              {facts.widthPx} × {facts.heightPx}
            </span>
          </p>
        )}
      </div>
    </div>
  );
}
