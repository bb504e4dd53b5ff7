import { route } from '@/server/http/route';

/** Whoever went to sign in elsewhere comes back here and is led on to the show. What they bring is good once, and only to whoever went. */
export const GET = route('GET /api/v1/channels/arrival', async ({ request, person, server }) => {
  const arrived = await server.channels.arrive(person, new URL(request.url).searchParams);
  const to = arrived ? `/shows/${arrived.show}/send#${arrived.letIn ? 'signed-in' : 'not-signed-in'}` : '/';
  return new Response(null, { status: 303, headers: { location: to } });
});
