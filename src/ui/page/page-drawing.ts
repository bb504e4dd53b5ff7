import { PAGE_PARTS, type PageData } from '../../core/film/page-data';
import type { FromWorker, ToWorker } from '../viewer/worker-messages';
import type { Part } from './parts';
import { isPartsPort, type PartAsked, type PartGiven } from './part-messages';

/** The worker that draws the page's frames. */
export interface PageDrawing {
  tell(message: ToWorker, transfer?: Transferable[]): void;
  onMessage(hear: (message: FromWorker) => void): void;
}

/** Starts the drawing; there once it hears. Workers of a page from a disk come from its own memory, which no address outside it can read. */
export async function openPageDrawing(
  data: PageData,
  partOf: (name: string) => Promise<Part | null>,
): Promise<PageDrawing> {
  const code = await partOf(PAGE_PARTS.drawing);
  if (!code) throw new Error('A part of this page is missing. Unpack the whole folder, then open it again.');
  const worker = new Worker(URL.createObjectURL(new Blob([code.bytes], { type: 'text/javascript' })));
  const hearing = new Set<(message: FromWorker) => void>();
  await new Promise<void>((resolve, reject) => {
    worker.onerror = (event) => reject(new Error(event.message || 'This browser cannot draw the show.'));
    worker.onmessage = ({ data: said }: MessageEvent<FromWorker | { partsPort: MessagePort }>) => {
      if (isPartsPort(said)) return give(said.partsPort, partOf);
      if (said.kind === 'ready') resolve();
      for (const hear of hearing) hear(said);
    };
  });
  worker.postMessage({ kind: 'show', show: data.show, facts: new Map(data.facts) } satisfies ToWorker);
  return {
    tell: (message, transfer = []) => worker.postMessage(message, transfer),
    onMessage: (hear) => void hearing.add(hear),
  };
}

function give(port: MessagePort, partOf: (name: string) => Promise<Part | null>): void {
  port.onmessage = ({ data: { id, name } }: MessageEvent<PartAsked>) => {
    void partOf(name).then((part) => {
      port.postMessage((part ? { id, ...part } : { id, missing: true }) satisfies PartGiven);
    });
  };
}
