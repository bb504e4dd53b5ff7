'use client';

import { Plus, X } from 'lucide-react';
import { MOST_LOUPE_PLACES } from '../../core/builds/loupe';
import { croppedSize } from '../../core/motion/crop';
import { Button } from '../kit/button';
import { CroppedPrint } from '../kit/cropped-print';
import { NumberField } from '../kit/number-field';
import { useLoupePlan } from './use-loupe-plan';
import { useOpenSlide } from './use-slide';
import { useWide, useWideStore } from './wide-store';

const COIN_PX = 72;

/** The places a loupe visits, in order, and what it is like: for a loupe that is as it was made. */
export function LoupeStrip() {
  const store = useWideStore();
  const { slide, prepared } = useOpenSlide();
  const loupe = useLoupePlan();
  const offsetMs = useWide((state) => state.offsetMs);
  if (!loupe) return null;
  const { base, plan, arrivals, change } = loupe;
  const facts = prepared.facts.get(base.assetId);
  if (!facts || facts.kind === 'sound') return null;
  const crop = base.kind === 'picture' ? base.crop : undefined;
  const used = croppedSize(facts, crop);
  const here = arrivals.findIndex((ms) => offsetMs >= ms - 1 && offsetMs <= ms + plan.restMs);
  // What is seen through the loupe is as wide as its diameter divided by how much it enlarges.
  const framing = prepared.moves.get(slide.id)?.get(base.id)?.first;
  const { frame } = prepared.show;
  const seenShare = (plan.across / plan.enlarges) * (frame.heightPx / frame.widthPx) * (framing?.width ?? 1);
  const width = Math.min(6000, COIN_PX / Math.max(0.01, seenShare));
  const height = (width * used.heightPx) / used.widthPx;
  const add = () => {
    const last = plan.places.at(-1)!;
    change({ places: [...plan.places, { x: Math.min(0.95, last.x + 0.08), y: last.y }] });
    store.getState().seek(arrivals.at(-1)! + plan.restMs + plan.glideMs + 1);
  };
  return (
    <div className="shrink-0 border-t border-white/10 px-5 py-2.5" data-part="loupe-strip">
      <div className="mb-1.5 flex flex-wrap items-center gap-x-4 gap-y-1">
        <h3 className="text-base">
          Places{' '}
          <span className="font-sans text-sm font-normal text-lamp-soft">
            in the order the loupe visits them; drag it at one to move that place
          </span>
        </h3>
      </div>
      <ol className="flex gap-2.5 overflow-x-auto pb-1 scroll-thin">
        {plan.places.map((place, index) => (
          <li key={index} className="relative shrink-0 text-center">
            <button
              type="button"
              aria-label={`Go to place ${index + 1}`}
              aria-current={index === here ? 'true' : undefined}
              data-part="loupe-place"
              onClick={() => store.getState().seek(arrivals[index]! + Math.min(plan.restMs / 2, 200))}
              className={`block overflow-hidden rounded-full border-[3px] ${index === here ? 'border-red' : 'border-lamp'}`}
              style={{ width: COIN_PX, height: COIN_PX }}
            >
              <span
                className="relative block"
                style={{
                  left: COIN_PX / 2 - 3 - place.x * width,
                  top: COIN_PX / 2 - 3 - place.y * height,
                  width,
                  height,
                }}
              >
                <CroppedPrint
                  assetId={base.assetId}
                  picture={facts}
                  crop={crop}
                  widthPx={width}
                  heightPx={height}
                  printPx={1280}
                />
              </span>
            </button>
            <span className="tabular text-xs text-lamp-soft">{index + 1}</span>
            {plan.places.length > 1 && (
              <Button
                look="dark"
                square
                className="absolute -top-1 -right-1 size-6 rounded-full bg-black/80"
                aria-label={`Without place ${index + 1}`}
                onClick={() => change({ places: plan.places.filter((_place, at) => at !== index) })}
              >
                <X size={12} />
              </Button>
            )}
          </li>
        ))}
        {plan.places.length < MOST_LOUPE_PLACES && (
          <li className="shrink-0">
            <button
              type="button"
              data-part="loupe-add"
              onClick={add}
              className="grid place-items-center rounded-full border border-dashed border-lamp-soft text-lamp-soft hover:text-lamp"
              style={{ width: COIN_PX, height: COIN_PX }}
            >
              <span className="flex items-center gap-1 text-xs">
                <Plus size={12} /> place
              </span>
            </button>
          </li>
        )}
      </ol>
      <div className="mt-1 flex flex-wrap items-center gap-x-2.5 gap-y-1 [&_.text-soft]:text-lamp-soft">
        <label className="flex items-center gap-1.5">
          enlarges
          <NumberField
            label="How many times it enlarges"
            value={plan.enlarges}
            min={1}
            max={8}
            step={0.1}
            digits={1}
            unit="×"
            onCommit={(enlarges) => change({ enlarges }, 'enlarges')}
          />
        </label>
        <label className="flex items-center gap-1.5">
          across
          <NumberField
            label="Across, percent of the frame’s height"
            value={100 * plan.across}
            min={5}
            max={95}
            digits={0}
            unit="%"
            onCommit={(across) => change({ across: across / 100 }, 'across')}
          />
        </label>
        <label className="flex items-center gap-1.5">
          rim
          <NumberField
            label="Rim, percent of the frame’s height"
            value={100 * plan.rim}
            min={0}
            max={10}
            step={0.1}
            digits={1}
            unit="%"
            onCommit={(rim) => change({ rim: rim / 100 }, 'rim')}
          />
        </label>
        <label className="flex items-center gap-1.5">
          rests
          <NumberField
            label="Rests at each place"
            value={plan.restMs / 1000}
            min={0.1}
            max={20}
            step={0.1}
            unit="s"
            onCommit={(rest) => change({ restMs: Math.round(rest * 1000) }, 'rests')}
          />
        </label>
        <label className="flex items-center gap-1.5">
          glides
          <NumberField
            label="Glides from one to the next"
            value={plan.glideMs / 1000}
            min={0.1}
            max={20}
            step={0.1}
            unit="s"
            onCommit={(glide) => change({ glideMs: Math.round(glide * 1000) }, 'glides')}
          />
        </label>
      </div>
    </div>
  );
}
