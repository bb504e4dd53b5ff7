import type { BillChange } from '@/core/screening/bill';
import { Refusal } from '@/server/http/refusal';
import { route } from '@/server/http/route';

const GONE = 'There is no such page.';

export const PATCH = route<BillChange>('PATCH /api/v1/bills/[bill]', async ({ params, person, body, server }) => {
  const done = await server.bills.change(person.studioId, params.bill!, body);
  if (done === 'screenings') throw new Refusal(422, 'A screening that is to be on it is not there.');
  if (!done) throw new Refusal(404, GONE);
  return {};
});

/** Its screenings stay. */
export const DELETE = route('DELETE /api/v1/bills/[bill]', async ({ params, person, server }) => {
  if (!(await server.bills.remove(person.studioId, params.bill!))) throw new Refusal(404, GONE);
  return {};
});
