'use client';

import { Snowflake, X } from 'lucide-react';
import type { ClipFacts } from '../../core/show/asset-facts';
import type { ClipLayer } from '../../core/show/layer';
import { LONGEST_FREEZE_MS, MOST_FREEZES, SHORTEST_FREEZE_MS } from '../../core/show/schemas/layer-schema';
import type { Slide } from '../../core/show/show';
import { onceThroughClipMs } from '../../core/timing/clip-time';
import { clipPart } from '../../core/timing/clip-trim';
import { Button } from '../kit/button';
import { NumberField } from '../kit/number-field';

interface ClipFreezesProps {
  readonly slide: Slide;
  readonly layer: ClipLayer;
  readonly facts: ClipFacts;
  /** The moment of the clip that the viewer shows, or null. */
  readonly seenMs: () => number | null;
  readonly onElsewhere: () => void;
  readonly onChange: (name: string, changes: Partial<ClipLayer>, lengthMs: number) => void;
}

const USUAL_MS = 2000;

/** Frames of the clip that stand for a while; the slide is as much longer. */
export function ClipFreezes({ slide, layer, facts, seenMs, onElsewhere, onChange }: ClipFreezesProps) {
  const freezes = layer.freezes ?? [];
  /** As long as the part that is shown then lasts; a slide in which the clip comes again stays as it is. */
  const set = (name: string, next: typeof freezes) => {
    const part = clipPart(layer, slide.lengthMs, facts.lengthMs);
    const ends = { trimStartMs: Math.round(part.fromMs), trimEndMs: Math.round(part.toMs) };
    const grows =
      onceThroughClipMs({ ...layer, ...ends, freezes: next }, facts.lengthMs) -
      onceThroughClipMs({ ...layer, ...ends }, facts.lengthMs);
    const lengthMs = layer.after === 'again' ? slide.lengthMs : Math.round(slide.lengthMs + grows);
    onChange(name, { freezes: next.length > 0 ? next : undefined }, lengthMs);
  };
  const add = () => {
    const seen = seenMs();
    if (seen === null) return onElsewhere();
    const atMs = Math.round(seen);
    if (freezes.some((freeze) => freeze.atMs === atMs)) return;
    set(
      'let a frame stand',
      [...freezes, { atMs, lengthMs: USUAL_MS }].sort((a, b) => a.atMs - b.atMs),
    );
  };
  return (
    <div className="flex flex-wrap items-center gap-x-2 gap-y-1.5" data-part="clip-freezes">
      <Button className="h-7" disabled={freezes.length >= MOST_FREEZES} onClick={add} data-part="clip-freeze">
        <Snowflake size={14} /> let this frame stand
      </Button>
      {freezes.map((freeze) => {
        const at = (freeze.atMs / 1000).toFixed(2);
        return (
          <span key={freeze.atMs} className="flex items-center gap-1 rounded-md border border-rule py-0.5 pr-0.5 pl-2">
            <span className="tabular text-soft">at {at} s for</span>
            <NumberField
              label={`How long the frame at ${at} s stands`}
              value={freeze.lengthMs / 1000}
              min={SHORTEST_FREEZE_MS / 1000}
              max={LONGEST_FREEZE_MS / 1000}
              step={0.1}
              unit="s"
              onCommit={(value) =>
                set(
                  'change how long a frame stands',
                  freezes.map((other) =>
                    other === freeze ? { ...freeze, lengthMs: Math.round(value * 1000) } : other,
                  ),
                )
              }
            />
            <Button
              square
              className="size-6"
              aria-label={`Let the frame at ${at} s run on`}
              onClick={() =>
                set(
                  'let a frame run on',
                  freezes.filter((other) => other !== freeze),
                )
              }
            >
              <X size={13} />
            </Button>
          </span>
        );
      })}
    </div>
  );
}
