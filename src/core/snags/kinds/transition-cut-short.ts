import { transitionByHalvesMs } from '../../timing/slide-span';
import { seconds, slidesOf } from '../helpers';
import type { SnagKind } from '../snag';

/** A tenth less is not seen. */
const LEAST_MISSING = 0.1;

export const transitionCutShort: SnagKind = {
  title: 'Transitions longer than their slides',
  advice: 'Make the transition shorter, or the slides longer.',
  place: 'arrange',
  *find({ prepared }) {
    for (const { slide, index, span } of slidesOf(prepared)) {
      if (index === 0 || slide.transition.kind === 'cut') continue;
      const askedMs = slide.transition.lengthMs;
      // Giving way to words is what it should do.
      if (transitionByHalvesMs(slide, prepared.show.slides[index - 1]) >= (1 - LEAST_MISSING) * askedMs) continue;
      yield {
        grave: false,
        slideId: slide.id,
        fromMs: Math.max(0, span.startMs - 500),
        toMs: span.startMs + span.transitionMs + 500,
        sentence: `The transition is to take ${seconds(askedMs)}, and the slides leave it ${seconds(span.transitionMs)}.`,
      };
    }
  },
  fixes({ prepared }, { slideId }) {
    const index = prepared.show.slides.findIndex((slide) => slide.id === slideId);
    const slide = prepared.show.slides[index];
    const before = prepared.show.slides[index - 1];
    if (!slide || !before || slide.transition.kind === 'cut') return [];
    const { transition } = slide;
    const lengthMs = prepared.spans[index]!.transitionMs;
    const least = 2 * transition.lengthMs;
    return [
      ...(lengthMs > 0
        ? [
            {
              name: `Let it take ${seconds(lengthMs)}`,
              edit: {
                kind: 'set-transitions' as const,
                transitions: [{ slideId: slide.id, transition: { ...transition, lengthMs } }],
              },
            },
          ]
        : []),
      {
        name: 'Give the slides the time',
        edit: {
          kind: 'set-lengths',
          lengths: [before, slide]
            .filter((one) => one.lengthMs < least)
            .map((one) => ({ slideId: one.id, lengthMs: least })),
        },
      },
    ];
  },
};
