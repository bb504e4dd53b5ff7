import { randomUUID } from 'node:crypto';
import { mkdir, readFile, rename, writeFile } from 'node:fs/promises';
import path from 'node:path';

/** What a stand-in remembers, in a file of its own. */
export interface Kept<Value> {
  value(): Value;
  /** @returns once it is on the disk */
  change(by: (value: Value) => Value): Promise<void>;
}

/** Opens it. One that cannot be read is put aside and begun anew: a stand-in holds nothing that is not elsewhere as well. */
export async function openKept<Value>(file: string, empty: Value): Promise<Kept<Value>> {
  await mkdir(path.dirname(file), { recursive: true });
  let value = empty;
  const text = await readFile(file, 'utf8').catch(() => null);
  if (text !== null)
    try {
      value = { ...empty, ...(JSON.parse(text) as Value) };
    } catch {
      await rename(file, `${file}.broken`);
    }
  let last: Promise<void> = Promise.resolve();
  return {
    value: () => value,
    change(by) {
      value = by(value);
      const written = last.then(async () => {
        const part = `${file}.${randomUUID()}`;
        await writeFile(part, JSON.stringify(value));
        await rename(part, file);
      });
      last = written.catch(() => {});
      return written;
    },
  };
}
