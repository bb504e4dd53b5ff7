import { Refusal } from '@/server/http/refusal';
import { route } from '@/server/http/route';

export const dynamic = 'force-dynamic';

/** What lies in `?folder=` below the opened folder of the server's disk. */
export const GET = route('GET /api/v1/folders', async ({ request, server }) => {
  const listing = await server.folders.list((new URL(request.url).searchParams.get('folder') ?? '').slice(0, 4000));
  if (listing) return listing;
  throw new Refusal(
    404,
    'There is no such folder on the server, or none was opened for this: name one in TANAGER_FOLDER.',
  );
});
