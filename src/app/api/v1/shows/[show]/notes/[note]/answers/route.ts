import { showId } from '@/core/show/ids';
import { Refusal } from '@/server/http/refusal';
import { route } from '@/server/http/route';
import { NO_NOTE } from '@/server/screenings/guest-book';

/** The studio answers, under its own name. */
export const POST = route<{ words: string }>(
  'POST /api/v1/shows/[show]/notes/[note]/answers',
  async ({ params, body, person, server }) => {
    const { profile } = await server.studio.open(person.studioId);
    const name = profile.name || 'The studio';
    const answer = await server.screenings.book.answer(showId(params.show!), params.note!, name, body.words);
    if (!answer) throw new Refusal(404, NO_NOTE);
    return answer;
  },
);
