import { showId } from '@/core/show/ids';
import type { NoteState } from '@/core/screening/guest-note';
import { Refusal } from '@/server/http/refusal';
import { route } from '@/server/http/route';
import { NO_NOTE } from '@/server/screenings/guest-book';

export const PATCH = route<{ state: NoteState }>(
  'PATCH /api/v1/shows/[show]/notes/[note]',
  async ({ params, body, server }) => {
    if (!(await server.screenings.book.setState(showId(params.show!), params.note!, body.state)))
      throw new Refusal(404, NO_NOTE);
    return {};
  },
);

export const DELETE = route('DELETE /api/v1/shows/[show]/notes/[note]', async ({ params, server }) => {
  if (!(await server.screenings.book.remove(showId(params.show!), params.note!))) throw new Refusal(404, NO_NOTE);
  return {};
});
