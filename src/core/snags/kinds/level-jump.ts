import { soundSpans, type SoundSpan } from '../../sound/sound-spans';
import type { FactsById } from '../../show/asset-facts';
import { called, clock } from '../helpers';
import type { SnagKind } from '../snag';

const MOST_LU = 6;

function levelOf({ sound }: SoundSpan, facts: FactsById): number | null {
  const known = facts.get(sound.assetId);
  const lufs = known?.kind === 'sound' ? known.listening?.loudness.integratedLufs : null;
  return lufs === null || lufs === undefined ? null : lufs + sound.gainDb;
}

/** Songs that follow each other and are not as loud as each other. */
export const levelJump: SnagKind = {
  title: 'Songs of unlike loudness',
  advice: 'Bring the two songs to one loudness.',
  place: 'sound',
  *find(look) {
    const { show, facts, lengthMs } = look.prepared;
    const songs = soundSpans(show, facts).filter(({ sound }) => sound.kind === 'song');
    for (const [at, span] of songs.entries()) {
      const before = songs[at - 1];
      const [own, other] = [levelOf(span, facts), before ? levelOf(before, facts) : null];
      if (!before || own === null || other === null || Math.abs(own - other) <= MOST_LU) continue;
      yield {
        grave: Math.abs(own - other) > 2 * MOST_LU,
        slideId: null,
        soundId: span.sound.id,
        assetId: span.sound.assetId,
        of: span.sound.id,
        fromMs: Math.max(0, span.startMs - 4000),
        toMs: Math.min(lengthMs, span.startMs + 4000),
        sentence: `At ${clock(span.startMs)} it gets ${Math.abs(Math.round(own - other))} dB ${own > other ? 'louder' : 'quieter'}: ${called(look, span.sound.assetId)} beside ${called(look, before.sound.assetId)}.`,
      };
    }
  },
  fixes({ prepared: { show, facts } }, { soundId }) {
    const songs = soundSpans(show, facts).filter(({ sound }) => sound.kind === 'song');
    const at = songs.findIndex(({ sound }) => sound.id === soundId);
    const [own, other] = [songs[at], songs[at - 1]].map((span) => (span ? levelOf(span, facts) : null));
    if (own === null || other === null || own === undefined || other === undefined || !soundId) return [];
    // The louder one is turned down: nothing is pushed beyond what it was made for.
    const [quieter, target] = own > other ? [songs[at]!, other] : [songs[at - 1]!, own];
    const gainDb = Math.round(10 * (quieter.sound.gainDb + target - Math.max(own, other))) / 10;
    return [
      {
        name: 'Make them equally loud',
        edit: { kind: 'set-sound', slideId: null, soundId: quieter.sound.id, properties: { gainDb } },
      },
    ];
  },
};
