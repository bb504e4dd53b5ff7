import { useEffect, useState } from 'react';

/** So many pictures are kept, the latest ones. */
const MOST_KEPT = 24;
const kept = new Map<string, string>();

/**
 * A picture the server draws, as an address of this window; what was drawn for the same is not asked for again.
 *
 * @param of what it depends on besides its path
 */
export function useDrawn(path: string, of: string): { readonly url: string | null; readonly problem: string | null } {
  const key = `${path} ${of}`;
  const [drawn, setDrawn] = useState<{ key: string; url: string | null; problem: string | null } | null>(null);
  useEffect(() => {
    if (kept.has(key)) return;
    const ending = new AbortController();
    fetch(path, { signal: ending.signal })
      .then(async (response) => {
        if (!response.ok) {
          const { problem } = (await response.json()) as { problem?: string };
          return setDrawn({ key, url: null, problem: problem ?? 'It could not be drawn.' });
        }
        const url = URL.createObjectURL(await response.blob());
        kept.set(key, url);
        for (const [old, address] of [...kept].slice(0, Math.max(0, kept.size - MOST_KEPT))) {
          URL.revokeObjectURL(address);
          kept.delete(old);
        }
        setDrawn({ key, url, problem: null });
      })
      .catch(() => {
        if (!ending.signal.aborted) setDrawn({ key, url: null, problem: 'The server could not be reached.' });
      });
    return () => ending.abort();
  }, [key, path]);
  const there = kept.get(key) ?? null;
  return drawn?.key === key ? { url: drawn.url ?? there, problem: drawn.problem } : { url: there, problem: null };
}
