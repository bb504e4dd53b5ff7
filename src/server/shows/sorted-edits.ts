import type { EditRefusal, ShowEdit } from '../../core/show/edit';
import { EDIT } from '../../core/show/edits/edit-records';
import { parse } from '../schema/parse';

export interface SentEdit {
  readonly editId: string;
  readonly edit: ShowEdit;
}

/** An edit as it came from outside. */
export interface UncheckedEdit {
  readonly editId: string;
  readonly edit: unknown;
}

export interface RefusedEdit {
  readonly editId: string;
  readonly reason: EditRefusal;
  /** For the person. */
  readonly sentence: string;
}

/** Edits that are as edits must be, and the others with what is wrong about them. */
export interface SortedEdits {
  readonly right: readonly SentEdit[];
  readonly refused: readonly RefusedEdit[];
}

/** More wrong edits than this in one request are no slip. */
export const MOST_WRONG_EDITS = 20;

/** Looks at each edit by itself, so that a wrong one does not take the others along; after too many it looks no further. */
export function sortedEdits(sent: readonly UncheckedEdit[]): SortedEdits {
  const right: SentEdit[] = [];
  const refused: RefusedEdit[] = [];
  for (const { editId, edit } of sent) {
    const parsed = parse<ShowEdit>(EDIT, edit);
    if (parsed.ok) right.push({ editId, edit: parsed.value });
    else refused.push({ editId, reason: 'unsound', sentence: `That cannot be done: ${parsed.problem}.` });
    if (refused.length > MOST_WRONG_EDITS) break;
  }
  return { right, refused };
}
