import { showId } from '@/core/show/ids';
import type { ShowingCommand } from '@/core/showing/showing';
import { Refusal } from '@/server/http/refusal';
import { route } from '@/server/http/route';

export const dynamic = 'force-dynamic';

const KEEP_ALIVE_MS = 15_000;

/** Server-sent events: what remotes in the hall ask for. */
export const GET = route('GET /api/v1/shows/[show]/hall/events', async ({ request, params, server: { hall } }) => {
  if (!hall) throw new Refusal(404, 'The hall’s door is shut. Start Tanager with --hall to open it.');
  const encoder = new TextEncoder();
  let end = () => {};
  const stream = new ReadableStream({
    start(controller) {
      const send = (text: string) => controller.enqueue(encoder.encode(text));
      send('retry: 1000\n\n');
      const stop = hall.listen(showId(params.show!), (command: ShowingCommand) =>
        send(`data: ${JSON.stringify(command)}\n\n`),
      );
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
