'use client';

import type { PlannedMove } from '../../core/motion/automatic-move';
import { framingAt } from '../../core/motion/move-pace';
import { LONGEST_REST_MS } from '../../core/show/schemas/layer-schema';
import { MOVE_EASINGS, type MoveEasing, type MovePace } from '../../core/show/layer';
import { Button } from '../kit/button';
import { NumberField } from '../kit/number-field';
import { Pick } from '../kit/pick';

interface MovePaceFieldsProps {
  readonly move: PlannedMove;
  readonly onChange: (pace: MovePace) => void;
}

const NAMES: Record<MoveEasing, string> = {
  settle: 'starts and stops softly',
  'set-off': 'sets off softly',
  arrive: 'arrives softly',
  linear: 'goes evenly',
};

/** How the move goes: its easing, its rests, and a framing on the way. */
export function MovePaceFields({ move, onChange }: MovePaceFieldsProps) {
  const pace = move.pace ?? {};
  const { middle, ...without } = pace;
  const seconds = (part: 'beforeMs' | 'afterMs', label: string) => (
    <label className="flex items-center gap-1 text-soft">
      {part === 'beforeMs' ? 'rests' : 'and'}
      <NumberField
        label={label}
        value={(pace[part] ?? 0) / 1000}
        min={0}
        max={LONGEST_REST_MS / 1000}
        onCommit={(value) => onChange({ ...pace, [part]: Math.round(value * 1000) })}
      />
      {part === 'beforeMs' ? 's before' : 's after'}
    </label>
  );
  return (
    <div className="mt-2 flex flex-wrap items-center gap-x-2 gap-y-1.5" data-part="move-pace">
      <Pick
        label="How the move starts and stops"
        value={pace.easing ?? 'settle'}
        groups={[{ name: null, options: MOVE_EASINGS.map((value) => ({ value, label: NAMES[value] })) }]}
        onChange={(easing) => onChange({ ...pace, easing })}
      />
      {seconds('beforeMs', 'Rest on the first framing, seconds')}
      {seconds('afterMs', 'Rest on the last framing, seconds')}
      <Button
        className="h-7"
        aria-pressed={middle !== undefined}
        onClick={() =>
          onChange(middle ? without : { ...pace, middle: { framing: framingAt({ ...move, pace: {} }, 1, 2), at: 0.5 } })
        }
        data-part="middle-framing"
      >
        {middle ? 'without a stop-over' : '+ a framing on the way'}
      </Button>
    </div>
  );
}
