import { showId } from '@/core/show/ids';
import { bytesOf } from '@/server/http/body';
import { Refusal } from '@/server/http/refusal';
import { route } from '@/server/http/route';

/** A minute at 192,000 samples a second. */
const MOST_BYTES = 48 * 1024 * 1024;

export const POST = route('POST /api/v1/shows/[show]/takes/[take]/samples', async ({ request, params, server }) => {
  const from = Number(new URL(request.url).searchParams.get('from') ?? NaN);
  if (!Number.isSafeInteger(from) || from < 0) throw new Refusal(422, '“from” must say which sample comes first.');
  const samples = await bytesOf(request, MOST_BYTES);
  return { sampleCount: await server.recording.add(showId(params.show!), params.take!, from, samples) };
});
