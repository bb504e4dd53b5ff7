import type { NewBill } from '@/core/screening/bill';
import { Refusal } from '@/server/http/refusal';
import { route } from '@/server/http/route';

export const GET = route('GET /api/v1/bills', async ({ person: { studioId }, server: { bills } }) => ({
  bills: await bills.list(studioId),
  choices: await bills.choices(studioId),
}));

export const POST = route<NewBill>('POST /api/v1/bills', async ({ person, body, server }) => {
  const id = await server.bills.open(person.studioId, body);
  if (id === null) throw new Refusal(422, 'A screening that is to be on it is not there.');
  return { id };
});
