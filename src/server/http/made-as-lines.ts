import type { SheetEntry } from '../assets/contact-sheet';
import { isRefusal } from './refusal';
import { logger } from '../logger';

export type MadeLine =
  | { readonly share: number }
  | { readonly entry: SheetEntry }
  /** The sentence is for the person. */
  | { readonly problem: string };

/** An answer that tells line by line how far something is that comes onto the sheet; the making stops when whoever asked has left. */
export function madeAsLines(
  asked: AbortSignal,
  make: (onProgress: (share: number) => void, signal: AbortSignal) => Promise<SheetEntry>,
): Response {
  const encoder = new TextEncoder();
  const left = new AbortController();
  const signal = AbortSignal.any([asked, left.signal]);
  const stream = new ReadableStream({
    async start(controller) {
      const say = (line: MadeLine) => {
        if (!signal.aborted) controller.enqueue(encoder.encode(`${JSON.stringify(line)}\n`));
      };
      try {
        say({ share: 0 });
        say({ entry: await make((share) => say({ share: Math.round(100 * share) / 100 }), signal) });
      } catch (error) {
        if (signal.aborted) return;
        if (!isRefusal(error)) logger().error({ err: error }, 'something could not be made');
        say({ problem: isRefusal(error) ? error.message : 'Something went wrong here, and was noted. Try again.' });
      }
      if (!signal.aborted) controller.close();
    },
    cancel: () => left.abort(),
  });
  return new Response(stream, { headers: { 'content-type': 'application/x-ndjson', 'cache-control': 'no-store' } });
}
