import { thereOf } from '@/server/disc/asked';
import { route } from '@/server/http/route';

/** What is printed on it, as a sheet of PDF. */
export const GET = route('GET /api/v1/discs/[disc]/label', async ({ params, person, server }) => {
  const { title, pdf } = thereOf(await server.discs.label(person.studioId, params.disc!));
  return new Response(pdf.slice(), {
    headers: {
      'content-type': 'application/pdf',
      'cache-control': 'no-store',
      'content-disposition': `inline; filename="label.pdf"; filename*=UTF-8''${encodeURIComponent(`${title}, label.pdf`)}`,
    },
  });
});
