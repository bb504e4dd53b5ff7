import { recordOf, type ShowEdit } from './edits/edit-records';

/** What an edit does, for the undo button and the activity line: “remove 3 slides”. */
export function editSentence(edit: ShowEdit): string {
  return recordOf(edit).sentence(edit);
}
