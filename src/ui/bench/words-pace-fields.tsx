'use client';

import { PASSAGE_EASINGS, type PassageEasing, type WordsPassage } from '../../core/show/words';
import { NumberField } from '../kit/number-field';
import { Pick } from '../kit/pick';

const NAMES: Record<PassageEasing | 'usual', string> = {
  usual: 'as it suits',
  linear: 'evenly',
  settle: 'softly at both ends',
  arrive: 'arriving softly',
  'set-off': 'setting off softly',
  swing: 'a little too far, and back',
  bounce: 'bouncing to rest',
};
/** Where it is not said, in percent. */
const USUAL_STAGGER = 60;

interface WordsPaceFieldsProps {
  readonly passage: WordsPassage;
  readonly which: 'Entrance' | 'Exit';
  /** What is undefined is given back to itself. */
  readonly onChange: (pace: {
    readonly easing?: PassageEasing | undefined;
    readonly stagger?: number | undefined;
  }) => void;
}

/** How each line, word or letter goes its way, and how soon the next one follows. Nothing where it has no way to go. */
export function WordsPaceFields({ passage, which, onChange }: WordsPaceFieldsProps) {
  if (passage.way === 'none' || passage.way === 'type') return null;
  return (
    <>
      <Pick<PassageEasing | 'usual'>
        label={`${which} goes`}
        value={passage.easing ?? 'usual'}
        groups={[
          {
            name: null,
            options: (['usual', ...PASSAGE_EASINGS] as const).map((value) => ({ value, label: NAMES[value] })),
          },
        ]}
        onChange={(easing) => onChange({ easing: easing === 'usual' ? undefined : easing })}
      />
      {passage.by !== 'all' && (
        <NumberField
          label={`${which}: how far one is on its way before the next follows, percent`}
          value={passage.stagger === undefined ? USUAL_STAGGER : Math.round(100 * passage.stagger)}
          min={0}
          max={100}
          step={10}
          digits={0}
          unit="% apart"
          onCommit={(value) => onChange({ stagger: value === USUAL_STAGGER ? undefined : value / 100 })}
        />
      )}
    </>
  );
}
