import type { BandOrder } from '../sound/band/band-order';
import type { TailorWishes } from '../sound/tailor/tailor-song';
import type { Cleaning } from '../sound/voice/cleaning';
import type { AssetId, CueId, SlideId } from './ids';

/**
 * A piece of sound in its place: a song, a short sound, a voice. Those of the show stay when slides come and go; those of a slide go wherever it goes, and
 * several may begin on one. Ids differ among the sounds of the show, and among those of a slide.
 */
export interface PlacedSound {
  readonly id: CueId;
  /** Music goes down under voices; short sounds neither go down nor push anything down. */
  readonly kind: SoundKind;
  readonly assetId: AssetId;
  readonly starts: SoundStart;
  readonly ends: SoundEnd;
  /** Where in the file it begins. */
  readonly trimStartMs: number;
  /** Where in the file it ends; the file's own end when it is not said. */
  readonly trimEndMs?: number;
  /** It begins again from `trimStartMs` until its end, or the show's. */
  readonly loops?: true;
  readonly gainDb: number;
  readonly fadeInMs: number;
  /** Tied to where it ends, wherever that is. */
  readonly fadeOutMs: number;
  /** Straight when it is not said. */
  readonly fadeInCurve?: FadeCurve;
  readonly fadeOutCurve?: FadeCurve;
  /** Its level on the way, over `gainDb`; straight lines between, in decibels. */
  readonly levels?: readonly LevelPoint[];
  /** What a person calls it: a take among others. */
  readonly name?: string;
  /** Kept and not heard: another take is. */
  readonly resting?: true;
  /** A voice that goes on over the slides after its own, which does not wait for it. */
  readonly runsOn?: true;
  /** A song that is made as long as there is room for it, rather than cut: joined where it goes on alike. */
  readonly tailored?: TailorWishes;
  /** The house band plays it, and again when it must be longer or shorter; until it has, it is tailored. */
  readonly band?: BandOrder;
  /** It was made from another file by cleaning it. */
  readonly cleaned?: Cleaned;
}

export interface Cleaned {
  /** The recording as it came. */
  readonly from: AssetId;
  readonly how: Cleaning;
}

/** How a fade goes: evenly, gently at both ends, or so that two that cross are as loud together as each alone. */
export type FadeCurve = 'straight' | 'gentle' | 'equal';
export const FADE_CURVES: readonly FadeCurve[] = ['straight', 'gentle', 'equal'];

/** A point of a level line, tied to where the sound starts or ends, so that it stays right whatever its length becomes. */
export interface LevelPoint {
  readonly from: 'start' | 'end';
  readonly offsetMs: number;
  readonly gainDb: number;
}

export type SoundKind = 'song' | 'effect' | 'voice';
export const SOUND_KINDS: readonly SoundKind[] = ['song', 'effect', 'voice'];

/** What a sound of the show can be tied to. */
export type Anchor =
  /** So long after a slide is first seen. */
  | { readonly at: 'slide'; readonly slideId: SlideId; readonly offsetMs: number }
  | { readonly at: 'moment'; readonly momentMs: number }
  /** So long before the end of the show. */
  | { readonly at: 'show-end'; readonly beforeMs: number };

export type SoundStart =
  | Anchor
  /** Where the sound before it in the list ends, or so long before that, the two crossing over; the first one at the start of the show. */
  | { readonly at: 'after'; readonly overlapMs?: number }
  /** So long after the slide that holds it is first seen. */
  | { readonly at: 'here'; readonly offsetMs: number };

/** Never later than the file’s own end and the end of the show. */
export type SoundEnd = Anchor | { readonly at: 'own-end' };

/** A song after those that are there. */
export function songAfter(id: CueId, assetId: AssetId, fadeOutMs: number): PlacedSound {
  return {
    id,
    kind: 'song',
    assetId,
    starts: { at: 'after' },
    ends: { at: 'own-end' },
    trimStartMs: 0,
    gainDb: 0,
    fadeInMs: 0,
    fadeOutMs,
  };
}

/** A voice on a slide. */
export function voiceHere(id: CueId, assetId: AssetId, offsetMs: number): PlacedSound {
  return { ...songAfter(id, assetId, 0), kind: 'voice', starts: { at: 'here', offsetMs } };
}

/** The files a sound needs: what is heard, and what that was made from. */
export function assetIdsOfSound({ assetId, cleaned }: PlacedSound): AssetId[] {
  return cleaned ? [assetId, cleaned.from] : [assetId];
}

/** The takes of a slide, those that rest too. */
export function takesIn({ sounds }: { readonly sounds: readonly PlacedSound[] }): PlacedSound[] {
  return sounds.filter((sound) => sound.kind === 'voice');
}

/** What is spoken on a slide; the first when there are several. */
export function voiceOf({ sounds }: { readonly sounds: readonly PlacedSound[] }): PlacedSound | null {
  return sounds.find((sound) => sound.kind === 'voice' && !sound.resting) ?? null;
}

/** So long after the slide is seen; 0 for a sound that is not held by one. */
export function offsetHereMs({ starts }: PlacedSound): number {
  return starts.at === 'here' ? starts.offsetMs : 0;
}

/** The slides a sound is tied to. */
export function slidesNamedBy({ starts, ends }: PlacedSound): SlideId[] {
  return [starts, ends].flatMap((anchor) => (anchor.at === 'slide' ? [anchor.slideId] : []));
}
