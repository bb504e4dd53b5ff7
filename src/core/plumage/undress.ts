import { isHeld, withChooser } from '../show/chosen';
import type { MountRole } from '../show/mounted';
import { mapped } from '../show/pile';
import type { Layer } from '../show/layer';
import type { BareSlide, Show, Slide } from '../show/show';
import type { WordsStyle } from '../show/words';
import { isChangedByHand } from '../mounts/sum';
import { withTakenOff } from '../mounts/take-off';
import { slidesOfRun, writtenOn } from '../mounts/relay';
import { plumageCome, plumageStyle } from './plumage-words';
import type { Plumage } from './plumage';

/**
 * The show as it would be without its plumage, and what its mounts were given to say. What a hand set stays as it is.
 *
 * @param keepsWritten it comes off for good: mounts whose words a person wrote stay, as if a person had laid them
 */
export function undressed(
  show: Show,
  keepsWritten = false,
): { readonly show: Show; readonly said: Readonly<Record<string, string>> } {
  const { plumage, ...bare } = show;
  if (!plumage) return { show, said: {} };
  const said: Record<string, string> = { ...plumage.said };
  const runs = new Set<string>();
  const stay = new Set<string>();
  for (const slide of show.slides) {
    const { mounted } = slide;
    if (!mounted?.role || runs.has(mounted.run) || stay.has(mounted.run)) continue;
    const own = slidesOfRun(show, mounted.run);
    if (own.some(isChangedByHand)) continue;
    const written = Object.entries(writtenOn(own));
    for (const [name, text] of written) said[saidKey(mounted.role, chapterOf(own), name)] = text;
    if (keepsWritten && written.length > 0) stay.add(mounted.run);
    else runs.add(mounted.run);
  }
  let spare = 0;
  const off = withTakenOff(bare, runs, () => `plumage-back-${(spare += 1)}`).show;
  const { temperament, ...rest } = off;
  const isOurs = (temperament ?? 'even') === plumage.is.temperament;
  const was = isOurs ? plumage.bare.temperament : (temperament ?? null);
  return {
    show: {
      ...rest,
      ...(was !== null && { temperament: was }),
      slides: off.slides.map((slide) => withoutRole(undressedSlide(slide, plumage.is, keepsWritten), stay)),
    },
    said,
  };
}

function withoutRole(slide: Slide, runs: ReadonlySet<string>): Slide {
  if (!slide.mounted || !runs.has(slide.mounted.run)) return slide;
  const { role: _role, ...mounted } = slide.mounted;
  return { ...slide, mounted };
}

/** Under which name what a mount of the plumage says is kept: by its part in the show, and by chapter. */
export function saidKey(role: MountRole, chapter: string, name: string): string {
  return [role, chapter, name].join(' · ').slice(0, 400);
}

/** The chapter a mount of the plumage opens; empty for those that open none. */
function chapterOf(run: readonly Slide[]): string {
  return run[0]?.mounted?.role === 'chapter' ? (run.find((slide) => slide.chapter)?.chapter ?? '') : '';
}

/**
 * @param final it is not dressed again: what a hand holds then forgets how it was before. Otherwise that is kept, for when it is let go.
 */
function undressedSlide(slide: Slide, plumage: Plumage, final: boolean): Slide {
  const layers = mapped(slide.layers, (layer) => undressedLayer(layer, plumage, final));
  let after: Slide = layers === slide.layers ? slide : { ...slide, layers };
  if (!after.bare) return after;
  const { bare, ...rest } = after;
  after = rest;
  const held: { -readonly [Part in keyof BareSlide]: BareSlide[Part] } = {};
  if (bare.transition) {
    if (isHeld(slide, 'transition')) held.transition = bare.transition;
    else after = withChooser({ ...after, transition: bare.transition }, 'transition', null);
  }
  if (bare.backing) {
    if (isHeld(slide, 'backing')) held.backing = bare.backing;
    else after = withChooser({ ...after, backing: bare.backing }, 'backing', null);
  }
  return final || Object.keys(held).length === 0 ? after : { ...after, bare: held };
}

function undressedLayer(layer: Layer, plumage: Plumage, final: boolean): Layer {
  if (!layer.bare) return layer;
  const { bare, ...rest } = layer;
  let after = rest as Layer;
  if (bare.move && after.kind === 'picture') {
    if (!isHeld(layer, 'move')) after = { ...after, move: bare.move };
    else if (!final) after = { ...after, bare: { move: bare.move } };
  }
  if (after.kind === 'words') {
    if (bare.style !== undefined) {
      const own = ownStyle(after.style ?? {}, bare.style ?? {}, plumage);
      const { style: _style, ...unstyled } = after;
      after = bare.style === null && Object.keys(own).length === 0 ? unstyled : { ...unstyled, style: own };
    }
    if (bare.come !== undefined && JSON.stringify(after.come) === JSON.stringify(plumageCome(plumage))) {
      const { come: _come, ...uncome } = after;
      after = bare.come === null ? uncome : { ...uncome, come: bare.come };
    }
  }
  return after;
}

/** What a person chose about words themselves: what they had before, and what is not as the plumage has it. */
function ownStyle<Style extends WordsStyle<never>>(now: object, before: object, plumage: Plumage): Style {
  const ours = plumageStyle(plumage) as Record<string, unknown>;
  const had = before as Record<string, unknown>;
  const own = Object.entries(now).filter(
    ([name, value]) => name in had || JSON.stringify(value) !== JSON.stringify(ours[name]),
  );
  // In the order they had.
  const order = [...Object.keys(had), ...own.map(([name]) => name)];
  return Object.fromEntries(
    [...new Set(order)].flatMap((name) => own.filter(([other]) => other === name)),
  ) as unknown as Style;
}
