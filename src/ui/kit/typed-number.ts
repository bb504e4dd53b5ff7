/** A number as it was typed: with a point or a comma, perhaps with a unit after it. Null when it is none. */
export function numberTyped(text: string): number | null {
  const found = /^\s*([+\-−]?(?:\d+(?:[.,]\d*)?|[.,]\d+))\s*(?:%|°|[a-zµ]+)?\s*$/i.exec(text);
  return found ? Number(found[1]!.replace(',', '.').replace('−', '-')) : null;
}

/** Seconds as people type them: `4.5`, `4,5 s`, `1:30`, `1:02:03`, `2 min`, `1 min 30`, `1m30s`. Null when it is no length of time. */
export function secondsTyped(text: string): number | null {
  const clock = /^\s*(?:(\d+):)?(\d+):([0-5]?\d(?:[.,]\d+)?)\s*$/.exec(text);
  if (clock) return 3600 * Number(clock[1] ?? 0) + 60 * Number(clock[2]) + Number(clock[3]!.replace(',', '.'));
  const words =
    /^\s*(?:(\d+(?:[.,]\d+)?)\s*h(?:ours?)?)?\s*(?:(\d+(?:[.,]\d+)?)\s*m(?:in(?:utes?)?)?)?\s*(?:(\d+(?:[.,]\d+)?)\s*(?:s(?:ec(?:onds?)?)?)?)?\s*$/i.exec(
      text,
    );
  if (!words || (words[1] ?? words[2]) === undefined) {
    const plain = /^\s*([+\-−]?(?:\d+(?:[.,]\d*)?|[.,]\d+))\s*(?:s(?:ec(?:onds?)?)?)?\s*$/i.exec(text);
    return plain ? Number(plain[1]!.replace(',', '.').replace('−', '-')) : null;
  }
  const part = (value: string | undefined) => Number((value ?? '0').replace(',', '.'));
  return 3600 * part(words[1]) + 60 * part(words[2]) + part(words[3]);
}
