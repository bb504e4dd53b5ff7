'use client';

import { Camera, ImageUp, Undo2 } from 'lucide-react';
import { useState } from 'react';
import { toast } from 'sonner';
import type { PreparedShow } from '../../core/frame/plan-frame';
import type { ClipFacts } from '../../core/show/asset-facts';
import type { ShowEdit } from '../../core/show/edit';
import type { ClipLayer } from '../../core/show/layer';
import { SHORTEST_SLIDE_MS } from '../../core/show/limits';
import type { Slide } from '../../core/show/show';
import { clipFrameAt, CLIP_FRAME_MS } from '../../core/timing/clip-time';
import {
  atSpeed,
  clipPart,
  endingBy,
  trimmedFrom,
  trimmedTo,
  type Ending,
  type Trimmed,
} from '../../core/timing/clip-trim';
import type { SheetEntry } from '../../server/assets/contact-sheet';
import { Button } from '../kit/button';
import { clockTenths } from '../kit/clock';
import { NumberField } from '../kit/number-field';
import { Pick } from '../kit/pick';
import { callServer } from '../show/call-server';
import { useKeptMoment } from '../show/kept-moment';
import { useShow } from '../show/show-provider';
import { ClipFocus } from './clip-focus';
import { ClipFraming } from './clip-framing';
import { ClipFreezes } from './clip-freezes';
import { ClipSound } from './clip-sound';
import { ClipStrip } from './clip-strip';

interface ClipTabProps {
  readonly slide: Slide;
  readonly layer: ClipLayer;
  readonly facts: ClipFacts;
  readonly prepared: PreparedShow;
}

const SPEEDS = [0.25, 0.5, 0.75, 1, 1.5, 2, 4] as const;
const ENDINGS: readonly { readonly value: Ending; readonly label: string }[] = [
  { value: 'slide', label: 'the slide is over too' },
  { value: 'held', label: 'its last frame stays' },
  { value: 'again', label: 'it comes again' },
];

/** What a slide shows of a clip, and how: its first and last frame, its speed and direction, what comes after it, frames that stand, framing, sound. */
export function ClipTab({ slide, layer, facts, prepared }: ClipTabProps) {
  const edit = useShow((state) => state.edit);
  const showId = useShow((state) => state.show.id);
  const posterMs = useShow((state) => state.show.posters?.[layer.assetId]);
  const kept = useKeptMoment();
  const [drag, setDrag] = useState(0);
  const [taking, setTaking] = useState(false);
  const part = clipPart(layer, slide.lengthMs, facts.lengthMs);
  const speed = layer.speed ?? 1;
  /** So much of it is shown at least. */
  const leastMs = SHORTEST_SLIDE_MS * speed;
  const put = (changes: Partial<ClipLayer>): ShowEdit => ({
    kind: 'put-layer',
    slideId: slide.id,
    layer: withChanges(layer, changes),
  });
  const length = (lengthMs: number): ShowEdit[] =>
    lengthMs === slide.lengthMs
      ? []
      : [{ kind: 'set-lengths', lengths: [{ slideId: slide.id, lengthMs, by: 'hand' }] }];
  const change = (name: string, changes: Partial<ClipLayer>, lengthMs = slide.lengthMs, joins?: string) =>
    edit({ kind: 'together', name, edits: [put(changes), ...length(lengthMs)] }, joins);
  const trim = ({ lengthMs, ...ends }: Trimmed, held: boolean) => {
    if (ends.trimStartMs !== layer.trimStartMs || ends.trimEndMs !== layer.trimEndMs || lengthMs !== slide.lengthMs)
      change('trim the clip', ends, lengthMs, `trim ${layer.id} ${drag}`);
    if (!held) setDrag(drag + 1);
  };
  const from = (ms: number, held = false) => trim(trimmedFrom(layer, slide.lengthMs, facts.lengthMs, ms), held);
  const to = (ms: number, held = false) => trim(trimmedTo(layer, slide.lengthMs, facts.lengthMs, ms), held);
  const ending: Ending = layer.after === 'again' ? 'again' : part.heldMs > 1 ? 'held' : 'slide';
  const end = (next: Ending) => {
    const { lengthMs, ...changes } = endingBy(layer, slide.lengthMs, facts.lengthMs, next);
    change('change how the clip ends', changes, lengthMs);
  };
  /** The clip’s own moment of the frame the viewer shows; null while it shows another slide. */
  const seenMs = () => {
    const span = prepared.spans.find(({ slideId }) => slideId === slide.id)!;
    const offsetMs = kept.getState().momentMs - span.startMs;
    if (offsetMs < 0 || offsetMs >= span.leavesMs - span.startMs) return null;
    return clipFrameAt(layer, facts.lengthMs, span.leavesMs - span.startMs, offsetMs) * CLIP_FRAME_MS;
  };
  const elsewhere = () => toast('The viewer shows another slide: put it on the frame you mean first.');
  const take = async () => {
    const atMs = seenMs();
    if (atMs === null) return elsewhere();
    setTaking(true);
    try {
      const { entry } = await callServer<{ entry: SheetEntry }>(
        'POST',
        `/api/v1/shows/${showId}/clips/${layer.assetId}/still`,
        { atMs },
      );
      toast(`“${entry.fileName}” lies on the contact sheet.`);
    } catch (error) {
      toast.error(error instanceof Error ? error.message : 'The frame could not be taken.');
    } finally {
      setTaking(false);
    }
  };
  const stand = (atMs: number | null) =>
    edit({
      kind: 'set-posters',
      posters: [{ assetId: layer.assetId, atMs: atMs === null ? null : Math.round(atMs) }],
    });
  const choosePoster = () => {
    const atMs = seenMs();
    if (atMs === null) return elsewhere();
    stand(atMs);
  };
  return (
    <div className="flex flex-col gap-3" data-part="clip-tab">
      <ClipStrip
        assetId={layer.assetId}
        lengthMs={facts.lengthMs}
        part={part}
        hasSound={facts.hasSound}
        stands={(layer.freezes ?? []).map(({ atMs }) => atMs)}
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
          onClick={() => {
            const all = { ...layer, trimStartMs: 0, trimEndMs: undefined };
            const lengthMs = layer.after === 'again' ? slide.lengthMs : atSpeed(all, Infinity, facts.lengthMs, speed);
            change('show all of the clip', { trimStartMs: 0, trimEndMs: undefined }, lengthMs);
          }}
        >
          all of it
        </Button>
      </div>
      <div className="flex flex-wrap items-center gap-x-2 gap-y-1.5">
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
          onChange={(value) => {
            const next = Number(value);
            const lengthMs = atSpeed(layer, slide.lengthMs, facts.lengthMs, next);
            change('change the speed of the clip', { speed: next === 1 ? undefined : next }, lengthMs);
          }}
        />
        <Button
          className="h-7"
          aria-pressed={Boolean(layer.backwards)}
          data-part="clip-backwards"
          onClick={() =>
            change('turn the clip round', {
              backwards: layer.backwards ? undefined : true,
              // The same part, whichever way it runs; what ends with its slide needs no end of its own.
              trimStartMs: Math.round(part.fromMs),
              trimEndMs: layer.backwards && ending === 'slide' ? undefined : Math.round(part.toMs),
            })
          }
        >
          <Undo2 size={14} /> backwards
        </Button>
        <span className="ml-2 text-soft">When it is over,</span>
        <Pick
          label="When the clip is over"
          value={ending}
          groups={[{ name: null, options: ENDINGS }]}
          onChange={(value) => end(value as Ending)}
        />
        {part.heldMs > 0 && (
          <span className="text-soft">
            for <span className="tabular">{(part.heldMs / 1000).toFixed(1)}</span> s
          </span>
        )}
      </div>
      <ClipFraming slide={slide} layer={layer} facts={facts} prepared={prepared} />
      <div className="flex flex-wrap items-start gap-x-2 gap-y-2">
        <Button className="h-7" disabled={taking} onClick={() => void take()} data-part="take-still">
          <Camera size={14} /> take this frame
        </Button>
        <Button
          className="h-7"
          onClick={choosePoster}
          data-part="clip-poster"
          title="This frame stands for the clip on the contact sheet, in the order, on the shelf and on the film’s poster"
        >
          <ImageUp size={14} /> make it the print
        </Button>
        <ClipFreezes
          slide={slide}
          layer={layer}
          facts={facts}
          seenMs={seenMs}
          onElsewhere={elsewhere}
          onChange={change}
        />
      </div>
      {posterMs !== undefined && (
        <p className="flex items-center gap-1.5 text-soft" data-part="clip-poster-said">
          Its print is the frame at <span className="tabular text-ink">{(posterMs / 1000).toFixed(2)}</span> s.
          <Button look="quiet" className="h-7 px-2" onClick={() => stand(null)}>
            the first again
          </Button>
        </p>
      )}
      <ClipFocus layer={layer} facts={facts} />
      {facts.hasSound && <ClipSound layer={layer} onChange={(changes, joins) => edit(put(changes), joins)} />}
    </div>
  );
}

/** What is undefined is left out. */
function withChanges(layer: ClipLayer, changes: Partial<ClipLayer>): ClipLayer {
  const merged = Object.entries({ ...layer, ...changes }).filter(([, value]) => value !== undefined);
  return Object.fromEntries(merged) as unknown as ClipLayer;
}
