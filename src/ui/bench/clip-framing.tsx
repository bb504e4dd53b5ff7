'use client';

import { focusInUse } from '../../core/focus/focus-in-use';
import { CLIP_FRAMINGS, clipFramingOf, clipMove, type ClipFraming as Framed } from '../../core/motion/clip-move';
import { factsInUse } from '../../core/motion/crop';
import { pictureWindow } from '../../core/motion/plan-moves';
import type { PreparedShow } from '../../core/frame/plan-frame';
import type { ClipFacts } from '../../core/show/asset-facts';
import type { ClipLayer } from '../../core/show/layer';
import type { Slide } from '../../core/show/show';
import { Pick } from '../kit/pick';
import { useShow } from '../show/show-provider';

interface ClipFramingProps {
  readonly slide: Slide;
  readonly layer: ClipLayer;
  readonly facts: ClipFacts;
  readonly prepared: PreparedShow;
}

const LABELS: Record<Framed, string> = {
  fill: 'fills the frame',
  whole: 'whole in the frame',
  closer: 'slowly closer',
  back: 'slowly back',
  'to-right': 'along to the right',
  'to-left': 'along to the left',
};

/** How the frame goes over a clip while it runs. */
export function ClipFraming({ slide, layer, facts, prepared }: ClipFramingProps) {
  const edit = useShow((state) => state.edit);
  const shown = factsInUse(layer, facts);
  const span = prepared.spans.find(({ slideId }) => slideId === slide.id)!;
  const { shape } = pictureWindow(layer, shown, prepared.show.frame, span.leavesMs - span.startMs);
  const [aspect, boxAspect] = [shown.widthPx / shown.heightPx, shape.widthPx / shape.heightPx];
  const focus = focusInUse(layer, facts, prepared.show.focus?.[layer.assetId]);
  const value = layer.move ? (clipFramingOf(layer.move, aspect, boxAspect, focus) ?? 'own') : 'usual';
  return (
    <div className="flex flex-wrap items-center gap-2">
      <span className="text-soft">Framing</span>
      <Pick
        label="Framing of the clip"
        value={value}
        groups={[
          {
            name: null,
            options: [
              { value: 'usual', label: 'as it stands' },
              ...CLIP_FRAMINGS.map((framing) => ({ value: framing, label: LABELS[framing] })),
              ...(value === 'own' ? [{ value: 'own', label: 'set by hand' }] : []),
            ],
          },
        ]}
        onChange={(next) => {
          if (next === 'own') return;
          const move =
            next === 'usual' ? { kind: 'still' as const } : clipMove(next as Framed, aspect, boxAspect, focus);
          edit({ kind: 'set-move', slideId: slide.id, layerId: layer.id, move });
        }}
      />
    </div>
  );
}
