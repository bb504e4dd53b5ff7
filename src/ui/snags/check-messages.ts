import type { FactsById } from '../../core/show/asset-facts';
import type { AssetId, LayerId, SlideId } from '../../core/show/ids';
import type { Show } from '../../core/show/show';
import type { LookedOverFile, Snag, SnagFix, SnagLook } from '../../core/snags/snag';
import type { ShowChange } from '../viewer/show-change';

export type ToChecker =
  | { readonly kind: 'show'; readonly show: Show; readonly facts: FactsById }
  /** The show that was sent last has become this; facts are those that came or changed. */
  | { readonly kind: 'change'; readonly change: ShowChange; readonly facts: FactsById }
  | {
      readonly kind: 'around';
      readonly files: ReadonlyMap<AssetId, LookedOverFile>;
      readonly films: SnagLook['films'];
    }
  /** Something plays: measuring waits, so that the picture does not stutter. */
  | { readonly kind: 'rest'; readonly rest: boolean }
  /** The ways out of a snag that help. */
  | { readonly kind: 'fixes'; readonly id: number; readonly key: string }
  /** Where words of a slide read best. */
  | { readonly kind: 'best'; readonly id: number; readonly slideId: SlideId; readonly layerId: LayerId };

export type FromChecker =
  | { readonly kind: 'ready' }
  /** All that is known by now; `measured` slides of all have been drawn and looked at. */
  | { readonly kind: 'found'; readonly snags: readonly Snag[]; readonly measured: number; readonly slideCount: number }
  /** Null when trying failed. */
  | { readonly kind: 'fixes'; readonly id: number; readonly fixes: readonly SnagFix[] | null };
