import { Refusal } from '@/server/http/refusal';
import { route } from '@/server/http/route';

const NOBODY = 'Nobody of that name is here.';

export const PATCH = route<{ role: 'owner' | 'member' }>(
  'PATCH /api/v1/people/[account]',
  async ({ params, body, person, server }) => {
    if (!(await server.accounts.setRole(person.studioId, params.account!, body.role))) throw new Refusal(404, NOBODY);
    return {};
  },
);

export const DELETE = route('DELETE /api/v1/people/[account]', async ({ params, person, server }) => {
  if ((await server.accounts.remove(person.studioId, params.account!)) === null) throw new Refusal(404, NOBODY);
  return {};
});
