'use client';

import { useEffect, useRef, useState } from 'react';
import { isSetting, LIGHT_SETTINGS, withSetting } from '../../core/light/settings';
import type { AssetFacts } from '../../core/show/asset-facts';
import type { ClipLayer, PictureLayer } from '../../core/show/layer';
import { PRINT_EFFECTS, type Light } from '../../core/show/light';
import type { Show } from '../../core/show/show';
import { printAlone } from './use-light-pixels';

const LONG_PX = 224;
/** They follow the sliders when the hands rest. */
const RESTS_MS = 500;

interface LightPrintsProps {
  readonly show: Show;
  readonly layer: PictureLayer | ClipLayer;
  readonly facts: AssetFacts | undefined;
  readonly onTake: (next: (light: Light | undefined) => Light | undefined) => void;
}

interface Offer {
  readonly name: string;
  readonly taken: boolean;
  readonly next: (light: Light | undefined) => Light | undefined;
}

/** What can be done to the picture at one press, as prints of this very picture. */
export function LightPrints({ show, layer, facts, onTake }: LightPrintsProps) {
  const { light } = layer;
  const offers: readonly Offer[] = [
    ...([null, ...PRINT_EFFECTS] as const).map((kind) => ({
      name: kind?.replace('-', ' ') ?? 'photograph',
      taken: (light?.print?.kind ?? null) === kind,
      next: (before: Light | undefined) => withPrint(before, kind),
    })),
    ...LIGHT_SETTINGS.map((setting) => ({
      name: setting.name,
      taken: isSetting(light, setting),
      next: (before: Light | undefined) => withSetting(before, setting),
    })),
  ];
  return (
    <ul
      aria-label="At one press"
      className="-mx-4 flex gap-2 overflow-x-auto px-4 pb-1.5 scroll-thin"
      data-part="light-prints"
    >
      {offers.map((offer) => (
        <li key={offer.name} className="shrink-0">
          <button
            type="button"
            aria-pressed={offer.taken}
            onClick={() => onTake(offer.next)}
            className="group block w-[80px] text-center text-xs"
          >
            <LightPrint show={show} layer={{ ...layer, light: offer.next(light) ?? {} }} facts={facts} />
            <span className="mt-0.5 block truncate text-soft group-aria-pressed:font-semibold group-aria-pressed:text-ink">
              {offer.name}
            </span>
          </button>
        </li>
      ))}
    </ul>
  );
}

function withPrint(light: Light | undefined, kind: (typeof PRINT_EFFECTS)[number] | null): Light | undefined {
  const { print: before, ...rest } = light ?? {};
  if (kind) return { ...rest, print: { kind, strength: before?.strength ?? 1 } };
  return Object.keys(rest).length === 0 ? undefined : rest;
}

function LightPrint({ show, layer, facts }: Omit<LightPrintsProps, 'onTake'>) {
  const canvas = useRef<HTMLCanvasElement>(null);
  const [drawn, setDrawn] = useState(false);
  const said = JSON.stringify([layer.assetId, layer.light, layer.crop, layer.flip]);
  useEffect(() => {
    let gone = false;
    const timer = setTimeout(
      () => {
        void printAlone(show, layer, facts, LONG_PX).then((bitmap) => {
          const place = canvas.current;
          if (!bitmap || !place || gone) return;
          [place.width, place.height] = [bitmap.width, bitmap.height];
          place.getContext('2d')?.drawImage(bitmap, 0, 0);
          setDrawn(true);
        });
      },
      drawn ? RESTS_MS : 0,
    );
    return () => {
      gone = true;
      clearTimeout(timer);
    };
    // The rest of the show does not change how the picture is drawn.
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [said, facts]);
  return (
    <canvas
      ref={canvas}
      aria-hidden="true"
      data-drawn={drawn}
      className="h-[52px] w-full rounded-sm bg-surround object-cover outline-offset-1 group-aria-pressed:outline-2 group-aria-pressed:outline-red"
    />
  );
}
