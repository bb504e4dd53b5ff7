/** Of a film in another site’s page, where nothing else is said: pixels wide. */
export const USUAL_EMBED_PX = 640;

export interface Embed {
  readonly html: string;
  readonly width: number;
  readonly height: number;
}

/** The code with which another site shows a film in its page: as wide as usual, no larger than it may be, in the film’s own shape. */
export function embedOf(
  address: string,
  title: string,
  frame: { readonly widthPx: number; readonly heightPx: number },
  mostWidth: number,
  mostHeight: number,
): Embed {
  const shape = frame.widthPx / frame.heightPx;
  const width = Math.max(
    1,
    Math.floor(Math.min(mostWidth === Infinity ? USUAL_EMBED_PX : mostWidth, mostHeight * shape)),
  );
  const height = Math.round(width / shape);
  return {
    width,
    height,
    html: `<iframe src="${escaped(address)}" width="${width}" height="${height}" title="${escaped(title)}" allow="fullscreen; picture-in-picture" allowfullscreen style="border:0"></iframe>`,
  };
}

function escaped(value: string): string {
  return value.replaceAll('&', '&amp;').replaceAll('"', '&quot;').replaceAll('<', '&lt;').replaceAll('>', '&gt;');
}
