import * as yup from 'yup';
import { answer, bodyOf, Refusal } from '@/server/answer';
import { runningServer } from '@/server/running-server';
import { showId } from '@/core/show/ids';
import { FILM_HEIGHTS } from '@/core/film/plan-film';

const order = yup
  .object({ heightPx: yup.number().oneOf(FILM_HEIGHTS).required() })
  .noUnknown()
  .required();

export function GET(request: Request, { params }: { params: Promise<{ show: string }> }): Promise<Response> {
  return answer(request, async () => {
    const { films } = await runningServer();
    return { films: await films.list(showId((await params).show)) };
  });
}

export function POST(request: Request, { params }: { params: Promise<{ show: string }> }): Promise<Response> {
  return answer(request, async () => {
    const { heightPx } = await bodyOf(request, order);
    const { films, shows } = await runningServer();
    const loaded = await shows.load(showId((await params).show));
    if (!loaded) throw new Refusal(404, 'There is no such show.');
    if (loaded.show.slides.length === 0)
      throw new Refusal(409, 'The show has no slides yet. Lay some pictures into the order first.');
    return { id: await films.order(loaded.show, heightPx) };
  });
}
