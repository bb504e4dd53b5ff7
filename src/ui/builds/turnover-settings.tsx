'use client';

import { useMemo, useState } from 'react';
import { makeTurnover, turnoverOfSlides, type Built } from '../../core/builds/make-builds';
import { USUAL_TURNOVER, type TurnoverPlan } from '../../core/builds/turnover';
import { picturesOf } from '../../core/show/layout';
import { mainLayerOf } from '../../core/show/show';
import type { AssetId } from '../../core/show/ids';
import { ChoosePrintDialog } from '../gather/choose-print-dialog';
import { Amount } from '../kit/amount';
import { Button } from '../kit/button';
import { Choice } from '../kit/choice';
import { useShow } from '../show/show-provider';
import type { BuildParts } from './build-dialog';

interface TurnoverHands {
  readonly built: Built;
  readonly plan: Omit<TurnoverPlan, 'back'>;
  readonly back: AssetId | null;
  /** Its back is the other chosen slide’s picture. */
  readonly ofTwo: boolean;
  readonly onPlan: (part: Partial<TurnoverPlan>) => void;
  readonly onBack: (asset: AssetId) => void;
}

export function useTurnover({ prepared, chosen }: BuildParts): TurnoverHands {
  const { show } = prepared;
  const entries = useShow((state) => state.entries);
  const [changed, setChanged] = useState<Partial<TurnoverPlan>>({});
  const ofTwo = chosen.length > 1;
  const slide = show.slides.find((other) => other.id === chosen[0]);
  const front = slide && mainLayerOf(slide);
  const [picked, setPicked] = useState<AssetId | null>(null);
  // The picture beside it, else the next slide's, else any other.
  const next = useMemo(() => {
    if (!slide || !front) return null;
    const beside = picturesOf(slide).find((layer) => layer.id !== front.id && layer.kind === 'picture');
    if (beside) return beside.assetId;
    const after = show.slides.slice(show.slides.indexOf(slide) + 1).flatMap(picturesOf);
    const any = entries.find((entry) => entry.facts?.kind === 'picture' && entry.assetId !== front.assetId);
    return after.find((layer) => layer.kind === 'picture')?.assetId ?? any?.assetId ?? null;
  }, [slide, front, show.slides, entries]);
  const back = picked ?? next;
  const plan = useMemo(() => ({ ...USUAL_TURNOVER, ...changed }), [changed]);
  const built = useMemo<Built>(() => {
    if (ofTwo) return turnoverOfSlides(prepared, chosen, plan);
    if (!slide || front?.kind !== 'picture')
      return { ok: false, sentence: 'Choose a slide with a picture, or two of them.' };
    if (!back) return { ok: false, sentence: 'There is no other picture on the sheet to show on its back.' };
    return makeTurnover(prepared, slide, front.id, { ...plan, back });
  }, [ofTwo, prepared, chosen, plan, slide, front, back]);
  return {
    built,
    plan,
    back,
    ofTwo,
    onPlan: (part) => setChanged((before) => ({ ...before, ...part })),
    onBack: setPicked,
  };
}

/** About which axis a picture turns over, when, how fast, and what is on its back. */
export function TurnoverSettings({ plan, back, ofTwo, onPlan, onBack }: TurnoverHands) {
  const entries = useShow((state) => state.entries);
  const [choosing, setChoosing] = useState(false);
  return (
    <>
      {ofTwo ? (
        <p>The first of the two slides is its front, the second its back; they become one slide.</p>
      ) : (
        <p className="flex flex-wrap items-center gap-2">
          On its back
          <Button className="h-7 max-w-[12rem]" onClick={() => setChoosing(true)} data-part="choose-back">
            <span className="truncate">{entries.find((entry) => entry.assetId === back)?.fileName ?? 'choose …'}</span>
          </Button>
        </p>
      )}
      <Choice
        label="About which line it turns"
        value={plan.axis}
        onChange={(axis) => onPlan({ axis })}
        options={[
          { value: 'upright', label: 'like a page' },
          { value: 'level', label: 'like a sign' },
        ]}
      />
      <Amount
        label="begins at"
        value={plan.beginMs}
        min={0}
        max={8000}
        rest={USUAL_TURNOVER.beginMs}
        shown={`${(plan.beginMs / 1000).toFixed(1)} s`}
        onChange={(ms) => onPlan({ beginMs: Math.round(ms) })}
      />
      <Amount
        label="takes"
        value={plan.lengthMs}
        min={400}
        max={5000}
        rest={USUAL_TURNOVER.lengthMs}
        shown={`${(plan.lengthMs / 1000).toFixed(1)} s`}
        onChange={(ms) => onPlan({ lengthMs: Math.round(ms) })}
      />
      <Amount
        label="steps back"
        value={plan.stepsBack}
        min={0}
        max={2}
        rest={USUAL_TURNOVER.stepsBack}
        shown={plan.stepsBack.toFixed(1)}
        onChange={(stepsBack) => onPlan({ stepsBack })}
      />
      {choosing && (
        <ChoosePrintDialog
          title="What is on its back"
          kind="picture"
          part="back-with"
          onChoose={(entry) => onBack(entry.assetId)}
          onClose={() => setChoosing(false)}
        />
      )}
    </>
  );
}
