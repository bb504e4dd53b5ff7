import type { FocusFacts } from '../focus/focus-facts';
import type { BandPiece } from '../sound/band/piece-facts';
import type { ListeningFacts } from '../sound/listening/listening-facts';
import type { CropSides } from '../motion/crop';
import type { AssetId } from './ids';

/** What is known about a file from looking at it once; keyed by content, so it never goes stale. */
export type AssetFacts = PictureFacts | ClipFacts | SoundFacts;

export interface PictureFacts {
  readonly kind: 'picture';
  /** Upright, after the camera's orientation was applied. */
  readonly widthPx: number;
  readonly heightPx: number;
  readonly hasTransparency: boolean;
  /** Local time of the camera, ISO 8601 without zone, or null when the file does not say. */
  readonly takenAt: string | null;
  readonly camera: string | null;
  /** Mean brightness of what can be seen, 0…1. */
  readonly brightness: number;
  /** Where the histogram of its tones begins and ends, half a percent left out at either side, 0…1; files looked at by older versions have none. */
  readonly tonePoints?: { readonly black: number; readonly white: number };
  /** Dark bars baked into it, as shares of its sides; see `darkBars`. */
  readonly bars?: CropSides;
  /** What somebody wrote into the file about it. */
  readonly caption?: string;
  /** Where it was taken, as somebody wrote it into the file (IPTC): “The old slip, Marrow Quay”. */
  readonly place?: string;
  /** How somebody rated it elsewhere, as the file says (XMP): 1…5, or −1 for one that was refused. */
  readonly rating?: number;
  /** The mean of what can be seen of it, `#rrggbb`; and the colours one would name it by, what counts most first. See `mainColours`. */
  readonly meanColour?: string;
  readonly colours?: readonly string[];
  /** See `likenessOf`. */
  readonly likeness?: string;
  /** What it is about; found out some time after the rest. */
  readonly focus?: FocusFacts;
  /** What the sensor saw, shown by the picture the camera put into the file. */
  readonly raw?: true;
}

export interface ClipFacts {
  readonly kind: 'clip';
  readonly widthPx: number;
  readonly heightPx: number;
  readonly lengthMs: number;
  readonly hasSound: boolean;
  readonly takenAt: string | null;
  /** What is heard in it; found out some time after the rest. */
  readonly listening?: ListeningFacts;
  /** What it is about, all through it; found out some time after the rest. */
  readonly focus?: FocusFacts;
  /** It is brighter than a usual screen, packed in one of these ways (ITU-R BT.2100); films tone it down. */
  readonly hdr?: Hdr;
  /** On the average; files looked at by older versions do not say. */
  readonly framesPerSecond?: number;
  /** Its frames do not come evenly in time. */
  readonly uneven?: true;
}

export type Hdr = 'pq' | 'hlg';

export interface SoundFacts {
  readonly kind: 'sound';
  readonly lengthMs: number;
  /** From the file's tags; null when untagged. */
  readonly title: string | null;
  readonly artist: string | null;
  /** The style its tags name; files looked at by older versions do not say. */
  readonly genre?: string;
  /** The house band played it, as its file says. */
  readonly band?: BandPiece;
  /** What is heard in it; found out some time after the rest. */
  readonly listening?: ListeningFacts;
}

export type FactsById = ReadonlyMap<AssetId, AssetFacts>;
