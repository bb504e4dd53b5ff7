import type { ClientMark } from '../../core/proof/proof';
import type { AssetId } from '../../core/show/ids';
import type { RunningServer } from '../running-server';
import type { OpenProof } from './proof-service';

/** A proof as its page shows it: nothing in it says where or with what the pictures were taken. */
export interface ShownProof {
  readonly token: string;
  readonly label: string;
  readonly title: string;
  readonly endsAt: number | null;
  readonly sentAt: number | null;
  readonly longestPx: number;
  readonly pictures: readonly { readonly id: AssetId; readonly widthPx: number; readonly heightPx: number }[];
  readonly marks: readonly ClientMark[];
}

export async function shownProof(
  token: string,
  { label, title, endsAt, sentAt, longestPx, pictures, marks }: OpenProof,
  { sheet }: Pick<RunningServer, 'sheet'>,
): Promise<ShownProof> {
  const facts = await sheet.factsOf(pictures);
  return {
    token,
    label,
    title,
    endsAt,
    sentAt,
    longestPx,
    marks,
    pictures: pictures.flatMap((id) => {
      const known = facts.get(id);
      return known?.kind === 'picture' ? [{ id, widthPx: known.widthPx, heightPx: known.heightPx }] : [];
    }),
  };
}
