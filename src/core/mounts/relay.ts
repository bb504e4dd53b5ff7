import { everyLayer } from '../show/layer';
import type { Show, Slide } from '../show/show';
import { groundOf, withMount, type Ground, type Laid, type LayMount } from './lay-mount';
import type { Mount } from './mount';

/** What the fillable words of a run say now, by name. */
export function saidOn(slides: readonly Slide[]): Record<string, string> {
  const said: Record<string, string> = {};
  for (const slide of slides)
    for (const { layerId, part, name } of slide.mounted?.words ?? [])
      for (const layer of everyLayer(slide.layers))
        if (layer.id === layerId && layer.kind === 'words') said[name] = layer[part];
  return said;
}

/** Those of them that a person wrote: said when it was laid, or changed since. */
export function writtenOn(slides: readonly Slide[]): Record<string, string> {
  const said = saidOn(slides);
  const given = slides.find(({ mounted }) => mounted?.said)?.mounted?.said ?? {};
  const written = new Set(Object.keys(given));
  for (const slide of slides)
    for (const { layerId, name } of slide.mounted?.words ?? [])
      for (const layer of everyLayer(slide.layers))
        if (layer.id === layerId && layer.chosen?.words === 'hand') written.add(name);
  return Object.fromEntries(Object.entries(said).filter(([name]) => written.has(name)));
}

/** The slides of a run, in order. */
export function slidesOfRun(show: Show, run: string): Slide[] {
  return show.slides.filter(({ mounted }) => mounted?.run === run);
}

/** A run laid again as it lies, under the same ids: in another look, or as its mount has become. Pictures, words a person wrote and lengths stay. */
export function withRelaid(
  show: Show,
  run: string,
  given: Omit<LayMount, 'newId' | 'said' | 'fit' | 'dealt' | 'mount'> & { readonly mount: Mount },
): Laid {
  const slides = slidesOfRun(show, run);
  const first = slides[0]?.mounted;
  if (!first) return { ok: false, sentence: 'That mount does not lie there any more.' };
  const ids: string[] = [run, ...slides.map(({ id }) => id)];
  let spare = 0;
  const spareId = () => `${run}-${(spare += 1)}`.slice(-40);
  let next = 0;
  const ground = groundOf(
    show,
    slides.map(({ id }) => id),
    spareId,
  );
  const fit = given.mount.fits(show.frame, given.look).find(({ name }) => name === first.fit);
  if (!fit) return { ok: false, sentence: `“${first.mount.name}” has no fit “${first.fit}” any more.` };
  const filled = first.filled ?? [];
  const known = filled.every((at) => at === null || at < ground.subjects.length);
  const isBeside = fit.windows.every(({ takes }) => takes !== 'picture');
  const laid = withMount(isBeside ? besideGround(show, slides, ground, given.mount.goes) : ground, {
    ...given,
    fit: fit.name,
    ...(known && !isBeside && { dealt: { runs: [{ fit, filled }], left: [] } }),
    said: writtenOn(slides),
    ...(first.role && { role: first.role }),
    newId: () => ids[next++] ?? spareId(),
  });
  if (!laid.ok) return laid;
  const lengths = new Map(slides.map((slide) => [slide.id, slide]));
  return {
    ...laid,
    show: {
      ...laid.show,
      slides: laid.show.slides.map((slide) => {
        const was = lengths.get(slide.id);
        if (!was || !slide.mounted) return slide;
        return {
          ...slide,
          lengthMs: was.lengthMs,
          ...(was.chosen && { chosen: was.chosen, transition: was.transition }),
        };
      }),
    },
  };
}

/** One that takes no picture is laid beside what it stood beside. */
function besideGround(show: Show, slides: readonly Slide[], ground: Ground, goes: Mount['goes']): Ground {
  const at = show.slides.indexOf(slides[0]!);
  const beside = goes === 'before' ? show.slides[at + slides.length] : show.slides[at - 1];
  return { ...ground, beside: { show: ground.show, slideIds: beside ? [beside.id] : [] } };
}
