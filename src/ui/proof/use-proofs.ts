import { useCallback, useEffect, useMemo, useState } from 'react';
import type { Mark } from '../../core/show/mark';
import type { ProofRow } from '../../server/proofs/proof-service';
import { useIsGuest } from '../people/me';
import { callServer } from '../show/call-server';

/** What a client said of a picture, and which. */
export interface ClientSays {
  readonly label: string;
  readonly mark: Mark | null;
  readonly note: string;
}

/** The proofs of a show, asked for anew whenever a client marks something. */
export function useProofs(showId: string): {
  readonly proofs: readonly ProofRow[];
  /** By picture; the newest proof first. */
  readonly says: ReadonlyMap<string, readonly ClientSays[]>;
  refresh(): Promise<void>;
} {
  const isGuest = useIsGuest();
  const [proofs, setProofs] = useState<readonly ProofRow[]>([]);
  const refresh = useCallback(async () => {
    if (isGuest) return;
    await callServer<{ proofs: readonly ProofRow[] }>('GET', `/api/v1/shows/${showId}/proofs`).then(
      (answer) => setProofs(answer.proofs),
      // The header says when the server cannot be reached.
      () => {},
    );
  }, [showId, isGuest]);
  useEffect(() => {
    void refresh();
    const hear = () => void refresh();
    window.addEventListener('tanager-proofs', hear);
    return () => window.removeEventListener('tanager-proofs', hear);
  }, [refresh]);
  const says = useMemo(() => {
    const by = new Map<string, ClientSays[]>();
    for (const { label, marks } of proofs)
      for (const { assetId, mark, note } of marks) by.set(assetId, [...(by.get(assetId) ?? []), { label, mark, note }]);
    return by;
  }, [proofs]);
  return { proofs, says, refresh };
}
