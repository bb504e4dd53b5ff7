/** Often enough that a broken connection is noticed soon. */
const KEEP_ALIVE_MS = 15_000;

/**
 * Server-sent events as an answer, until whoever asked has left.
 *
 * @param mayGoOn is asked again and again: who is signed out, or taken out of a show, hears nothing more
 * @param begin is given what sends an event; what it returns ends the listening
 */
export function eventStream<Event>(
  request: Request,
  mayGoOn: () => Promise<boolean>,
  begin: (tell: (event: Event) => void) => () => void,
): Response {
  const encoder = new TextEncoder();
  let end = () => {};
  const stream = new ReadableStream({
    start(controller) {
      const send = (text: string) => controller.enqueue(encoder.encode(text));
      send('retry: 1000\n\n');
      const stop = begin((event) => send(`data: ${JSON.stringify(event)}\n\n`));
      const timer = setInterval(() => {
        send(': still here\n\n');
        mayGoOn().then(
          (may) => {
            if (!may) leave();
          },
          // What cannot be looked up now is asked again.
          () => {},
        );
      }, KEEP_ALIVE_MS);
      let open = true;
      const leave = () => {
        if (!open) return;
        end();
        controller.close();
      };
      end = () => {
        open = false;
        stop();
        clearInterval(timer);
      };
      request.signal.addEventListener('abort', leave, { once: true });
    },
    cancel: () => end(),
  });
  return new Response(stream, {
    headers: { 'content-type': 'text/event-stream', 'cache-control': 'no-store', 'x-accel-buffering': 'no' },
  });
}
