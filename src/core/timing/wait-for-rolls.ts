import type { FactsById } from '../show/asset-facts';
import type { SetLengths } from '../show/edits/set-lengths';
import type { Show } from '../show/show';
import { rollingMs, rollOf } from '../words/rolling';
import { voiceNeedMs } from './voice-need';

/**
 * Lengths that change because of what rolls: a slide that a mount laid, and whose length neither a hand nor a voice chose, lasts as long as its credits take, and
 * what is spoken on it. All whose words changed are named, whether their lines became more or not: what is typed in one go is one step.
 */
export function lengthsForRolls(before: Show, after: Show, facts: FactsById): SetLengths['lengths'] {
  if (before.slides === after.slides) return [];
  const known = new Map(before.slides.map((slide) => [slide.id, slide]));
  return after.slides.flatMap((slide) => {
    const was = known.get(slide.id);
    if (!was || was === slide || !slide.mounted || slide.chosen?.length || was.lengthMs !== slide.lengthMs) return [];
    const [roll, rolled] = [rollOf(slide), rollOf(was)];
    if (!roll || !rolled || saysTheSame(roll, rolled)) return [];
    return [
      {
        slideId: slide.id,
        lengthMs: Math.max(rollingMs(roll, after.frame), voiceNeedMs(after, slide, facts)),
        by: null,
      },
    ];
  });
}

const saysTheSame = (one: Said, other: Said): boolean => one.title === other.title && one.subtitle === other.subtitle;
type Said = Pick<NonNullable<ReturnType<typeof rollOf>>, 'title' | 'subtitle'>;
