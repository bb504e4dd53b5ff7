import type { ListeningFacts } from '../../sound/listening/listening-facts';
import type { PlacedSound } from '../../show/placed-sound';
import { allOf, called, slidesOf, type SlideLook } from '../helpers';
import type { SnagKind, SnagLook } from '../snag';

/** A recording whose peaks reach this has been cut off by the recorder. */
const CLIPPED_DB = -0.05;
/** Below the show's usual voice, or below what can be followed. */
const QUIETER_BY = 8;
const FAINT_LUFS = -34;
const WANTED_LUFS = -20;
const MOST_DB = 24;

/** Voices that can be heard, with what is known of them. */
function* voices({ prepared }: SnagLook): Generator<{
  readonly place: SlideLook;
  readonly sound: PlacedSound;
  readonly heard: ListeningFacts;
}> {
  for (const place of slidesOf(prepared))
    for (const sound of place.slide.sounds) {
      const known = prepared.facts.get(sound.assetId);
      if (sound.kind !== 'voice' || sound.resting || known?.kind !== 'sound' || !known.listening) continue;
      yield { place, sound, heard: known.listening };
    }
}

const levelOf = (sound: PlacedSound, heard: ListeningFacts) =>
  heard.loudness.integratedLufs === null ? null : heard.loudness.integratedLufs + sound.gainDb;

/** What voices of the show are usually as loud as. */
function usualLevel(look: SnagLook): number | null {
  const levels = [...voices(look)].flatMap(({ sound, heard }) => levelOf(sound, heard) ?? []).sort((a, b) => a - b);
  return levels.length >= 3 ? levels[Math.floor(levels.length / 2)]! : null;
}

export const voiceClipped: SnagKind = {
  title: 'Overloaded voices',
  advice: 'Say it again a little farther from the microphone.',
  place: 'sound',
  *find(look) {
    for (const { place, sound, heard } of voices(look)) {
      if ((heard.loudness.truePeakDb ?? -99) < CLIPPED_DB) continue;
      yield {
        grave: false,
        slideId: place.slide.id,
        soundId: sound.id,
        assetId: sound.assetId,
        of: sound.id,
        ...allOf(place),
        sentence: `The voice of slide ${place.index + 1} was recorded too loud and crackles at its peaks.`,
      };
    }
  },
};

export const voiceQuiet: SnagKind = {
  title: 'Voices too quiet',
  advice: 'Turn the take up, or say it again nearer to the microphone.',
  place: 'sound',
  *find(look) {
    const usual = usualLevel(look);
    for (const { place, sound, heard } of voices(look)) {
      const level = levelOf(sound, heard);
      const below = usual !== null && level !== null ? usual - level : 0;
      if (level !== null && level >= FAINT_LUFS && below <= QUIETER_BY) continue;
      yield {
        grave: level === null || level < FAINT_LUFS,
        slideId: place.slide.id,
        soundId: sound.id,
        assetId: sound.assetId,
        of: sound.id,
        ...allOf(place),
        sentence:
          level === null
            ? `Nothing is heard in ${called(look, sound.assetId)}.`
            : below > QUIETER_BY
              ? `The voice of slide ${place.index + 1} is ${Math.round(below)} dB quieter than the others.`
              : `The voice of slide ${place.index + 1} is too quiet to follow.`,
      };
    }
  },
  fixes(look, { slideId, soundId }) {
    const found = [...voices(look)].find(({ place, sound }) => place.slide.id === slideId && sound.id === soundId);
    const level = found && levelOf(found.sound, found.heard);
    if (!found || level === null || level === undefined) return [];
    const gainDb = Math.min(
      MOST_DB,
      Math.round(10 * (found.sound.gainDb + (usualLevel(look) ?? WANTED_LUFS) - level)) / 10,
    );
    return [
      {
        name: `Turn it up by ${(gainDb - found.sound.gainDb).toFixed(0)} dB`,
        edit: { kind: 'set-sound', slideId: found.place.slide.id, soundId: found.sound.id, properties: { gainDb } },
      },
    ];
  },
};
