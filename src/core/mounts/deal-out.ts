import type { MountFit, Shape, Suits } from './mount';
import { pictureWindows, takesOf } from './mount';
import { windowAspects } from './window-places';

/** What a mount does when there are fewer pictures than windows: show some again, or leave windows empty. */
export type TooFew = 'repeat' | 'empty';
/** And when there are more: it is laid several times, or the rest stay slides of their own. */
export type TooMany = 'again' | 'leave';

/** One laying of a mount: which fit, and which picture goes to which of its picture windows, by index; null: left empty. */
export interface Run {
  readonly fit: MountFit;
  readonly filled: readonly (number | null)[];
}

export interface DealtOut {
  readonly runs: readonly Run[];
  /** Pictures that stay slides of their own, by index. */
  readonly left: readonly number[];
}

interface DealOut {
  readonly fits: readonly MountFit[];
  readonly frame: Shape;
  /** Width over height of each picture, in order. */
  readonly aspects: readonly number[];
  /** A fit by name, instead of the one that suits. */
  readonly fit: string | null;
  readonly tooFew: TooFew;
  readonly tooMany: TooMany;
}

/** Deals pictures out to as many runs of a mount as are needed, as evenly as can be, each with the fit that suits those it gets. */
export function dealtOut({ fits, frame, aspects, fit, tooFew, tooMany }: DealOut): DealtOut {
  const usable = fit === null ? fits : fits.filter((one) => one.name === fit);
  const counts = [...new Set(usable.map(takesOf))].sort((one, other) => one - other);
  const most = counts.at(-1) ?? 0;
  const all = aspects.map((_, index) => index);
  if (most === 0) return { runs: usable[0] ? [{ fit: usable[0], filled: [] }] : [], left: all };
  const taken = tooMany === 'leave' ? all.slice(0, most) : all;
  const runs = shares(taken.length, counts).map(({ from, count }) => {
    const own = taken.slice(from, from + count);
    const chosen = fitFor(
      usable,
      own.map((index) => aspects[index]!),
    );
    return { fit: chosen, filled: placed(chosen, frame, own, aspects, tooFew) };
  });
  return { runs, left: all.slice(taken.length) };
}

/** The fit for so many pictures of such shapes: the smallest that holds them all, and of those the one made for most of them. */
export function fitFor(fits: readonly MountFit[], aspects: readonly number[]): MountFit {
  const roomy = fits.filter((fit) => takesOf(fit) >= aspects.length);
  const count = roomy.length > 0 ? Math.min(...roomy.map(takesOf)) : Math.max(...fits.map(takesOf));
  const same = fits.filter((fit) => takesOf(fit) === count);
  const suits = suitsOf(aspects);
  return same.find((fit) => fit.suits === suits) ?? same.find((fit) => fit.suits === 'any') ?? same[0]!;
}

const CLEARLY = 1.15;

/** The shape most of some pictures have; `any` where no shape has most of them. */
export function suitsOf(aspects: readonly number[]): Suits {
  const counted: Record<Exclude<Suits, 'any'>, number> = { wide: 0, upright: 0, square: 0 };
  for (const aspect of aspects) counted[aspect > CLEARLY ? 'wide' : aspect < 1 / CLEARLY ? 'upright' : 'square'] += 1;
  const [name, count] = Object.entries(counted).sort(([, one], [, other]) => other - one)[0]!;
  return count > aspects.length / 2 ? (name as Suits) : 'any';
}

/** So many pictures in runs of counts there are fits for, as like each other as can be. */
function shares(total: number, counts: readonly number[]): { from: number; count: number }[] {
  const most = counts.at(-1)!;
  const runs = Math.max(1, Math.ceil(total / most));
  const found: { from: number; count: number }[] = [];
  let from = 0;
  for (let left = runs; left > 0; left -= 1) {
    const wanted = Math.ceil((total - from) / left);
    // Where there is no fit for just so many, as many as a smaller one holds: windows are better filled than repeated.
    const count = counts.includes(wanted) ? wanted : (counts.findLast((one) => one <= wanted) ?? wanted);
    found.push({ from, count: Math.min(count, total - from) });
    from += found.at(-1)!.count;
  }
  while (from < total) {
    const rest = total - from;
    const count = Math.min(rest, counts.findLast((one) => one <= rest) ?? rest);
    found.push({ from, count });
    from += count;
  }
  return found;
}

/** How much worse a picture in another's place may lie before the order gives way to the shapes; of a ratio's logarithm. */
const WORTH_IT = 0.35;

/** Pictures in windows: in their order, but that those whose shapes would each suit the other's window much better change places. */
function placed(
  fit: MountFit,
  frame: Shape,
  own: readonly number[],
  aspects: readonly number[],
  tooFew: TooFew,
): (number | null)[] {
  const windows = pictureWindows(fit);
  const shapes = windowAspects(fit, frame);
  const order: (number | null)[] = windows.map((_, at) =>
    at < own.length ? own[at]! : tooFew === 'empty' || own.length === 0 ? null : own[at % own.length]!,
  );
  const price = (at: number, picture: number | null) =>
    picture === null ? 0 : Math.abs(Math.log(aspects[picture]! / shapes[windows[at]!]!));
  for (let one = 0; one < order.length; one += 1)
    for (let other = one + 1; other < order.length; other += 1) {
      if (order[one] === null || order[other] === null) continue;
      const now = price(one, order[one]!) + price(other, order[other]!);
      const then = price(one, order[other]!) + price(other, order[one]!);
      if (now - then > WORTH_IT * 2) [order[one], order[other]] = [order[other]!, order[one]!];
    }
  return order;
}
