import type { Show } from '../show/show';
import { titleOfRow } from './row';
import { sameHead, type SeriesPlan } from './series';

/**
 * Which row of a table brought anew is which of the one before: by the folder they name, else by the title of their film. A film that was made for somebody
 * never becomes somebody else's because rows were carried, added or taken out.
 *
 * @returns numbers now by numbers before, from 1; rows that are in one table only are not named
 */
export function sameRows(
  before: SeriesPlan,
  after: SeriesPlan,
  pattern: Pick<Show, 'title'>,
): ReadonlyMap<number, number> {
  const same = new Map<number, number>();
  const taken = new Set<number>();
  for (const keyOf of [folderKey, titleKey]) {
    const now = new Map<string, number[]>();
    after.rows.forEach((_, index) => {
      const key = keyOf(after, index + 1, pattern);
      if (key !== null && !taken.has(index + 1)) now.set(key, [...(now.get(key) ?? []), index + 1]);
    });
    before.rows.forEach((_, index) => {
      const key = keyOf(before, index + 1, pattern);
      if (key === null || same.has(index + 1)) return;
      const number = now.get(key)?.shift();
      if (number === undefined) return;
      same.set(index + 1, number);
      taken.add(number);
    });
  }
  return same;
}

type KeyOf = (plan: SeriesPlan, number: number, pattern: Pick<Show, 'title'>) => string | null;

const folderKey: KeyOf = ({ folderColumn, columns, rows }, number) => {
  const at = folderColumn === null ? -1 : columns.findIndex((column) => sameHead(column) === sameHead(folderColumn));
  const folder =
    at < 0
      ? ''
      : (rows[number - 1]![at] ?? '')
          .trim()
          .toLowerCase()
          .replace(/[\\/]+$/, '');
  return folder === '' ? null : folder;
};

const titleKey: KeyOf = (plan, number, pattern) => {
  const title = titleOfRow(plan, pattern, number).toLowerCase();
  return title === '' ? null : title;
};
