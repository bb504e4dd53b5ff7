import { Refusal } from '@/server/http/refusal';
import { route } from '@/server/http/route';

export const GET = route('GET /api/v1/screenings/[token]/notes', async ({ params, server }) => {
  const screening = await server.screenings.find(params.token!);
  if (!screening?.settings.guestBook) throw new Refusal(404, 'There is no guest book here.');
  return { notes: await server.screenings.book.seen(screening.id) };
});
