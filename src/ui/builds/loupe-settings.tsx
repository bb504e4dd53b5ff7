'use client';

import { useMemo, useRef, useState, type PointerEvent } from 'react';
import { loupeNeedsMs, USUAL_LOUPE, type LoupePlan } from '../../core/builds/loupe';
import { makeLoupe, type Built } from '../../core/builds/make-builds';
import { placesFound } from '../../core/builds/places-found';
import { croppedSize } from '../../core/motion/crop';
import type { FactsById } from '../../core/show/asset-facts';
import { layerId, type LayerId } from '../../core/show/ids';
import type { ClipLayer, PictureLayer } from '../../core/show/layer';
import type { Slide } from '../../core/show/show';
import { Amount } from '../kit/amount';
import { Button } from '../kit/button';
import { Choice } from '../kit/choice';
import { CroppedPrint } from '../kit/cropped-print';
import { useShow } from '../show/show-provider';
import type { BuildParts } from './build-dialog';

const WIDE_PX = 300;

interface LoupeHands {
  readonly built: Built;
  readonly plan: LoupePlan;
  readonly pictures: readonly (PictureLayer | ClipLayer)[];
  readonly base: PictureLayer | ClipLayer | null;
  readonly facts: FactsById;
  readonly found: ReturnType<typeof placesFound> | null;
  readonly onBase: (id: LayerId) => void;
  readonly onPlan: (part: Partial<LoupePlan>) => void;
}

export function useLoupe({ prepared, chosen, id }: BuildParts): LoupeHands {
  const { show, facts } = prepared;
  const slide = show.slides.find((other) => other.id === chosen[0]);
  const pictures = useMemo(() => topPictures(slide), [slide]);
  const [baseId, setBaseId] = useState<LayerId | null>(null);
  const base = pictures.find((layer) => layer.id === baseId) ?? pictures[0] ?? null;
  const found = useMemo(() => (base ? placesFound(base, facts, show.focus) : null), [base, facts, show.focus]);
  const [changed, setChanged] = useState<Partial<LoupePlan>>({});
  const plan = useMemo<LoupePlan>(
    () => ({ ...USUAL_LOUPE, places: found?.places ?? [], ...changed }),
    [found, changed],
  );
  const built = useMemo<Built>(
    () =>
      slide && base
        ? makeLoupe(prepared, slide, base.id, plan, layerId(`loupe-${id}`))
        : { ok: false, sentence: 'Choose a slide with a picture: a loupe lies on a picture.' },
    [prepared, slide, base, plan, id],
  );
  return {
    built,
    plan,
    pictures,
    base,
    facts,
    found,
    onBase: (next) => {
      setBaseId(next);
      setChanged(({ places: _places, ...rest }) => rest);
    },
    onPlan: (part) => setChanged((before) => ({ ...before, ...part })),
  };
}

/** Those that lie on the slide itself. */
function topPictures(slide: Slide | undefined): (PictureLayer | ClipLayer)[] {
  return (slide?.layers ?? []).filter(
    (layer): layer is PictureLayer | ClipLayer => layer.kind === 'picture' || layer.kind === 'clip',
  );
}

const FOUND: Readonly<Record<ReturnType<typeof placesFound>['from'], (count: number) => string>> = {
  faces: (count) => `${count} ${count === 1 ? 'face was' : 'faces were'} found`,
  rings: (count) => `at your ${count} ${count === 1 ? 'ring' : 'rings'}`,
  about: () => 'at what the picture is about',
  nothing: () => 'a look around; click where it is to go',
};

/** The places of a loupe, clicked on the picture, and what it is like. */
export function LoupeSettings({ plan, pictures, base, facts, found, onBase, onPlan }: LoupeHands) {
  const names = useShow((state) => state.entries);
  const root = useRef<HTMLDivElement>(null);
  const held = useRef<{ index: number; moved: boolean } | null>(null);
  const known = base && facts.get(base.assetId);
  if (!base || !known || known.kind === 'sound') return null;
  const crop = base.kind === 'picture' ? base.crop : undefined;
  const used = croppedSize(known, crop);
  const height = Math.min(220, (WIDE_PX * used.heightPx) / used.widthPx);
  const width = (height * used.widthPx) / used.heightPx;
  const { places } = plan;
  const at = (event: PointerEvent) => {
    const box = root.current!.getBoundingClientRect();
    const share = (value: number) => Math.round(1000 * Math.min(1, Math.max(0, value))) / 1000;
    return { x: share((event.clientX - box.left) / box.width), y: share((event.clientY - box.top) / box.height) };
  };
  const put = (index: number, place: { x: number; y: number }) =>
    onPlan({ places: places.map((other, own) => (own === index ? place : other)) });
  return (
    <>
      {pictures.length > 1 && (
        <Choice
          label="Picture it lies on"
          value={base.id as string}
          onChange={(next) => onBase(layerId(next))}
          options={pictures.map((layer, index) => ({
            value: layer.id as string,
            label: names.find((entry) => entry.assetId === layer.assetId)?.fileName ?? `picture ${index + 1}`,
          }))}
        />
      )}
      <p>
        <b>Click the places</b> in the order it is to visit them{' '}
        <span className="text-soft">({found && FOUND[found.from](found.places.length)})</span>
      </p>
      <div
        ref={root}
        data-part="loupe-picture"
        className="relative cursor-crosshair touch-none bg-surround"
        style={{ width, height }}
        onPointerDown={(event) => {
          if ((event.target as Element).closest('button')) return;
          onPlan({ places: [...places, at(event)] });
        }}
      >
        <CroppedPrint
          assetId={base.assetId}
          picture={known}
          crop={crop}
          widthPx={width}
          heightPx={height}
          printPx={640}
        />
        {places.map((place, index) => (
          <button
            key={index}
            type="button"
            aria-label={`Place ${index + 1}: drag or arrow keys move it, Delete takes it away`}
            data-part="place"
            className="tabular absolute grid size-6 -translate-x-1/2 -translate-y-1/2 cursor-move touch-none place-items-center rounded-full border-2 border-white bg-black/60 text-xs text-white"
            style={{ left: `${100 * place.x}%`, top: `${100 * place.y}%` }}
            onPointerDown={(event) => {
              event.currentTarget.setPointerCapture(event.pointerId);
              held.current = { index, moved: false };
            }}
            onPointerMove={(event) => {
              if (held.current?.index !== index) return;
              held.current.moved = true;
              put(index, at(event));
            }}
            onPointerUp={() => {
              held.current = null;
            }}
            onDoubleClick={() => onPlan({ places: places.filter((_place, own) => own !== index) })}
            onKeyDown={(event) => {
              const by = { ArrowLeft: [-0.01, 0], ArrowRight: [0.01, 0], ArrowUp: [0, -0.01], ArrowDown: [0, 0.01] }[
                event.key
              ];
              if (by) {
                event.preventDefault();
                put(index, {
                  x: Math.min(1, Math.max(0, place.x + by[0]!)),
                  y: Math.min(1, Math.max(0, place.y + by[1]!)),
                });
              }
              if (event.key === 'Delete' || event.key === 'Backspace') {
                event.preventDefault();
                onPlan({ places: places.filter((_place, own) => own !== index) });
              }
            }}
          >
            {index + 1}
          </button>
        ))}
      </div>
      <div className="flex flex-wrap gap-1.5">
        <Button className="h-7" onClick={() => onPlan({ places: [...places, { x: 0.5, y: 0.5 }] })}>
          another place
        </Button>
        <Button className="h-7" disabled={places.length === 0} onClick={() => onPlan({ places: [] })}>
          none of these
        </Button>
        {found?.from !== 'nothing' && (
          <Button className="h-7" onClick={() => onPlan({ places: found!.places })}>
            those found
          </Button>
        )}
      </div>
      <Amount
        label="enlarges"
        value={plan.enlarges}
        min={1.2}
        max={6}
        rest={USUAL_LOUPE.enlarges}
        shown={`${plan.enlarges.toFixed(1)} ×`}
        onChange={(enlarges) => onPlan({ enlarges })}
      />
      <Amount
        label="across"
        value={plan.across}
        min={0.15}
        max={0.8}
        rest={USUAL_LOUPE.across}
        shown={`${Math.round(100 * plan.across)} %`}
        onChange={(across) => onPlan({ across })}
      />
      <Amount
        label="rests"
        value={plan.restMs}
        min={200}
        max={4000}
        rest={USUAL_LOUPE.restMs}
        shown={`${(plan.restMs / 1000).toFixed(1)} s`}
        onChange={(restMs) => onPlan({ restMs: Math.round(restMs) })}
      />
      <Amount
        label="glides"
        value={plan.glideMs}
        min={300}
        max={4000}
        rest={USUAL_LOUPE.glideMs}
        shown={`${(plan.glideMs / 1000).toFixed(1)} s`}
        onChange={(glideMs) => onPlan({ glideMs: Math.round(glideMs) })}
      />
      <p className="text-soft">
        It takes <span className="tabular">{(loupeNeedsMs(plan) / 1000).toFixed(1)} s</span>; a shorter slide is made
        that long.
      </p>
    </>
  );
}
