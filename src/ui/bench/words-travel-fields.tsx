'use client';

import type { WordsText } from '../../core/show/words-of-slide';
import type { Slide } from '../../core/show/show';
import type { WordsTravel } from '../../core/show/words';
import { layerId } from '../../core/show/ids';
import { readableSpan } from '../../core/words/passage';
import { comfortableMs, readingSpeed, type ReadingEase } from '../../core/words/reading-speed';
import { Button } from '../kit/button';
import { NumberField } from '../kit/number-field';
import { Pick } from '../kit/pick';
import { usePrepared, useShow } from '../show/show-provider';

const EASE: Record<ReadingEase, string> = {
  easy: 'easy to read',
  quick: 'quick, but it can be read',
  'too-fast': 'too fast to be read',
};

/** Words that stand, or roll and crawl over the frame, with the speed they are read at. */
export function WordsTravelFields({
  slide,
  text,
  onChange,
}: {
  slide: Slide;
  text: WordsText;
  onChange: (next: Partial<WordsText>) => void;
}) {
  const edit = useShow((state) => state.edit);
  const { travel } = text;
  const overMs = travel?.lengthMs ?? slide.lengthMs - (travel?.fromMs ?? 0);
  const all = `${text.title}\n${text.subtitle}`;
  const { spans } = usePrepared();
  const span = spans.find((other) => other.slideId === slide.id)!;
  const readable = readableSpan({ kind: 'words', id: layerId('words'), ...text }, span);
  const readableMs = readable.endMs - readable.startMs;
  const { wordsPerMinute, ease } = readingSpeed(all, Math.max(100, readableMs));
  // What comes and goes around the reading stays as long as it is.
  const enoughMs = Math.ceil((slide.lengthMs + comfortableMs(all) - Math.max(0, readableMs)) / 100) * 100;
  const set = (part: Partial<WordsTravel>) => {
    if (travel) onChange({ travel: { ...travel, ...part } });
  };
  return (
    <div className="flex flex-wrap items-center gap-2" data-part="words-travel">
      <span className="text-soft">They</span>
      <Pick
        label="How the words go over the frame"
        value={travel?.kind ?? 'stand'}
        groups={[
          {
            name: null,
            options: [
              { value: 'stand' as const, label: 'stand' },
              { value: 'roll' as const, label: 'roll upwards' },
              { value: 'crawl' as const, label: 'crawl along' },
            ],
          },
        ]}
        onChange={(kind) =>
          onChange({
            travel:
              kind === 'stand' ? undefined : { kind, fromMs: travel?.fromMs ?? 0, lengthMs: travel?.lengthMs ?? null },
          })
        }
      />
      {travel && (
        <>
          <NumberField
            label="They set out after, seconds"
            value={travel.fromMs / 1000}
            min={0}
            max={600}
            step={0.5}
            unit="s in"
            onCommit={(seconds) => set({ fromMs: Math.round(seconds * 1000) })}
          />
          <NumberField
            label="They take, seconds"
            value={overMs / 1000}
            min={0.5}
            max={3600}
            step={0.5}
            unit="s"
            onCommit={(seconds) => set({ lengthMs: Math.round(seconds * 1000) })}
          />
          {travel.lengthMs !== null && (
            <Button className="h-7" onClick={() => set({ lengthMs: null })}>
              as long as the slide
            </Button>
          )}
        </>
      )}
      <span className={ease === 'too-fast' ? 'text-saffron-deep' : 'text-soft'}>
        <span className="tabular">{Math.round(wordsPerMinute)}</span> words a minute: {EASE[ease]}
      </span>
      {ease !== 'easy' && slide.lengthMs < enoughMs && (
        <Button
          className="h-7"
          onClick={() => edit({ kind: 'set-lengths', lengths: [{ slideId: slide.id, lengthMs: enoughMs }] })}
        >
          Let the slide last {(enoughMs / 1000).toFixed(1)} s
        </Button>
      )}
    </div>
  );
}
