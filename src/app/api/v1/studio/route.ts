import { Refusal } from '@/server/http/refusal';
import { route } from '@/server/http/route';
import type { NewProfile } from '@/server/http/routes';

export const dynamic = 'force-dynamic';

export const GET = route('GET /api/v1/studio', ({ person, server }) => server.studio.open(person.studioId));

export const PATCH = route<NewProfile>('PATCH /api/v1/studio', async ({ body, person, server }) => {
  const changed = await server.studio.setProfile(person.studioId, body.profile, body.knownRevision);
  if (!changed) throw new Refusal(409, 'The studio’s profile was changed in another window. Load it again.');
  return changed;
});
