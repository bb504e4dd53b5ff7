/// <reference lib="webworker" />
// What the viewer's workers fetch from a server they get from the page here: its parts stand for the addresses. Comes before everything that fetches.
import { PAGE_PARTS } from '../../core/film/page-data';
import type { PartAsked, PartGiven, PartsPort } from './part-messages';

const scope = self as unknown as DedicatedWorkerGlobalScope;
const { port1: mine, port2: pages } = new MessageChannel();
const waiting = new Map<number, (given: PartGiven) => void>();
let counted = 0;

mine.onmessage = ({ data }: MessageEvent<PartGiven>) => {
  waiting.get(data.id)?.(data);
  waiting.delete(data.id);
};
scope.postMessage({ partsPort: pages } satisfies PartsPort, [pages]);

export async function partFromPage(name: string): Promise<Response> {
  counted += 1;
  const id = counted;
  const given = await new Promise<PartGiven>((resolve) => {
    waiting.set(id, resolve);
    mine.postMessage({ id, name } satisfies PartAsked);
  });
  if ('missing' in given) return new Response(null, { status: 404 });
  return new Response(given.bytes, { headers: { 'content-type': given.mime, 'x-frame-lengths': given.note } });
}

/** The part that stands for an address. */
function partAt(url: string): string {
  const found = ADDRESSES.find(([pattern]) => pattern.test(url));
  if (!found) throw new Error(`nothing on this page stands for ${url}`);
  const [, one = '', other = ''] = found[0].exec(url)!;
  return found[1](one, other);
}

const ADDRESSES: readonly (readonly [RegExp, (one: string, other: string) => string])[] = [
  [/kernels\.wasm$/, () => PAGE_PARTS.kernels],
  [/harfbuzz\.wasm$/, () => PAGE_PARTS.shaping],
  [/\/fonts\/index\.json$/, () => PAGE_PARTS.fonts],
  [/\/fonts\/([\w-]+)\.ttf$/, PAGE_PARTS.font],
  [/\/pictures\/([0-9a-f]+)\?/, PAGE_PARTS.picture],
  [/\/clips\/([0-9a-f]+)\/(\d+)$/, (id, second) => PAGE_PARTS.clip(id, Number(second))],
];

scope.fetch = (input) => partFromPage(partAt(String(input)));
