import { MARK_NAMES } from '../../core/show/mark';
import type { ClientSays } from './use-proofs';

/** What clients said of one picture, beside one’s own marks. */
export function ClientSaysList({ says }: { says: readonly ClientSays[] }) {
  if (says.length === 0) return null;
  return (
    <ul className="mt-3 flex flex-col gap-1.5" aria-label="What clients said" data-part="client-says">
      {says.map(({ label, mark, note }, index) => (
        <li key={index} className="border-l-2 border-slate pl-2">
          <span className="text-soft">{label}:</span> {mark ? MARK_NAMES[mark] : 'not marked'}
          {note && <span className="block">“{note}”</span>}
        </li>
      ))}
    </ul>
  );
}
