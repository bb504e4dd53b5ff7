import { route } from '@/server/http/route';
import type { ShowEvent } from '@/server/events';
import { showId } from '@/core/show/ids';

export const dynamic = 'force-dynamic';

/** Often enough that a broken connection is noticed soon. */
const KEEP_ALIVE_MS = 15_000;

/** Server-sent events: whether the page is still right, and from then on what changes. */
export const GET = route('GET /api/v1/shows/[show]/events', async ({ request, params, server: { events, sheet } }) => {
  const show = showId(params.show!);
  const encoder = new TextEncoder();
  let end = () => {};
  const stream = new ReadableStream({
    start(controller) {
      const send = (text: string) => controller.enqueue(encoder.encode(text));
      send('retry: 1000\n\n');
      const tell = (event: ShowEvent) => send(`data: ${JSON.stringify(event)}\n\n`);
      const stop = events.listen(show, tell);
      // Counted once it is listened, so that nothing falls between; a page that has left meanwhile needs no answer.
      void sheet
        .tally(show)
        .then((tally) => tell({ kind: 'hello', ...tally }))
        .catch(() => {});
      const timer = setInterval(() => send(': still here\n\n'), KEEP_ALIVE_MS);
      end = () => {
        stop();
        clearInterval(timer);
      };
      request.signal.addEventListener(
        'abort',
        () => {
          end();
          controller.close();
        },
        { once: true },
      );
    },
    cancel: () => end(),
  });
  return new Response(stream, {
    headers: { 'content-type': 'text/event-stream', 'cache-control': 'no-store', 'x-accel-buffering': 'no' },
  });
});
