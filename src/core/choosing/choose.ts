import { differenceOf } from '../light/likeness';
import { isKept, type Mark } from '../show/mark';
import { blinks, inTime, msOf, quality, stacksOf, type Candidate, type Stack } from './stacks';

/** Why a picture is among the chosen. */
export type ChosenFor =
  /** A person kept it. */
  | { readonly why: 'kept' }
  /** It stands for its hour. */
  | { readonly why: 'hour'; readonly hour: string }
  /** The best of several that are nearly alike. */
  | { readonly why: 'best'; readonly of: number }
  /** Nothing else was chosen from around that time. */
  | { readonly why: 'time' }
  /** There were few of its kind among the chosen: with nobody, with few or with many people. */
  | { readonly why: 'people'; readonly people: People }
  /** It looks like no other. */
  | { readonly why: 'unlike' }
  | { readonly why: 'good' };

/** Why a picture is not. */
export type OmittedFor<Id> =
  | { readonly why: 'left-out' }
  /** Nearly like one that was chosen, or would have been before it. */
  | { readonly why: 'alike'; readonly id: Id }
  /** The same, and somebody blinks in it who does not in the other. */
  | { readonly why: 'blinks'; readonly id: Id }
  | { readonly why: 'blurred' }
  /** Others of its time and kind were chosen. */
  | { readonly why: 'enough' };

export type People = 'none' | 'few' | 'many';

export interface Choosing<Id> {
  /** In order of time. */
  readonly chosen: readonly { readonly id: Id; readonly reason: ChosenFor }[];
  readonly omitted: readonly { readonly id: Id; readonly reason: OmittedFor<Id> }[];
}

/** So much less sharp than is usual in these pictures is a slip of the hand. */
const BLURRED = { ofUsual: 0.72, most: 0.62 };
const WEIGHTS = { quality: 1, time: 0.9, unlike: 0.5, people: 0.5 } as const;
const MANY = 3;
/** Pictures so many places apart in time are compared by how they look. */
const NEARBY = 40;

/**
 * Chooses about so many pictures: what a person kept and nothing that a person left out; one of each stack; no slips; every hour; and for the rest, one after
 * the other, whatever adds most – good, from a time of which little is there yet, unlike its neighbours, of a kind that is rare among the chosen.
 *
 * A greedy choice of a sum that each further picture adds less to (Nemhauser, Wolsey and Fisher 1978). Thousands of pictures take a fraction of a second.
 *
 * @param count wanted; more when a person kept more
 */
export function chooseBest<Id>(
  pictures: readonly Candidate<Id>[],
  count: number,
  marks: (id: Id) => Mark | null,
): Choosing<Id> {
  const stacks = stacksOf(pictures);
  const blurred = slips(pictures);
  const reasons = new Map<Id, ChosenFor>();
  const omitted = new Map<Id, OmittedFor<Id>>();
  const fronts: Front<Id>[] = [];
  for (const stack of stacks) {
    const kept = stack.filter(({ id }) => isKept(marks(id) ?? undefined));
    for (const { id } of kept) reasons.set(id, { why: 'kept' });
    const free = stack.filter(({ id }) => marks(id) === null);
    const front = kept[0] ?? free.find(({ id }) => !blurred.has(id));
    for (const { id, facts } of stack) {
      if (reasons.has(id)) continue;
      if (marks(id) === 'leave-out') omitted.set(id, { why: 'left-out' });
      else if (front && id !== front.id)
        omitted.set(id, { why: blinks(facts) && !blinks(front.facts) ? 'blinks' : 'alike', id: front.id });
      else if (blurred.has(id)) omitted.set(id, { why: 'blurred' });
    }
    if (front && !reasons.has(front.id)) fronts.push(frontOf(front, stack));
    for (const one of kept) fronts.push(frontOf(one, stack));
  }
  const inOrder = new Map(inTime(fronts.map((front) => front.picture)).map((picture, place) => [picture.id, place]));
  const open = fronts.map((front) => ({ ...front, place: inOrder.get(front.picture.id)! }));
  const taken = open.filter(({ picture }) => reasons.has(picture.id));
  const left = new Set(open.filter(({ picture }) => !reasons.has(picture.id)));
  const take = (front: Placed<Id>, reason: ChosenFor) => {
    reasons.set(front.picture.id, reason);
    taken.push(front);
    left.delete(front);
  };
  for (const [hour, ofHour] of byHour(open)) {
    if (taken.length >= count) break;
    if (ofHour.some((front) => reasons.has(front.picture.id))) continue;
    const best = ofHour.filter((front) => left.has(front)).toSorted((a, b) => b.quality - a.quality)[0];
    if (best) take(best, { why: 'hour', hour });
  }
  const gains = new Gains(open, taken, count);
  while (taken.length < count && left.size > 0) {
    let best: { front: Placed<Id>; gain: Gain } | null = null;
    for (const front of left) {
      const gain = gains.of(front);
      if (!best || gain.sum > best.gain.sum) best = { front, gain };
    }
    take(best!.front, reasonFor(best!.front, best!.gain));
    gains.add(best!.front);
  }
  for (const front of left) omitted.set(front.picture.id, { why: 'enough' });
  const order = inTime(pictures);
  return {
    chosen: order.flatMap(({ id }) => (reasons.has(id) ? [{ id, reason: reasons.get(id)! }] : [])),
    omitted: order.flatMap(({ id }) => (omitted.has(id) ? [{ id, reason: omitted.get(id)! }] : [])),
  };
}

interface Front<Id> {
  readonly picture: Candidate<Id>;
  readonly stackSize: number;
  readonly quality: number;
  readonly people: People;
}
interface Placed<Id> extends Front<Id> {
  /** Among the fronts, in order of time. */
  readonly place: number;
}

function frontOf<Id>(picture: Candidate<Id>, stack: Stack<Id>): Front<Id> {
  const faces = picture.facts.focus?.faces.length ?? 0;
  const people = faces === 0 ? 'none' : faces < MANY ? 'few' : 'many';
  return { picture, stackSize: stack.length, quality: quality(picture.facts), people };
}

/** Pictures that are much less sharp than these usually are. */
function slips<Id>(pictures: readonly Candidate<Id>[]): ReadonlySet<Id> {
  const known = pictures.flatMap(({ facts }) => (facts.focus ? [facts.focus.sharpness] : [])).sort((a, b) => a - b);
  const usual = known[Math.floor(known.length / 2)] ?? 0;
  const least = Math.min(BLURRED.most, BLURRED.ofUsual * usual);
  return new Set(pictures.filter(({ facts }) => facts.focus && facts.focus.sharpness < least).map(({ id }) => id));
}

function byHour<Id>(fronts: readonly Placed<Id>[]): Map<string, Placed<Id>[]> {
  const hours = new Map<string, Placed<Id>[]>();
  for (const front of fronts.toSorted((a, b) => a.place - b.place)) {
    const hour = Number.isNaN(msOf(front.picture.takenAt)) ? null : front.picture.takenAt!.slice(0, 13);
    if (hour !== null) hours.set(hour, [...(hours.get(hour) ?? []), front]);
  }
  return hours;
}

interface Gain {
  readonly sum: number;
  readonly time: number;
  readonly unlike: number;
  readonly people: number;
}

/** What each picture would add to those that are chosen. */
class Gains<Id> {
  private readonly nearest: Float64Array;
  private readonly unlike: Float64Array;
  private readonly chosenOf: Record<People, number> = { none: 0, few: 0, many: 0 };
  private readonly shareOf: Record<People, number> = { none: 0, few: 0, many: 0 };
  private chosen = 0;
  /** So many places apart the chosen ones would lie if they were spread evenly. */
  private readonly even: number;

  constructor(
    private readonly all: readonly Placed<Id>[],
    taken: readonly Placed<Id>[],
    count: number,
  ) {
    this.nearest = new Float64Array(all.length).fill(Infinity);
    this.unlike = new Float64Array(all.length).fill(1);
    this.even = Math.max(1, all.length / Math.max(1, count));
    for (const { people } of all) this.shareOf[people] += 1 / all.length;
    for (const front of taken) this.add(front);
  }

  add({ place, people, picture }: Placed<Id>): void {
    this.chosen += 1;
    this.chosenOf[people] += 1;
    for (const other of this.all) {
      const apart = Math.abs(other.place - place);
      this.nearest[other.place] = Math.min(this.nearest[other.place]!, apart);
      const [a, b] = [other.picture.facts.likeness, picture.facts.likeness];
      if (apart <= NEARBY && a && b)
        this.unlike[other.place] = Math.min(this.unlike[other.place]!, differenceOf(a, b) / 128);
    }
  }

  of({ place, people, quality: own }: Placed<Id>): Gain {
    const time = Math.min(1, this.nearest[place]! / this.even) * WEIGHTS.time;
    const unlike = Math.min(1, this.unlike[place]!) * WEIGHTS.unlike;
    const there = this.chosen === 0 ? 0 : this.chosenOf[people] / this.chosen / Math.max(1e-9, this.shareOf[people]);
    const wanted = Math.max(0, 1 - there) * WEIGHTS.people;
    return { sum: WEIGHTS.quality * own + time + unlike + wanted, time, unlike, people: wanted };
  }
}

function reasonFor<Id>({ stackSize, people }: Placed<Id>, { time, unlike, people: wanted }: Gain): ChosenFor {
  if (wanted > 0.6 * WEIGHTS.people) return { why: 'people', people };
  if (time > 0.95 * WEIGHTS.time) return { why: 'time' };
  if (stackSize > 1) return { why: 'best', of: stackSize };
  return unlike > 0.85 * WEIGHTS.unlike ? { why: 'unlike' } : { why: 'good' };
}
