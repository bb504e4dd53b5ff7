/** Often enough that a broken connection is noticed soon. */
const KEEP_ALIVE_MS = 15_000;

/**
 * Server-sent events as an answer, until whoever asked has left.
 *
 * @param begin is given what sends an event; what it returns ends the listening
 */
export function eventStream<Event>(request: Request, begin: (tell: (event: Event) => void) => () => void): Response {
  const encoder = new TextEncoder();
  let end = () => {};
  const stream = new ReadableStream({
    start(controller) {
      const send = (text: string) => controller.enqueue(encoder.encode(text));
      send('retry: 1000\n\n');
      const stop = begin((event) => send(`data: ${JSON.stringify(event)}\n\n`));
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
}
