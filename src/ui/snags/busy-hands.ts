/** Hands that did nothing for so long rest. */
const REST_MS = 700;
const ACTS = ['keydown', 'pointerdown', 'pointerup', 'wheel', 'input'] as const;

/** Tells when hands begin to work on the page and when they rest, for those that hold back their own work meanwhile. @returns what ends it */
export function hearHands(page: Window, hear: (busy: boolean) => void): () => void {
  let resting: ReturnType<typeof setTimeout> | null = null;
  const acts = () => {
    if (resting === null) hear(true);
    else clearTimeout(resting);
    resting = setTimeout(() => {
      resting = null;
      hear(false);
    }, REST_MS);
  };
  // A hand that only passes over the page does not work.
  const drags = (event: PointerEvent) => event.buttons > 0 && acts();
  const how = { capture: true, passive: true };
  for (const act of ACTS) page.addEventListener(act, acts, how);
  page.addEventListener('pointermove', drags, how);
  return () => {
    if (resting !== null) clearTimeout(resting);
    for (const act of ACTS) page.removeEventListener(act, acts, how);
    page.removeEventListener('pointermove', drags, how);
  };
}
