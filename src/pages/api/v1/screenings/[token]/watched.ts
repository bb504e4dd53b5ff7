import { Refusal } from '@/server/http/refusal';
import { pagesRoute } from '@/server/http/pages-route';
import { countOne } from '@/server/http/limits';
import type { ToldViewing } from '@/server/screenings/viewings';

export const config = { api: { bodyParser: { sizeLimit: '32kb' } } };

export default pagesRoute<ToldViewing>(
  'POST /api/v1/screenings/[token]/watched',
  async ({ params, body, server: { screenings }, address }) => {
    const screening = await screenings.find(params.token!);
    if (!screening?.settings.counts) return {};
    if (!(await screenings.viewings.isKnown(body.id))) await countOne('viewing-from', address);
    if (!(await screenings.viewings.tell(screening.id, body, screening.films[0]!.lengthMs)))
      throw new Refusal(409, 'This viewing belongs to another screening.');
    return {};
  },
);
