'use client';

import { Volume2, VolumeX } from 'lucide-react';
import type { ClipLayer } from '../../core/show/layer';
import { LONGEST_CLIP_FADE_MS } from '../../core/show/schemas/layer-schema';
import { FASTEST_HEARD, SLOWEST_HEARD } from '../../core/sound/sound-stretcher';
import { Amount } from '../kit/amount';
import { Button } from '../kit/button';
import { NumberField } from '../kit/number-field';

interface ClipSoundProps {
  readonly layer: ClipLayer;
  readonly onChange: (changes: Partial<ClipLayer>, joins?: string) => void;
}

/** At and below this a clip is silent. */
const SILENT_DB = -60;

/** A clip's own sound: on or off, how loud, how it comes and goes; why it is not heard. */
export function ClipSound({ layer, onChange }: ClipSoundProps) {
  const silent = layer.soundGainDb <= SILENT_DB;
  const speed = layer.speed ?? 1;
  const why = layer.backwards
    ? 'Backwards it is not heard.'
    : speed < SLOWEST_HEARD || speed > FASTEST_HEARD
      ? 'At this speed it is not heard.'
      : speed !== 1
        ? 'It keeps its pitch.'
        : null;
  const fade = (which: 'fadeInMs' | 'fadeOutMs', label: string) => (
    <NumberField
      label={label}
      value={(layer[which] ?? 0) / 1000}
      min={0}
      max={LONGEST_CLIP_FADE_MS / 1000}
      step={0.1}
      unit="s"
      onCommit={(value) => onChange({ [which]: value > 0 ? Math.round(value * 1000) : undefined })}
    />
  );
  return (
    <div className="flex flex-wrap items-center gap-x-3 gap-y-1.5">
      <div className="flex w-[320px] items-center gap-3">
        <Button
          square
          className="size-7"
          aria-label={silent ? 'Turn the clip’s sound on' : 'Turn the clip’s sound off'}
          aria-pressed={silent}
          onClick={() => onChange({ soundGainDb: silent ? 0 : SILENT_DB })}
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
            onChange={(value) => onChange({ soundGainDb: value }, `clip sound ${layer.id}`)}
          />
        </div>
      </div>
      {!silent && (
        <span className="flex items-center gap-1.5 text-soft">
          comes in over {fade('fadeInMs', 'The clip’s sound comes in over, seconds')} goes over{' '}
          {fade('fadeOutMs', 'The clip’s sound goes over, seconds')}
        </span>
      )}
      {!silent && why && <span className="text-soft">{why}</span>}
    </div>
  );
}
