/// <reference lib="webworker" />
// Before the drawing worker opens the one that makes its plates: its code is a part of the page, and its parts come from the page too.
import { PAGE_PARTS } from '../../core/film/page-data';
import { partFromPage } from './from-the-page';
import { isPartsPort } from './part-messages';

const scope = self as unknown as DedicatedWorkerGlobalScope;
const address = URL.createObjectURL(await (await partFromPage(PAGE_PARTS.plates)).blob());

(self as unknown as { Worker: typeof Worker }).Worker = class extends Worker {
  constructor() {
    super(address);
    this.addEventListener('message', (event: MessageEvent<unknown>) => {
      if (!isPartsPort(event.data)) return;
      event.stopImmediatePropagation();
      scope.postMessage(event.data, [event.data.partsPort]);
    });
  }
};
