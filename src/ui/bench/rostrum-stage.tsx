'use client';

import { useState } from 'react';
import type { FocusRing } from '../../core/focus/focus-facts';
import { factsInUse } from '../../core/motion/crop';
import type { PlannedMove } from '../../core/motion/automatic-move';
import type { Framing } from '../../core/motion/framing';
import type { PictureFacts } from '../../core/show/asset-facts';
import type { PictureLayer } from '../../core/show/layer';
import { FramedPicture } from '../arrange/framed-picture';
import { framedView, type FramedView } from '../arrange/framed-view';
import { FocusRings } from './focus-rings';
import { FramingHands } from './framing-hands';

interface RostrumStageProps {
  readonly layer: PictureLayer;
  /** Of its whole file. */
  readonly facts: PictureFacts;
  readonly move: PlannedMove;
  /** At most this large. */
  readonly most: { readonly widthPx: number; readonly heightPx: number };
  readonly rings: readonly FocusRing[];
  /** The rings were found out, not said. */
  readonly found: boolean;
  readonly onFraming: (which: 'first' | 'last', part: Partial<Framing>) => void;
  readonly onRings: (rings: readonly FocusRing[], joins: string) => void;
}

/** The picture with its framings and with the rings around what it is about, all to be dragged. */
export function RostrumStage({ layer, facts, move, most, rings, found, onFraming, onRings }: RostrumStageProps) {
  const [heldView, setHeldView] = useState<FramedView | null>(null);
  const shown = factsInUse(layer, facts);
  const view = heldView ?? framedView(shown, move, most);
  return (
    <div className="relative shrink-0 self-start">
      <FramedPicture
        large
        layer={layer}
        facts={facts}
        move={move}
        widthPx={most.widthPx}
        heightPx={most.heightPx}
        view={view}
      />
      <FramingHands
        view={view}
        picture={shown}
        first={move.first}
        last={move.last}
        onHold={(held) => setHeldView(held ? view : null)}
        onChange={onFraming}
      />
      <FocusRings
        view={view}
        whole={facts}
        picture={shown}
        crop={layer.crop}
        rings={rings}
        found={found}
        onChange={onRings}
      />
    </div>
  );
}
