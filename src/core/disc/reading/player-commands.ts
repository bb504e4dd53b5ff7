import type { Command } from './structures';

/** What a player keeps: sixteen registers for discs, and its own. */
export interface Registers {
  readonly general: number[];
  readonly system: number[];
}

/** Where a command leads. */
export type Leads =
  | { readonly to: 'line'; readonly line: number }
  | { readonly to: 'end-of-commands' }
  | { readonly to: 'stop' }
  /** Within what is played. `number` from 1, where there is one. */
  | { readonly to: 'link'; readonly what: LinkTo; readonly number: number; readonly button: number }
  | { readonly to: 'title'; readonly number: number }
  | { readonly to: 'title-of-set'; readonly number: number; readonly chapter: number }
  | { readonly to: 'first' }
  | { readonly to: 'manager-menu'; readonly number: number; readonly entry: boolean }
  | { readonly to: 'set-menu'; readonly set: number | null; readonly entry: number };

export type LinkTo =
  | 'nothing'
  | 'cell-again'
  | 'next-cell'
  | 'previous-cell'
  | 'program-again'
  | 'next-program'
  | 'previous-program'
  | 'chain-again'
  | 'next-chain'
  | 'previous-chain'
  | 'chain-above'
  | 'tail'
  | 'resume'
  | 'chain'
  | 'chapter'
  | 'program'
  | 'cell';

const SUB_LINKS: Readonly<Record<number, LinkTo>> = {
  ...{ 0: 'nothing', 1: 'cell-again', 2: 'next-cell', 3: 'previous-cell', 5: 'program-again', 6: 'next-program' },
  ...{ 7: 'previous-program', 9: 'chain-again', 10: 'next-chain', 11: 'previous-chain', 12: 'chain-above' },
  ...{ 13: 'tail', 16: 'resume' },
};

/** A command no rule is known for. */
export class StrangeCommandError extends Error {
  override readonly name = 'StrangeCommandError';
}

const MOST_STEPS = 1000;

/** Runs a list of commands. @returns where they lead; null when they end without */
export function run(commands: readonly Command[], registers: Registers): Leads | null {
  for (let line = 0, steps = 0; line < commands.length; line += 1) {
    if ((steps += 1) > MOST_STEPS) throw new StrangeCommandError('commands go round for ever');
    const leads = perform(commands[line]!, registers);
    if (leads === null) continue;
    if (leads.to === 'line') line = leads.line - 2;
    else if (leads.to === 'end-of-commands') return null;
    else if (leads.to !== 'link' || leads.what !== 'nothing') return leads;
  }
  return null;
}

/** One command of the player's machine. Its kinds are told apart by the three highest bits; bits are counted from 63, the highest. */
function perform(command: Command, registers: Registers): Leads | null {
  const bits = (first: number, count: number) =>
    Number((command >> BigInt(first - count + 1)) & ((1n << BigInt(count)) - 1n));
  const register = (number: number) =>
    (number & 0x80) !== 0 ? (registers.system[number & 0x1f] ?? 0) : registers.general[number & 0xf]!;
  const valueOr = (isValue: boolean, first: number) => (isValue ? bits(first, 16) : register(bits(first - 8, 8)));
  const holds = (one: number, other: number): boolean => {
    switch (bits(54, 3)) {
      case 0:
        return true;
      case 1:
        return (one & other) !== 0;
      case 2:
        return one === other;
      case 3:
        return one !== other;
      case 4:
        return one >= other;
      case 5:
        return one > other;
      case 6:
        return one <= other;
      default:
        return one < other;
    }
  };
  const isValue = bits(55, 1) === 1;
  const set = (target: number, other: number, value: number) => {
    const kind = bits(59, 4);
    const now = registers.general[target]!;
    const results: Readonly<Record<number, () => number>> = {
      1: () => value,
      2: () => {
        registers.general[other] = now;
        return value;
      },
      3: () => Math.min(0xffff, now + value),
      4: () => Math.max(0, now - value),
      5: () => Math.min(0xffff, now * value),
      6: () => (value === 0 ? 0xffff : Math.floor(now / value)),
      7: () => (value === 0 ? 0xffff : now % value),
      9: () => now & value,
      10: () => now | value,
      11: () => now ^ value,
    };
    const result = results[kind];
    if (kind !== 0 && !result) throw new StrangeCommandError(`a register is set in a way that is not known (${kind})`);
    if (result) registers.general[target] = result();
  };
  const subLink = (): Leads => {
    const what = SUB_LINKS[bits(4, 5)];
    if (!what) throw new StrangeCommandError(`a link leads to something that is not known (${bits(4, 5)})`);
    return { to: 'link', what, number: 0, button: bits(15, 6) };
  };
  const link = (): Leads | null => {
    const button = bits(15, 6);
    switch (bits(51, 4)) {
      case 0:
        return null;
      case 1:
        return subLink();
      case 4:
        return { to: 'link', what: 'chain', number: bits(14, 15), button: 0 };
      case 5:
        return { to: 'link', what: 'chapter', number: bits(9, 10), button };
      case 6:
        return { to: 'link', what: 'program', number: bits(6, 7), button };
      case 7:
        return { to: 'link', what: 'cell', number: bits(7, 8), button };
      default:
        throw new StrangeCommandError(`a link that is not known (${bits(51, 4)})`);
    }
  };

  switch (bits(63, 3)) {
    case 0: {
      if (!holds(register(bits(39, 8)), valueOr(isValue, 31))) return null;
      const kind = bits(51, 4);
      if (kind === 1) return { to: 'line', line: bits(7, 8) };
      return kind === 2 ? { to: 'end-of-commands' } : null;
    }
    case 1: {
      if (bits(60, 1) === 0) return holds(register(bits(39, 8)), valueOr(isValue, 31)) ? link() : null;
      return holds(register(bits(15, 8)), register(bits(7, 8))) ? jump(bits) : null;
    }
    case 2: {
      if (!holds(register(bits(15, 8)), register(bits(7, 8)))) return null;
      if (bits(59, 4) === 6) registers.system[8] = valueOr(bits(60, 1) === 1, 31);
      if (bits(59, 4) === 3) registers.general[bits(19, 4)] = valueOr(bits(60, 1) === 1, 47);
      return link();
    }
    case 3: {
      if (!holds(register(bits(47, 8)), valueOr(isValue, 15))) return null;
      set(bits(35, 4), bits(19, 4), valueOr(bits(60, 1) === 1, 31));
      return link();
    }
    case 4: {
      set(bits(51, 4), bits(35, 4), valueOr(bits(60, 1) === 1, 47));
      return holds(register(bits(51, 4)), valueOr(isValue, 31)) ? subLink() : null;
    }
    case 5:
    case 6: {
      const cond =
        bits(60, 1) === 1
          ? holds(register(bits(31, 8)), register(bits(23, 8)))
          : holds(register(bits(39, 8)), valueOr(isValue, 31));
      if (cond) set(bits(51, 4), bits(35, 4), valueOr(bits(60, 1) === 1, 47));
      return cond || bits(63, 3) === 6 ? subLink() : null;
    }
    default:
      throw new StrangeCommandError('a command of a kind that is not known');
  }
}

function jump(bits: (first: number, count: number) => number): Leads | null {
  switch (bits(51, 4)) {
    case 1:
      return { to: 'stop' };
    case 2:
      return { to: 'title', number: bits(22, 7) };
    case 3:
      return { to: 'title-of-set', number: bits(22, 7), chapter: 1 };
    case 5:
      return { to: 'title-of-set', number: bits(22, 7), chapter: bits(41, 10) };
    case 6:
    case 8:
      switch (bits(23, 2)) {
        case 0:
          return { to: 'first' };
        case 1:
          return { to: 'manager-menu', number: bits(19, 4), entry: true };
        case 2:
          // A call leads to the menus of the set it is given in.
          return { to: 'set-menu', set: bits(51, 4) === 6 ? bits(31, 8) : null, entry: bits(19, 4) };
        default:
          return { to: 'manager-menu', number: bits(46, 15), entry: false };
      }
    default:
      return null;
  }
}
