import * as yup from 'yup';
import { answer, bodyOf, Refusal } from '@/server/answer';
import { runningServer } from '@/server/running-server';
import { closed } from '@/server/schema/parts';
import { showId } from '@/core/show/ids';

interface Context {
  params: Promise<{ show: string; version: string }>;
}

const change = closed({
  name: yup.string().trim().min(1).max(200).optional(),
  removed: yup.boolean().optional(),
}) as unknown as yup.Schema<{ name?: string; removed?: boolean }>;
const NO_VERSION = 'There is no such version.';

export function GET(request: Request, { params }: Context): Promise<Response> {
  return answer(request, async () => {
    const { show, version } = await params;
    const found = await (await runningServer()).versions.load(showId(show), version);
    if (!found) throw new Refusal(404, NO_VERSION);
    return found;
  });
}

/** Renames a version, takes it off the list or puts it back. */
export function PATCH(request: Request, { params }: Context): Promise<Response> {
  return answer(request, async () => {
    const { name, removed } = await bodyOf(request, change);
    const { show, version } = await params;
    const { versions } = await runningServer();
    if (name !== undefined && !(await versions.rename(showId(show), version, name))) throw new Refusal(404, NO_VERSION);
    if (removed !== undefined && !(await versions.setRemoved(showId(show), version, removed)))
      throw new Refusal(404, NO_VERSION);
    return {};
  });
}
