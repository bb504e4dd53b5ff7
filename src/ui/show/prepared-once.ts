import { prepareShow, type PreparedShow } from '../../core/frame/plan-frame';
import type { FactsById } from '../../core/show/asset-facts';
import type { Show } from '../../core/show/show';

let last: PreparedShow | null = null;

/** The show with its spans and moves; parts of a page that ask for the same show share one answer. */
export function preparedOnce(show: Show, facts: FactsById): PreparedShow {
  if (last?.show !== show || last.facts !== facts) last = prepareShow(show, facts);
  return last;
}
