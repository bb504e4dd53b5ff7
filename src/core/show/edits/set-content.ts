import { object } from '../../schema/schema';
import { CONTENT_PARTS } from '../schemas/slide-schema';
import { contentOf, type ShowContent } from '../show';
import { done } from './changing';
import type { EditRecord } from './edit-record';

/** The show as a version kept it. */
export interface SetContent {
  readonly kind: 'set-content';
  readonly content: ShowContent;
}

export const setContent: EditRecord<SetContent> = {
  kind: 'set-content',
  parts: { content: object<ShowContent>(CONTENT_PARTS) },
  apply: (show, edit) =>
    done(
      { format: show.format, version: show.version, id: show.id, ...edit.content },
      { kind: 'set-content', content: contentOf(show) },
    ),
  touched: () => [''],
  sentence: () => 'go to another version',
};
