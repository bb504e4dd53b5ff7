import { bytesOf, DiscUnreadableError } from './bytes';
import type { ReadSectors } from './image-files';
import { command, type Cell, type Command } from './structures';

/** A button as the pictures of a menu carry it. */
export interface LitButton {
  readonly x0: number;
  readonly y0: number;
  readonly x1: number;
  readonly y1: number;
  /** Which button a key leads to, from 1. */
  readonly up: number;
  readonly down: number;
  readonly left: number;
  readonly right: number;
  readonly command: Command;
}

/** What the navigation of a cell's first group of pictures says. */
export interface Navigation {
  /** Presentation time of that group, in ticks of 90 kHz. */
  readonly startTicks: number;
  /** Groups of buttons: for wide televisions, and for those that show bars. */
  readonly groups: readonly (readonly LitButton[])[];
  /** From 1; 0: what was chosen before. */
  readonly chosen: number;
}

const PCI_AT = 0x2d;
const MOST_BUTTONS = 36;

/** @param picturesAt the sector where the pictures of that part of the disc begin */
export async function navigationOf(read: ReadSectors, picturesAt: number, cell: Cell): Promise<Navigation> {
  const sector = bytesOf(await read(picturesAt + cell.firstSector, 1));
  if (sector.u32(0) !== 0x1ba || sector.u32(0x26) !== 0x1bf)
    throw new DiscUnreadableError('a cell does not begin with its navigation');
  const pci = sector.from(PCI_AT);
  if (pci.u32(0) !== cell.firstSector) throw new DiscUnreadableError('a cell is not where it says it is');
  const groupCount = (pci.u16(0x6e) >> 12) & 3;
  const count = pci.u8(0x71);
  const perGroup = groupCount === 0 ? 0 : Math.floor(MOST_BUTTONS / groupCount);
  return {
    startTicks: pci.u32(0x0c),
    chosen: pci.u8(0x74),
    groups: Array.from({ length: pci.u16(0x60) === 0 ? 0 : groupCount }, (_, group) =>
      Array.from({ length: count }, (_each, index): LitButton => {
        const at = 0x8e + (group * perGroup + index) * 18;
        const across = (pci.u16(at) << 8) | pci.u8(at + 2);
        const down = (pci.u16(at + 3) << 8) | pci.u8(at + 5);
        return {
          x0: (across >> 12) & 0x3ff,
          x1: across & 0x3ff,
          y0: (down >> 12) & 0x3ff,
          y1: down & 0x3ff,
          up: pci.u8(at + 6) & 0x3f,
          down: pci.u8(at + 7) & 0x3f,
          left: pci.u8(at + 8) & 0x3f,
          right: pci.u8(at + 9) & 0x3f,
          command: command(pci, at + 10),
        };
      }),
    ),
  };
}
