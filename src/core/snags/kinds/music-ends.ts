import { keepsItsLength, fitToMusic, shareOfTime } from '../../timing/fit-to-music';
import { leastLengthMs } from '../../timing/least-length';
import { repeatedCues } from '../../timing/ways-out';
import { musicLengthMs, soundSpans } from '../../sound/sound-spans';
import { onceThroughMs } from '../../sound/song-runs';
import { CURVE_PER_SECOND } from '../../sound/loudness';
import { called, clock, seconds } from '../helpers';
import type { SnagFix, SnagKind, SnagLook } from '../snag';

const EARLY_MS = 1500;
const GRAVE_EARLY_MS = 8000;
/** A song that is left in full swing without so much is heard to break off. */
const LEAST_FADE_MS = 300;
const FADE_MS = 3000;
const QUIET_LUFS = -45;

export const musicEndsEarly: SnagKind = {
  title: 'Music that ends early',
  advice: 'Add a song, let one play again, or quicken the pace.',
  place: 'sound',
  *find({ prepared }) {
    const musicMs = musicLengthMs(prepared.show, prepared.facts);
    const missingMs = prepared.lengthMs - musicMs;
    if (musicMs === 0 || missingMs < EARLY_MS) return;
    yield {
      grave: missingMs >= GRAVE_EARLY_MS,
      slideId: null,
      fromMs: Math.max(0, musicMs - 3000),
      toMs: Math.min(prepared.lengthMs, musicMs + 4000),
      sentence: `The music ends at ${clock(musicMs)}; the last ${seconds(missingMs)} are silent.`,
    };
  },
  fixes(look) {
    const { show, facts } = look.prepared;
    return [...tailored(look), ...repeated(look), ...quickened(show, facts)];
  },
};

/** The last song made as long as it must be. */
function tailored({ prepared }: SnagLook): SnagFix[] {
  const song = prepared.show.cues.filter((cue) => cue.kind === 'song').at(-1);
  const known = song && prepared.facts.get(song.assetId);
  if (!song || known?.kind !== 'sound' || !known.listening?.joints) return [];
  return [
    {
      name: 'Tailor the last song to the show',
      edit: {
        kind: 'set-sound',
        slideId: null,
        soundId: song.id,
        properties: { tailored: song.tailored ?? {}, ends: { at: 'show-end', beforeMs: 0 }, loops: null },
      },
    },
  ];
}

function repeated({ prepared: { show, facts } }: SnagLook): SnagFix[] {
  const taken = new Set(show.cues.map((cue) => cue.id as string));
  let counted = 0;
  const cues = repeatedCues(show, facts, () => {
    do counted += 1;
    while (taken.has(`again-${counted}`));
    return `again-${counted}`;
  });
  return cues ? [{ name: 'Play the music again', edit: { kind: 'set-cues', cues } }] : [];
}

function quickened(show: SnagLook['prepared']['show'], facts: SnagLook['prepared']['facts']): SnagFix[] {
  const before = new Map(show.slides.map((slide, index) => [slide.id, show.slides[index - 1]]));
  const fitted = fitToMusic(show.slides, musicLengthMs(show, facts), keepsItsLength, shareOfTime(show), (slide) =>
    leastLengthMs(slide, facts, before.get(slide.id), show),
  );
  return fitted.ok ? [{ name: 'Quicken the pace', edit: { kind: 'set-lengths', lengths: fitted.lengths } }] : [];
}

export const musicCut: SnagKind = {
  title: 'Songs that break off',
  advice: 'Give the song a fade where it ends.',
  place: 'sound',
  *find(look) {
    const { prepared } = look;
    for (const span of soundSpans(prepared.show, prepared.facts)) {
      const { sound, startMs, endMs } = span;
      const known = prepared.facts.get(sound.assetId);
      if (sound.kind !== 'song' || sound.tailored || known?.kind !== 'sound') continue;
      const ownMs = onceThroughMs(sound, prepared.facts);
      const leftAtMs = sound.trimStartMs + ((endMs - startMs) % Math.max(1, ownMs) || ownMs);
      const playsOut = sound.trimEndMs === undefined && Math.abs(startMs + ownMs - endMs) < 50;
      if (playsOut || sound.fadeOutMs >= LEAST_FADE_MS) continue;
      const { curve } = known.listening?.loudness ?? {};
      const tenths = curve?.[Math.min(curve.length - 1, Math.floor((leftAtMs / 1000) * CURVE_PER_SECOND) - 1)];
      if (tenths !== undefined && tenths / 10 < QUIET_LUFS) continue;
      yield {
        grave: true,
        slideId: null,
        soundId: sound.id,
        assetId: sound.assetId,
        of: sound.id,
        fromMs: Math.max(0, endMs - 4000),
        toMs: Math.min(prepared.lengthMs, endMs + 1500),
        sentence: `${called(look, sound.assetId)} breaks off at ${clock(endMs)}.`,
      };
    }
  },
  fixes(_look, { soundId }) {
    if (!soundId) return [];
    return [
      {
        name: `Fade it out over ${seconds(FADE_MS)}`,
        edit: { kind: 'set-sound', slideId: null, soundId, properties: { fadeOutMs: FADE_MS } },
      },
    ];
  },
};
