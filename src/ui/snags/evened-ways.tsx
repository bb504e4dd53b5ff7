import { useStore } from 'zustand';
import { layerIn } from '../../core/show/pile';
import type { Snag, SnagFix } from '../../core/snags/snag';
import {
  EVENED_WAYS,
  evenedRate,
  evenedWithinMs,
  withEvenedCopy,
  type EvenedWish,
} from '../../core/timing/evened-clip';
import { Button } from '../kit/button';
import { clock } from '../kit/clock';
import { useShow, useShowStore } from '../show/show-provider';
import { copyKey, evenedCopies, makeEvened, WAY_NAMES, type EvenedCopy } from './evened-copies';

interface EvenedWayOut {
  readonly wish: EvenedWish;
  /** On a plain machine. */
  readonly withinMs: number;
  readonly copy: EvenedCopy | undefined;
  /** Once the copy is there. */
  readonly fix: SnagFix | null;
}

/** The copies a stuttering clip can be evened out by; none for other snags. */
export function useEvenedWays({ kind, slideId, layerId, assetId }: Snag): readonly EvenedWayOut[] {
  const show = useShow((state) => state.show);
  const facts = useShow((state) => (assetId ? state.facts.get(assetId) : undefined));
  const copies = useStore(evenedCopies);
  const slide = show.slides.find(({ id }) => id === slideId);
  const layer = slide && layerId ? layerIn(slide.layers, layerId) : null;
  if (kind !== 'stuttering-clip' || layer?.kind !== 'clip' || facts?.kind !== 'clip' || !assetId) return [];
  const rate = evenedRate(show.frame.rate, layer.speed ?? 1);
  return EVENED_WAYS.flatMap((way) => {
    const wish = { rate, way };
    const withinMs = evenedWithinMs(facts, rate, way);
    const copy = copies[copyKey(show.id, assetId, wish)];
    const fix = copy?.made ? { name: WAY_NAMES[way].lay, edit: withEvenedCopy(show, assetId, copy.made) } : null;
    return withinMs === null ? [] : [{ wish, withinMs, copy, fix }];
  });
}

/** Has evened copies of a stuttering clip made; one that is there is tried like any other way out. */
export function EvenedWays({
  snag,
  ways,
  besides,
}: {
  snag: Snag;
  ways: readonly EvenedWayOut[];
  /** There are others. */
  besides: boolean;
}) {
  const store = useShowStore();
  const open = ways.filter(({ fix }) => fix === null);
  if (open.length === 0 || !snag.assetId) return null;
  const asset = snag.assetId;
  return (
    <div className="mt-3 flex flex-wrap items-center gap-x-3 gap-y-2" data-part="evened-ways">
      <span className="text-soft">{besides ? 'Or a copy that moves evenly:' : 'A copy that moves evenly:'}</span>
      {open.map(({ wish, withinMs, copy }) => {
        const { make, expect } = WAY_NAMES[wish.way];
        if (!copy)
          return (
            <Button
              key={wish.way}
              data-part={`even-${wish.way}`}
              onClick={() => void makeEvened(store, asset, wish, withinMs)}
              title={`${expect} Takes about ${clock(withinMs)}; the clip itself stays as it is.`}
            >
              {make}
              <span className="tabular text-soft">{clock(withinMs)}</span>
            </Button>
          );
        return (
          <span key={wish.way} role="status" className="flex items-center gap-2" data-part={`evening-${wish.way}`}>
            {make}: <span className="tabular">{Math.round(100 * copy.share)} %</span>
            <span className="text-soft">
              about <span className="tabular">{clock(copy.leftMs)}</span> left
            </span>
            <Button className="h-7" onClick={copy.stop} aria-label={`Stop: ${make.toLowerCase()}`}>
              Stop
            </Button>
          </span>
        );
      })}
    </div>
  );
}
