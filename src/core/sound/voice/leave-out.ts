import { NOTHING, type Stage } from './stage';

/** A stretch of a recording that is not kept. */
export interface LeftOut {
  readonly fromMs: number;
  readonly toMs: number;
}

/** What stays fades out and in over so long, so that nothing clicks. */
const FADE_MS = 6;

/** Leaves stretches of a recording out. What comes out is shorter by them. @param stretches in order, none within another */
export function leaveOut(stretches: readonly LeftOut[], rate: number): Stage {
  const fade = Math.round((FADE_MS * rate) / 1000);
  const cuts = stretches
    .map(({ fromMs, toMs }) => ({ from: Math.round((fromMs * rate) / 1000), to: Math.round((toMs * rate) / 1000) }))
    .filter(({ from, to }) => to > from);
  let index = 0;
  let cut = 0;
  return {
    push(samples) {
      const out = new Float32Array(samples.length);
      let count = 0;
      for (const sample of samples) {
        const at = index;
        index += 1;
        while (cut < cuts.length && at >= cuts[cut]!.to + fade) cut += 1;
        const near = cuts[cut];
        if (near && at >= near.from && at < near.to) continue;
        const away = !near ? fade : at < near.from ? near.from - at : at - near.to + 1;
        out[count] = away < fade ? (sample * away) / fade : sample;
        count += 1;
      }
      return out.slice(0, count);
    },
    finish: () => NOTHING,
  };
}

/** Where a moment of a recording lies once stretches of it were left out; a moment within one lies where it was. */
export function momentLeft(ms: number, stretches: readonly LeftOut[]): number {
  return ms - stretches.reduce((sum, { fromMs, toMs }) => sum + Math.max(0, Math.min(toMs, ms) - fromMs), 0);
}
