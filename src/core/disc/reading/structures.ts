import { bytesOf, DiscUnreadableError, type Bytes } from './bytes';
import { readImage, SECTOR, type ImageFile, type ReadImage, type ReadSectors } from './image-files';

/** A command of the player's machine: eight bytes. */
export type Command = bigint;

/** A chain of programs: what a title or a menu's page is to a player. */
export interface Chain {
  readonly lengthMs: number;
  readonly cells: readonly Cell[];
  /** The cell, from 1, each program begins with. */
  readonly programs: readonly number[];
  readonly before: readonly Command[];
  readonly after: readonly Command[];
  /** Run at the end of cells that name one. */
  readonly between: readonly Command[];
  readonly next: number;
  /** Seconds it stands still at its end; 255: for ever. */
  readonly stillSeconds: number;
}

export interface Cell {
  readonly lengthMs: number;
  /** In the pictures of its part of the disc. */
  readonly firstSector: number;
  readonly lastSector: number;
  readonly stillSeconds: number;
  /** In `between`, from 1; 0: none. */
  readonly command: number;
}

export interface Title {
  readonly titleSet: number;
  /** Within its set, from 1. */
  readonly number: number;
  readonly angles: number;
  readonly chapterCount: number;
}

export interface TitleSet {
  /** Where the pictures of its menus begin, and of its titles: sectors of the image. */
  readonly menuSector: number;
  readonly titleSector: number;
  readonly lastSector: number;
  readonly standard: 'pal' | 'ntsc';
  readonly shape: '16:9' | '4:3';
  readonly menus: readonly (Chain & {
    /** 3: what the remote's key for the menu leads to. */ readonly entry: number;
  })[];
  readonly chains: readonly Chain[];
  /** Of each title, by chapter: which chain, and which of its programs, from 1. */
  readonly chapters: readonly (readonly { readonly chain: number; readonly program: number }[])[];
}

export interface ReadDisc {
  readonly image: ReadImage;
  readonly first: Chain | null;
  readonly titles: readonly Title[];
  readonly managerMenus: readonly Chain[];
  readonly sets: readonly TitleSet[];
}

/** The structures of a DVD-Video image, by the layout its files have (VMGI and VTSI of ECMA's and the Forum's books, as players read them). @throws {DiscUnreadableError} */
export async function readDisc(read: ReadSectors): Promise<ReadDisc> {
  const image = await readImage(read);
  const file = (name: string): ImageFile => {
    const found = image.files.find((one) => one.name === name);
    if (!found) throw new DiscUnreadableError(`${name} is missing`);
    return found;
  };
  const whole = async (name: string): Promise<Bytes> => {
    const { firstSector, byteCount } = file(name);
    return bytesOf(await read(firstSector, Math.ceil(byteCount / SECTOR)));
  };
  const manager = await whole('VIDEO_TS.IFO');
  expectSame(manager, await whole('VIDEO_TS.BUP'), 'VIDEO_TS');
  if (manager.text(0, 12) !== 'DVDVIDEO-VMG') throw new DiscUnreadableError('VIDEO_TS.IFO is none');
  const firstAt = manager.u32(0x84);
  const titlesAt = manager.u32(0xc4) * SECTOR;
  const menusAt = manager.u32(0xc8) * SECTOR;
  const titles = Array.from({ length: manager.u16(titlesAt) }, (_, index): Title => {
    const at = titlesAt + 8 + index * 12;
    return {
      angles: manager.u8(at + 1),
      chapterCount: manager.u16(at + 2),
      titleSet: manager.u8(at + 6),
      number: manager.u8(at + 7),
    };
  });
  const sets: TitleSet[] = [];
  for (let index = 1; index <= manager.u16(0x3e); index += 1) {
    const name = `VTS_${String(index).padStart(2, '0')}_0`;
    const set = await whole(`${name}.IFO`);
    expectSame(set, await whole(`${name}.BUP`), name);
    sets.push(titleSet(set, file(`${name}.IFO`).firstSector));
  }
  return {
    image,
    first: firstAt === 0 ? null : chain(manager.from(firstAt)),
    titles,
    managerMenus: menusAt === 0 ? [] : menus(manager.from(menusAt)),
    sets,
  };
}

function titleSet(set: Bytes, start: number): TitleSet {
  if (set.text(0, 12) !== 'DVDVIDEO-VTS') throw new DiscUnreadableError('a set of titles is none');
  const video = set.u16(0x200);
  const menusAt = set.u32(0xd0) * SECTOR;
  const chaptersAt = set.u32(0xc8) * SECTOR;
  const count = set.u16(chaptersAt);
  const end = set.u32(chaptersAt + 4) + 1;
  const offsets = Array.from({ length: count }, (_, index) => set.u32(chaptersAt + 8 + index * 4));
  return {
    menuSector: start + set.u32(0xc0),
    titleSector: start + set.u32(0xc4),
    lastSector: start + set.u32(0x0c),
    standard: ((video >> 12) & 3) === 1 ? 'pal' : 'ntsc',
    shape: ((video >> 10) & 3) === 3 ? '16:9' : '4:3',
    menus: menusAt === 0 ? [] : menus(set.from(menusAt)),
    chains: chains(set.from(set.u32(0xcc) * SECTOR)),
    chapters: offsets.map((offset, index) => {
      const until = offsets[index + 1] ?? end;
      return Array.from({ length: (until - offset) / 4 }, (_, at) => ({
        chain: set.u16(chaptersAt + offset + at * 4),
        program: set.u16(chaptersAt + offset + at * 4 + 2),
      }));
    }),
  };
}

/** Of the first language there is. */
function menus(unit: Bytes): (Chain & { readonly entry: number })[] {
  if (unit.u16(0) === 0) return [];
  const table = unit.from(unit.u32(12));
  return Array.from({ length: table.u16(0) }, (_, index) => {
    const id = table.u8(8 + index * 8);
    return { ...chain(table.from(table.u32(12 + index * 8))), entry: (id & 0x80) !== 0 ? id & 0x0f : 0 };
  });
}

function chains(table: Bytes): Chain[] {
  return Array.from({ length: table.u16(0) }, (_, index) => chain(table.from(table.u32(12 + index * 8))));
}

function chain(pgc: Bytes): Chain {
  const [programCount, cellCount] = [pgc.u8(2), pgc.u8(3)];
  const commandsAt = pgc.u16(0xe4);
  const [before, after, between] = commandsAt === 0 ? [0, 0, 0] : [0, 2, 4].map((at) => pgc.u16(commandsAt + at));
  const list = (from: number, count: number) =>
    Array.from({ length: count }, (_, index) => command(pgc, commandsAt + 8 + (from + index) * 8));
  const programsAt = pgc.u16(0xe6);
  const cellsAt = pgc.u16(0xe8);
  return {
    lengthMs: timeMs(pgc, 4),
    programs: Array.from({ length: programCount }, (_, index) => pgc.u8(programsAt + index)),
    cells: Array.from({ length: cellCount }, (_, index): Cell => {
      const at = cellsAt + index * 24;
      return {
        stillSeconds: pgc.u8(at + 2),
        command: pgc.u8(at + 3),
        lengthMs: timeMs(pgc, at + 4),
        firstSector: pgc.u32(at + 8),
        lastSector: pgc.u32(at + 20),
      };
    }),
    before: list(0, before!),
    after: list(before!, after!),
    between: list(before! + after!, between!),
    next: pgc.u16(0x9c),
    stillSeconds: pgc.u8(0xa2),
  };
}

/** Hours, minutes, seconds in decimal digits, and frames with the rate they are counted in. */
function timeMs(bytes: Bytes, at: number): number {
  const digits = (value: number) => (value >> 4) * 10 + (value & 15);
  const last = bytes.u8(at + 3);
  const rate = last >> 6 === 1 ? 25 : 30_000 / 1001;
  const seconds = digits(bytes.u8(at)) * 3600 + digits(bytes.u8(at + 1)) * 60 + digits(bytes.u8(at + 2));
  return seconds * 1000 + (digits(last & 0x3f) * 1000) / rate;
}

export function command(bytes: Bytes, at: number): Command {
  return (BigInt(bytes.u32(at)) << 32n) | BigInt(bytes.u32(at + 4));
}

/** Everything is there twice, so that a scratch does not take a disc away. */
function expectSame(one: Bytes, other: Bytes, name: string): void {
  if (one.length !== other.length || one.raw.some((byte, index) => byte !== other.raw[index]))
    throw new DiscUnreadableError(`the second copy of ${name} differs from the first`);
}
