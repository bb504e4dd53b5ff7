import { route } from '@/server/http/route';

/** What clearing away would free. */
export const GET = route('GET /api/v1/unused', ({ server, person }) => server.clearing.look(person.studioId));

/** Takes away for good what was taken off the shelf, and the files that nothing else uses. */
export const DELETE = route('DELETE /api/v1/unused', ({ server, person }) => server.clearing.clear(person.studioId));
