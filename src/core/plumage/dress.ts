import type { FactsById } from '../show/asset-facts';
import { isHeld, withChooser } from '../show/chosen';
import type { ShowEdit } from '../show/edit';
import { editBetween } from '../show/edit-between';
import type { AssetId, SlideId } from '../show/ids';
import { picturesOf } from '../show/layout';
import { mapped } from '../show/pile';
import type { Layer } from '../show/layer';
import { wordsOf, type Show, type Slide } from '../show/show';
import type { Transition } from '../show/transition';
import { seedOf } from '../motion/seed';
import { groundOf, withMount } from '../mounts/lay-mount';
import type { Mount } from '../mounts/mount';
import { withRelaid } from '../mounts/relay';
import { isChangedByHand } from '../mounts/sum';
import type { StudioWords } from '../mounts/words-for';
import { takesOf } from '../mounts/mount';
import type { MountRole } from '../show/mounted';
import type { Plumage, PlumageInUse, PlumageWith } from './plumage';
import { plumageCome, plumageStyle } from './plumage-words';
import { neighboursTogether } from './neighbours';
import { isTooSmall } from './too-small';
import { saidKey, undressed } from './undress';

/** What dressing a show needs beside it. */
export interface Wardrobe {
  readonly facts: FactsById;
  readonly studio: StudioWords & { readonly logo: AssetId | null };
  /** A mount by id; null for one that is not there. */
  readonly mountOf: (id: string) => Mount | null;
}

export interface Dress {
  readonly plumage: Plumage;
  readonly with: PlumageWith;
  readonly seed: number;
}

/** Deals are numbers up to this. */
const MOST_DEAL = 1000;

/**
 * The show in a plumage: whatever it wore before comes off first, and what a hand set stays. The same show in the same plumage with the same seed always looks
 * the same, whatever it wore in between.
 *
 * @returns also the mounts that could not be laid, by id, each with a sentence
 */
export function dressed(
  given: Show,
  { plumage, with: parts, seed }: Dress,
  wardrobe: Wardrobe,
): { readonly show: Show; readonly missing: ReadonlyMap<string, string> } {
  const off = undressed(given);
  const missing = new Map<string, string>();
  const bare = { temperament: off.show.temperament ?? null };
  const { temperament: _temperament, ...untempered } = off.show;
  const inUse: PlumageInUse = {
    is: plumage,
    with: parts,
    seed,
    bare,
    ...(Object.keys(off.said).length > 0 && { said: off.said }),
  };
  const tempered: Show = {
    ...untempered,
    ...(plumage.temperament !== 'even' && { temperament: plumage.temperament }),
    slides: dressedSlides(off.show.slides, plumage, seed),
  };
  const relaid = relaidByHand(tempered, plumage, wardrobe);
  const withRoles = rolesLaid(relaid, { plumage, with: parts, seed }, off.said, wardrobe, missing);
  return { show: { ...withRoles, plumage: inUse }, missing };
}

/** Dressing as one step; null when nothing changes. */
export function dressEdit(
  show: Show,
  dress: Dress,
  wardrobe: Wardrobe,
  name = `dress the show in ${dress.plumage.name}`,
): { readonly edit: ShowEdit | null; readonly missing: ReadonlyMap<string, string> } {
  const { show: after, missing } = dressed(show, dress, wardrobe);
  return { edit: editBetween(show, after, name), missing };
}

/** Taking the plumage off as one step. What its mounts were given to say stays on them: those stay slides of the show. */
export function undressEdit(show: Show): ShowEdit | null {
  return show.plumage
    ? editBetween(show, undressed(show, true).show, `take the plumage ${show.plumage.is.name} off`)
    : null;
}

/** Slides that came later, as the plumage has them. Slides that stand there already stay as they are. */
export function withDressed(show: Show, ids: ReadonlySet<SlideId>): Show {
  const { plumage } = show;
  if (!plumage) return show;
  const all = dressedSlides(show.slides, plumage.is, plumage.seed);
  return {
    ...show,
    slides: show.slides.map((slide, index) => (ids.has(slide.id) && !slide.bare ? all[index]! : slide)),
  };
}

function dressedSlides(slides: readonly Slide[], plumage: Plumage, seed: number): Slide[] {
  let last: Transition | null = null;
  return slides.map((slide, index) => {
    let after = withDressedLayers(slide, plumage, seed);
    // What a mount brought along is part of its design.
    const isFree = !slide.mounted;
    if (isFree && index > 0 && !isHeld(slide, 'transition')) {
      const transition: Transition =
        slide.chapter !== undefined ? plumage.chapterTransition : dealtTransition(plumage, seed, slide.id, last);
      after = withChooser(
        { ...after, transition, bare: { ...after.bare, transition: slide.transition } },
        'transition',
        'look',
      );
    }
    if (
      isFree &&
      slide.backing.kind === 'automatic' &&
      plumage.backing.kind !== 'automatic' &&
      !isHeld(slide, 'backing')
    )
      after = withChooser(
        { ...after, backing: plumage.backing, bare: { ...after.bare, backing: slide.backing } },
        'backing',
        'look',
      );
    last = after.transition;
    return after;
  });
}

/** One of the plumage's, not the very one before it where there are others. */
function dealtTransition({ transitions }: Plumage, seed: number, id: string, last: Transition | null): Transition {
  const at = Math.floor(seedOf(`${id} transition`, seed) * transitions.length);
  const one = transitions[at]!;
  return transitions.length > 1 && JSON.stringify(one) === JSON.stringify(last)
    ? transitions[(at + 1) % transitions.length]!
    : one;
}

function withDressedLayers(slide: Slide, plumage: Plumage, seed: number): Slide {
  // What a mount laid is dressed by laying it again.
  if (slide.mounted) return slide;
  const layers = mapped(slide.layers, (layer): Layer => {
    if (layer.kind === 'picture' && seed > 0 && layer.move.kind === 'automatic' && !isHeld(layer, 'move')) {
      const deal = 1 + Math.floor(seedOf(`${slide.id} ${layer.id}`, seed) * MOST_DEAL);
      return { ...layer, move: { kind: 'automatic', deal }, bare: { ...layer.bare, move: layer.move } };
    }
    if (layer.kind !== 'words') return layer;
    const { style, come, travel } = layer;
    return {
      ...layer,
      style: { ...plumageStyle(plumage), ...style },
      ...(come === undefined && travel === undefined && { come: plumageCome(plumage) }),
      bare: { ...layer.bare, style: style ?? null, ...(come === undefined && travel === undefined && { come: null }) },
    };
  });
  return layers === slide.layers ? slide : { ...slide, layers };
}

const lookOf = ({ letters, palette }: Plumage) => ({ letters, palette });

/** Mounts a person laid, in the plumage's letters and colours; one whose design a hand changed stays as it is. */
function relaidByHand(show: Show, plumage: Plumage, wardrobe: Wardrobe): Show {
  const runs = new Set(show.slides.flatMap(({ mounted }) => (mounted ? [mounted.run] : [])));
  let after = show;
  for (const run of runs) {
    const own = after.slides.filter(({ mounted }) => mounted?.run === run);
    const mount = own[0] && wardrobe.mountOf(own[0].mounted!.mount.id);
    if (!mount || own.some(isChangedByHand)) continue;
    const laid = withRelaid(after, run, {
      mount,
      look: lookOf(plumage),
      facts: wardrobe.facts,
      studio: wardrobe.studio,
    });
    if (laid.ok) after = laid.show;
  }
  return after;
}

const WITHOUT_PICTURE = { opener: 'letterhead', chapter: 'passing-field', closer: 'until-next' } as const;

/** The mounts a plumage opens, parts and closes a show with, and those its neighbours share. */
function rolesLaid(
  show: Show,
  { plumage, with: parts, seed }: Dress,
  said: Readonly<Record<string, string>>,
  wardrobe: Wardrobe,
  missing: Map<string, string>,
): Show {
  let after = show;
  const there = new Set(show.slides.map(({ id }) => id as string));
  let count = 0;
  const newId = (): string => {
    count += 1;
    return there.has(`plumage-${count}`) ? newId() : `plumage-${count}`;
  };
  const lay = (id: string, chosen: readonly SlideId[], role: MountRole) => {
    const mount = wardrobe.mountOf(id);
    if (!mount) return void missing.set(id, `The mount “${id}” is not there; the show has none in its place.`);
    const ground = groundOf(after, chosen, newId);
    const chapter = role === 'chapter' ? (after.slides.find((slide) => chosen.includes(slide.id))?.chapter ?? '') : '';
    const prefix = saidKey(role, chapter, '');
    const ownSaid = Object.fromEntries(
      Object.entries(said).flatMap(([key, text]) => (key.startsWith(prefix) ? [[key.slice(prefix.length), text]] : [])),
    );
    const laid = withMount(ground, {
      mount,
      look: lookOf(plumage),
      facts: wardrobe.facts,
      studio: wardrobe.studio,
      said: ownSaid,
      role,
      // What an opener lacks of its own is taken from the rest of the show.
      ...(role === 'opener' && { tooFew: 'empty' as const }),
      newId,
    });
    if (laid.ok) after = laid.show;
    else missing.set(id, laid.sentence);
  };
  /**
   * So many slides with pictures from one on as a mount may take.
   *
   * @param keepsWords what stands on them goes on standing in the mount
   */
  const takable = (mount: Mount | null, from: readonly Slide[], keepsWords: boolean): SlideId[] => {
    const most = mount ? Math.max(...mount.fits(after.frame, lookOf(plumage)).map(takesOf)) : 0;
    const ids: SlideId[] = [];
    let pictures = 0;
    for (const slide of from) {
      if (pictures >= most || slide.mounted || picturesOf(slide).length === 0) break;
      // A chapter's name or thanks do not stand in the place of what a person wrote.
      if (!keepsWords && wordsOf(slide)) break;
      pictures += picturesOf(slide).length;
      ids.push(slide.id);
    }
    return most === 0 && from[0] ? [from[0].id] : ids;
  };
  const areTooSmall = (ids: readonly SlideId[]) =>
    after.slides
      .filter(({ id }) => ids.includes(id))
      .some((slide) => picturesOf(slide).some(({ assetId }) => isTooSmall(wardrobe.facts.get(assetId))));
  /** The mount itself, or one without a picture where those it would show are too small to stand large. */
  const suited = (id: string, ids: readonly SlideId[], role: keyof typeof WITHOUT_PICTURE): string =>
    areTooSmall(ids) && wardrobe.mountOf(WITHOUT_PICTURE[role]) ? WITHOUT_PICTURE[role] : id;
  const isKept = (role: MountRole) => after.slides.some(({ mounted }) => mounted?.role === role);
  if (parts.several)
    for (const { ids, mount } of neighboursTogether(after, { plumage, seed, with: parts }, wardrobe))
      lay(mount, ids, 'several');
  if (parts.closer && after.slides.length > 2 && !isKept('closer')) {
    const mount = wardrobe.mountOf(plumage.mounts.closer);
    const ids = takable(mount, [...after.slides].reverse(), false);
    if (ids.length > 0 || !mount) lay(suited(plumage.mounts.closer, ids, 'closer'), ids, 'closer');
  }
  if (parts.chapters)
    after.slides
      .filter((slide, index) => slide.chapter !== undefined && !slide.mounted && (index > 0 || !parts.opener))
      .forEach((slide) => {
        const ids = takable(
          wardrobe.mountOf(plumage.mounts.chapter),
          after.slides.slice(after.slides.findIndex(({ id }) => id === slide.id)),
          false,
        );
        if (ids.length > 0) lay(suited(plumage.mounts.chapter, ids, 'chapter'), ids, 'chapter');
      });
  if (parts.opener && after.slides.length > 0 && !isKept('opener')) {
    const mount = wardrobe.mountOf(plumage.mounts.opener);
    const ids = takable(mount, after.slides, true);
    if (ids.length > 0 || !mount) lay(suited(plumage.mounts.opener, ids, 'opener'), ids, 'opener');
  }
  return after;
}
