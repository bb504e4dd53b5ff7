import { useMemo } from 'react';
import type { Mark } from '../../core/show/mark';
import type { ProofRow } from '../../server/proofs/proof-service';
import { useIsGuest } from '../people/me';
import { useAnswer } from '../show/use-answer';

/** What a client said of a picture, and which. */
export interface ClientSays {
  readonly label: string;
  readonly mark: Mark | null;
  readonly note: string;
}

const NONE: readonly ProofRow[] = [];

/** The proofs of a show, asked for anew whenever a client marks something. */
export function useProofs(showId: string): {
  readonly proofs: readonly ProofRow[];
  /** By picture; the newest proof first. */
  readonly says: ReadonlyMap<string, readonly ClientSays[]>;
  refresh(): Promise<void>;
} {
  const isGuest = useIsGuest();
  // The header says when the server cannot be reached.
  const { answer, refresh } = useAnswer<{ proofs: readonly ProofRow[] }>(
    isGuest ? null : `/api/v1/shows/${showId}/proofs`,
    { hears: 'tanager-proofs', quiet: true },
  );
  const proofs = answer?.proofs ?? NONE;
  const says = useMemo(() => {
    const by = new Map<string, ClientSays[]>();
    for (const { label, marks } of proofs)
      for (const { assetId, mark, note } of marks) by.set(assetId, [...(by.get(assetId) ?? []), { label, mark, note }]);
    return by;
  }, [proofs]);
  return { proofs, says, refresh };
}
