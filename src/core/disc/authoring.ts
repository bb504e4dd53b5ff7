import type { DiscFilm } from './disc-chapters';
import type { DiscPlan } from './disc-plan';
import { momentOfFrame } from '../timing/frames';
import { STANDARDS } from './disc-standard';
import type { ButtonDoes, MenuPage } from './menu-pages';
import { highlightRows } from './highlight';

/** A menu's page as it goes on the disc. */
export interface AuthoredPage {
  readonly file: string;
  /** From where it goes round; what comes before is seen once. */
  readonly roundMs: number;
}

/** The register of a player that knows whether all films are played. */
const ALL = 'g1';

/**
 * The document `dvdauthor` makes a disc from: one set of titles, each film one of them, and the pages of the menu beside them, so that a button can lead into the middle of a
 * film. The player begins in what `fpc` says.
 */
export function authoringDocument(
  plan: DiscPlan,
  films: readonly DiscFilm[],
  pages: readonly MenuPage[],
  files: { readonly folder: string; readonly films: readonly string[]; readonly pages: readonly AuthoredPage[] },
): string {
  const { standard, shape, begins } = plan;
  const { rate } = STANDARDS[standard];
  const wide = shape === '16:9' ? ' widescreen="nopanscan"' : '';
  const video = `<video format="${standard}" aspect="${shape}"${wide} resolution="720x${STANDARDS[standard].heightPx}"/>`;
  const streams =
    shape === '16:9'
      ? '<subpicture><stream id="0" mode="widescreen"/><stream id="1" mode="letterbox"/></subpicture>'
      : '<subpicture><stream id="0" mode="normal"/></subpicture>';
  const several = films.length > 1;
  const seconds = (frame: number) => (momentOfFrame(frame, rate) / 1000).toFixed(4);
  const say = (does: ButtonDoes): string => {
    if (does.kind === 'page') return `jump menu ${does.page + 1};`;
    const film = does.kind === 'play' ? does.film : 0;
    const chapter = does.kind === 'play' ? does.chapter : 0;
    const set = several ? `${ALL}=${does.kind === 'play-all' ? 1 : 0}; ` : '';
    return `${set}jump title ${film + 1} chapter ${chapter + 1};`;
  };
  const after = (film: number): string => {
    const isLast = film + 1 === films.length;
    const own = plan.afterwards === 'menu' ? 'call menu;' : `jump title ${film + 1};`;
    if (!several) return own;
    const next = isLast ? (plan.afterwards === 'menu' ? 'call menu;' : 'jump title 1;') : `jump title ${film + 2};`;
    return `if (${ALL} eq 1) { ${next} } ${own}`;
  };
  return [
    '<?xml version="1.0" encoding="UTF-8"?>',
    `<dvdauthor dest="${escaped(files.folder)}">`,
    `<vmgm><fpc>${begins === 'menu' ? 'jump titleset 1 menu;' : `${several ? `${ALL}=1; ` : ''}jump title 1;`}</fpc></vmgm>`,
    '<titleset>',
    '<menus>',
    video,
    '<audio format="ac3" channels="2"/>',
    streams,
    ...pages.map(({ buttons }, index) => {
      const { file, roundMs } = files.pages[index]!;
      const cells = roundMs > 0 ? ` chapters="0,${(roundMs / 1000).toFixed(3)}"` : '';
      return [
        `<pgc${index === 0 ? ' entry="root"' : ''}>`,
        `<vob file="${escaped(file)}"${cells}/>`,
        ...buttons.map(({ does }, at) => `<button name="b${at + 1}">${say(does)}</button>`),
        `<post>jump cell ${roundMs > 0 ? 2 : 1};</post>`,
        '</pgc>',
      ].join('\n');
    }),
    '</menus>',
    '<titles>',
    video,
    '<audio format="ac3" channels="2"/>',
    ...films.map(
      ({ chapters }, film) =>
        `<pgc><vob file="${escaped(files.films[film]!)}" chapters="${chapters.map(({ startFrame }) => (startFrame === 0 ? '0' : seconds(startFrame))).join(',')}"/><post>${after(film)}</post></pgc>`,
    ),
    '</titles>',
    '</titleset>',
    '</dvdauthor>',
    '',
  ].join('\n');
}

/**
 * The document by which `spumux` lays what is lit into a page.
 *
 * @param letterboxed for televisions that show a wide picture with bars above and below: everything is lower then
 */
export function highlightDocument(
  page: MenuPage,
  { standard }: Pick<DiscPlan, 'standard'>,
  letterboxed: boolean,
  files: { readonly chosen: string; readonly pressed: string },
  lengthMs: number,
): string {
  const { heightPx } = STANDARDS[standard];
  const boxes = highlightRows(page, heightPx, letterboxed);
  const name = (index: number) => `b${index + 1}`;
  return [
    `<subpictures format="${standard.toUpperCase()}"><stream>`,
    `<spu start="00:00:00.00" end="${clock(lengthMs)}" highlight="${escaped(files.chosen)}" select="${escaped(files.pressed)}" force="yes" xoffset="0" yoffset="0">`,
    ...page.buttons.map(({ up, down, left, right }, index) => {
      const { x0, y0, x1, y1 } = boxes[index]!.box;
      return `<button name="${name(index)}" x0="${x0}" y0="${y0}" x1="${x1}" y1="${y1}" up="${name(up)}" down="${name(down)}" left="${name(left)}" right="${name(right)}"/>`;
    }),
    '</spu></stream></subpictures>',
    '',
  ].join('\n');
}

/** “00:01:05.50” */
function clock(ms: number): string {
  const seconds = ms / 1000;
  const two = (value: number) => String(Math.floor(value)).padStart(2, '0');
  return `${two(seconds / 3600)}:${two((seconds / 60) % 60)}:${(seconds % 60).toFixed(2).padStart(5, '0')}`;
}

const escaped = (text: string) =>
  text.replaceAll('&', '&amp;').replaceAll('"', '&quot;').replaceAll('<', '&lt;').replaceAll('>', '&gt;');
