import { nanoid } from 'nanoid';
import { useRef, type PointerEvent } from 'react';
import { toast } from 'sonner';
import { guidedMove, type GuideBox, type GuideLine } from '../../core/guides/guides';
import { valueAt } from '../../core/keys/channel';
import { isMoving } from '../../core/keys/edit-keys';
import type { WordsLayer } from '../../core/show/layer';
import type { Slide } from '../../core/show/show';
import { anchorOf } from '../../core/show/words';
import { textOf } from '../../core/show/words-of-slide';
import { TITLE_SIZE } from '../../core/words/sizes';
import { useShow } from '../show/show-provider';

/** Nearer than this the hand has not moved, and closer than this a guide catches; in pixels of the screen. */
const STILL_PX = 3;
const CATCHES_PX = 6;
/** What words can be sized to, as shares of the frame's shorter side. */
const [SMALLEST, LARGEST] = [0.01, 0.5];

interface Options {
  readonly slide: Slide;
  readonly offsetMs: number;
  readonly seenMs: number;
  readonly onLines: (lines: readonly GuideLine[]) => void;
  readonly boxes: () => readonly { readonly id: string | null; readonly box: GuideBox }[];
}

export interface WordsDrag {
  begin(event: PointerEvent<HTMLElement>, layer: WordsLayer, how: 'move' | 'size'): void;
  move(event: PointerEvent<HTMLElement>): void;
  end(event: PointerEvent<HTMLElement>): void;
  /** Shares of the frame. */
  nudge(layer: WordsLayer, dx: number, dy: number): void;
  size(layer: WordsLayer, size: number, joins: string): void;
}

interface Held {
  readonly layer: WordsLayer;
  readonly how: 'move' | 'size';
  readonly x: number;
  readonly y: number;
  readonly frame: DOMRect;
  readonly box: GuideBox;
  readonly others: readonly GuideBox[];
  readonly joins: string;
  moved: boolean;
}

/** Words moved and sized by hand: from press to release one step to undo, worked out from where they stood when it began. */
export function useWordsDrag({ slide, offsetMs, seenMs, onLines, boxes }: Options): WordsDrag {
  const edit = useShow((state) => state.edit);
  const held = useRef<Held | null>(null);
  const standsAt = (layer: WordsLayer, channel: 'x' | 'y') =>
    valueAt(layer.channels?.[channel] ?? 0.5, offsetMs, seenMs);
  const put = (layer: WordsLayer, x: number, y: number, joins: string) => {
    if (isMoving(layer.channels?.x) || isMoving(layer.channels?.y)) {
      toast('These words go from key to key. Open the slide wide (Enter) to move them.', { id: 'keyed-words' });
      return;
    }
    edit({ kind: 'set-channels', slideId: slide.id, layerId: layer.id, channels: { x: held6(x), y: held6(y) } }, joins);
  };
  const size = (layer: WordsLayer, wanted: number, joins: string) => {
    const held = Math.round(1000 * Math.min(LARGEST, Math.max(SMALLEST, wanted))) / 1000;
    if (wanted > LARGEST || wanted < SMALLEST)
      toast(
        wanted > LARGEST
          ? 'Words are half the frame’s shorter side at most.'
          : 'Words are a hundredth of the frame’s shorter side at least.',
        { id: 'words-size' },
      );
    const words = { ...textOf(layer), style: { ...layer.style, size: held } };
    edit({ kind: 'set-words', slideId: slide.id, layerId: layer.id, words }, joins);
  };
  return {
    begin(event, layer, how) {
      const root = event.currentTarget.closest('[data-part=words-hands]');
      if (event.button !== 0 || !root) return;
      event.currentTarget.setPointerCapture(event.pointerId);
      const all = boxes();
      const own = all.find(({ id }) => id === layer.id);
      if (!own) return;
      held.current = {
        layer,
        how,
        x: event.clientX,
        y: event.clientY,
        frame: root.getBoundingClientRect(),
        box: own.box,
        others: all.filter(({ id }) => id !== layer.id).map(({ box }) => box),
        joins: `words by hand ${nanoid(6)}`,
        moved: false,
      };
    },
    move(event) {
      const now = held.current;
      if (!now) return;
      const { layer, frame, box } = now;
      const [px, py] = [event.clientX - now.x, event.clientY - now.y];
      if (!now.moved && Math.hypot(px, py) < STILL_PX) return;
      now.moved = true;
      let [dx, dy] = [px / frame.width, py / frame.height];
      if (now.how === 'size') {
        const [across, down] = anchorOf(layer.place);
        // What they stand on stays; the corner that is held goes along.
        const wide = (box.right - box.left) * frame.width;
        const high = (box.bottom - box.top) * frame.height;
        const by = Math.hypot(wide, high);
        const ways = [across === 1 ? -1 : across === 0.5 ? 2 : 1, down === 1 ? -1 : down === 0.5 ? 2 : 1] as const;
        const grown = (ways[0] * px * wide + ways[1] * py * high) / by / by;
        size(layer, (layer.style?.size ?? TITLE_SIZE) * Math.max(0.05, 1 + grown), now.joins);
        return;
      }
      if (event.altKey) onLines([]);
      else {
        const there = { left: box.left + dx, right: box.right + dx, top: box.top + dy, bottom: box.bottom + dy };
        const reach = { x: CATCHES_PX / frame.width, y: CATCHES_PX / frame.height };
        const guided = guidedMove(there, now.others, reach);
        [dx, dy] = [dx + guided.dx, dy + guided.dy];
        onLines(guided.lines);
      }
      put(layer, standsAt(layer, 'x') + dx, standsAt(layer, 'y') + dy, now.joins);
    },
    end(event) {
      held.current = null;
      onLines([]);
      if (event.currentTarget.hasPointerCapture(event.pointerId))
        event.currentTarget.releasePointerCapture(event.pointerId);
    },
    nudge: (layer, dx, dy) =>
      put(layer, standsAt(layer, 'x') + dx, standsAt(layer, 'y') + dy, `nudge words ${layer.id}`),
    size,
  };
}

/** A millionth of the frame is finer than any film. */
const held6 = (value: number) => Math.round(value * 1e6) / 1e6;
