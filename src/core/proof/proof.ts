import {
  checked,
  HASH,
  list,
  maybe,
  oneOf,
  object,
  orNull,
  text,
  truth,
  whole,
  type Schema,
  written,
} from '../schema/schema';
import { LONGEST_NAME } from '../show/limits';
import { MARKS, type Mark } from '../show/mark';
import type { AssetId } from '../show/ids';

/** Longest sides, in pixels, that pictures of a proof are handed out with. */
export const PROOF_SIZES = [640, 1024, 1600, 2400] as const;
export const USUAL_PROOF_PX = 1024;
export const MOST_PROOF_PICTURES = 5000;
export const LONGEST_PROOF_NOTE = 500;

/** What a client says of a picture. */
export interface ClientMark {
  readonly assetId: AssetId;
  readonly mark: Mark | null;
  /** Empty for none. */
  readonly note: string;
}

export interface NewProof {
  /** For whom, as both sides read it. */
  readonly label: string;
  readonly pictures: readonly string[];
  /** No picture is handed out with a longer side. */
  readonly longestPx: number;
  /** Words over every picture; null: none. */
  readonly watermark: string | null;
  /** Nobody looks or marks from here on (milliseconds since 1970); null: it stays open. */
  readonly endsAt: number | null;
}

export interface ProofChange {
  readonly label?: string;
  readonly endsAt?: number | null;
  readonly shut?: boolean;
  /** False: a choice that was sent may be changed again. */
  readonly sent?: false;
}

const TIME = whole(0, 1e15);
const LABEL = written(LONGEST_NAME, 'The harbour choir');

export const NEW_PROOF: Schema = object<NewProof>({
  label: LABEL,
  pictures: list(HASH, MOST_PROOF_PICTURES, 1),
  longestPx: whole(PROOF_SIZES[0], PROOF_SIZES.at(-1)!),
  watermark: orNull(text(60, 1)),
  endsAt: orNull(TIME),
});
export const PROOF_CHANGE: Schema = checked<{ sent?: boolean }>(
  object<ProofChange>({
    label: maybe(LABEL),
    endsAt: maybe(orNull(TIME)),
    shut: maybe(truth),
    sent: maybe(truth),
  }),
  ({ sent }) => (sent === true ? 'sent can only be taken back: the client sends' : null),
);
export const CLIENT_MARK: Schema = object<Omit<ClientMark, 'assetId'>>({
  mark: orNull(oneOf(MARKS)),
  note: text(LONGEST_PROOF_NOTE),
});

export const CHOICE_SENT: Schema = object<{ name: unknown }>({ name: LABEL });

/** How many of each: what stands at the foot of a proof, and in the list of them. */
export interface ProofTally {
  readonly keep: number;
  readonly linger: number;
  readonly leaveOut: number;
  readonly unmarked: number;
  readonly notes: number;
}

/** @param count of all the pictures of the proof */
export function proofTally(marks: readonly Pick<ClientMark, 'mark' | 'note'>[], count: number): ProofTally {
  const of = (wanted: Mark) => marks.filter(({ mark }) => mark === wanted).length;
  const [keep, linger, leaveOut] = [of('keep'), of('linger'), of('leave-out')];
  return {
    keep,
    linger,
    leaveOut,
    unmarked: count - keep - linger - leaveOut,
    notes: marks.filter(({ note }) => note !== '').length,
  };
}

/** “12 kept, 3 to linger on, 5 left out, 280 not marked” */
export function tallySentence({ keep, linger, leaveOut, unmarked }: ProofTally): string {
  const parts = [
    [keep, 'kept'],
    [linger, 'to linger on'],
    [leaveOut, 'left out'],
    [unmarked, 'not marked'],
  ] as const;
  return parts
    .filter(([count]) => count > 0)
    .map(([count, words]) => `${count} ${words}`)
    .join(', ');
}

/**
 * The edit’s part that takes a client’s marks over as one’s own: those that differ from what stands there. What the client did not mark stays as it is.
 *
 * @param own the show’s marks
 */
export function marksToTakeOver(
  clients: readonly ClientMark[],
  own: Readonly<Record<string, Mark>>,
): { assetId: AssetId; mark: Mark | null }[] {
  return clients.flatMap(({ assetId, mark }) => (mark !== null && own[assetId] !== mark ? [{ assetId, mark }] : []));
}
