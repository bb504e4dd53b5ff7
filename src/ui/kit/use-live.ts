import { useSyncExternalStore } from 'react';

const never = () => () => {};

/** Whether the page can be worked on yet: drawn by the server it is seen a little before its hands are there. */
export function useLive(): boolean {
  return useSyncExternalStore(
    never,
    () => true,
    () => false,
  );
}
