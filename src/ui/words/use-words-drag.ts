import { nanoid } from 'nanoid';
import { useRef, type PointerEvent } from 'react';
import { toast } from 'sonner';
import { guidedMove, type GuideBox, type GuideLine } from '../../core/guides/guides';
import { localOf, type LayerSight } from '../../core/frame/layer-sight';
import type { SlideSurroundings } from '../../core/frame/slide-moment';
import { isMoving } from '../../core/keys/edit-keys';
import type { WordsLayer } from '../../core/show/layer';
import { placedAt } from '../../core/layers/stand';
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
  readonly around: SlideSurroundings;
  readonly offsetMs: number;
  readonly onLines: (lines: readonly GuideLine[]) => void;
  readonly boxes: () => readonly { readonly id: string | null; readonly box: GuideBox }[];
}

export interface WordsDrag {
  begin(event: PointerEvent<HTMLElement>, sight: LayerSight, how: 'move' | 'size'): void;
  move(event: PointerEvent<HTMLElement>): void;
  end(event: PointerEvent<HTMLElement>): void;
  /** Shares of the frame. */
  nudge(sight: LayerSight, dx: number, dy: number): void;
  size(layer: WordsLayer, size: number, joins: string): void;
}

interface Held {
  readonly around: SlideSurroundings;
  readonly layer: WordsLayer;
  readonly sight: LayerSight;
  readonly how: 'move' | 'size';
  readonly x: number;
  readonly y: number;
  readonly frame: DOMRect;
  /** How large they are as they lie in themselves, in pixels of the screen. */
  readonly ownPx: { readonly width: number; readonly height: number };
  readonly box: GuideBox;
  readonly others: readonly GuideBox[];
  readonly joins: string;
  moved: boolean;
}

/** Words moved and sized by hand: from press to release one step to undo, worked out from where they stood when it began. */
export function useWordsDrag({ around, offsetMs, onLines, boxes }: Options): WordsDrag {
  const edit = useShow((state) => state.edit);
  const held = useRef<Held | null>(null);
  const { slide } = around;
  /** Moves words, from where they were seen, by shares of the frame. */
  const put = (from: SlideSurroundings, { layer, centre }: LayerSight, dx: number, dy: number, joins: string) => {
    if (isMoving(layer.channels?.x) || isMoving(layer.channels?.y)) {
      toast('These words go from key to key. Open the slide wide (Enter) to move them.', { id: 'keyed-words' });
      return;
    }
    const place = placedAt(from, layer.id, offsetMs, { x: centre.x + dx, y: centre.y + dy });
    if (!place) {
      toast('What these words are tied to holds them here. Open the slide wide (Enter) to change that.', {
        id: 'tied-words',
      });
      return;
    }
    const channels = { x: held6(place.x), y: held6(place.y) };
    edit({ kind: 'set-channels', slideId: slide.id, layerId: layer.id, channels }, joins);
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
    begin(event, sight, how) {
      const { layer } = sight;
      const root = event.currentTarget.closest('[data-part=words-hands]');
      if (event.button !== 0 || !root) return;
      event.currentTarget.setPointerCapture(event.pointerId);
      const all = boxes();
      const own = all.find(({ id }) => id === layer.id);
      const hand = event.currentTarget.closest<HTMLElement>('[data-part=words-hand]');
      if (!own || !hand || layer.kind !== 'words') return;
      held.current = {
        around,
        layer,
        sight,
        how,
        x: event.clientX,
        y: event.clientY,
        frame: root.getBoundingClientRect(),
        ownPx: { width: hand.offsetWidth, height: hand.offsetHeight },
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
        const share = (x: number, y: number) =>
          localOf(now.sight, { x: (x - frame.left) / frame.width, y: (y - frame.top) / frame.height });
        const [from, to] = [share(now.x, now.y), share(event.clientX, event.clientY)];
        if (!from || !to) return;
        const [ownX, ownY] = [(to.x - from.x) * frame.width, (to.y - from.y) * frame.height];
        // What they stand on stays; the corner that is held goes along.
        const { width: wide, height: high } = now.ownPx;
        const by = Math.hypot(wide, high);
        const ways = [across === 1 ? -1 : across === 0.5 ? 2 : 1, down === 1 ? -1 : down === 0.5 ? 2 : 1] as const;
        const grown = (ways[0] * ownX * wide + ways[1] * ownY * high) / by / by;
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
      put(now.around, now.sight, dx, dy, now.joins);
    },
    end(event) {
      held.current = null;
      onLines([]);
      if (event.currentTarget.hasPointerCapture(event.pointerId))
        event.currentTarget.releasePointerCapture(event.pointerId);
    },
    nudge: (sight, dx, dy) => put(around, sight, dx, dy, `nudge words ${sight.layer.id}`),
    size,
  };
}

/** A millionth of the frame is finer than any film. */
const held6 = (value: number) => Math.round(value * 1e6) / 1e6;
