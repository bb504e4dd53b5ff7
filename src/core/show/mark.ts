/** A pencil mark on a print: it is wanted, it is not, or it matters and is to stay longer. */
export type Mark = 'keep' | 'leave-out' | 'linger';

export const MARKS: readonly Mark[] = ['keep', 'linger', 'leave-out'];

export const MARK_NAMES: Readonly<Record<Mark, string>> = { keep: 'keep', linger: 'linger', 'leave-out': 'leave out' };

/** Whether a print with this mark goes into the order when all that are kept do. */
export function isKept(mark: Mark | undefined): boolean {
  return mark === 'keep' || mark === 'linger';
}
