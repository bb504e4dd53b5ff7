'use client';

import { useCallback, useEffect, useState } from 'react';

/**
 * A choice that this browser remembers. The server draws first and knows nothing of it, so it is taken up after the first drawing.
 *
 * @param isRight whether what was kept, perhaps by an older version, is still a choice
 */
export function useKept<Value>(
  key: string,
  usual: Value,
  isRight: (kept: unknown) => kept is Value,
): [Value, (next: Value) => void] {
  const [value, setValue] = useState(usual);
  useEffect(() => {
    const kept = read(key);
    // eslint-disable-next-line react-hooks/set-state-in-effect
    if (isRight(kept)) setValue(kept);
    // Once for each key: what counts as right does not change.
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [key]);
  const choose = useCallback(
    (next: Value) => {
      setValue(next);
      try {
        localStorage.setItem(key, JSON.stringify(next));
      } catch {
        // A browser without room, or that keeps nothing, forgets it with the page.
      }
    },
    [key],
  );
  return [value, choose];
}

function read(key: string): unknown {
  try {
    return JSON.parse(localStorage.getItem(key) ?? 'null');
  } catch {
    return null;
  }
}
