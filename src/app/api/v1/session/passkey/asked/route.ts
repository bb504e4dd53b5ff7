import { originOf } from '@/server/http/own-address';
import { route } from '@/server/http/route';

/** What a browser asks its device, as Web Authentication has it. */
export const POST = route('POST /api/v1/session/passkey/asked', async ({ asked, server }) =>
  Response.json(await server.passkeys.toSignIn(originOf(asked))),
);
