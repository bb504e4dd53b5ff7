import * as yup from 'yup';
import { answer, bodyOf, Refusal } from '@/server/answer';
import { runningServer } from '@/server/running-server';
import { closed, idSchema } from '@/server/schema/parts';
import { MOST_SLIDES, slideSchema } from '@/server/schema/show-schema';
import { showId } from '@/core/show/ids';
import { assetIdsOfSlides, type Slide } from '@/core/show/show';

const loan = closed({
  from: idSchema(),
  slides: yup.array(slideSchema()).min(1).max(MOST_SLIDES).required(),
}) as unknown as yup.Schema<{ from: string; slides: Slide[] }>;

/** Checks slides that are to be pasted, and puts their files onto this show's contact sheet from the one they come from. */
export function POST(request: Request, { params }: { params: Promise<{ show: string }> }): Promise<Response> {
  return answer(request, async () => {
    const { from, slides } = await bodyOf(request, loan);
    const { sheet, shows } = await runningServer();
    const id = showId((await params).show);
    if (!(await shows.load(id))) throw new Refusal(404, 'There is no such show.');
    const added = await sheet.borrow(id, showId(from), assetIdsOfSlides(slides));
    return { added, entries: await sheet.entries(id) };
  });
}
