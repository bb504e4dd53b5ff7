import { heardLevels, LEVEL_POINT_MS } from '../../sound/heard-levels';
import { musicLengthMs } from '../../sound/sound-spans';
import { planMix } from '../../sound/plan-mix';
import { clock, seconds } from '../helpers';
import type { SnagKind } from '../snag';

const LONGEST_PAUSE_MS = 3500;
const SILENT_LUFS = -58;

export const silentStretch: SnagKind = {
  title: 'Silent stretches',
  advice: 'Bring the next sound forward, or let the one before go on.',
  place: 'sound',
  *find({ prepared }) {
    const { show, facts, lengthMs } = prepared;
    const mix = planMix(show, facts);
    if (mix.parts.length === 0) return;
    const levels = heardLevels(mix.parts, facts, lengthMs);
    if (!levels) return;
    const musicMs = musicLengthMs(show, facts);
    // What is silent after the last song is the snag of the music that ends early.
    const untilMs = musicMs > 0 && musicMs < lengthMs - 1000 ? musicMs - 500 : lengthMs;
    const last = Math.min(levels.length, Math.floor(untilMs / LEVEL_POINT_MS));
    for (let from = 0; from < last; from += 1) {
      if (levels[from]! > SILENT_LUFS) continue;
      let to = from;
      while (to < last && levels[to]! <= SILENT_LUFS) to += 1;
      const [fromMs, toMs] = [from * LEVEL_POINT_MS, to * LEVEL_POINT_MS];
      if (toMs - fromMs >= LONGEST_PAUSE_MS)
        yield {
          grave: toMs - fromMs >= 3 * LONGEST_PAUSE_MS,
          slideId: null,
          of: String(Math.round(fromMs / 1000)),
          fromMs: Math.max(0, fromMs - 1500),
          toMs: Math.min(lengthMs, toMs + 1000),
          sentence: `Nothing is heard from ${clock(fromMs)} on, for ${seconds(toMs - fromMs)}.`,
        };
      from = to;
    }
  },
  fixes({ prepared: { show, facts } }, { fromMs, toMs }) {
    // A song that has a place of its own can come when the one before it ends.
    const next = show.cues.find(
      (cue) =>
        cue.kind === 'song' &&
        cue.starts.at === 'moment' &&
        cue.starts.momentMs > fromMs &&
        cue.starts.momentMs <= toMs + 500,
    );
    return next && musicLengthMs(show, facts) > 0
      ? [
          {
            name: 'Bring the next song forward',
            edit: { kind: 'set-sound', slideId: null, soundId: next.id, properties: { starts: { at: 'after' } } },
          },
        ]
      : [];
  },
};
