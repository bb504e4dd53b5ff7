import { object, orNull } from '../../schema/schema';
import { REASON, SNAG_KEY } from '../schemas/slide-schema';
import { counted, done, many } from './changing';
import type { EditRecord } from './edit-record';
import { noted } from './noted';

interface Entry {
  /** See `Snag.key`. */
  readonly key: string;
  /** Why it is left as it is; null: it counts again. */
  readonly reason: string | null;
}

/** Snags that are left as they are. */
export interface LetBe {
  readonly kind: 'let-be';
  readonly snags: readonly Entry[];
}

export const letBe: EditRecord<LetBe> = {
  kind: 'let-be',
  parts: { snags: many(object<Entry>({ key: SNAG_KEY, reason: orNull(REASON) })) },
  apply(show, edit) {
    const { notes, back } = noted(
      show.letBe,
      edit.snags.map(({ key, reason }) => ({ name: key, note: reason })),
    );
    const { letBe: _before, ...rest } = show;
    return done(notes ? { ...rest, letBe: notes } : rest, {
      kind: 'let-be',
      snags: back.map(({ name, note }) => ({ key: name, reason: note })),
    });
  },
  touched: (edit) => edit.snags.map(({ key }) => `letBe/${key}`),
  sentence: ({ snags }) => {
    if (snags.every(({ reason }) => reason === null)) return `count ${counted(snags.length, 'snag')} again`;
    return snags.length === 1 ? 'leave a snag as it is' : `leave ${snags.length} snags as they are`;
  },
};
