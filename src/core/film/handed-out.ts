import { emptyShow, assetIdsOf, type Show, type Slide } from '../show/show';
import type { AssetFacts, FactsById } from '../show/asset-facts';
import type { FocusFacts } from '../focus/focus-facts';
import { showId } from '../show/ids';
import { filledSlide } from '../words/fields';

/** What is handed out with a page that plays. */
export interface HandedOut {
  readonly show: Show;
  readonly facts: FactsById;
}

/**
 * The least of a show from which every frame of it can be drawn as it is: what is only heard, read, marked or remembered stays at home, as does what files say
 * about where, when and with what they were taken.
 */
export function handedOut(show: Show, facts: FactsById): HandedOut {
  const { title, frame, temperament, focus, captionLook, language, watermark } = show;
  const bare: Show = {
    ...emptyShow(showId('handed-out'), title),
    frame,
    slides: show.slides.map((_, index) => bareSlide(filledSlide(show, facts, index), captionLook !== undefined)),
    ...(temperament && { temperament }),
    ...(captionLook && { captionLook }),
    ...(language && { language }),
    ...(watermark && { watermark }),
  };
  const seen = assetIdsOf(bare);
  const rings =
    focus && Object.fromEntries(seen.filter((id) => Object.hasOwn(focus, id)).map((id) => [id, focus[id]!]));
  return {
    show: rings && Object.keys(rings).length > 0 ? { ...bare, focus: rings } : bare,
    facts: new Map(
      seen.flatMap((id) => {
        const known = bareFacts(facts.get(id));
        return known ? [[id, known] as const] : [];
      }),
    ),
  };
}

function bareSlide({ id, lengthMs, transition, backing, layers, captions }: Slide, keepsCaptions: boolean): Slide {
  return {
    id,
    lengthMs,
    transition,
    backing,
    layers: JSON.parse(
      JSON.stringify(layers, (key, value: unknown) => (REMEMBERED.has(key) ? undefined : value)),
    ) as Slide['layers'],
    sounds: [],
    ...(keepsCaptions && captions && { captions }),
  };
}

/** Of layers: who chose what, and how they were before; and how they are in shapes the page does not have. */
const REMEMBERED: ReadonlySet<string> = new Set(['chosen', 'bare', 'shapes']);

function bareFacts(facts: AssetFacts | undefined): AssetFacts | null {
  if (!facts || facts.kind === 'sound') return null;
  if (facts.kind === 'clip') {
    const { listening: _heard, focus, ...rest } = facts;
    return { ...rest, ...bareFocus(focus), takenAt: null };
  }
  const { caption: _caption, place: _place, rating: _rating, likeness: _likeness, ...seen } = facts;
  const { meanColour: _mean, colours: _colours, focus, ...rest } = seen;
  return { ...rest, ...bareFocus(focus), takenAt: null, camera: null };
}

/** Where faces are, since moves go by it; not whether their eyes are open. */
function bareFocus(focus: FocusFacts | undefined): { readonly focus?: FocusFacts } {
  return focus ? { focus: { ...focus, faces: focus.faces.map(({ eyes: _eyes, ...face }) => face) } } : {};
}
