import { showId } from '@/core/show/ids';
import { Refusal } from '@/server/http/refusal';
import { route } from '@/server/http/route';
import { notesTable } from '@/core/screening/notes-table';

/** The guest book as CSV, for spreadsheets. */
export const GET = route('GET /api/v1/shows/[show]/notes/table', async ({ params, server }) => {
  const loaded = await server.shows.load(showId(params.show!));
  if (!loaded) throw new Refusal(404, 'There is no such show.');
  return new Response(notesTable(await server.screenings.book.all(loaded.show.id), loaded.show.slides), {
    headers: {
      'content-type': 'text/csv; charset=utf-8',
      'content-disposition': `attachment; filename="guest-book.csv"; filename*=UTF-8''${encodeURIComponent(`${loaded.show.title} – guest book.csv`)}`,
    },
  });
});
