'use client';

import { useEffect, useRef } from 'react';

/**
 * Calls `hear` for keys by the sign they type, wherever it lies on the keyboard and with whatever Shift it needs; not in fields, where signs are text.
 * For signs that the key library cannot name (`+` joins its combinations).
 */
export function useTypedKey(signs: readonly string[], hear: (sign: string, event: KeyboardEvent) => void): void {
  const latest = useRef(hear);
  useEffect(() => {
    latest.current = hear;
  });
  const wanted = signs.join('');
  useEffect(() => {
    const listen = (event: KeyboardEvent) => {
      if (event.ctrlKey || event.metaKey || event.altKey || event.key.length !== 1 || !wanted.includes(event.key))
        return;
      if (
        event.target instanceof HTMLElement &&
        event.target.closest('input, textarea, select, [contenteditable=true]')
      )
        return;
      latest.current(event.key, event);
    };
    document.addEventListener('keydown', listen);
    return () => document.removeEventListener('keydown', listen);
  }, [wanted]);
}
