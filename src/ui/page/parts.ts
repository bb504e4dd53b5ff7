/** A part of the page: what lies in a script beside it. */
export interface Part {
  readonly mime: string;
  readonly bytes: Uint8Array<ArrayBuffer>;
  /** Of a clip's second: the lengths of its frames. */
  readonly note: string;
}

/** Parts are kept up to this; others are read from the disk again. */
const MOST_BYTES = 96 * 1024 * 1024;

type Said = (name: string, mime: string, base64: string, note: string) => void;

/**
 * Reads parts by running their scripts, the one way in which a page opened from a disk gets at what lies beside it.
 *
 * @returns null for a part that is not there
 */
export function openParts(): (name: string) => Promise<Part | null> {
  const kept = new Map<string, Part>();
  const underWay = new Map<string, Promise<Part | null>>();
  const said = new Map<string, Part>();
  (window as unknown as { part: Said }).part = (name, mime, base64, note) => {
    said.set(name, { mime, bytes: bytesOf(base64), note });
  };
  return (name) => {
    const known = kept.get(name);
    if (known) {
      // What was used last is let go last.
      kept.delete(name);
      kept.set(name, known);
      return Promise.resolve(known);
    }
    const running = underWay.get(name) ?? run(name).finally(() => underWay.delete(name));
    underWay.set(name, running);
    return running;
  };

  function run(name: string): Promise<Part | null> {
    return new Promise((resolve) => {
      const script = document.createElement('script');
      const end = (part: Part | null) => {
        script.remove();
        said.delete(name);
        if (part) keep(name, part);
        resolve(part);
      };
      script.onload = () => end(said.get(name) ?? null);
      script.onerror = () => end(null);
      script.src = `parts/${encodeURIComponent(name)}.js`;
      document.head.append(script);
    });
  }

  function keep(name: string, part: Part): void {
    kept.set(name, part);
    let bytes = 0;
    for (const one of kept.values()) bytes += one.bytes.length;
    for (const [oldest, { bytes: of }] of kept) {
      if (bytes <= MOST_BYTES || oldest === name) return;
      kept.delete(oldest);
      bytes -= of.length;
    }
  }
}

function bytesOf(base64: string): Uint8Array<ArrayBuffer> {
  const text = atob(base64);
  const bytes = new Uint8Array(text.length);
  for (let at = 0; at < text.length; at += 1) bytes[at] = text.charCodeAt(at);
  return bytes;
}
