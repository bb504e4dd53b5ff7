import * as yup from 'yup';
import { answer, bodyOf } from '@/server/answer';
import { runningServer } from '@/server/running-server';
import { titleSchema } from '@/server/schema/show-schema';

const newShow = yup
  .object({ title: titleSchema().min(1) })
  .noUnknown()
  .required();

export function POST(request: Request): Promise<Response> {
  return answer(request, async () => {
    const { title } = await bodyOf(request, newShow);
    const { shows } = await runningServer();
    return { id: (await shows.create(title)).id };
  });
}
