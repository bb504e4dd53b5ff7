import type { SheetEntry } from '../assets/contact-sheet';
import { isRefusal } from '../http/refusal';
import { logger } from '../logger';

export type BandLine =
  | { readonly share: number }
  | { readonly entry: SheetEntry }
  /** The sentence is for the person. */
  | { readonly problem: string };

/** An answer that tells how far the band is, line by line; it stops playing when whoever asked has left. */
export function playedAsLines(
  asked: AbortSignal,
  play: (onProgress: (share: number) => void, signal: AbortSignal) => Promise<SheetEntry>,
): Response {
  const encoder = new TextEncoder();
  const left = new AbortController();
  const signal = AbortSignal.any([asked, left.signal]);
  const stream = new ReadableStream({
    async start(controller) {
      const say = (line: BandLine) => {
        if (!signal.aborted) controller.enqueue(encoder.encode(`${JSON.stringify(line)}\n`));
      };
      try {
        say({ share: 0 });
        say({ entry: await play((share) => say({ share: Math.round(100 * share) / 100 }), signal) });
      } catch (error) {
        if (signal.aborted) return;
        if (!isRefusal(error)) logger().error({ err: error }, 'the band could not play');
        say({ problem: isRefusal(error) ? error.message : 'Something went wrong here, and was noted. Try again.' });
      }
      if (!signal.aborted) controller.close();
    },
    cancel: () => left.abort(),
  });
  return new Response(stream, { headers: { 'content-type': 'application/x-ndjson', 'cache-control': 'no-store' } });
}
