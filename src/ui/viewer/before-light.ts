import { useCallback, useEffect } from 'react';
import { createStore, useStore } from 'zustand';

/** Whether viewers show pictures as they were before their light. */
const before = createStore<{ readonly held: boolean }>(() => ({ held: false }));

export function useBeforeLight(): boolean {
  return useStore(before, ({ held }) => held);
}

/** Held down pictures are seen as they were before their light; let go, wherever the hand is by then, as they are. */
export function useHoldBefore(): () => void {
  useEffect(() => () => before.setState({ held: false }), []);
  return useCallback(() => {
    if (before.getState().held) return;
    before.setState({ held: true });
    const ends = new AbortController();
    const letGo = () => {
      before.setState({ held: false });
      ends.abort();
    };
    for (const end of ['keyup', 'pointerup', 'pointercancel', 'blur'])
      window.addEventListener(end, letGo, { signal: ends.signal });
  }, []);
}
