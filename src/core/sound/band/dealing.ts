import { seedOf } from '../../motion/seed';

/** Chance that comes out the same every time: everything that is left to it is dealt by name, so that what is dealt for one thing does not move another. */
export interface Dealer {
  /** 0…1. */
  unit(): number;
  between(least: number, most: number): number;
  chance(share: number): boolean;
  pick<Value>(from: readonly Value[]): Value;
  /** −1…1, mostly near 0. */
  wobble(): number;
}

export function dealer(seed: number, what: string): Dealer {
  let count = 0;
  const unit = () => seedOf(what, Math.imul(seed + 1, 0x9e3779b1) ^ Math.imul((count += 1), 0x85ebca6b));
  return {
    unit,
    between: (least, most) => least + (most - least) * unit(),
    chance: (share) => unit() < share,
    pick: (from) => from[Math.floor(unit() * from.length)]!,
    wobble: () => unit() + unit() + unit() - 1.5,
  };
}
