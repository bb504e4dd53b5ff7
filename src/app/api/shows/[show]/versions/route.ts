import * as yup from 'yup';
import { answer, bodyOf, Refusal } from '@/server/answer';
import { runningServer } from '@/server/running-server';
import { closed } from '@/server/schema/parts';
import { contentSchema } from '@/server/schema/show-schema';
import { showId } from '@/core/show/ids';
import type { ShowContent } from '@/core/show/show';

interface Context {
  params: Promise<{ show: string }>;
}

/** Without `content` the show is kept as it stands on the server; with it, as a window had it whose edits could not be joined. */
const newVersion = closed({
  name: yup.string().trim().min(1).max(200).required(),
  content: yup.lazy((value: unknown) => (value === undefined ? yup.mixed().optional() : contentSchema())),
}) as unknown as yup.Schema<{ name: string; content?: ShowContent }>;

export function GET(request: Request, { params }: Context): Promise<Response> {
  return answer(request, async () => ({
    versions: await (await runningServer()).versions.list(showId((await params).show)),
  }));
}

export function POST(request: Request, { params }: Context): Promise<Response> {
  return answer(request, async () => {
    const { name, content } = await bodyOf(request, newVersion);
    const { versions, shows } = await runningServer();
    const loaded = await shows.load(showId((await params).show));
    if (!loaded) throw new Refusal(404, 'There is no such show.');
    return versions.keep(content ? { ...loaded.show, ...content } : loaded.show, name, content ? 'safety' : 'kept');
  });
}
