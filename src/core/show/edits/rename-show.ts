import { text } from '../../schema/schema';
import { LONGEST_SHOW_TITLE } from '../limits';
import { done } from './changing';
import type { EditRecord } from './edit-record';

export interface RenameShow {
  readonly kind: 'rename-show';
  readonly title: string;
}

export const renameShow: EditRecord<RenameShow> = {
  kind: 'rename-show',
  parts: { title: text(LONGEST_SHOW_TITLE, 1) },
  apply: (show, edit) => done({ ...show, title: edit.title }, { kind: 'rename-show', title: show.title }),
  touched: () => ['title'],
  sentence: () => 'rename the show',
};
