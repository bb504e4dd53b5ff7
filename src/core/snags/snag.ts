import type { FilmSpec } from '../film/film-spec';
import type { PreparedShow } from '../frame/plan-frame';
import type { ShowEdit } from '../show/edit';
import type { AssetId, CueId, LayerId, SlideId } from '../show/ids';
import type { SlideSeen } from './slide-seen';
import type { SnagKindName } from './snag-kinds';

/** Something that will embarrass. */
export interface Snag {
  /** The same for the same thing in the same place, whatever else changes; at most 200 characters. */
  readonly key: string;
  readonly kind: SnagKindName;
  /** Everybody in the room will notice. */
  readonly grave: boolean;
  /** The slide it is on; null for what is of the show as a whole. */
  readonly slideId: SlideId | null;
  /** Where it is to be seen or heard: the stretch to play. */
  readonly fromMs: number;
  readonly toMs: number;
  /** The moment at which it is at its worst, where there is one. */
  readonly atMs?: number;
  /** What is the matter, for a person. */
  readonly sentence: string;
  /** What tells it from others of its kind on the same slide. */
  readonly of?: string;
  readonly layerId?: LayerId;
  readonly soundId?: CueId;
  readonly assetId?: AssetId;
}

/** A way out of a snag that can be taken at once. */
export interface SnagFix {
  /** As an order that can stand on a button. */
  readonly name: string;
  readonly edit: ShowEdit;
}

/** A file of the show, as far as looking over asks for it. */
export interface LookedOverFile {
  readonly name: string;
  /** It is there and can be read, or it is still being looked at; otherwise what is wrong with it. */
  readonly state: 'ready' | 'coming' | 'missing';
  /** Recorded or cleaned here. */
  readonly madeHere: boolean;
}

/** All that is looked at when a show is looked over. */
export interface SnagLook {
  readonly prepared: PreparedShow;
  readonly files: ReadonlyMap<AssetId, LookedOverFile>;
  /** What was measured in drawn frames, slide by slide; slides that were not measured yet are not among it. */
  readonly seen: ReadonlyMap<SlideId, SlideSeen>;
  /** Films that are asked for. */
  readonly films: readonly Pick<FilmSpec, 'shape' | 'purpose' | 'mostBytes'>[];
  /** Local time, ISO 8601 without zone: pictures cannot be later. */
  readonly now: string;
}

/** One kind of snag: how it is found, and the ways out of it. */
export interface SnagKind {
  /** What the list calls it, for one and for several. */
  readonly title: string;
  /** What to do when no fix is offered. */
  readonly advice: string;
  /** Where a person goes to see to it by hand. */
  readonly place: SnagPlace;
  find(look: SnagLook): Iterable<FoundSnag>;
  /** What might be done, the best first; those that do not help are left out by `fixesOf`. */
  fixes?(look: SnagLook, snag: Snag): readonly SnagFix[];
  /** It is measured in drawn frames: whether a fix helps is known only once they are drawn again. */
  readonly measured?: true;
}

export type SnagPlace = 'gather' | 'arrange' | 'sound' | 'send';
export type FoundSnag = Omit<Snag, 'kind' | 'key'>;
