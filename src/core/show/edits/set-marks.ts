import { HASH, object, oneOf, orNull } from '../../schema/schema';
import type { AssetId } from '../ids';
import { MARKS, type Mark } from '../mark';
import { done, many } from './changing';
import type { EditRecord } from './edit-record';

interface Entry {
  readonly assetId: AssetId;
  readonly mark: Mark | null;
}

export interface SetMarks {
  readonly kind: 'set-marks';
  readonly marks: readonly Entry[];
}

export const setMarks: EditRecord<SetMarks> = {
  kind: 'set-marks',
  parts: { marks: many(object<Entry>({ assetId: HASH, mark: orNull(oneOf(MARKS)) })) },
  apply(show, edit) {
    const before = edit.marks.map(({ assetId }) => ({ assetId, mark: show.marks?.[assetId] ?? null }));
    const marks: Record<string, Mark> = { ...show.marks };
    for (const { assetId, mark } of edit.marks) {
      if (mark) marks[assetId] = mark;
      else delete marks[assetId];
    }
    // A show without a mark has no empty list of them, so that what is taken back is as it was.
    const { marks: _before, ...rest } = show;
    return done(Object.keys(marks).length === 0 ? rest : { ...rest, marks }, { kind: 'set-marks', marks: before });
  },
  touched: (edit) => edit.marks.map((entry) => `marks/${entry.assetId}`),
  sentence: (edit) => (edit.marks.length === 1 ? 'mark a print' : `mark ${edit.marks.length} prints`),
};
