import { edges, picture, plain, shipped, slide as designed, words } from '../mounts/design';
import { stageOf } from '../mounts/design';
import { PLAIN_LOOK } from '../mounts/plain-look';
import { screeningLook } from '../screening/screening-look';
import { picturesOf } from '../show/layout';
import type { Show } from '../show/show';
import { STANDARDS } from './disc-standard';
import { firstOf, laid, together, type MenuGround } from './menu-shows';

/** A label's sides: a printed disc is twelve centimetres across, at 300 points an inch. */
export const LABEL_PX = 1416;
/** Across, of what is printed and of the hole in it. */
export const LABEL_MM = { printed: 117, hole: 22 } as const;

/** What is printed on a disc, as a show of one slide: pictures above, the title below, in the plumage of the first show. The hole is left to whoever prints it. */
export function labelShow(ground: MenuGround): { readonly ok: true; readonly show: Show } | { readonly ok: false } {
  const { plan, films } = ground;
  const all = {
    ...together(ground),
    frame: { widthPx: LABEL_PX, heightPx: LABEL_PX, rate: STANDARDS[plan.standard].rate },
  };
  const look = ground.shows[0]?.plumage?.is ?? PLAIN_LOOK;
  const colours = screeningLook(look.palette);
  const stage = stageOf(all.frame, look);
  const pictured = all.slides.filter((slide) => picturesOf(slide).length > 0);
  const count = pictured.length >= 3 ? 3 : Math.min(1, pictured.length);
  const chosen = Array.from({ length: count }, (_, at) => pictured[Math.floor((at * pictured.length) / count)]!);
  const gap = 0.006;
  const mount = shipped({
    id: 'disc-label',
    name: 'Label',
    shelf: 'Menus',
    description: '',
    posterMs: 0,
    fits: () => [
      {
        name: 'label',
        windows: chosen.map((_, index) => ({ name: `Picture ${index + 1}`, takes: 'picture' as const })),
        slides: [
          designed({
            lengthMs: 5000,
            transition: { kind: 'cut' },
            backing: plain(colours.ground),
            layers: [
              ...chosen.map((_, index) =>
                picture(
                  `picture-${index + 1}`,
                  index + 1,
                  edges(index / count + (index > 0 ? gap : 0), 0, (index + 1) / count, 0.63),
                ),
              ),
              words(stage, 'title', {
                title: plan.title,
                subtitle: plan.words,
                across: ['centre', 0.5],
                down: ['middle', 0.755],
                width: 0.72,
                room: 0.17,
                size: 0.074,
                colour: colours.letters,
                accent: colours.soft,
                come: null,
              }),
              words(stage, 'about', {
                title: about(plan, films),
                across: ['centre', 0.5],
                down: ['middle', 0.895],
                width: 0.5,
                room: 0.05,
                size: 0.028,
                colour: colours.soft,
                come: null,
              }),
            ],
          }),
        ],
      },
    ],
  });
  const fit = mount.fits(all.frame, stage)[0]!;
  const made =
    chosen.length === 0
      ? ({ ok: true, slide: fit.slides[0]! } as const)
      : laid(all, ground, mount, fit, stage, chosen, (subjects) => chosen.map((slide) => firstOf(subjects, slide)));
  if (!made.ok) return { ok: false };
  const { mounted: _mounted, chapter: _chapter, script: _script, captions: _captions, ...slide } = made.slide;
  const { captionLook: _look, watermark: _mark, ...rest } = all;
  return { ok: true, show: { ...rest, title: plan.title, cues: [], slides: [{ ...slide, sounds: [] }] } };
}

/** “3 films · 42 min · PAL” */
function about({ standard }: MenuGround['plan'], films: MenuGround['films']): string {
  const minutes = Math.max(1, Math.round(films.reduce((sum, { lengthMs }) => sum + lengthMs, 0) / 60_000));
  return [...(films.length > 1 ? [`${films.length} films`] : []), `${minutes} min`, STANDARDS[standard].name].join(
    ' · ',
  );
}
