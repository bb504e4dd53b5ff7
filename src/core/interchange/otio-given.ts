import type { FactsById } from '../show/asset-facts';
import type { AssetId } from '../show/ids';
import type { Show, ShowContent } from '../show/show';
import type { OtioThing } from './otio';

/** What is there to read a timeline with. */
export interface TimelineGiven {
  /** The show it becomes the content of: what the timeline does not say stays. */
  readonly show: Show;
  /** Files that are there, by hash, with the names they came by. */
  readonly files: ReadonlyMap<AssetId, string>;
  readonly facts: FactsById;
  /** Makes sure that what was noted under our name is a show’s content. */
  readonly parse: (content: unknown, formatVersion: number) => ShowContent | null;
  readonly newId: () => string;
}

/** A slide or a sound as the timeline has it. */
export interface Item {
  readonly thing: OtioThing;
  readonly startS: number;
  readonly durationS: number;
  readonly transition: { readonly inS: number; readonly outS: number; readonly name: string } | null;
}

/** @returns null for a file that is not there */
export type FileFinder = (clip: OtioThing) => AssetId | null;
