import type { Parts, PartsOf } from '../../schema/schema';
import type { EditResult } from '../edit';
import type { ShowEdit } from './edit-records';
import type { Show } from '../show';

/** A place in a show as a path: `slides/ID/layers/ID/light`, `cues`. One that ends with a slash holds every place whose path begins with its own. */
export type Place = string;

/** Everything there is to know about one kind of edit. To add one is to add a file and name it in `edit-records.ts`. */
export interface EditRecord<Edit extends { readonly kind: string }> {
  readonly kind: Edit['kind'];
  /** What a document may say for each part beside the kind. */
  readonly parts: PartsOf<Omit<Edit, 'kind'>> & Parts;
  /** What must hold of its parts together, as a sentence about what is wrong. */
  readonly fault?: (edit: Edit) => string | null;
  /**
   * The show after it, and the edit that undoes it. Slides and layers it does not touch keep their identity. Whether the outcome is sound is asked by
   * `applyEdit`, for all kinds alike.
   *
   * @param nested for edits that hold edits
   */
  apply(show: Show, edit: Edit, nested: (show: Show, edit: ShowEdit) => EditResult): EditResult;
  /** The places it writes to; those that come new with it are none. */
  touched(edit: Edit, nested: (edit: ShowEdit) => Place[]): Place[];
  /** What it does, as an order, for the undo button and the activity line: “remove 3 slides”. */
  sentence(edit: Edit): string;
}
