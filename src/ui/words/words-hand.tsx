'use client';

import type { KeyboardEvent } from 'react';
import type { LayerSight } from '../../core/frame/layer-sight';
import type { WordsLayer } from '../../core/show/layer';
import type { Slide } from '../../core/show/show';
import { anchorOf } from '../../core/show/words';
import { TITLE_SIZE } from '../../core/words/sizes';
import { useShow } from '../show/show-provider';
import type { WordsDrag } from './use-words-drag';
import type { WordsBlockLook } from './words-block';

interface WordsHandProps {
  readonly slide: Slide;
  readonly layer: WordsLayer;
  /** What it reads, its fields filled. */
  readonly says: Pick<WordsLayer, 'title' | 'subtitle'>;
  readonly look: WordsBlockLook;
  readonly drag: WordsDrag;
  readonly sight: LayerSight;
  readonly onType: () => void;
}

const WAYS: Readonly<Record<string, readonly [dx: number, dy: number]>> = {
  ArrowLeft: [-1, 0],
  ArrowRight: [1, 0],
  ArrowUp: [0, -1],
  ArrowDown: [0, 1],
};
/** Coarse steps are so many pixels of the film. */
const COARSE = 10;
const LARGER = 1.05;

/** Words that are seen, as something to take hold of: their own letters, unseen, over those that are drawn. */
export function WordsHand({ slide, layer, says, look, drag, sight, onType }: WordsHandProps) {
  const edit = useShow((state) => state.edit);
  const frame = useShow((state) => state.show.frame);
  const [across, down] = anchorOf(layer.place);
  const press = (event: KeyboardEvent<HTMLElement>) => {
    if (event.ctrlKey || event.metaKey || event.altKey) return;
    const way = WAYS[event.key];
    const by = event.shiftKey ? COARSE : 1;
    if (way) drag.nudge(sight, (way[0] * by) / frame.widthPx, (way[1] * by) / frame.heightPx);
    else if (event.key === 'Enter') onType();
    else if (event.key === '+' || event.key === '-')
      drag.size(
        layer,
        (layer.style?.size ?? TITLE_SIZE) * (event.key === '+' ? LARGER : 1 / LARGER),
        `size words ${layer.id}`,
      );
    else if (event.key === 'Delete' || event.key === 'Backspace')
      edit({ kind: 'set-words', slideId: slide.id, layerId: layer.id, words: null });
    else if (event.key === 'Escape') event.currentTarget.blur();
    else return;
    event.preventDefault();
    event.stopPropagation();
  };
  return (
    <div
      role="button"
      tabIndex={0}
      aria-label={`Words “${says.title || says.subtitle}”: Enter types, arrows move, plus and minus size, Delete takes them off`}
      title="Drag to move, double-click to type"
      data-part="words-hand"
      data-layer={layer.id}
      className="group/hand pointer-events-auto relative cursor-move touch-none whitespace-pre-wrap outline-1 outline-offset-4 outline-transparent outline-dashed hover:outline-lamp/70 focus:outline-2 focus:outline-red"
      style={look.block}
      onPointerDown={(event) => drag.begin(event, sight, 'move')}
      onPointerMove={drag.move}
      onPointerUp={drag.end}
      onPointerCancel={drag.end}
      onDoubleClick={onType}
      onKeyDown={press}
    >
      <span aria-hidden="true" className="invisible block">
        {says.title && (
          <span className="block" style={look.title}>
            {says.title}
          </span>
        )}
        {says.subtitle && (
          <span className="block" style={says.title ? look.subtitle : { ...look.subtitle, marginTop: 0 }}>
            {says.subtitle}
          </span>
        )}
      </span>
      <span
        data-part="words-size"
        title="Drag to size"
        className="absolute size-3.5 cursor-nwse-resize rounded-full border-2 border-lamp bg-red opacity-0 group-focus/hand:opacity-100 group-hover/hand:opacity-100"
        style={{ [across === 1 ? 'left' : 'right']: -10, [down === 1 ? 'top' : 'bottom']: -10 }}
        onPointerDown={(event) => {
          event.stopPropagation();
          drag.begin(event, sight, 'size');
        }}
        onPointerMove={(event) => {
          event.stopPropagation();
          drag.move(event);
        }}
        onPointerUp={(event) => {
          event.stopPropagation();
          drag.end(event);
        }}
      />
    </div>
  );
}
