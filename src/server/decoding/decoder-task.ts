import type { FocusFacts } from '../../core/focus/focus-facts';
import type { ListeningFacts } from '../../core/sound/listening/listening-facts';
import type { CleanedVoice } from '../../core/sound/voice/clean-voice';
import type { Cleaning } from '../../core/sound/voice/cleaning';
import type { AssetFacts } from '../../core/show/asset-facts';
import type { LookedAtClip } from '../focus/find-clip-focus';

/** What a decoder process can be asked for. Everything that reads a stranger's file is one of these. */
export type DecoderTask =
  /** Finds out everything about a file, and writes what browsers need of it into a folder. */
  | { readonly kind: 'look'; readonly file: string; readonly derivedFolder: string }
  /** What a picture, or a clip, is about; whether faces are looked for. */
  | { readonly kind: 'focus'; readonly file: string; readonly faces: boolean; readonly clip: LookedAtClip | null }
  /** What is heard in a sound, or in a clip, which has no beats. */
  | { readonly kind: 'hear'; readonly file: string; readonly wantsBeats: boolean }
  /** A recorded voice, cleaned, as a file of its own. */
  | { readonly kind: 'clean'; readonly file: string; readonly out: string; readonly how: Cleaning }
  /** A print as a client gets it: no longer than so many pixels, with words over it or without. */
  | { readonly kind: 'proof'; readonly file: string; readonly longestPx: number; readonly words: string | null }
  /** A copy without what is noted in the file. */
  | { readonly kind: 'bare'; readonly file: string; readonly out: string }
  /** A copy of a picture, so wide or as wide as it is. */
  | {
      readonly kind: 'proxy';
      readonly file: string;
      readonly out: string;
      readonly widthPx: number;
      readonly hasTransparency: boolean;
    };

/** What comes of a task, by its kind. */
export interface DecoderAnswers {
  readonly look: { readonly facts: AssetFacts; readonly mime: string };
  readonly focus: FocusFacts;
  readonly hear: ListeningFacts;
  readonly clean: CleanedVoice;
  readonly proof: Uint8Array;
  /** The ending of the copy's name, empty where it stays as it was; null when nothing had to be left out. */
  readonly bare: string | null;
  readonly proxy: null;
}

export interface DecoderLimits {
  readonly timeMs: number;
  readonly memoryBytes: number;
  /** Nobody waits for it any more: the process that does it is ended. */
  readonly signal?: AbortSignal;
}

/** From the server to a decoder process. */
export interface DecoderOrder {
  readonly id: number;
  readonly task: DecoderTask;
}

/** From a decoder process to the server. */
export type DecoderReport =
  | { readonly id: number; readonly kind: 'done'; readonly value: unknown }
  /** The file cannot be used; the sentence is for the person. */
  | { readonly id: number; readonly kind: 'unusable'; readonly sentence: string }
  | { readonly id: number; readonly kind: 'failed'; readonly message: string; readonly diskFull: boolean }
  /** This will take as long as that, for what the file turned out to be. */
  | { readonly id: number; readonly kind: 'takes'; readonly timeMs: number };
