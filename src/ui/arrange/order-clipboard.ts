import type { Slide } from '../../core/show/show';

/** What is put on the clipboard beside the plain words: the slides themselves, and the show whose sheet their files are on. */
export interface CopiedSlides {
  readonly showId: string;
  readonly slides: readonly Slide[];
}

const KIND = 'application/x-tanager-slides';

/** What this window put there last: it needs no checking. */
let putHere = '';

/** Puts slides on the clipboard of a copy or cut event; other programs get their words. */
export function putSlides(data: DataTransfer, copied: CopiedSlides): void {
  putHere = JSON.stringify(copied);
  data.setData(KIND, putHere);
  const words = copied.slides.flatMap((slide) =>
    slide.layers.flatMap((layer) =>
      layer.kind === 'words' ? [[layer.title, layer.subtitle].filter(Boolean).join(' · ')] : [],
    ),
  );
  data.setData(
    'text/plain',
    words.length > 0 ? words.join('\n') : `${copied.slides.length} ${copied.slides.length === 1 ? 'slide' : 'slides'}`,
  );
}

/** The slides on the clipboard, or null when there are none. Unless `ownWork`, anybody may have put them there, and the server must check them first. */
export function slidesOn(data: DataTransfer): (CopiedSlides & { readonly ownWork: boolean }) | null {
  const text = data.getData(KIND);
  if (text === '') return null;
  try {
    const copied = JSON.parse(text) as Partial<CopiedSlides> | null;
    return typeof copied?.showId === 'string' && Array.isArray(copied.slides) && copied.slides.length > 0
      ? { ...(copied as CopiedSlides), ownWork: text === putHere }
      : null;
  } catch {
    // Another program may put anything there.
    return null;
  }
}
