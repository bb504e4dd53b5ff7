import { prepareShow, type PreparedShow } from '../../core/frame/plan-frame';
import type { FactsById } from '../../core/show/asset-facts';
import type { Show } from '../../core/show/show';

let last: PreparedShow | null = null;

/** The show with its spans and moves; parts of a page that ask for the same show share one answer. What was worked out of the slides stays the very same while they are: a mark or a title changes none of it. */
export function preparedOnce(show: Show, facts: FactsById): PreparedShow {
  if (last?.show === show && last.facts === facts) return last;
  last =
    last && last.facts === facts && last.show.slides === show.slides && last.show.frame === show.frame
      ? { ...last, show }
      : prepareShow(show, facts);
  return last;
}
