import type { Joints } from '../listening/joints';

/** From where in a song to where in it. */
interface Jump {
  readonly fromMs: number;
  readonly toMs: number;
}

/** What a person wants of a tailored song. Times of the song. */
export interface TailorWishes {
  /** Joins that are to be made, in this order, with others before, between and after them as need be. */
  readonly keep?: readonly Jump[];
  /** Joins that are not to be made: from where, to where. */
  readonly avoid?: readonly Jump[];
  /** What is not to be heard. */
  readonly without?: readonly Jump[];
}

export interface TailorJoin extends Jump {
  /** Somebody wants this one. */
  readonly kept?: true;
  /** 1: as alike as can be; 0.5: as neighbouring bars of this song are. */
  readonly quality: number;
}

export interface TailoredSong {
  /** Stretches of the song, one after the other. */
  readonly pieces: readonly { readonly fromMs: number; readonly toMs: number }[];
  readonly joins: readonly TailorJoin[];
  /** How much faster than recorded it is played, for what whole beats leave over; 1 ± 0.01, ± 0.03 where the result is short. */
  readonly speed: number;
  /** With the joins that are to be made there is no way to this length, so they were left out. */
  readonly withoutKept?: true;
}

/** A song is made between these times as long. */
export const TAILORED_SHARE = { least: 0.4, most: 2.5 };
/** Bars between two joins; fewer only where nothing else fits. */
const BARS_BETWEEN = [4, 2, 1];
/** Each join costs as much as neighbouring bars differ. */
const JOIN_COSTS = 0.9;
const MOST_STRETCH = 0.01;
const MOST_STRETCH_SHORT = 0.03;
const SHORT_MS = 40_000;
/** What is more unlike than neighbouring bars are is heard as a join. */
const WORSE_COSTS = 3;
/** What a stretch at its limit is as bad as. */
const STRETCH_COSTS = 0.6;
/** Joins lie so long before the beat that its attack is whole. */
const BEFORE_BEAT_MS = 32;

/** From where to where in its file a song is used. */
export interface UsedPart {
  readonly fromMs: number;
  readonly toMs: number;
}

/** The best ways through a song for every count of beats at once. */
interface Ways {
  readonly first: number;
  readonly last: number;
  readonly between: number;
  readonly most: number;
  /** By how many of the joins that must be made are made, beats played and place. */
  readonly costs: Float32Array;
  /** From which place a join came that ended `between` beats before; −1 for none. One that must be made is noted as −2 − place. */
  readonly came: Int16Array;
  /** How many joins must be made. */
  readonly must: number;
}

/**
 * A song at another length, joined where it goes on alike, with its real beginning and ending: the cheapest path from its first beat to its last in about so
 * many beats, by dynamic programming over beats played and place in the song.
 *
 * @returns null when there is no way: too few joints, or too much left out
 */
export function tailorSong(
  joints: Joints,
  used: UsedPart,
  targetMs: number,
  wishes: TailorWishes = {},
): TailoredSong | null {
  const ownMs = used.toMs - used.fromMs;
  if (targetMs < TAILORED_SHARE.least * ownMs || targetMs > TAILORED_SHARE.most * ownMs) return null;
  const nothingToDo =
    !wishes.without?.length && !wishes.keep?.length && Math.abs(targetMs / ownMs - 1) <= stretchLimit(targetMs) / 4;
  if (nothingToDo) return { pieces: [used], joins: [], speed: ownMs / targetMs };
  for (const bars of BARS_BETWEEN) {
    const found = bestWay(joints, used, targetMs, wishes, bars * joints.aBar);
    if (found) return found;
  }
  if (!wishes.keep?.length) return null;
  const { keep: _keep, ...others } = wishes;
  const found = tailorSong(joints, used, targetMs, others);
  return found && { ...found, withoutKept: true };
}

const stretchLimit = (targetMs: number) => (targetMs < SHORT_MS ? MOST_STRETCH_SHORT : MOST_STRETCH);

function bestWay(
  joints: Joints,
  used: UsedPart,
  targetMs: number,
  wishes: TailorWishes,
  between: number,
): TailoredSong | null {
  const ways = waysThrough(joints, used, wishes, between);
  if (!ways) return null;
  const { atMs } = joints;
  const beatMs = (atMs[ways.last]! - atMs[ways.first]!) / Math.max(1, ways.last - ways.first);
  const endsMs = atMs[ways.first]! - used.fromMs + (used.toMs - atMs[ways.last]!);
  const wanted = (targetMs - endsMs) / beatMs;
  const reach = Math.ceil(0.03 * wanted) + 4;
  const limit = stretchLimit(targetMs);
  let best: { score: number; song: TailoredSong } | null = null;
  for (let beats = Math.max(0, Math.floor(wanted - reach)); beats <= Math.min(ways.most, wanted + reach); beats += 1) {
    const cost = ways.costs[placeIn(ways, ways.must, beats, ways.last - ways.first)]!;
    if (!Number.isFinite(cost)) continue;
    const song = songOf(joints, used, wayOf(ways, beats));
    const lengthMs = song.pieces.reduce((sum, piece) => sum + piece.toMs - piece.fromMs, 0);
    const off = Math.abs(lengthMs / targetMs - 1);
    if (off > limit) continue;
    const score = cost + (STRETCH_COSTS * off) / limit;
    if (!best || score < best.score) best = { score, song: { ...song, speed: lengthMs / targetMs } };
  }
  return best?.song ?? null;
}

/** Where in the tables something stands. */
const placeIn = (ways: Pick<Ways, 'first' | 'last' | 'most'>, made: number, beats: number, place: number) =>
  (made * (ways.most + 1) + beats) * width(ways) + place;
const width = ({ first, last }: Pick<Ways, 'first' | 'last'>) => last - first + 1;
const known = new WeakMap<Joints, Map<string, Ways | null>>();

function waysThrough(joints: Joints, used: UsedPart, wishes: TailorWishes, between: number): Ways | null {
  const key = JSON.stringify([used, wishes, between]);
  const own = known.get(joints) ?? new Map<string, Ways | null>();
  known.set(joints, own);
  if (!own.has(key)) {
    // What was worked out for wishes that are no more is let go; with joins that are kept the tables are larger, and one for each distance between joins is enough.
    if (own.size > (wishes.keep ? BARS_BETWEEN.length : 12)) own.clear();
    own.set(key, findWays(joints, used, wishes, between));
  }
  return own.get(key)!;
}

function findWays({ atMs, to }: Joints, used: UsedPart, wishes: TailorWishes, between: number): Ways | null {
  const first = atMs.findIndex((ms) => ms >= used.fromMs + BEFORE_BEAT_MS);
  const last = atMs.findLastIndex((ms) => ms <= used.toMs);
  if (first < 0 || last - first < 2 * between) return null;
  const count = last - first + 1;
  const most = Math.ceil(TAILORED_SHARE.most * 1.05 * count);
  const on = playedOn(atMs, first, count, wishes.without ?? []);
  const keep = (wishes.keep ?? []).map((jump) => placesOfJump(jump, atMs, to));
  if (keep.some((jump) => !jump || jump.from < first || jump.to + between > last || on[jump.to - first]! < between))
    return null;
  const must = keep.length;
  const costs = new Float32Array((must + 1) * (most + 1) * count).fill(Infinity);
  const came = new Int16Array(costs.length).fill(-1);
  const avoided = (from: number, place: number) =>
    wishes.avoid?.some(
      ({ fromMs, toMs }) => Math.abs(atMs[from]! - fromMs) < 250 && Math.abs(atMs[place]! - toMs) < 250,
    ) ?? false;
  const joins = Array.from({ length: count }, (_, at) => {
    const flat = to[first + at] ?? [];
    const own: { place: number; cost: number }[] = [];
    for (let index = 0; index < flat.length; index += 3) {
      const place = flat[index]! - first;
      if (place < 0 || place + between >= count || on[place]! < between || avoided(first + at, flat[index]!)) continue;
      const unlike = flat[index + 1]! / 100;
      own.push({ place, cost: JOIN_COSTS + unlike + WORSE_COSTS * Math.max(0, unlike - 1) });
    }
    return own;
  });
  const lead = Math.min(between, on[0]!);
  costs[lead * count + lead] = 0;
  for (let made = 0; made <= must; made += 1) {
    const wanted = keep[made];
    const [layer, after] = [made * (most + 1), (made + 1) * (most + 1)];
    for (let beats = lead; beats < most; beats += 1)
      for (let at = 0; at < count; at += 1) {
        const cost = costs[(layer + beats) * count + at]!;
        if (cost === Infinity) continue;
        const next = (layer + beats + 1) * count + at + 1;
        if (on[at]! > 0 && cost < costs[next]!) {
          costs[next] = cost;
          came[next] = -1;
        }
        if (beats + between > most) continue;
        for (const join of joins[at]!) {
          const there = (layer + beats + between) * count + join.place + between;
          if (cost + join.cost >= costs[there]!) continue;
          costs[there] = cost + join.cost;
          came[there] = at;
        }
        if (wanted?.from !== first + at) continue;
        const there = (after + beats + between) * count + wanted.to - first + between;
        if (cost >= costs[there]!) continue;
        costs[there] = cost;
        came[there] = -2 - at;
      }
  }
  return { first, last, between, most, costs, came, must };
}

/** How many beats can be played on from each place, until the end or what is not to be heard. */
function playedOn(atMs: readonly number[], first: number, count: number, without: readonly Jump[]): Int32Array {
  const on = new Int32Array(count + 1);
  for (let at = count - 2; at >= 0; at -= 1) {
    const ms = atMs[first + at]!;
    const left = without.some(({ fromMs, toMs }) => ms >= fromMs - 60 && ms < toMs - 60);
    on[at] = left ? 0 : on[at + 1]! + 1;
  }
  return on;
}

/** A join that is wanted lies this near to one that can be made. */
const SAME_JOIN_MS = 250;

/** Between which beats a jump lies; null where the song does not go on from the one to the other. */
function placesOfJump(
  { fromMs, toMs }: Jump,
  atMs: readonly number[],
  to: Joints['to'],
): { readonly from: number; readonly to: number } | null {
  const near = (ms: number) => {
    const place = nearestTo(atMs, ms + BEFORE_BEAT_MS);
    return Math.abs(atMs[place]! - BEFORE_BEAT_MS - ms) < SAME_JOIN_MS ? place : null;
  };
  const [from, there] = [near(fromMs), near(toMs)];
  if (from === null || there === null) return null;
  return to[from]!.some((place, index) => index % 3 === 0 && place === there) ? { from, to: there } : null;
}

function nearestTo(atMs: readonly number[], ms: number): number {
  let best = 0;
  for (let at = 1; at < atMs.length; at += 1) if (Math.abs(atMs[at]! - ms) < Math.abs(atMs[best]! - ms)) best = at;
  return best;
}

/**
 * The same join some beats earlier or later; null where the song does not go on alike there.
 *
 * @param beats below 0: earlier
 */
export function movedJoin(joints: Joints, join: Jump, beats: number): Jump | null {
  const places = placesOfJump(join, joints.atMs, joints.to);
  if (!places) return null;
  const [from, there] = [places.from + beats, places.to + beats];
  const flat = joints.to[from] ?? [];
  const index = flat.findIndex((place, at) => at % 3 === 0 && place === there);
  if (index < 0) return null;
  return {
    fromMs: Math.max(0, Math.round(joints.atMs[from]! - BEFORE_BEAT_MS)),
    toMs: Math.max(0, Math.round(joints.atMs[there]! + flat[index + 2]! / 10 - BEFORE_BEAT_MS)),
  };
}

interface PlannedJoin {
  readonly from: number;
  readonly to: number;
  readonly kept: boolean;
}

/** Joins of the best way in so many beats, as pairs of places. */
function wayOf(ways: Ways, beats: number): PlannedJoin[] {
  const joins: PlannedJoin[] = [];
  let made = ways.must;
  for (let [played, at] = [beats, width(ways) - 1]; played > 0 && at > 0;) {
    const came = ways.came[placeIn(ways, made, played, at)]!;
    if (came === -1) {
      played -= 1;
      at -= 1;
      continue;
    }
    const kept = came < -1;
    const from = kept ? -2 - came : came;
    joins.unshift({ from: ways.first + from, to: ways.first + at - ways.between, kept });
    if (kept) made -= 1;
    played -= ways.between;
    at = from;
  }
  return joins;
}

function songOf({ atMs, to }: Joints, used: UsedPart, way: readonly PlannedJoin[]): Omit<TailoredSong, 'speed'> {
  const pieces: { fromMs: number; toMs: number }[] = [];
  const joins: TailorJoin[] = [];
  let { fromMs } = used;
  for (const join of way) {
    const flat = to[join.from]!;
    const index = flat.findIndex((place, at) => at % 3 === 0 && place === join.to);
    const leaveMs = atMs[join.from]! - BEFORE_BEAT_MS;
    const enterMs = atMs[join.to]! + flat[index + 2]! / 10 - BEFORE_BEAT_MS;
    pieces.push({ fromMs, toMs: leaveMs });
    joins.push({
      fromMs: leaveMs,
      toMs: enterMs,
      quality: Math.round(100 / (1 + flat[index + 1]! / 100)) / 100,
      ...(join.kept && { kept: true }),
    });
    fromMs = enterMs;
  }
  pieces.push({ fromMs, toMs: used.toMs });
  return { pieces, joins };
}
