import type { SheetEntry } from '../../server/assets/contact-sheet';
import type { MadeLine } from '../../server/http/made-as-lines';
import { answerOf, ServerRefusal } from './call-server';
import type { ShowStore } from './show-store';

/**
 * Has the server make a file that comes onto the show's sheet, and tells how far it is.
 *
 * @param path under the show's own address
 * @throws {ServerRefusal} when it will not; a TypeError when the server cannot be reached, or the answer broke off
 */
export async function madeOnServer(
  store: ShowStore,
  path: string,
  wishes: unknown,
  { signal, onProgress }: { readonly signal: AbortSignal; onProgress?(share: number): void },
): Promise<SheetEntry> {
  const { show, mergeEntries } = store.getState();
  const response = await fetch(`/api/v1/shows/${show.id}/${path}`, {
    method: 'POST',
    headers: { 'content-type': 'application/json' },
    body: JSON.stringify(wishes),
    signal,
  });
  if (!response.ok || !response.body) return answerOf<never>(response);
  const reader = response.body.pipeThrough(new TextDecoderStream()).getReader();
  let text = '';
  for (;;) {
    const { done, value } = await reader.read();
    if (done) throw new TypeError('The answer of the server broke off.');
    text += value;
    const lines = text.split('\n');
    text = lines.pop()!;
    for (const line of lines) {
      const said = JSON.parse(line) as MadeLine;
      if ('share' in said) onProgress?.(said.share);
      else if ('problem' in said) throw new ServerRefusal(422, said.problem);
      else {
        mergeEntries([said.entry]);
        return said.entry;
      }
    }
  }
}
