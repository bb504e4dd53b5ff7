import { momentOfFrame } from '../../timing/frames';
import type { DiscFilm } from '../disc-chapters';
import type { DiscPlan } from '../disc-plan';
import { STANDARDS } from '../disc-standard';
import { highlightRows } from '../highlight';
import { begun, pressed, REMOTE_KEYS, type PlayedDisc, type PlayerPlace } from '../remote';
import { DiscUnreadableError } from './bytes';
import { openPlayer, type ReadPlace } from './disc-player';
import type { ReadSectors } from './image-files';
import { navigationOf } from './lit-buttons';
import { StrangeCommandError } from './player-commands';
import { readDisc } from './structures';

export interface WalkedDisc {
  readonly label: string;
  readonly pageCount: number;
  readonly titleCount: number;
  readonly chapterCount: number;
  /** Places a player can be in, and keys that were pressed in them. */
  readonly placeCount: number;
  readonly pressCount: number;
  /** Where the image is not what was planned. */
  readonly faults: readonly string[];
}

interface Planned extends PlayedDisc {
  readonly plan: DiscPlan;
  readonly films: readonly DiscFilm[];
}

/** Ticks of a player's clock in a second. */
const TICKS = 90_000;
const MOST_FAULTS = 20;

/** Walks through an image with every key of the remote in every place, and holds where it leads against the plan; then the moments at which chapters begin. */
export async function walkDisc(planned: Planned, read: ReadSectors): Promise<WalkedDisc> {
  const faults: string[] = [];
  try {
    return await walked(planned, read, faults);
  } catch (error) {
    if (!(error instanceof DiscUnreadableError) && !(error instanceof StrangeCommandError)) throw error;
    return {
      ...{ label: '', pageCount: 0, titleCount: 0, chapterCount: 0, placeCount: 0, pressCount: 0 },
      faults: [...faults, error.message],
    };
  }
}

async function walked(planned: Planned, read: ReadSectors, faults: string[]): Promise<WalkedDisc> {
  const { plan, films, pages } = planned;
  const disc = await readDisc(read);
  const [set] = disc.sets;
  const fault = (sentence: string) => void (faults.length < MOST_FAULTS && faults.push(sentence));
  if (disc.titles.length !== films.length) fault(`${disc.titles.length} titles instead of ${films.length}`);
  // Authoring adds chains without pictures, which lead from one part of a disc to another.
  const pageCount = set?.menus.filter(({ cells }) => cells.length > 0).length ?? 0;
  if (pageCount !== pages.length) fault(`${pageCount} pages instead of ${pages.length}`);
  if (set && (set.standard !== plan.standard || set.shape !== plan.shape))
    fault('pictures of another standard or shape');
  let pressCount = 0;
  const seen = new Map<string, readonly PlayerPlace[]>();
  // The way to each place is a place before it and a key; a player goes there anew for every key that is tried.
  const ways = new Map<string, readonly (typeof REMOTE_KEYS)[number][]>();
  const start = begun(planned);
  const waiting: PlayerPlace[] = [start];
  ways.set(nameOf(start), []);
  while (waiting.length > 0) {
    const place = waiting.shift()!;
    const way = ways.get(nameOf(place))!;
    const player = await openPlayer(disc, read);
    for (const key of way) await player.press(key);
    differs(place, player.place(), fault);
    if (place.at === 'menu') lit(planned, place.page, player.buttons(), fault);
    const back = player.keep();
    const led: PlayerPlace[] = [];
    for (const key of REMOTE_KEYS) {
      const next = pressed(planned, place, key);
      pressCount += 1;
      differs(next, await player.press(key), (sentence) => fault(`${key} in ${nameOf(place)}: ${sentence}`));
      back();
      led.push(next);
      if (ways.has(nameOf(next))) continue;
      ways.set(nameOf(next), [...way, key]);
      waiting.push(next);
    }
    seen.set(nameOf(place), led);
  }
  if (set) await chaptersBegin(planned, set, read, fault);
  return {
    label: disc.image.label,
    pageCount,
    titleCount: disc.titles.length,
    chapterCount: disc.titles.reduce((sum, { chapterCount }) => sum + chapterCount, 0),
    placeCount: seen.size,
    pressCount,
    faults,
  };
}

const nameOf = (place: PlayerPlace): string =>
  place.at === 'menu'
    ? `page ${place.page + 1}, button ${place.button + 1}`
    : `film ${place.film + 1}, chapter ${place.chapter + 1}${place.all ? ' of all' : ''}`;

function differs(wanted: PlayerPlace, found: ReadPlace, fault: (sentence: string) => void): void {
  const there =
    found.in === 'menu'
      ? `page ${found.chain}, button ${found.button}`
      : found.in === 'title'
        ? `film ${found.title}, chapter ${found.chapter}`
        : found.in;
  const planned = nameOf(wanted).replace(' of all', '');
  if (there !== planned) fault(`leads to ${there} instead of ${planned}`);
}

/** The buttons lie where they were drawn, for televisions of both kinds. */
function lit(
  { pages, plan }: Planned,
  index: number,
  groups: Awaited<ReturnType<typeof openPlayer>>['buttons'] extends () => infer Groups ? Groups : never,
  fault: (sentence: string) => void,
): void {
  const { heightPx } = STANDARDS[plan.standard];
  const wanted = plan.shape === '16:9' ? [false, true] : [false];
  if (groups.length !== wanted.length)
    return fault(`page ${index + 1} has ${groups.length} groups of buttons instead of ${wanted.length}`);
  wanted.forEach((letterboxed, group) =>
    highlightRows(pages[index]!, heightPx, letterboxed).forEach(({ box }, at) => {
      const found = groups[group]![at];
      if (!found) return fault(`page ${index + 1} lacks button ${at + 1}`);
      const off = Math.max(
        Math.abs(found.x0 - box.x0),
        Math.abs(found.y0 - box.y0),
        Math.abs(found.x1 - box.x1),
        Math.abs(found.y1 - box.y1),
      );
      if (off > 2) fault(`button ${at + 1} of page ${index + 1} is off its place by ${off} points`);
    }),
  );
}

/** Each chapter begins with the frame it was planned for. */
async function chaptersBegin(
  { films, plan }: Planned,
  set: Awaited<ReturnType<typeof readDisc>>['sets'][number],
  read: ReadSectors,
  fault: (sentence: string) => void,
): Promise<void> {
  const { rate } = STANDARDS[plan.standard];
  const frame = (momentOfFrame(1, rate) / 1000) * TICKS;
  for (const [index, film] of films.entries()) {
    const chapters = set.chapters[index] ?? [];
    if (chapters.length !== film.chapters.length) {
      fault(`film ${index + 1} has ${chapters.length} chapters instead of ${film.chapters.length}`);
      continue;
    }
    let zero = 0;
    for (const [at, { chain, program }] of chapters.entries()) {
      const of = set.chains[chain - 1]!;
      const cell = of.cells[of.programs[program - 1]! - 1]!;
      const { startTicks } = await navigationOf(read, set.titleSector, cell);
      if (at === 0) zero = startTicks;
      const off = (startTicks - zero) / frame - film.chapters[at]!.startFrame;
      if (Math.abs(off) > 1.01)
        fault(`chapter ${at + 1} of film ${index + 1} begins ${off.toFixed(1)} frames off its place`);
    }
  }
}
