import { faultOfSlide } from '@/core/show/faults';
import { assetId, showId } from '@/core/show/ids';
import { slidesBelow } from '@/core/show/mounted';
import { assetIdsOfSlides } from '@/core/show/show';
import { Refusal } from '@/server/http/refusal';
import { route } from '@/server/http/route';
import { shelfOf } from '@/server/reuse/shelf-of';
import type { Loan } from '@/server/http/routes';
import { mayDo, type Deed } from '@/server/studio/may-do';

/** Checks slides that are to be pasted, and puts their files onto this show's contact sheet from the one they come from. */
export const POST = route<Loan>('POST /api/v1/shows/[show]/loans', async ({ params, body, server, person }) => {
  const [id, from] = [showId(params.show!), showId(body.from)];
  const isTheirs = (deed: Deed) => mayDo(server.db, person, deed, { show: from });
  if (!(await isTheirs('bring-back-show')) && !(await isTheirs('see-show')))
    throw new Refusal(404, 'The show these slides come from is not there.');
  for (const slide of body.slides) {
    const fault = faultOfSlide(slide);
    if (fault) throw new Refusal(422, `These slides cannot be pasted: ${fault}.`);
  }
  const added = await server.sheet.borrow(
    id,
    from,
    [...assetIdsOfSlides([...body.slides, ...slidesBelow(body.slides)]), ...(body.files ?? []).map(assetId)],
    from === shelfOf(person.studioId) ? 'studio' : undefined,
  );
  return { added, entries: await server.sheet.entries(id) };
});
