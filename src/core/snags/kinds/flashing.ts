import type { SnagKind } from '../snag';

export const flashing: SnagKind = {
  title: 'Flashes that can harm',
  advice: 'Let pictures stay longer, dissolve instead of cutting, or leave the flashing part of the clip out.',
  place: 'arrange',
  measured: true,
  *find({ prepared, seen }) {
    for (const [index, slide] of prepared.show.slides.entries()) {
      const flashes = seen.get(slide.id)?.flashes;
      const span = prepared.spans[index]!;
      if (!flashes) continue;
      yield {
        grave: true,
        slideId: slide.id,
        fromMs: Math.max(0, span.startMs + flashes.offsetMs - 500),
        toMs: Math.min(prepared.lengthMs, span.startMs + flashes.offsetMs + 1500),
        sentence: `It flashes ${flashes.perSecond} times a second. More than three can bring on seizures (WCAG 2.2, 2.3.1).`,
      };
    }
  },
  fixes({ prepared }, { slideId }) {
    // A run of short slides flashes: those around it that are as short stay long enough, too.
    const { slides } = prepared.show;
    const at = slides.findIndex((slide) => slide.id === slideId);
    if (at < 0) return [];
    const short: (typeof slides)[number][] = [];
    for (let index = at; index >= 0 && slides[index]!.lengthMs < CALM_MS; index -= 1) short.unshift(slides[index]!);
    for (let index = at + 1; index < slides.length && slides[index]!.lengthMs < CALM_MS; index += 1)
      short.push(slides[index]!);
    if (short.length < 2) return [];
    return [
      {
        name: `Let ${short.length} pictures stay for ${(CALM_MS / 1000).toFixed(1)} s each`,
        edit: { kind: 'set-lengths', lengths: short.map((slide) => ({ slideId: slide.id, lengthMs: CALM_MS })) },
      },
    ];
  },
};

/** Two pictures a second, or one flash. */
const CALM_MS = 700;
