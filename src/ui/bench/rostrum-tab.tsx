'use client';

import { Maximize2 } from 'lucide-react';
import { useState } from 'react';
import type { PreparedShow } from '../../core/frame/plan-frame';
import { focusOf, ringAround } from '../../core/focus/focus-of';
import type { FocusRing } from '../../core/focus/focus-facts';
import { LARGEST_ENLARGEMENT, TEMPERAMENTS, type Temperament } from '../../core/motion/automatic-move';
import { factsInUse } from '../../core/motion/crop';
import type { Framing } from '../../core/motion/framing';
import { narrowestWidth } from '../../core/motion/move-pace';
import { placedMove, SIDES, standing, standingOf, type Side, type Standing } from '../../core/motion/placed-move';
import { pictureWindow } from '../../core/motion/plan-moves';
import type { ClipLayer, Move, PictureLayer } from '../../core/show/layer';
import { picturesOf } from '../../core/show/layout';
import { mainLayerOf, type Slide } from '../../core/show/show';
import { Button } from '../kit/button';
import { Dialog } from '../kit/dialog';
import { Pick } from '../kit/pick';
import { useShow } from '../show/show-provider';
import { useChosenSlides } from './chosen-layers';
import { ClipTab } from './clip-tab';
import { FocusFields } from './focus-fields';
import { leavesPicture } from './framing-drag';
import { FramingTable, type FramingName } from './framing-table';
import { RostrumStage } from './rostrum-stage';
import { MovePaceFields } from './move-pace-fields';

interface RostrumTabProps {
  readonly slide: Slide;
  readonly layer: PictureLayer | ClipLayer;
  readonly prepared: PreparedShow;
  readonly index: number;
}

const MOST = { widthPx: 268, heightPx: 190 };
const LARGE = { widthPx: 1020, heightPx: 510 };
const STANDINGS: readonly { readonly value: Standing | 'own'; readonly label: string }[] = [
  { value: 'fill', label: 'fills the frame' },
  { value: 'whole', label: 'whole in the frame' },
];

const TEMPERAMENT_NAMES: Record<Temperament, string> = { calm: 'calmly', even: 'evenly', lively: 'lively' };

/** The next deal of a picture’s automatic moves. */
function dealAfter({ move }: PictureLayer): number {
  return move.kind === 'automatic' && move.deal !== undefined ? move.deal + 1 : 1;
}

/** The picture's move by its first and last framing. */
export function RostrumTab({ slide, layer, prepared, index }: RostrumTabProps) {
  const edit = useShow((state) => state.edit);
  const chosen = useChosenSlides(slide);
  const [large, setLarge] = useState(false);
  const facts = prepared.facts.get(layer.assetId);
  const move = prepared.moves.get(slide.id)?.get(layer.id);
  const focus = useShow((state) => state.show.focus);
  const temperament = useShow((state) => state.show.temperament ?? 'even');
  const fileName = useShow((state) => state.entries.find((entry) => entry.assetId === layer.assetId)?.fileName);
  if (!facts || facts.kind === 'sound' || !move)
    return <p className="text-soft">Nothing is known about this picture’s file yet.</p>;
  const shown = factsInUse(layer, facts);
  if (layer.kind === 'clip' && facts.kind === 'clip')
    return <ClipTab slide={slide} layer={layer} facts={facts} prepared={prepared} />;
  if (layer.kind === 'clip' || facts.kind === 'clip') return null;

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
    return planned ? { ...planned.pace, kind: 'set', first: planned.last, last: planned.first } : of.move;
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
  const pace = move.pace ?? {};
  const change = (which: FramingName, part: Partial<Framing>) =>
    set(
      which === 'middle' && pace.middle
        ? {
            ...pace,
            kind: 'set',
            first: move.first,
            last: move.last,
            middle: { ...pace.middle, framing: { ...pace.middle.framing, ...part } },
          }
        : {
            ...pace,
            kind: 'set',
            first: move.first,
            last: move.last,
            ...(which !== 'middle' && { [which]: { ...move[which], ...part } }),
          },
      `move ${layer.id}`,
    );
  /** A number that is typed holds for every chosen picture. */
  const changeAll = (which: FramingName, part: Partial<Framing>) => {
    if (all.length === 1 || which === 'middle') return change(which, part);
    setAll((of) => {
      const planned = moveOf(of);
      return planned
        ? {
            ...planned.pace,
            kind: 'set',
            first: planned.first,
            last: planned.last,
            [which]: { ...planned[which], ...part },
          }
        : of.move;
    }, 'set a framing');
  };
  const leaving = (['first', 'last'] as const).filter((which) => leavesPicture(move[which], shown));
  const said = focus?.[layer.assetId];
  const aspect = facts.widthPx / facts.heightPx;
  const foundFocus = facts.kind === 'picture' ? focusOf(facts.focus, undefined, aspect) : null;
  const found =
    foundFocus && foundFocus.from !== 'person'
      ? { ring: ringAround(foundFocus.about, aspect), what: foundFocus.from }
      : null;
  const setRings = (rings: readonly FocusRing[], joins?: string) =>
    edit({ kind: 'set-focus', focus: [{ assetId: layer.assetId, rings }] }, joins);
  const before = index > 0 ? prepared.show.slides[index - 1] : undefined;
  const beforeLayer = before && mainLayerOf(before);
  const beforeMove = beforeLayer && prepared.moves.get(before.id)?.get(beforeLayer.id);
  const window = windowOf(layer)!;
  const stands = standingOf(move, shown, window.shape);
  const pixels = (narrowestWidth(move) * shown.widthPx) / window.shape.widthPx;

  const stage = (most: typeof MOST) => (
    <RostrumStage
      layer={layer}
      facts={facts}
      move={move}
      most={most}
      rings={said ?? (found ? [found.ring] : [])}
      found={said === undefined}
      onFraming={change}
      onRings={setRings}
    />
  );
  const table = (
    <FramingTable
      framings={[
        { name: 'first', framing: move.first },
        ...(pace.middle ? [{ name: 'middle' as const, framing: pace.middle.framing }] : []),
        { name: 'last', framing: move.last },
      ]}
      onChange={changeAll}
    />
  );

  return (
    <div className="flex flex-col gap-3">
      <Dialog
        title={`The framings of slide ${index + 1}`}
        open={large}
        onClose={() => setLarge(false)}
        className="h-[740px] w-[1080px]"
      >
        <div className="flex min-h-0 flex-1 flex-col items-center gap-3" data-part="rostrum-large">
          {large && <div>{stage(LARGE)}</div>}
          {large && table}
        </div>
      </Dialog>
      <div className="flex gap-4">
        <div className="relative">
          {stage(MOST)}
          <Button
            look="quiet"
            square
            className="absolute top-1 right-1 size-7 bg-card/85"
            aria-label="Work on the framings large"
            onClick={() => setLarge(true)}
          >
            <Maximize2 size={14} />
          </Button>
        </div>
        <div className="min-w-0 flex-1">
          <div className="flex flex-wrap items-center gap-1.5">
            <Button
              className="h-7"
              aria-pressed={layer.move.kind === 'automatic'}
              onClick={() => setAll(() => ({ kind: 'automatic' }), 'choose the move by itself')}
            >
              automatic
            </Button>
            <Button
              className="h-7"
              onClick={() => setAll((of) => ({ kind: 'automatic', deal: dealAfter(of) }), 'deal another move')}
              data-part="deal-again"
            >
              another
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
              <Button
                className="h-7"
                onClick={() => set({ ...pace, kind: 'set', first: beforeMove.last, last: move.last })}
              >
                begin as slide {index} ends
              </Button>
            )}
          </div>
          <div className="mt-2 flex flex-wrap items-center gap-1.5">
            <Pick
              label="How the picture stands in the frame"
              value={stands?.how ?? 'own'}
              groups={[
                {
                  name: null,
                  options: stands
                    ? STANDINGS
                    : [
                        ...STANDINGS,
                        { value: 'own', label: layer.move.kind === 'set' ? 'placed by hand' : 'as it suits' },
                      ],
                },
              ]}
              onChange={(how) => {
                if (how !== 'own') place(how, stands?.side ?? 'centre');
              }}
            />
            <Pick
              label="Side it is put to"
              value={stands?.side ?? 'own'}
              groups={[
                {
                  name: null,
                  options: [
                    ...SIDES.map((side) => ({ value: side, label: side === 'centre' ? 'centred' : `at the ${side}` })),
                    ...(stands ? [] : [{ value: 'own' as const, label: 'put to a side …' }]),
                  ],
                },
              ]}
              onChange={(side) => {
                if (side !== 'own') place(stands?.how ?? 'fill', side);
              }}
            />
          </div>
          <FocusFields
            assetIds={[...new Set(all.map((entry) => entry.layer.assetId))]}
            said={said}
            found={found}
            onRings={setRings}
          />
        </div>
      </div>
      <div>
        {table}
        {layer.move.kind === 'set' && (
          <MovePaceFields
            move={move}
            onChange={(next) => set({ ...next, kind: 'set', first: move.first, last: move.last })}
          />
        )}
        <div className="mt-2 flex flex-wrap items-center gap-1.5">
          <span className="text-soft">All pictures of the show move</span>
          <Pick
            label="How much pictures move by themselves"
            value={temperament}
            groups={[
              { name: null, options: TEMPERAMENTS.map((value) => ({ value, label: TEMPERAMENT_NAMES[value] })) },
            ]}
            onChange={(next) => edit({ kind: 'set-temperament', temperament: next === 'even' ? null : next })}
          />
        </div>
        <p className="mt-2 text-soft">
          {pixels >= 1
            ? 'Sharp to the end: '
            : pixels >= 1 / LARGEST_ENLARGEMENT - 1e-6
              ? 'A little soft at its closest: '
              : 'Too soft at its closest: '}
          <span className="tabular">{pixels.toFixed(1)}</span> picture pixels for each film pixel.
          {all.length > 1 && (
            <>
              {' '}
              Buttons, places and numbers apply to all <b className="tabular text-ink">{all.length}</b> chosen pictures.
            </>
          )}
        </p>
        {layer.move.kind === 'set' && leaving.length > 0 && (
          <p className="mt-1" data-part="leaves-picture">
            {leaving.length === 2 ? 'Both framings leave' : `The ${leaving[0]} framing leaves`} the picture: what lies
            behind it shows there.
          </p>
        )}
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
