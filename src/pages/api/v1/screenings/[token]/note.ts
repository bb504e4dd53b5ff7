import type { NewNote } from '@/core/screening/screening-settings';
import { Refusal } from '@/server/http/refusal';
import { pagesRoute } from '@/server/http/pages-route';
import { countOne } from '@/server/http/limits';

export const config = { api: { bodyParser: { sizeLimit: '16kb' } } };

export default pagesRoute<NewNote>(
  'POST /api/v1/screenings/[token]/note',
  async ({ params, body, server: { screenings }, address }) => {
    const screening = await screenings.find(params.token!);
    if (!screening?.settings.guestBook) throw new Refusal(404, 'There is no guest book here.');
    if (body.atMs > screening.films[0]!.lengthMs) throw new Refusal(422, 'The film is not that long.');
    if (body.website) throw new Refusal(422, 'This looks like a program. Leave the field for the website empty.');
    await countOne('note-from', address);
    await countOne('note-for', screening.id);
    return screenings.book.leave(screening.id, screening.show, body, await screenings.slideAt(screening, body.atMs));
  },
);
