import { showId } from '@/core/show/ids';
import { Refusal } from '@/server/http/refusal';
import { route } from '@/server/http/route';

/** The same show once more, with the same contact sheet. */
export const POST = route('POST /api/v1/shows/[show]/copy', async ({ params, server }) => {
  const id = showId(params.show!);
  const copy = await server.shows.duplicate(id);
  if (!copy) throw new Refusal(404, 'There is no such show.');
  await server.sheet.borrow(copy.id, id, null);
  return { id: copy.id, title: copy.title };
});
