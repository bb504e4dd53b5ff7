'use client';

import { LARGEST_ENLARGEMENT } from '../../core/motion/automatic-move';
import { pictureWindow } from '../../core/motion/plan-moves';
import type { PreparedShow } from '../../core/frame/plan-frame';
import type { Framing } from '../../core/motion/framing';
import { mainLayerOf, type Slide } from '../../core/show/show';
import type { ClipLayer, Move, PictureLayer } from '../../core/show/layer';
import { picturesOf } from '../../core/show/layout';
import { FramedPicture } from '../arrange/framed-picture';
import { Button } from '../kit/button';
import { NumberField } from '../kit/number-field';
import { useShow } from '../show/show-provider';
import { useChosenSlides } from './chosen-layers';

interface RostrumTabProps {
  readonly slide: Slide;
  readonly layer: PictureLayer | ClipLayer;
  readonly prepared: PreparedShow;
  readonly index: number;
}

/** The picture's move by its first and last framing. */
export function RostrumTab({ slide, layer, prepared, index }: RostrumTabProps) {
  const edit = useShow((state) => state.edit);
  const chosen = useChosenSlides(slide);
  const facts = prepared.facts.get(layer.assetId);
  const move = prepared.moves.get(layer.id);
  if (!facts || facts.kind === 'sound' || !move) return <p className="text-soft">Nothing is known about this picture’s file yet.</p>;
  const picture = <FramedPicture large assetId={layer.assetId} picture={facts} move={move} widthPx={228} heightPx={152} />;
  if (layer.kind === 'clip') return <div className="flex gap-5">{picture}<p className="text-soft">A clip moves by itself and stands still in the frame.</p></div>;

  const set = (next: Move, joins?: string) => edit({ kind: 'set-move', slideId: slide.id, layerId: layer.id, move: next }, joins);
  const all = chosen.length > 1 ? chosen.flatMap((other) => picturesOf(other).flatMap((entry) => (entry.kind === 'picture' ? [{ slide: other, layer: entry }] : []))) : [{ slide, layer }];
  /** What makes sense for every chosen picture is done to all of them. */
  const setAll = (next: (layer: PictureLayer) => Move, name: string) => edit({ kind: 'together', name: all.length > 1 ? `${name} of ${all.length} pictures` : name, edits: all.map((entry) => ({ kind: 'set-move', slideId: entry.slide.id, layerId: entry.layer.id, move: next(entry.layer) })) });
  const swapped = (of: PictureLayer): Move => {
    const planned = prepared.moves.get(of.id);
    return planned ? { kind: 'set', first: planned.last, last: planned.first } : of.move;
  };
  const flipAll = () => {
    const across = !layer.flip?.across;
    const slides = chosen.map((other) => ({ ...other, layers: other.layers.map((entry) => (entry.kind === 'picture' && all.some((one) => one.layer.id === entry.id) ? withFlip(entry, across) : entry)) }));
    edit({ kind: 'together', name: all.length > 1 ? `flip ${all.length} pictures` : 'flip the picture', edits: [{ kind: 'put-slides', slides }] });
  };
  const change = (which: 'first' | 'last', part: Partial<Framing>) => set({ kind: 'set', first: move.first, last: move.last, [which]: { ...move[which], ...part } }, `move ${layer.id}`);
  const resize = (which: 'first' | 'last', share: number) => change(which, { width: share, height: (move[which].height * share) / move[which].width });
  const before = index > 0 ? prepared.show.slides[index - 1] : undefined;
  const beforeLayer = before && mainLayerOf(before);
  const beforeMove = beforeLayer && prepared.moves.get(beforeLayer.id);
  const tightest = Math.min(move.first.width, move.last.width);
  const span = prepared.spans[index]!;
  const pixels = (tightest * facts.widthPx) / pictureWindow(layer, facts, prepared.show.frame, span.leavesMs - span.startMs).shape.widthPx;

  return (
    <div className="flex gap-4">
      {picture}
      <div className="min-w-0 flex-1">
        <table className="border-separate -mx-1.5 border-spacing-x-1.5 border-spacing-y-1.5">
          <thead><tr className="text-left text-soft"><th className="font-normal"><span className="sr-only">framing</span></th><th className="font-normal">across</th><th className="font-normal">down</th><th className="font-normal">width</th></tr></thead>
          <tbody>
            {(['first', 'last'] as const).map((which) => (
              <tr key={which}>
                <th scope="row" className="pr-1 text-left">{which === 'first' ? <>First <span aria-hidden="true">⌜⌟</span></> : <>Last <span aria-hidden="true">▭</span></>}</th>
                <td><NumberField label={`${which} framing, centre across, percent`} value={move[which].x * 100} min={-100} max={200} unit="%" onCommit={(value) => change(which, { x: value / 100 })} /></td>
                <td><NumberField label={`${which} framing, centre down, percent`} value={move[which].y * 100} min={-100} max={200} unit="%" onCommit={(value) => change(which, { y: value / 100 })} /></td>
                <td><NumberField label={`${which} framing, width, percent`} value={move[which].width * 100} min={2} max={1000} unit="%" onCommit={(value) => resize(which, value / 100)} /></td>
              </tr>
            ))}
          </tbody>
        </table>
        <div className="mt-2 flex flex-wrap gap-1.5">
          <Button className="h-7" onClick={() => setAll(swapped, 'swap first and last framing')}>swap</Button>
          <Button className="h-7" aria-pressed={layer.move.kind === 'still'} onClick={() => setAll(() => ({ kind: 'still' }), 'stop the move')}>still</Button>
          <Button className="h-7" aria-pressed={layer.move.kind === 'automatic'} onClick={() => setAll(() => ({ kind: 'automatic' }), 'choose the move by itself')}>by itself</Button>
          <Button className="h-7" aria-pressed={Boolean(layer.flip?.across)} onClick={flipAll}>flip</Button>
          {beforeMove && <Button className="h-7" onClick={() => set({ kind: 'set', first: beforeMove.last, last: move.last })}>begin as slide {index} ends</Button>}
        </div>
        {all.length > 1 && <p className="mt-2 text-soft">swap, still, by itself and flip apply to all <b className="tabular text-ink">{all.length}</b> chosen pictures</p>}
        <p className="mt-2.5 text-soft">
          {layer.move.kind === 'automatic' && 'The move was chosen by itself. '}
          {pixels >= 1 ? 'Sharp to the end: ' : pixels >= 1 / LARGEST_ENLARGEMENT - 1e-6 ? 'A little soft at its closest: ' : 'Too soft at its closest: '}
          <span className="tabular">{pixels.toFixed(1)}</span> picture pixels for each film pixel.
        </p>
      </div>
    </div>
  );
}

function withFlip(layer: PictureLayer, across: boolean): PictureLayer {
  const { flip: _before, ...rest } = layer;
  return across ? { ...rest, flip: { across: true } } : rest;
}
