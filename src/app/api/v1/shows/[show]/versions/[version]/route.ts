import { showId } from '@/core/show/ids';
import { Refusal } from '@/server/http/refusal';
import { route } from '@/server/http/route';

const NO_VERSION = 'There is no such version.';

export const GET = route('GET /api/v1/shows/[show]/versions/[version]', async ({ params, server }) => {
  const found = await server.versions.load(showId(params.show!), params.version!);
  if (!found) throw new Refusal(404, NO_VERSION);
  return found;
});

/** Renames a version, takes it off the list or puts it back. */
export const PATCH = route<{ name?: string; removed?: boolean }>(
  'PATCH /api/v1/shows/[show]/versions/[version]',
  async ({ params, body: { name, removed }, server: { versions } }) => {
    const [show, version] = [showId(params.show!), params.version!];
    if (name !== undefined && !(await versions.rename(show, version, name.trim()))) throw new Refusal(404, NO_VERSION);
    if (removed !== undefined && !(await versions.setRemoved(show, version, removed)))
      throw new Refusal(404, NO_VERSION);
    return {};
  },
);
