'use client';

import { Volume2, VolumeX } from 'lucide-react';
import { useState } from 'react';
import type { ClipFacts } from '../../core/show/asset-facts';
import type { ShowEdit } from '../../core/show/edit';
import type { ClipLayer } from '../../core/show/layer';
import { SHORTEST_SLIDE_MS } from '../../core/show/limits';
import type { Slide } from '../../core/show/show';
import { atSpeed, clipPart, trimmedFrom, trimmedTo, type Trimmed } from '../../core/timing/clip-trim';
import { Amount } from '../kit/amount';
import { Button } from '../kit/button';
import { clockTenths } from '../kit/clock';
import { NumberField } from '../kit/number-field';
import { Pick } from '../kit/pick';
import { useShow } from '../show/show-provider';
import { ClipStrip } from './clip-strip';

interface ClipTabProps {
  readonly slide: Slide;
  readonly layer: ClipLayer;
  readonly facts: ClipFacts;
}

const SPEEDS = [0.25, 0.5, 0.75, 1, 1.5, 2, 4] as const;
/** At and below this a clip is silent. */
const SILENT_DB = -60;

/** What a slide shows of a clip: its first and last frame, its speed, its sound. */
export function ClipTab({ slide, layer, facts }: ClipTabProps) {
  const edit = useShow((state) => state.edit);
  const [drag, setDrag] = useState(0);
  const part = clipPart(layer, slide.lengthMs, facts.lengthMs);
  const speed = layer.speed ?? 1;
  /** So much of it is shown at least. */
  const leastMs = SHORTEST_SLIDE_MS * speed;
  const silent = layer.soundGainDb <= SILENT_DB;
  const put = (changes: Partial<ClipLayer>): ShowEdit => ({
    kind: 'put-layer',
    slideId: slide.id,
    layer: { ...layer, ...changes },
  });
  const length = (lengthMs: number): ShowEdit => ({
    kind: 'set-lengths',
    lengths: [{ slideId: slide.id, lengthMs, by: 'hand' }],
  });
  const trim = ({ trimStartMs, lengthMs }: Trimmed, held: boolean) => {
    if (trimStartMs !== layer.trimStartMs || lengthMs !== slide.lengthMs)
      edit(
        { kind: 'together', name: 'trim the clip', edits: [put({ trimStartMs }), length(lengthMs)] },
        `trim ${layer.id} ${drag}`,
      );
    if (!held) setDrag(drag + 1);
  };
  const from = (ms: number, held = false) => trim(trimmedFrom(layer, slide.lengthMs, facts.lengthMs, ms), held);
  const to = (ms: number, held = false) => trim(trimmedTo(layer, facts.lengthMs, ms), held);
  const setSpeed = (next: number) => {
    const { speed: _before, ...rest } = layer;
    edit({
      kind: 'together',
      name: 'change the speed of the clip',
      edits: [
        { kind: 'put-layer', slideId: slide.id, layer: next === 1 ? rest : { ...rest, speed: next } },
        length(atSpeed(layer, slide.lengthMs, facts.lengthMs, next)),
      ],
    });
  };
  return (
    <div className="flex flex-col gap-3" data-part="clip-tab">
      <ClipStrip
        assetId={layer.assetId}
        lengthMs={facts.lengthMs}
        part={part}
        hasSound={facts.hasSound}
        onFrom={from}
        onTo={to}
      />
      <div className="flex flex-wrap items-center gap-x-2 gap-y-1.5">
        <span className="text-soft">From</span>
        <NumberField
          label="First frame, seconds into the clip"
          value={part.fromMs / 1000}
          min={0}
          max={(part.toMs - leastMs) / 1000}
          step={1 / 30}
          digits={2}
          unit="s"
          onCommit={(value) => from(value * 1000)}
        />
        <span className="text-soft">to</span>
        <NumberField
          label="Last frame, seconds into the clip"
          value={part.toMs / 1000}
          min={(part.fromMs + leastMs) / 1000}
          max={facts.lengthMs / 1000}
          step={1 / 30}
          digits={2}
          unit="s"
          onCommit={(value) => to(value * 1000)}
        />
        <span className="text-soft">
          of <span className="tabular">{clockTenths(facts.lengthMs)}</span>
        </span>
        <Button
          className="h-7"
          disabled={part.fromMs === 0 && part.toMs >= facts.lengthMs && part.heldMs === 0}
          onClick={() => trim({ trimStartMs: 0, lengthMs: Math.round(facts.lengthMs / speed) }, false)}
        >
          all of it
        </Button>
      </div>
      {part.heldMs > 0 && (
        <p className="text-soft">
          The slide lasts longer than the clip: its last frame is held for{' '}
          <span className="tabular">{(part.heldMs / 1000).toFixed(1)}</span> s.
        </p>
      )}
      <div className="flex flex-wrap items-center gap-2">
        <span className="text-soft">Speed</span>
        <Pick
          label="Speed of the clip"
          value={String(speed)}
          groups={[
            {
              name: null,
              options: [...new Set<number>([...SPEEDS, speed])]
                .sort((a, b) => a - b)
                .map((value) => ({ value: String(value), label: value === 1 ? 'as filmed' : `${value} ×` })),
            },
          ]}
          onChange={(value) => setSpeed(Number(value))}
        />
        {speed !== 1 && facts.hasSound && <span className="text-soft">At another speed it is silent.</span>}
      </div>
      {facts.hasSound && (
        <div className="flex max-w-[420px] items-center gap-3">
          <Button
            square
            className="size-7"
            aria-label={silent ? 'Turn the clip’s sound on' : 'Turn the clip’s sound off'}
            aria-pressed={silent}
            onClick={() => edit(put({ soundGainDb: silent ? 0 : SILENT_DB }))}
            data-part="clip-silent"
          >
            {silent ? <VolumeX size={14} /> : <Volume2 size={14} />}
          </Button>
          <div className="flex-1">
            <Amount
              label="Its sound"
              value={Math.max(-40, layer.soundGainDb)}
              min={-40}
              max={12}
              rest={0}
              shown={silent ? 'off' : `${layer.soundGainDb > 0 ? '+' : ''}${layer.soundGainDb.toFixed(0)} dB`}
              onChange={(value) => edit(put({ soundGainDb: value }), `clip sound ${layer.id}`)}
            />
          </div>
        </div>
      )}
    </div>
  );
}
