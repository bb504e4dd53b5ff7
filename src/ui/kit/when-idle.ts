/** Does something once nothing else is to be done, or after a while where that never comes. */
export function whenIdle(work: () => void): void {
  // Not every browser has it.
  const { requestIdleCallback: idle } = window as Partial<Pick<Window, 'requestIdleCallback'>>;
  if (idle) idle.call(window, work, { timeout: 5000 });
  else setTimeout(work, 2000);
}
