import { showId } from '@/core/show/ids';
import { Refusal } from '@/server/http/refusal';
import { route } from '@/server/http/route';
import type { NewVersion } from '@/server/http/routes';
import { parseContent } from '@/server/schema/show-schema';

export const GET = route('GET /api/v1/shows/[show]/versions', async ({ params, server }) => ({
  versions: await server.versions.list(showId(params.show!)),
}));

export const POST = route<NewVersion>('POST /api/v1/shows/[show]/versions', async ({ params, body, server }) => {
  const loaded = await server.shows.load(showId(params.show!));
  if (!loaded) throw new Refusal(404, 'There is no such show.');
  if (!body.content) return server.versions.keep(loaded.show, body.name.trim(), 'kept');
  const content = parseContent(body.content);
  if (!content.ok) throw new Refusal(422, content.problem);
  return server.versions.keep({ ...loaded.show, ...content.value }, body.name.trim(), 'safety');
});
