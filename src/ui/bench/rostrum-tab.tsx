'use client';

import { LARGEST_ENLARGEMENT } from '../../core/motion/automatic-move';
import type { PreparedShow } from '../../core/frame/plan-frame';
import type { Framing } from '../../core/motion/framing';
import { mainLayerOf, type Slide } from '../../core/show/show';
import type { Move, PictureLayer } from '../../core/show/layer';
import { FramedPicture } from '../arrange/framed-picture';
import { Button } from '../kit/button';
import { NumberField } from '../kit/number-field';
import { useShow } from '../show/show-provider';

interface RostrumTabProps {
  readonly slide: Slide;
  readonly prepared: PreparedShow;
  readonly index: number;
}

/** The picture's move by its first and last framing. */
export function RostrumTab({ slide, prepared, index }: RostrumTabProps) {
  const edit = useShow((state) => state.edit);
  const layer = mainLayerOf(slide);
  const facts = layer ? prepared.facts.get(layer.assetId) : undefined;
  const move = layer ? prepared.moves.get(layer.id) : undefined;
  if (!layer || !facts || facts.kind === 'sound' || !move) return <p className="text-soft">A blank slide has no picture to move.</p>;
  const picture = <FramedPicture large assetId={layer.assetId} picture={facts} move={move} widthPx={228} heightPx={152} />;
  if (layer.kind === 'clip') return <div className="flex gap-5">{picture}<p className="text-soft">A clip moves by itself and stands still in the frame.</p></div>;

  const set = (next: Move, joins?: string) => edit({ kind: 'set-move', slideId: slide.id, layerId: layer.id, move: next }, joins);
  const change = (which: 'first' | 'last', part: Partial<Framing>) => set({ kind: 'set', first: move.first, last: move.last, [which]: { ...move[which], ...part } }, `move ${layer.id}`);
  const resize = (which: 'first' | 'last', share: number) => change(which, { width: share, height: (move[which].height * share) / move[which].width });
  const before = index > 0 ? prepared.show.slides[index - 1] : undefined;
  const beforeLayer = before && mainLayerOf(before);
  const beforeMove = beforeLayer && prepared.moves.get(beforeLayer.id);
  const tightest = Math.min(move.first.width, move.last.width);
  const pixels = (tightest * facts.widthPx) / prepared.show.frame.widthPx;

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
          <Button className="h-7" onClick={() => set({ kind: 'set', first: move.last, last: move.first })}>swap</Button>
          <Button className="h-7" aria-pressed={layer.move.kind === 'still'} onClick={() => set({ kind: 'still' })}>still</Button>
          <Button className="h-7" aria-pressed={layer.move.kind === 'automatic'} onClick={() => set({ kind: 'automatic' })}>by itself</Button>
          <Button className="h-7" aria-pressed={Boolean(layer.flip?.across)} onClick={() => edit({ kind: 'set-layers', slideId: slide.id, layers: slide.layers.map((other) => (other.id === layer.id ? withFlip(layer, !layer.flip?.across) : other)) })}>flip</Button>
          {beforeMove && <Button className="h-7" onClick={() => set({ kind: 'set', first: beforeMove.last, last: move.last })}>begin as slide {index} ends</Button>}
        </div>
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
