import { later, list, text, type Schema } from '../../schema/schema';
import type { ShowEdit } from '../edit';
import { LONGEST_NAME, MOST_EDITS_TOGETHER } from '../limits';
import { done } from './changing';
import type { EditRecord } from './edit-record';

/** Several edits as one step: all of them or none. `name` is what it does, as an order: “cut 3 slides”. */
export interface Together {
  readonly kind: 'together';
  readonly name: string;
  readonly edits: readonly ShowEdit[];
}

/** @param anyEdit what any edit may look like, this one too */
export const together = (anyEdit: () => Schema): EditRecord<Together> => ({
  kind: 'together',
  parts: { name: text(LONGEST_NAME, 1), edits: list(later(anyEdit), MOST_EDITS_TOGETHER, 1) },
  apply(show, edit, nested) {
    let after = show;
    const inverses: ShowEdit[] = [];
    for (const inner of edit.edits) {
      const result = nested(after, inner);
      if (!result.ok) return result;
      after = result.show;
      inverses.unshift(result.inverse);
    }
    return done(after, { kind: 'together', name: edit.name, edits: inverses });
  },
  touched: (edit, nested) => edit.edits.flatMap(nested),
  sentence: (edit) => edit.name,
});
