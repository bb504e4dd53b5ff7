import { isHeld, withChooser } from '../show/chosen';
import type { ShowEdit } from '../show/edit';
import { editBetween } from '../show/edit-between';
import type { LayerId, SlideId } from '../show/ids';
import { everyLayer } from '../show/layer';
import { mapped } from '../show/pile';
import type { Show, Slide } from '../show/show';
import { withRelaid } from '../mounts/relay';
import { isChangedByHand } from '../mounts/sum';
import { dressed, type Wardrobe } from './dress';
import { plumageStyle } from './plumage-words';

/** Something of a show that is not as its plumage has it, because a hand set it. */
export interface DiffersFrom {
  readonly slideId: SlideId;
  readonly what: 'transition' | 'backing' | 'move' | 'words' | 'mount';
  readonly layerId?: LayerId;
}

/** All that differs, in the order of the show; nothing where there is no plumage. */
export function differencesFrom(show: Show, wardrobe: Wardrobe): DiffersFrom[] {
  const { plumage } = show;
  if (!plumage) return [];
  return show.slides.flatMap((slide, index): DiffersFrom[] => {
    const slideId = slide.id;
    if (slide.mounted) {
      const known = wardrobe.mountOf(slide.mounted.mount.id) !== null;
      return known && isChangedByHand(slide) ? [{ slideId, what: 'mount' }] : [];
    }
    return [
      ...(index > 0 && isHeld(slide, 'transition') ? [{ slideId, what: 'transition' as const }] : []),
      ...(isHeld(slide, 'backing') ? [{ slideId, what: 'backing' as const }] : []),
      ...[...everyLayer(slide.layers)].flatMap((layer): DiffersFrom[] => {
        if (layer.kind === 'picture')
          return isHeld(layer, 'move') ? [{ slideId, what: 'move', layerId: layer.id }] : [];
        if (layer.kind !== 'words' || !layer.bare) return [];
        const ours = Object.entries(plumageStyle(plumage.is));
        const style = (layer.style ?? {}) as Record<string, unknown>;
        const differs = ours.some(([name, value]) => style[name] !== value);
        return differs ? [{ slideId, what: 'words', layerId: layer.id }] : [];
      }),
    ];
  });
}

/** Some of them as the plumage has them, as one step. */
export function givenBackEdit(show: Show, differences: readonly DiffersFrom[], wardrobe: Wardrobe): ShowEdit | null {
  const { plumage } = show;
  if (!plumage) return null;
  let free: Show = {
    ...show,
    slides: show.slides.map((slide) =>
      freed(
        slide,
        differences.filter(({ slideId }) => slideId === slide.id),
        show,
      ),
    ),
  };
  for (const run of new Set(
    differences.flatMap(({ what, slideId }) =>
      what === 'mount' ? (free.slides.find(({ id }) => id === slideId)?.mounted?.run ?? []) : [],
    ),
  )) {
    const mount = wardrobe.mountOf(free.slides.find(({ mounted }) => mounted?.run === run)!.mounted!.mount.id);
    if (!mount) continue;
    const { letters, palette } = plumage.is;
    const unheld: Show = {
      ...free,
      slides: free.slides.map((slide) => (slide.mounted?.run === run ? withoutChoosers(slide) : slide)),
    };
    const laid = withRelaid(unheld, run, {
      mount,
      look: { letters, palette },
      facts: wardrobe.facts,
      studio: wardrobe.studio,
    });
    if (laid.ok) free = laid.show;
  }
  const { show: after } = dressed(free, { plumage: plumage.is, with: plumage.with, seed: plumage.seed }, wardrobe);
  return editBetween(show, after, 'give back what differs from the plumage');
}

const withoutChoosers = (slide: Slide): Slide => withChooser(withChooser(slide, 'transition', null), 'length', null);

function freed(slide: Slide, differences: readonly DiffersFrom[], { plumage }: Show): Slide {
  if (differences.length === 0 || !plumage) return slide;
  const has = (what: DiffersFrom['what'], layerId?: LayerId) =>
    differences.some((one) => one.what === what && one.layerId === layerId);
  let after = slide;
  if (has('transition')) after = withChooser(after, 'transition', null);
  if (has('backing')) {
    after = withChooser(after, 'backing', null);
    // What lay there before the plumage is what the plumage begins from.
    after = { ...after, backing: after.bare?.backing ?? { kind: 'automatic' } };
  }
  const layers = mapped(after.layers, (layer) => {
    if (layer.kind === 'picture' && has('move', layer.id))
      return { ...withChooser(layer, 'move', null), move: layer.bare?.move ?? { kind: 'automatic' } };
    if (layer.kind === 'words' && has('words', layer.id)) {
      const ours = plumageStyle(plumage.is);
      const { style: _style, ...bare } = layer.bare ?? {};
      const own = Object.fromEntries(Object.entries(layer.bare?.style ?? {}).filter(([name]) => !(name in ours)));
      return {
        ...layer,
        style: { ...layer.style, ...ours },
        bare: { ...bare, style: Object.keys(own).length > 0 ? own : null },
      };
    }
    return layer;
  });
  return layers === after.layers ? after : { ...after, layers };
}

/** Holds slides as they are, so that dealing leaves their moves and transitions, or lets them go. */
export function pinEdit(show: Show, ids: readonly SlideId[], on: boolean): ShowEdit | null {
  const choosers = show.slides
    .filter(({ id }) => ids.includes(id))
    .flatMap((slide) => [
      {
        slideId: slide.id,
        value: 'transition' as const,
        by: on ? ('hand' as const) : slide.bare?.transition ? ('look' as const) : null,
      },
      ...[...everyLayer(slide.layers)].flatMap((layer) =>
        layer.kind === 'picture'
          ? [{ slideId: slide.id, layerId: layer.id, value: 'move' as const, by: on ? ('hand' as const) : null }]
          : [],
      ),
    ]);
  return choosers.length > 0 ? { kind: 'set-choosers', choosers } : null;
}
