import * as yup from 'yup';
import { answer, bodyOf, Refusal } from '@/server/answer';
import { runningServer } from '@/server/running-server';
import { closed, hashSchema, idSchema } from '@/server/schema/parts';
import { assetId, showId } from '@/core/show/ids';

const loan = closed({ from: idSchema(), assetIds: yup.array(hashSchema()).min(1).max(10_000).required() }) as unknown as yup.Schema<{ from: string; assetIds: string[] }>;

/** Puts files of another show onto this one's contact sheet, for slides that are pasted. */
export function POST(request: Request, { params }: { params: Promise<{ show: string }> }): Promise<Response> {
  return answer(request, async () => {
    const { from, assetIds } = await bodyOf(request, loan);
    const { sheet, shows } = await runningServer();
    const id = showId((await params).show);
    if (!await shows.load(id)) throw new Refusal(404, 'There is no such show.');
    const added = await sheet.borrow(id, showId(from), assetIds.map(assetId));
    return { added, entries: await sheet.entries(id) };
  });
}
