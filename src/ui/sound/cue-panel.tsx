'use client';

import { ArrowDown, ArrowUp, PencilLine, Repeat, Trash2 } from 'lucide-react';
import { useState } from 'react';
import type { FactsById } from '../../core/show/asset-facts';
import { FADE_CURVES, type FadeCurve, type PlacedSound } from '../../core/show/placed-sound';
import type { SoundProperties } from '../../core/show/edits/set-sound';
import { anchorName } from '../../core/sound/cue-ends';
import type { SoundSpan } from '../../core/sound/sound-spans';
import type { SlideSpan } from '../../core/timing/slide-span';
import { Button } from '../kit/button';
import { clock } from '../kit/clock';
import { NumberField } from '../kit/number-field';
import { Pick, plainOptions } from '../kit/pick';
import { SongAboutFields } from './song-about-fields';
import { SongStrip } from './song-strip';

interface CuePanelProps {
  readonly cue: PlacedSound;
  /** Null when the show ends before it begins. */
  readonly span: SoundSpan | null;
  readonly name: string;
  readonly by: string | null;
  readonly facts: FactsById;
  readonly spans: readonly SlideSpan[];
  readonly isFirst: boolean;
  readonly isLast: boolean;
  readonly onChange: (properties: SoundProperties, joins?: string) => void;
  readonly onSwap: (by: -1 | 1) => void;
  readonly onRemove: () => void;
}

/** One song: where it plays, how loud, how it comes and goes. */
export function CuePanel(props: CuePanelProps) {
  const { cue, span, name, by, facts, spans, isFirst, isLast, onChange, onSwap, onRemove } = props;
  const [mending, setMending] = useState(false);
  const known = facts.get(cue.assetId);
  const fileS = known && known.kind !== 'picture' ? known.lengthMs / 1000 : 36_000;
  const endS = (cue.trimEndMs ?? fileS * 1000) / 1000;
  const overlapMs = cue.starts.at === 'after' ? (cue.starts.overlapMs ?? 0) : 0;
  return (
    <section aria-label={name} data-part="cue">
      <div className="flex items-center gap-1">
        <span className="min-w-0 flex-1">
          <span className="block truncate text-base font-semibold">{name}</span>
          <span className="block truncate text-soft">
            {by && `${by} · `}
            {span ? (
              <>
                <span className="tabular">
                  {clock(span.startMs)}–{clock(span.endMs)}
                </span>
                , from {isFirst && cue.starts.at === 'after' ? 'the beginning' : anchorName(cue.starts, spans)} to{' '}
                {anchorName(cue.ends, spans)}
              </>
            ) : (
              'not reached: the show ends before it'
            )}
          </span>
        </span>
        <Button
          look="quiet"
          square
          className="size-7"
          aria-label={`Mend what is said of ${name}`}
          title="Title, by whom, style, mood, licence"
          aria-expanded={mending}
          onClick={() => setMending(!mending)}
        >
          <PencilLine size={14} />
        </Button>
        {!isFirst && (
          <Button look="quiet" square className="size-7" aria-label="Play it earlier" onClick={() => onSwap(-1)}>
            <ArrowUp size={14} />
          </Button>
        )}
        {!isLast && (
          <Button look="quiet" square className="size-7" aria-label="Play it later" onClick={() => onSwap(1)}>
            <ArrowDown size={14} />
          </Button>
        )}
        <Button
          look="quiet"
          square
          className="size-7"
          aria-label="Let it loop"
          title="Let it loop until it ends or the show does"
          aria-pressed={cue.loops === true}
          onClick={() => onChange({ loops: cue.loops ? null : true })}
        >
          <Repeat size={14} />
        </Button>
        <Button look="quiet" square className="size-7" aria-label={`Take out ${name}`} onClick={onRemove}>
          <Trash2 size={14} />
        </Button>
      </div>
      {mending && <SongAboutFields assetId={cue.assetId} />}
      {known && known.kind !== 'picture' && (
        <SongStrip cue={cue} lengthMs={known.lengthMs} facts={facts} onChange={onChange} />
      )}
      <div className="mt-2 grid grid-cols-[auto_1fr_auto_1fr] items-center gap-x-3 gap-y-2">
        <span className="text-soft">volume</span>
        <label className="flex items-center gap-2">
          <input
            type="range"
            aria-label="Volume"
            min={-30}
            max={6}
            step={0.5}
            value={cue.gainDb}
            onChange={(event) => onChange({ gainDb: Number(event.target.value) }, `gain ${cue.id}`)}
            className="w-20 accent-saffron"
          />
          <span className="tabular w-14 whitespace-nowrap">
            {cue.gainDb > 0 ? '+' : ''}
            {cue.gainDb.toFixed(1)} dB
          </span>
        </label>
        <span className="text-soft">crosses over</span>
        <span>
          {isFirst || cue.starts.at !== 'after' ? (
            <span className="text-soft">–</span>
          ) : (
            <NumberField
              label="How long it crosses over with the song before, seconds"
              value={overlapMs / 1000}
              min={0}
              max={60}
              step={0.5}
              unit="s"
              onCommit={(seconds) =>
                onChange({
                  starts: seconds > 0 ? { at: 'after', overlapMs: Math.round(seconds * 1000) } : { at: 'after' },
                })
              }
            />
          )}
        </span>
        <span className="text-soft">begins at</span>
        <span>
          <NumberField
            label="Where in the song it begins, seconds"
            value={cue.trimStartMs / 1000}
            min={0}
            max={Math.max(0, endS - 0.5)}
            step={0.5}
            unit="s"
            onCommit={(seconds) => onChange({ trimStartMs: Math.round(seconds * 1000) })}
          />
        </span>
        <span className="text-soft">ends at</span>
        <span className="flex items-center gap-1">
          <NumberField
            label="Where in the song it ends, seconds"
            value={endS}
            min={cue.trimStartMs / 1000 + 0.5}
            max={fileS}
            step={0.5}
            unit="s"
            onCommit={(seconds) => onChange({ trimEndMs: seconds >= fileS - 0.05 ? null : Math.round(seconds * 1000) })}
          />
        </span>
        <Fade
          name="fades in"
          ms={cue.fadeInMs}
          curve={cue.fadeInCurve ?? 'straight'}
          onMs={(fadeInMs) => onChange({ fadeInMs })}
          onCurve={(curve) => onChange({ fadeInCurve: curve === 'straight' ? null : curve })}
        />
        <Fade
          name="fades out"
          ms={cue.fadeOutMs}
          curve={cue.fadeOutCurve ?? 'straight'}
          onMs={(fadeOutMs) => onChange({ fadeOutMs })}
          onCurve={(curve) => onChange({ fadeOutCurve: curve === 'straight' ? null : curve })}
        />
      </div>
      <p className="mt-2 text-xs text-soft">
        The fade-out stays where the song ends, whatever becomes of the show. A click on the thin line makes a point of
        its level; double-click takes it away.
        {cue.levels && (
          <Button look="quiet" className="ml-1 h-6 px-1.5 text-xs" onClick={() => onChange({ levels: null })}>
            Straighten the line
          </Button>
        )}
      </p>
    </section>
  );
}

interface FadeProps {
  readonly name: string;
  readonly ms: number;
  readonly curve: FadeCurve;
  readonly onMs: (ms: number) => void;
  readonly onCurve: (curve: FadeCurve) => void;
}

function Fade({ name, ms, curve, onMs, onCurve }: FadeProps) {
  return (
    <>
      <span className="text-soft">{name}</span>
      <span className="flex items-center gap-1.5">
        <NumberField
          label={`${name === 'fades in' ? 'Fade in' : 'Fade out'}, seconds`}
          value={ms / 1000}
          min={0}
          max={60}
          step={0.5}
          unit="s"
          onCommit={(seconds) => onMs(Math.round(seconds * 1000))}
        />
        <Pick<FadeCurve>
          label={`How it ${name}`}
          value={curve}
          onChange={onCurve}
          groups={[{ name: null, options: plainOptions(FADE_CURVES) }]}
        />
      </span>
    </>
  );
}
