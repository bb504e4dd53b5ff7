import { HASH } from '../../schema/schema';
import type { ShowEdit } from '../edit';
import type { AssetId } from '../ids';
import { withFileSwapped } from '../swap-file';
import { done, refused } from './changing';
import type { EditRecord } from './edit-record';

/** Another file wherever this one is used, as it is framed, keyed and lit. */
export interface SwapFile {
  readonly kind: 'swap-file';
  readonly from: AssetId;
  readonly to: AssetId;
}

export const swapFile: EditRecord<SwapFile> = {
  kind: 'swap-file',
  parts: { from: HASH, to: HASH },
  apply(show, edit) {
    const swapped = withFileSwapped(show, edit.from, edit.to);
    const before = show.slides.filter((slide, index) => slide !== swapped.slides[index]);
    const back: ShowEdit[] = [];
    if (before.length > 0) back.push({ kind: 'put-slides', slides: before });
    if (swapped.cues !== show.cues) back.push({ kind: 'set-cues', cues: show.cues });
    if (back.length === 0) return refused('file-not-used');
    return done(swapped, { kind: 'together', name: swapFile.sentence(edit), edits: back });
  },
  touched: (edit) => [`files/${edit.from}`],
  sentence: () => 'swap a file',
};
