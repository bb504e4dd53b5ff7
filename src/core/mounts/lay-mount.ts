import { windowNumber } from '../show/window-id';
import { prepareShow, surroundingsOf } from '../frame/plan-frame';
import { loupe, loupeNeedsMs, USUAL_LOUPE } from '../builds/loupe';
import { placesFound } from '../builds/places-found';
import { withHeldMove } from '../motion/held-move';
import { applyEdit, type ShowEdit } from '../show/edit';
import { editBetween } from '../show/edit-between';
import type { FactsById } from '../show/asset-facts';
import { cueId, layerId, slideId, type AssetId, type SlideId } from '../show/ids';
import { clipTimes, type ClipLayer, type Layer, type PictureLayer } from '../show/layer';
import { picturesOf } from '../show/layout';
import type { Mounted, MountRole, Tie } from '../show/mounted';
import { layerIn, mapped } from '../show/pile';
import type { PlacedSound } from '../show/placed-sound';
import type { Show, Slide } from '../show/show';
import { spokenJoined } from '../show/spoken-over';
import { kept } from '../show/freed-sounds';
import { withFilesChanged } from '../show/swap-file';
import { dealtOut, type DealtOut, type Run, type TooFew, type TooMany } from './deal-out';
import { lookBehindLogo } from './logo-ground';
import { pictureWindows, takesOf, type Look, type Mount } from './mount';
import { sumOf } from './sum';
import { rollingMs, rollOf } from '../words/rolling';
import { runsAt, withRetied, withTakenOff } from './take-off';
import { wordsFor, type StudioWords } from './words-for';

/** A picture or clip that goes into a window, and the slide it is taken from. */
export interface Subject {
  readonly slide: Slide;
  readonly layer: PictureLayer | ClipLayer;
}

/** A show ready for a mount to be laid on some of its slides: mounts that lay there are off. */
export interface Ground {
  readonly show: Show;
  readonly slideIds: readonly SlideId[];
  readonly subjects: readonly Subject[];
  /** Where one that takes no picture goes: nothing is off there. */
  readonly beside: Pick<Ground, 'show' | 'slideIds'>;
}

/** What a mount would be laid on. */
export function groundOf(show: Show, chosen: readonly SlideId[], newId: () => string): Ground {
  const runs = runsAt(show, chosen);
  const off = withTakenOff(show, runs, newId);
  const ids = new Set([...off.slideIds, ...chosen]);
  const slides = off.show.slides.filter(({ id }) => ids.has(id));
  return {
    show: off.show,
    slideIds: slides.map(({ id }) => id),
    subjects: slides.flatMap((slide) => picturesOf(slide).map((layer) => ({ slide, layer }))),
    beside: { show, slideIds: chosen },
  };
}

/** Width over height of what is used of each subject; 1 for one whose file is not known. */
export function aspectsOf(subjects: readonly Subject[], facts: FactsById): number[] {
  return subjects.map(({ layer }) => {
    const known = facts.get(layer.assetId);
    if (!known || known.kind === 'sound') return 1;
    const crop = layer.kind === 'picture' ? layer.crop : undefined;
    return crop ? (crop.width * known.widthPx) / (crop.height * known.heightPx) : known.widthPx / known.heightPx;
  });
}

export interface LayMount {
  readonly mount: Mount;
  readonly look: Look;
  readonly facts: FactsById;
  readonly studio: StudioWords & { readonly logo: AssetId | null };
  readonly fit?: string;
  readonly tooFew?: TooFew;
  readonly tooMany?: TooMany;
  /** Which picture goes where, instead of what is dealt. */
  readonly dealt?: DealtOut;
  readonly said?: Readonly<Record<string, string>>;
  readonly role?: MountRole;
  readonly newId: () => string;
}

/** A mount as it would lie, or why it cannot, as a sentence. */
export type Laid =
  | { readonly ok: true; readonly show: Show; readonly slideIds: readonly SlideId[] }
  | { readonly ok: false; readonly sentence: string };

const no = (sentence: string): Laid => ({ ok: false, sentence });

/** The show with a mount laid on a ground. */
export function withMount(under: Ground, asked: LayMount): Laid {
  const given = withLogoSeen(asked, under.show);
  const { mount, look, facts, newId } = given;
  const { show, subjects } = under;
  const fits = mount.fits(show.frame, look);
  const wanted = given.fit === undefined ? fits : fits.filter(({ name }) => name === given.fit);
  if (wanted.length === 0) return no(`“${mount.name}” has no fit of that name.`);
  const takes = Math.max(...wanted.map(takesOf));
  if (takes > 0 && subjects.length === 0) return no(`“${mount.name}” takes pictures: choose slides that have some.`);
  const ground = takes === 0 ? { ...under, ...under.beside } : under;
  const dealt = given.dealt ?? dealFor(ground, given);
  const faults = dealt.runs.map((run) => faultOfRun(run, subjects, facts, given));
  const fault = faults.find((one) => one !== null);
  if (fault) return no(fault);
  // A slide whose pictures are shown in two runs lies under the first of them.
  const taken = new Set<Slide>();
  const laid = dealt.runs.map((run) => {
    const made = laidRun(ground, run, given, newId(), taken);
    for (const slide of made.below) taken.add(slide);
    return made;
  });
  return takes === 0 ? placedBeside(ground, laid[0]?.slides ?? [], mount) : placedInstead(ground, laid);
}

/** A mount that shows the studio's logo, in the look in which that can be seen. */
function withLogoSeen(given: LayMount, { frame }: Show): LayMount {
  const { mount, look, facts, studio } = given;
  const shows = mount.fits(frame, look).some(({ windows }) => windows.some(({ takes }) => takes === 'logo'));
  return shows && studio.logo ? { ...given, look: lookBehindLogo(look, facts.get(studio.logo)) } : given;
}

/** How its pictures are dealt to a mount when nobody says otherwise. */
export function dealFor(
  { show, subjects }: Ground,
  { mount, look, facts, fit, tooFew = 'repeat', tooMany = 'again' }: LayMount,
): DealtOut {
  return dealtOut({
    fits: mount.fits(show.frame, look),
    frame: show.frame,
    aspects: aspectsOf(subjects, facts),
    fit: fit ?? null,
    tooFew,
    tooMany,
  });
}

/** Laying a mount as one step. */
export function layEdit(
  show: Show,
  ground: Ground,
  given: LayMount,
):
  | { readonly ok: true; readonly edit: ShowEdit; readonly slideIds: readonly SlideId[] }
  | { readonly ok: false; readonly sentence: string } {
  const laid = withMount(ground, given);
  if (!laid.ok) return laid;
  const edit = editBetween(show, laid.show, `lay the mount “${given.mount.name}”`.slice(0, 200));
  if (!edit) return { ok: false, sentence: 'It lies there already.' };
  const result = applyEdit(show, edit);
  return result.ok ? { ok: true, edit, slideIds: laid.slideIds } : { ok: false, sentence: result.sentence };
}

function faultOfRun(
  { fit, filled }: Run,
  subjects: readonly Subject[],
  facts: FactsById,
  given: LayMount,
): string | null {
  if (fit.windows.some(({ takes }) => takes === 'logo') && !given.studio.logo)
    return 'This mount shows your logo. Put one into the studio’s profile first.';
  const windows = pictureWindows(fit);
  for (const [at, index] of filled.entries()) {
    const window = fit.windows[windows[at]!]!;
    const known = index === null ? null : facts.get(subjects[index]!.layer.assetId);
    if (window.stills && known?.kind === 'clip')
      return `“${window.name}” takes pictures only, and a clip would go there. Put a picture in its place.`;
  }
  return null;
}

interface LaidRun {
  readonly slides: readonly Slide[];
  /** The slides it stands for. */
  readonly below: readonly Slide[];
}

function laidRun(
  { show, subjects, slideIds }: Ground,
  run: Run,
  given: LayMount,
  id: string,
  taken: ReadonlySet<Slide>,
): LaidRun {
  const { fit, filled } = run;
  const { mount, facts, studio, said = {}, role, newId } = given;
  const used = filled.flatMap((index) => (index === null ? [] : [subjects[index]!]));
  const below = show.slides.filter((slide) => !taken.has(slide) && used.some((subject) => subject.slide === slide));
  const near = below.length > 0 ? below : besideSlides(show, slideIds, mount);
  const windows = pictureWindows(fit);
  const spares = role === 'opener' ? glimpses(show, used, filled.filter((index) => index === null).length) : [];
  const subjectOf = (number: number): Subject | null => {
    const at = windows.indexOf(number - 1);
    if (at < 0) return null;
    const index = filled[at] ?? null;
    return index === null ? null : subjects[index]!;
  };
  const fileOf = (file: AssetId): AssetId => {
    const number = windowNumber(file);
    if (number === null) return file;
    if (fit.windows[number - 1]?.takes === 'logo') return studio.logo ?? file;
    const own = subjectOf(number);
    if (own) return own.layer.assetId;
    const empty = windows.filter((window) => !subjectOf(window + 1));
    return spares[empty.indexOf(number - 1)] ?? used[0]?.layer.assetId ?? file;
  };
  const holders = holdersOf(run, subjects, below);
  const slides = fit.slides.map((design, index): Slide => {
    const before = below.filter((slide) => holders.get(slide) === index);
    const filledIn = withFilesChanged(
      { ...design, id: slideId(newId()), layers: mapped(design.layers, (layer) => inWindow(layer, subjectOf, facts)) },
      fileOf,
    );
    const words = fit.words.filter(({ slide }) => slide === index);
    const layers = mapped(filledIn.layers, (layer) => {
      if (layer.kind !== 'words') return layer;
      return words
        .filter((field) => field.layerId === layer.id)
        .reduce(
          (now, field) => ({
            ...now,
            [field.part]: wordsFor(field, {
              show,
              facts,
              studio,
              slides: near,
              ofAll: mount.goes === 'after' || role === 'opener' || mount.shelf === 'Openers',
              said,
              own: layer[field.part],
            }),
          }),
          layer,
        );
    });
    const isFirst = index === 0;
    const held = isFirst && before[0]?.chosen?.transition === 'hand' ? before[0] : null;
    const mounted: Mounted = {
      run: id,
      mount: { id: mount.id, name: mount.name },
      fit: fit.name,
      before,
      ...(words.length > 0 && {
        words: words.map(({ layerId: layer, part, name }) => ({ layerId: layer, part, name })),
      }),
      ...(isFirst && Object.keys(said).length > 0 && { said }),
      ...(isFirst && filled.length > 0 && { filled: filled.map((at) => ownIndex(at, subjects, below)) }),
      sum: '0',
      ...(role && { role }),
    };
    // Credits take as long as there is to read.
    const roll = rollOf({ layers });
    const asDesigned = roll && layerIn(design.layers, roll.id);
    const says =
      asDesigned?.kind === 'words' && (asDesigned.title !== roll?.title || asDesigned.subtitle !== roll.subtitle);
    const lengthMs = roll && says ? rollingMs(roll, show.frame) : design.lengthMs;
    const made = withLoupe(
      withSpokenOf(
        {
          ...filledIn,
          lengthMs,
          layers,
          mounted,
          ...(held && { transition: held.transition, chosen: { transition: 'hand' } }),
        },
        before,
      ),
      fit.loupeOver && layerIn(layers, fit.loupeOver) ? fit.loupeOver : null,
      show,
      facts,
    );
    return { ...made, mounted: { ...mounted, sum: sumOf(made) } };
  });
  return { slides, below };
}

/** What an opener shows of the rest of the show where pictures of its own are too few: files spread over it, each once. */
function glimpses(show: Show, used: readonly Subject[], count: number): AssetId[] {
  const own = new Set(used.map(({ layer }) => layer.assetId));
  const all = show.slides.flatMap((slide) => picturesOf(slide).filter(({ kind }) => kind === 'picture'));
  const others = [...new Set(all.map(({ assetId }) => assetId))].filter((id) => !own.has(id));
  return Array.from(
    { length: Math.min(count, others.length) },
    (_, at) => others[Math.floor(((at + 1) * others.length) / (count + 1))]!,
  );
}

/** A subject's place among the pictures of the slides a run stands for; null for none, and for one that lies under another run. */
function ownIndex(at: number | null, subjects: readonly Subject[], below: readonly Slide[]): number | null {
  if (at === null) return null;
  const own = below.flatMap((slide) => picturesOf(slide).map(({ id }) => `${slide.id} ${id}`));
  const found = own.indexOf(`${subjects[at]!.slide.id} ${subjects[at]!.layer.id}`);
  return found < 0 ? null : found;
}

/** Which slide of a run stands for each of those below it: the one its first picture is on. */
function holdersOf({ fit, filled }: Run, subjects: readonly Subject[], below: readonly Slide[]): Map<Slide, number> {
  const windows = pictureWindows(fit);
  const slideOfWindow = (window: number) =>
    Math.max(
      0,
      fit.slides.findIndex((slide) => {
        let found = false;
        withFilesChanged(slide, (file) => {
          found ||= windowNumber(file) === window + 1;
          return file;
        });
        return found;
      }),
    );
  return new Map(
    below.map((slide) => {
      const at = filled.findIndex((index) => index !== null && subjects[index]!.slide === slide);
      return [slide, slideOfWindow(windows[at]!)];
    }),
  );
}

/** A design's picture layer with what is shown in it; its crop and its light come along. One that is left empty is not seen. */
function inWindow(layer: Layer, subjectOf: (number: number) => Subject | null, facts: FactsById): Layer {
  if (layer.kind !== 'picture') return layer;
  const number = windowNumber(layer.assetId);
  if (number === null) return layer;
  const subject = subjectOf(number);
  if (!subject) return { ...layer, hidden: true };
  const { layer: from } = subject;
  const light = from.light || layer.light ? { light: { ...from.light, ...layer.light } } : {};
  const flip = from.flip ? { flip: from.flip } : {};
  if (from.kind === 'picture')
    return { ...layer, assetId: from.assetId, ...(from.crop && { crop: from.crop }), ...flip, ...light };
  const { move: _move, crop: _crop, back: _back, kind: _kind, assetId: _asset, ...parts } = layer;
  const known = facts.get(from.assetId);
  return {
    ...parts,
    kind: 'clip',
    assetId: from.assetId,
    ...clipTimes(from),
    soundGainDb: known?.kind === 'clip' && known.hasSound ? from.soundGainDb : -60,
    ...(from.fadeInMs !== undefined && { fadeInMs: from.fadeInMs }),
    ...(from.fadeOutMs !== undefined && { fadeOutMs: from.fadeOutMs }),
    ...(from.crop && { crop: from.crop }),
    ...flip,
    ...light,
  };
}

/** What is said over the slides below is said over the one that stands for them, which lasts at least as long; a chapter that began with them begins with it. */
function withSpokenOf(slide: Slide, before: readonly Slide[]): Slide {
  if (before.length === 0) return slide;
  const { lengthMs, sounds, ...spoken } = spokenJoined(before, (id, of) => cueId(`${id}-${of.id}`.slice(0, 40)));
  const chapter = before.find((one) => one.chapter !== undefined)?.chapter ?? slide.chapter;
  const isSpoken = sounds.some(({ kind }) => kind === 'voice') || spoken.captions !== undefined;
  return {
    ...slide,
    ...spoken,
    lengthMs: isSpoken ? Math.max(slide.lengthMs, lengthMs) : slide.lengthMs,
    sounds: [...slide.sounds, ...sounds],
    ...(chapter !== undefined && { chapter }),
    ...(before.some(({ waits }) => waits) && { waits: true as const }),
  };
}

/** A loupe over the faces of a picture, else over what it is about. */
function withLoupe(slide: Slide, over: string | null, show: Show, facts: FactsById): Slide {
  const base = over === null ? null : layerIn(slide.layers, layerId(over));
  if (!base || base.kind !== 'picture') return slide;
  const { places } = placesFound(base, facts, show.focus);
  const plan = { ...USUAL_LOUPE, places };
  const long = { ...slide, lengthMs: Math.max(slide.lengthMs, loupeNeedsMs(plan)) };
  const prepared = prepareShow({ ...show, slides: [long], cues: [], captionLook: undefined } as Show, facts);
  const held = withHeldMove(base, prepared.moves.get(slide.id)?.get(base.id));
  const made = loupe(surroundingsOf(prepared, 0, show.frame), base, plan, layerId('loupe'));
  return { ...long, layers: long.layers.flatMap((layer) => (layer.id === base.id ? [held, made] : [layer])) };
}

function besideSlides(show: Show, ids: readonly SlideId[], mount: Mount): Slide[] {
  const chosen = show.slides.filter(({ id }) => ids.includes(id));
  const one = mount.goes === 'before' ? (chosen[0] ?? show.slides[0]) : (chosen.at(-1) ?? show.slides.at(-1));
  return one ? [one] : [];
}

/** A run that takes no picture, before or after what is chosen. A chapter that begins there begins with it. */
function placedBeside(ground: Ground, slides: readonly Slide[], mount: Mount): Laid {
  const { show, slideIds } = ground;
  const beside = besideSlides(show, slideIds, mount)[0];
  if (slides.length === 0) return no(`“${mount.name}” is empty.`);
  const isBefore = mount.goes === 'before';
  const chapter = isBefore ? beside?.chapter : undefined;
  const own = chapter === undefined ? slides : [{ ...slides[0]!, chapter }, ...slides.slice(1)];
  const without = (slide: Slide): Slide => {
    const { chapter: _chapter, ...rest } = slide;
    return chapter === undefined ? slide : rest;
  };
  const order = beside
    ? show.slides.flatMap((slide) =>
        slide !== beside ? [slide] : isBefore ? [...own, without(slide)] : [slide, ...own],
      )
    : own;
  return { ok: true, show: { ...show, slides: order }, slideIds: own.map(({ id }) => id) };
}

/** Runs in the places of the slides they stand for; sounds that were tied to those are tied to them. */
function placedInstead({ show }: Ground, laid: readonly LaidRun[]): Laid {
  const standIn = new Map<SlideId, SlideId>();
  const runs = new Map<Slide, readonly Slide[]>();
  const gone = new Set<Slide>();
  let last: Slide | null = null;
  for (const { below, slides } of laid) {
    for (const slide of below) gone.add(slide);
    for (const slide of slides) for (const { id } of slide.mounted!.before) standIn.set(id, slide.id);
    // One that shows only what others stand for goes after the one before it.
    last = below[0] ?? last;
    if (last) runs.set(last, [...(runs.get(last) ?? []), ...slides]);
  }
  const ties = new Map<SlideId, Tie[]>();
  const retied = (sound: PlacedSound): PlacedSound => {
    let after = sound;
    for (const part of ['starts', 'ends'] as const) {
      const tied = sound[part];
      const to = tied.at === 'slide' ? standIn.get(tied.slideId) : undefined;
      if (tied.at !== 'slide' || !to) continue;
      ties.set(to, [...(ties.get(to) ?? []), { soundId: sound.id, part, slideId: tied.slideId }]);
      after = { ...after, [part]: { ...tied, slideId: to } };
    }
    return after;
  };
  const cues = kept(show.cues, retied);
  const slides = show.slides
    .flatMap((slide) => runs.get(slide) ?? (gone.has(slide) ? [] : [slide]))
    .map((slide) => withRetied(slide, retied));
  return {
    ok: true,
    show: {
      ...show,
      cues,
      slides: slides.map((slide) =>
        ties.has(slide.id) ? { ...slide, mounted: { ...slide.mounted!, ties: ties.get(slide.id)! } } : slide,
      ),
    },
    slideIds: [...runs.values()].flat().map(({ id }) => id),
  };
}
