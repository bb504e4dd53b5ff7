import { originOf } from '@/server/http/own-address';
import { route } from '@/server/http/route';

/** What a browser asks its device, as Web Authentication has it. */
export const POST = route('POST /api/v1/account/passkeys/asked', async ({ asked, person, server }) =>
  Response.json(await server.passkeys.toAdd(person.accountId, originOf(asked))),
);
