import { unreachable } from '../../unreachable';
import type { RemoteKey } from '../remote';
import { DiscUnreadableError } from './bytes';
import type { ReadSectors } from './image-files';
import { navigationOf, type Navigation } from './lit-buttons';
import { run, type Leads, type Registers } from './player-commands';
import type { Chain, Command, ReadDisc } from './structures';

/** Where a player of a real image is. Numbers from 1, as the disc counts them. */
export type ReadPlace =
  | { readonly in: 'menu'; readonly set: number; readonly chain: number; readonly button: number }
  | { readonly in: 'title'; readonly set: number; readonly title: number; readonly chapter: number }
  | { readonly in: 'manager-menu'; readonly chain: number }
  | { readonly in: 'stopped' };

/** A player without a screen, for walking through an image as its remote would: it runs the disc's own commands. */
export interface DiscPlayer {
  place(): ReadPlace;
  /** The buttons of what is on. */
  buttons(): Navigation['groups'];
  press(key: RemoteKey): Promise<ReadPlace>;
  /** Remembers where it is. @returns goes back there */
  keep(): () => void;
}

interface At {
  readonly domain: 'first' | 'manager' | 'menu' | 'title';
  readonly set: number;
  readonly title: number;
  readonly chainNumber: number;
  readonly chain: Chain;
  /** From 1. */
  readonly cell: number;
}

const MOST_HOPS = 200;
/** The player's own register that holds the chosen button, in its six highest bits. */
const CHOSEN = 8;
const ROOT_MENU = 3;

/** Puts an image in. @throws {DiscUnreadableError} for one that leads nowhere */
export async function openPlayer(disc: ReadDisc, read: ReadSectors): Promise<DiscPlayer> {
  const registers: Registers = { general: new Array<number>(16).fill(0), system: new Array<number>(24).fill(0) };
  registers.system[CHOSEN] = 1 << 10;
  let at: At | null = null;
  let navigation: Navigation | null = null;
  if (disc.first) await follow({ to: 'first' });
  else await follow({ to: 'title', number: 1 });

  return {
    place,
    buttons: () => navigation?.groups ?? [],
    keep() {
      const was = { at, navigation, general: [...registers.general], system: [...registers.system] };
      return () => {
        ({ at, navigation } = was);
        registers.general.splice(0, Infinity, ...was.general);
        registers.system.splice(0, Infinity, ...was.system);
      };
    },
    async press(key) {
      await pressed(key);
      return place();
    },
  };

  function place(): ReadPlace {
    if (at === null) return { in: 'stopped' };
    if (at.domain === 'menu') return { in: 'menu', set: at.set, chain: at.chainNumber, button: chosen() };
    if (at.domain === 'manager' || at.domain === 'first') return { in: 'manager-menu', chain: at.chainNumber };
    return { in: 'title', set: at.set, title: at.title, chapter: chapterNow(at) };
  }

  function chosen(): number {
    return registers.system[CHOSEN]! >> 10;
  }

  function choose(button: number): void {
    registers.system[CHOSEN] = button << 10;
  }

  async function pressed(key: RemoteKey): Promise<void> {
    if (at === null) return;
    const lit = navigation?.groups[0] ?? [];
    const button = lit[chosen() - 1];
    switch (key) {
      case 'up':
      case 'down':
      case 'left':
      case 'right':
        if (button) choose(button[key]);
        return;
      case 'press':
        if (button) await commanded([button.command]);
        return;
      case 'menu':
        return follow({ to: 'set-menu', set: at.set, entry: ROOT_MENU });
      case 'next':
      case 'previous': {
        if (at.domain !== 'title') return;
        const chapter = chapterNow(at) + (key === 'next' ? 1 : -1);
        const of = setOf(at.set).chapters[at.title - 1]!;
        if (chapter > of.length) return;
        return follow({ to: 'title-of-set', number: at.title, chapter: Math.max(1, chapter) });
      }
      case 'ends':
        return ends(at);
      default:
        return unreachable(key);
    }
  }

  /** Plays to the end of what is on; a menu that goes round ends where it is. */
  async function ends(from: At): Promise<void> {
    const leads = run(from.chain.after, registers);
    if (leads) return follow(leads);
    if (from.chain.next > 0) return follow({ to: 'link', what: 'chain', number: from.chain.next, button: 0 });
    at = null;
  }

  async function commanded(commands: readonly Command[]): Promise<void> {
    const leads = run(commands, registers);
    if (leads) await follow(leads);
  }

  async function follow(first: Leads): Promise<void> {
    let leads: Leads | null = first;
    for (let hops = 0; leads; hops += 1) {
      if (hops > MOST_HOPS) throw new DiscUnreadableError('commands lead from one to another for ever');
      leads = await lead(leads);
    }
  }

  /** @returns where the commands of what is come to lead on to */
  async function lead(leads: Leads): Promise<Leads | null> {
    switch (leads.to) {
      case 'first':
        return enter({ domain: 'first', set: 0, title: 0, chainNumber: 0, chain: disc.first!, cell: 0 });
      case 'title': {
        const title = disc.titles[leads.number - 1];
        if (!title) throw new DiscUnreadableError(`there is no title ${leads.number}`);
        return chapter(title.titleSet, title.number, 1);
      }
      case 'title-of-set':
        return chapter(at!.set, leads.number, leads.chapter);
      case 'set-menu': {
        const set = leads.set ?? at!.set;
        const chainNumber = setOf(set).menus.findIndex(({ entry }) => entry === leads.entry) + 1;
        if (chainNumber === 0) throw new DiscUnreadableError(`set ${set} has no such menu`);
        return menu(set, chainNumber);
      }
      case 'manager-menu': {
        const chain = disc.managerMenus[Math.max(0, leads.number - 1)];
        if (!chain) throw new DiscUnreadableError('the manager has no such menu');
        return enter({ domain: 'manager', set: 0, title: 0, chainNumber: leads.number, chain, cell: 1 });
      }
      case 'link':
        return linked(leads);
      case 'stop':
        at = null;
        return null;
      case 'line':
      case 'end-of-commands':
        return null;
      default:
        return unreachable(leads);
    }
  }

  async function linked({ what, number, button }: Extract<Leads, { to: 'link' }>): Promise<Leads | null> {
    const here = at!;
    if (button > 0) choose(button);
    switch (what) {
      case 'chain':
        if (here.domain === 'menu') return menu(here.set, number);
        throw new DiscUnreadableError('a link leads to a chain outside menus');
      case 'chain-again':
        return enter({ ...here, cell: 1 });
      case 'cell':
        return play({ ...here, cell: number });
      case 'cell-again':
        return play(here);
      case 'program':
        return play({ ...here, cell: here.chain.programs[number - 1] ?? 1 });
      case 'chapter':
        return chapter(here.set, here.title, number);
      case 'tail':
        return run(here.chain.after, registers);
      case 'nothing':
        return null;
      case 'next-cell':
      case 'previous-cell':
      case 'program-again':
      case 'next-program':
      case 'previous-program':
      case 'next-chain':
      case 'previous-chain':
      case 'chain-above':
      case 'resume':
        throw new DiscUnreadableError(`a link “${what}” is not followed`);
      default:
        return unreachable(what);
    }
  }

  function chapter(set: number, title: number, number: number): Promise<Leads | null> {
    const found = setOf(set).chapters[title - 1]?.[number - 1];
    const chain = found && setOf(set).chains[found.chain - 1];
    if (!found || !chain) throw new DiscUnreadableError(`title ${title} has no chapter ${number}`);
    const cell = chain.programs[found.program - 1]!;
    return enter({ domain: 'title', set, title, chainNumber: found.chain, chain, cell });
  }

  function menu(set: number, chainNumber: number): Promise<Leads | null> {
    const chain = setOf(set).menus[chainNumber - 1];
    if (!chain) throw new DiscUnreadableError(`set ${set} has no page ${chainNumber}`);
    return enter({ domain: 'menu', set, title: 0, chainNumber, chain, cell: 1 });
  }

  async function enter(next: At): Promise<Leads | null> {
    at = next;
    const leads = run(next.chain.before, registers);
    if (leads) return leads;
    if (next.chain.cells.length === 0) return run(next.chain.after, registers);
    return play(next);
  }

  async function play(next: At): Promise<null> {
    const cell = next.chain.cells[next.cell - 1];
    if (!cell) throw new DiscUnreadableError(`there is no cell ${next.cell}`);
    at = next;
    const { menuSector, titleSector } = setOf(next.set);
    navigation = await navigationOf(read, next.domain === 'menu' ? menuSector : titleSector, cell);
    if (navigation.chosen > 0) choose(navigation.chosen);
    const count = navigation.groups[0]?.length ?? 0;
    if (next.domain === 'menu' && (chosen() < 1 || chosen() > count)) choose(1);
    return null;
  }

  function setOf(number: number) {
    const set = disc.sets[number - 1];
    if (!set) throw new DiscUnreadableError(`there is no set ${number} of titles`);
    return set;
  }

  function chapterNow({ set, title, chain, cell }: At): number {
    const program = chain.programs.findLastIndex((first) => first <= cell) + 1;
    return setOf(set).chapters[title - 1]!.findLastIndex((one) => one.program <= program) + 1;
  }
}
