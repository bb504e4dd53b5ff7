'use client';

import { Slider } from 'radix-ui';
import { toast } from 'sonner';
import type { Pace } from '../../core/show/pace';
import { keepsItsLength, shareOfTime } from '../../core/timing/fit-to-music';
import { DOUBTFUL, lengthsByMusic, whyUnmet } from '../../core/timing/follow-music';
import { leastLengthMs } from '../../core/timing/least-length';
import { Pick } from '../kit/pick';
import { useShow, useShowStore } from './show-provider';
import { useShowMusic } from './use-show-music';

type Leader = 'pictures' | 'together' | 'beats';
const BEAT_STEPS = [1, 2, 3, 4, 6, 8, 12, 16, 24, 32];
/** Slow to brisk: seconds a picture. */
const SECOND_STEPS = [15, 12, 10, 8, 7, 6, 5, 4.5, 4, 3.5, 3, 2.5, 2, 1.5, 1];

/** Who leads, pictures or music, and how fast. */
export function PaceBar() {
  const store = useShowStore();
  const pace = useShow((state) => state.show.pace);
  const defaultMs = useShow((state) => state.show.defaultLengthMs);
  const edit = useShow((state) => state.edit);
  const music = useShowMusic();
  const leader: Leader = pace === undefined ? 'pictures' : pace.by === 'music' ? 'together' : 'beats';
  const meets = pace?.meets ? { meets: pace.meets } : {};

  const lead = (next: Leader) => {
    const { show, facts } = store.getState();
    const wanted: Pace | null =
      next === 'pictures'
        ? null
        : next === 'together'
          ? { by: 'music', ...meets }
          : { by: 'beats', beats: 8, ...meets };
    if (wanted && music.unheard.length > 0) {
      toast('The music is still being listened to. Try again in a moment.');
      return;
    }
    if (wanted) {
      const tried = lengthsByMusic(show, facts, wanted);
      if (!tried.ok) {
        toast(whyUnmet(tried));
        return;
      }
      if (tried.offBeat.length > 0 && music.doubtful.length > 0) toast(DOUBTFUL);
      else if (tried.offBeat.length > 0)
        toast(
          `${tried.offBeat.length} ${tried.offBeat.length === 1 ? 'seam lies' : 'seams lie'} off the beat: clips and lengths set by hand keep their length.`,
        );
    }
    edit({ kind: 'set-pace', pace: wanted });
  };
  const quicken = (step: number) => {
    if (leader === 'beats') {
      const beats = BEAT_STEPS[BEAT_STEPS.length - 1 - step]!;
      edit({ kind: 'set-pace', pace: { by: 'beats', beats, ...meets } }, 'pace');
      return;
    }
    const { show, facts } = store.getState();
    const lengthMs = SECOND_STEPS[step]! * 1000;
    const shareOf = shareOfTime(show);
    const lengths = show.slides.flatMap((slide, index) =>
      keepsItsLength(slide)
        ? []
        : [
            {
              slideId: slide.id,
              lengthMs: Math.max(
                leastLengthMs(slide, facts, show.slides[index - 1], show),
                Math.round(lengthMs * shareOf(slide)),
              ),
              by: 'pace' as const,
            },
          ],
    );
    edit(
      {
        kind: 'together',
        name: 'change the pace',
        edits: [
          { kind: 'set-default-length', lengthMs },
          ...(lengths.length > 0 ? [{ kind: 'set-lengths' as const, lengths }] : []),
        ],
      },
      'pace',
    );
  };
  const steps = leader === 'beats' ? BEAT_STEPS.length : SECOND_STEPS.length;
  const place =
    leader === 'beats'
      ? BEAT_STEPS.length - 1 - nearest(BEAT_STEPS, pace?.by === 'beats' ? pace.beats : 8)
      : nearest(SECOND_STEPS, defaultMs / 1000);
  return (
    <span className="flex items-center gap-2.5" data-part="pace">
      {leader !== 'together' && (
        <>
          <Slider.Root
            value={[place]}
            min={0}
            max={steps - 1}
            step={1}
            onValueChange={([value]) => quicken(value!)}
            className="relative flex h-5 w-24 touch-none items-center"
          >
            <Slider.Track className="h-[3px] flex-1 rounded-full bg-rule">
              <Slider.Range className="absolute h-[3px] rounded-full bg-saffron" />
            </Slider.Track>
            <Slider.Thumb
              aria-label="Pace, slow to brisk"
              className="block h-4 w-2.5 rounded-[3px] border border-ink bg-card"
            />
          </Slider.Root>
          <span className="tabular w-[4.5rem]">
            {leader === 'beats'
              ? `${pace?.by === 'beats' ? pace.beats : 8} ${pace?.by === 'beats' && pace.beats === 1 ? 'beat' : 'beats'}`
              : `${(defaultMs / 1000).toFixed(1)} s`}
          </span>
        </>
      )}
      <Pick<Leader>
        label="Who leads, pictures or music"
        value={leader}
        onChange={lead}
        groups={[
          { name: 'The music follows the pictures', options: [{ value: 'pictures', label: 'pictures lead' }] },
          {
            name: 'The pictures follow the music',
            options: [
              { value: 'together', label: 'music leads: both end together' },
              { value: 'beats', label: 'music leads: so many beats each' },
            ],
          },
        ]}
      />
    </span>
  );
}

function nearest(values: readonly number[], value: number): number {
  return values.reduce(
    (best, step, index) => (Math.abs(step - value) < Math.abs(values[best]! - value) ? index : best),
    0,
  );
}
