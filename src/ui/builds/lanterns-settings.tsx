'use client';

import { useMemo, useState } from 'react';
import {
  FEWEST_LANTERNS,
  LANTERN_SHAPES,
  lanternsNeedMs,
  MOST_LANTERNS,
  USUAL_LANTERNS,
  type LanternShape,
  type LanternsPlan,
} from '../../core/builds/lanterns';
import { lanternsOfSlides, picturesOfSlides, type Built, type LanternsPlace } from '../../core/builds/make-builds';
import { layerId, type AssetId } from '../../core/show/ids';
import { ChoosePrintDialog } from '../gather/choose-print-dialog';
import { Amount } from '../kit/amount';
import { Choice } from '../kit/choice';
import { ColourField } from '../kit/colour-field';
import { useShow } from '../show/show-provider';
import type { BuildParts } from './build-dialog';

type Backing = 'night' | 'picture';

interface LanternsHands {
  readonly built: Built;
  readonly plan: LanternsPlan;
  /** Pictures that were there: of the chosen slides, or of the sheet. */
  readonly offered: number;
  readonly fromSheet: boolean;
  readonly place: LanternsPlace;
  readonly onPlace: (place: LanternsPlace) => void;
  readonly backing: AssetId | null;
  readonly onBacking: (asset: AssetId | null) => void;
  readonly onCount: (count: number) => void;
  readonly onPlan: (part: Partial<LanternsPlan>) => void;
}

export function useLanterns({ prepared, chosen, id }: BuildParts): LanternsHands {
  const { show, facts } = prepared;
  const entries = useShow((state) => state.entries);
  const [changed, setChanged] = useState<Partial<LanternsPlan>>({});
  const [place, setPlace] = useState<LanternsPlace>('after');
  const [backing, setBacking] = useState<AssetId | null>(null);
  const own = useMemo(
    () =>
      picturesOfSlides(
        show.slides.filter((slide) => chosen.includes(slide.id)),
        (asset) => facts.get(asset)?.kind === 'picture',
      ),
    [show.slides, chosen, facts],
  );
  // Of one slide with few pictures: the others are taken from the sheet, those that are kept first.
  const fromSheet = own.length < FEWEST_LANTERNS;
  const all = useMemo(() => {
    if (!fromSheet) return own;
    const kept = (asset: AssetId) => (show.marks?.[asset] === 'leave-out' ? 2 : show.marks?.[asset] ? 0 : 1);
    const sheet = entries
      .filter((entry) => entry.facts?.kind === 'picture' && kept(entry.assetId) < 2)
      .map((entry) => entry.assetId);
    return [...new Set([...own, ...sheet.sort((one, other) => kept(one) - kept(other))])];
  }, [fromSheet, own, entries, show.marks]);
  const plan = useMemo<LanternsPlan>(
    () => ({ ...USUAL_LANTERNS, pictures: all.slice(0, fromSheet ? 16 : MOST_LANTERNS), ...changed }),
    [all, fromSheet, changed],
  );
  const built = useMemo<Built>(() => {
    if (chosen.length === 0) return { ok: false, sentence: 'Choose the slides whose pictures become lanterns.' };
    if (plan.pictures.length < FEWEST_LANTERNS)
      return {
        ok: false,
        sentence: `Lanterns are made of at least ${FEWEST_LANTERNS} pictures; here are ${plan.pictures.length}.`,
      };
    return lanternsOfSlides(prepared, chosen, plan, backing, layerId(`lanterns-${id}`), place);
  }, [prepared, chosen, plan, backing, id, place]);
  return {
    built,
    plan,
    offered: all.length,
    fromSheet,
    place,
    onPlace: setPlace,
    backing,
    onBacking: setBacking,
    onCount: (count) => setChanged((before) => ({ ...before, pictures: all.slice(0, Math.round(count)) })),
    onPlan: (part) => setChanged((before) => ({ ...before, ...part })),
  };
}

const SHAPE_NAMES: Readonly<Record<LanternShape, string>> = {
  stack: 'a stack',
  ring: 'a ring',
  arch: 'an arch',
  wall: 'a wall',
};

/** What lanterns gather to, how many, how long it takes, and what is behind them. */
export function LanternsSettings({
  plan,
  offered,
  fromSheet,
  place,
  onPlace,
  backing,
  onBacking,
  onCount,
  onPlan,
}: LanternsHands) {
  const entries = useShow((state) => state.entries);
  const [choosing, setChoosing] = useState(false);
  const most = Math.min(MOST_LANTERNS, offered);
  return (
    <>
      <Choice
        label="Where they go"
        value={place}
        onChange={onPlace}
        options={[
          { value: 'after', label: 'a slide of their own' },
          { value: 'instead', label: 'instead of the slides' },
        ]}
      />
      <p className="text-soft">
        {place === 'after'
          ? fromSheet
            ? 'The slide’s picture and others of the sheet, on a new slide after it.'
            : 'The pictures of the chosen slides, on a new slide after them.'
          : 'The chosen slides become one. What was on the first of them, such as its words, stays above the lanterns.'}
      </p>
      <Choice
        label="What they gather to"
        value={plan.shape}
        onChange={(shape) => onPlan({ shape })}
        options={LANTERN_SHAPES.map((value) => ({ value, label: SHAPE_NAMES[value] }))}
      />
      {most > FEWEST_LANTERNS && (
        <Amount
          label="lanterns"
          value={plan.pictures.length}
          min={FEWEST_LANTERNS}
          max={most}
          rest={Math.min(16, most)}
          shown={String(plan.pictures.length)}
          onChange={onCount}
        />
      )}
      <Amount
        label="over"
        value={plan.overMs}
        min={2500}
        max={20_000}
        rest={USUAL_LANTERNS.overMs}
        shown={`${(plan.overMs / 1000).toFixed(1)} s`}
        onChange={(ms) => onPlan({ overMs: Math.round(ms) })}
      />
      <div className="flex flex-wrap items-center gap-2">
        <span>tops and bottoms</span>
        <ColourField label="Colour of tops and bottoms" value={plan.colour} onChange={(colour) => onPlan({ colour })} />
      </div>
      <div className="flex flex-wrap items-center gap-2">
        <span>behind them</span>
        <Choice
          label="Behind them"
          value={(backing ? 'picture' : 'night') as Backing}
          onChange={(next) => (next === 'night' ? onBacking(null) : setChoosing(true))}
          options={[
            { value: 'night', label: 'night' },
            { value: 'picture', label: 'a picture …' },
          ]}
        />
        {backing && (
          <span className="min-w-0 truncate text-soft">
            {entries.find((entry) => entry.assetId === backing)?.fileName}
          </span>
        )}
      </div>
      <p className="text-soft">
        It takes <span className="tabular">{(lanternsNeedMs(plan) / 1000).toFixed(1)} s</span>; a shorter slide is made
        that long.
      </p>
      {choosing && (
        <ChoosePrintDialog
          title="Behind the lanterns"
          kind="picture"
          part="behind-with"
          onChoose={(entry) => onBacking(entry.assetId)}
          onClose={() => setChoosing(false)}
        />
      )}
    </>
  );
}
