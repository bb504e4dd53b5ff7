import * as yup from 'yup';
import { answer, bodyOf, Refusal } from '@/server/answer';
import { runningServer } from '@/server/running-server';
import { editSchema } from '@/server/schema/edit-schema';
import { showId } from '@/core/show/ids';
import type { ShowEdit } from '@/core/show/edit';

const sentEdits = yup
  .object({
    knownRevision: yup.number().integer().min(0).max(1e12).required(),
    basedOn: yup.number().integer().min(0).max(1e12).optional(),
    edits: yup
      .array(
        yup
          .object({
            editId: yup
              .string()
              .matches(/^[\w-]{8,40}$/)
              .required(),
            edit: editSchema(),
          })
          .noUnknown()
          .required(),
      )
      .max(1000)
      .defined(),
  })
  .noUnknown()
  .required() as unknown as yup.Schema<{
  knownRevision: number;
  basedOn?: number;
  edits: { editId: string; edit: ShowEdit }[];
}>;

export function POST(request: Request, { params }: { params: Promise<{ show: string }> }): Promise<Response> {
  return answer(request, async () => {
    const { knownRevision, basedOn, edits } = await bodyOf(request, sentEdits);
    const { shows } = await runningServer();
    const applied = await shows.applyEdits(showId((await params).show), edits, knownRevision, basedOn);
    if (!applied) throw new Refusal(404, 'There is no such show.');
    return applied;
  });
}
