'use client';

import type { Watermark } from '../../core/show/watermark';
import { WORDS_PLACES } from '../../core/show/words';
import { Amount } from '../kit/amount';
import { Pick, plainOptions } from '../kit/pick';

/** Where a watermark stands, how large and how strong it is. */
export function WatermarkFields<Mark extends Omit<Watermark, 'assetId'>>({
  watermark,
  onChange,
}: {
  watermark: Mark;
  onChange: (watermark: Mark) => void;
}) {
  const percent = (value: number) => `${Math.round(100 * value)} %`;
  return (
    <div className="mt-2 flex max-w-sm flex-col gap-2">
      <span className="flex items-center gap-2">
        <span className="w-[6.5rem] text-soft">place</span>
        <Pick
          label="Place of the watermark"
          value={watermark.place}
          onChange={(place) => onChange({ ...watermark, place })}
          groups={[{ name: null, options: plainOptions(WORDS_PLACES) }]}
        />
      </span>
      <Amount
        label="Size"
        value={watermark.size}
        min={0.03}
        max={0.6}
        rest={0.14}
        shown={percent(watermark.size)}
        onChange={(size) => onChange({ ...watermark, size: Math.round(size * 100) / 100 })}
      />
      <Amount
        label="Strength"
        value={watermark.opacity}
        min={0.05}
        max={1}
        rest={0.6}
        shown={percent(watermark.opacity)}
        onChange={(opacity) => onChange({ ...watermark, opacity: Math.round(opacity * 100) / 100 })}
      />
    </div>
  );
}
