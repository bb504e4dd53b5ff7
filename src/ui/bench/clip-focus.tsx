'use client';

import { Eye, EyeOff } from 'lucide-react';
import { useState } from 'react';
import { focusOf, ringAround } from '../../core/focus/focus-of';
import type { FocusRing } from '../../core/focus/focus-facts';
import { factsInUse } from '../../core/motion/crop';
import type { ClipFacts } from '../../core/show/asset-facts';
import type { ClipLayer } from '../../core/show/layer';
import { framedView } from '../arrange/framed-view';
import { Button } from '../kit/button';
import { CroppedPrint } from '../kit/cropped-print';
import { useShow } from '../show/show-provider';
import { FocusFields } from './focus-fields';
import { FocusRings } from './focus-rings';

interface ClipFocusProps {
  readonly layer: ClipLayer;
  readonly facts: ClipFacts;
}

const MOST = { widthPx: 300, heightPx: 170 };

/** What a clip is about, all through it: found out, or said by rings on the frame that stands for it. Framings and other shapes of the frame go by it. */
export function ClipFocus({ layer, facts }: ClipFocusProps) {
  const said = useShow((state) => state.show.focus?.[layer.assetId]);
  const edit = useShow((state) => state.edit);
  const [shown, setShown] = useState(false);
  const aspect = facts.widthPx / facts.heightPx;
  const focus = focusOf(facts.focus, undefined, aspect);
  const found = focus && focus.from !== 'person' ? { ring: ringAround(focus.about, aspect), what: focus.from } : null;
  const setRings = (rings: readonly FocusRing[], joins?: string) =>
    edit({ kind: 'set-focus', focus: [{ assetId: layer.assetId, rings }] }, joins);
  const picture = factsInUse(layer, facts);
  const view = framedView(picture, undefined, MOST);
  return (
    <div data-part="clip-focus">
      <div className="flex flex-wrap items-center gap-1.5 [&>div]:mt-0">
        <FocusFields
          assetIds={[layer.assetId]}
          said={said}
          found={found}
          onRings={(rings) => {
            setShown(true);
            setRings(rings);
          }}
        />
        <Button
          look="quiet"
          square
          className="size-7"
          aria-expanded={shown}
          aria-label={shown ? 'Hide what the clip is about' : 'Show what the clip is about'}
          onClick={() => setShown(!shown)}
        >
          {shown ? <EyeOff size={14} /> : <Eye size={14} />}
        </Button>
      </div>
      {shown && (
        <div className="relative mt-2" style={{ width: view.widthPx, height: view.heightPx }}>
          <CroppedPrint
            assetId={layer.assetId}
            picture={facts}
            crop={layer.crop}
            widthPx={view.widthPx}
            heightPx={view.heightPx}
          />
          <FocusRings
            view={view}
            whole={facts}
            picture={picture}
            crop={layer.crop}
            rings={said ?? (found ? [found.ring] : [])}
            found={said === undefined}
            onChange={setRings}
          />
        </div>
      )}
    </div>
  );
}
