import { describe, expect, it } from '@jest/globals';
import { bytesOf, DiscUnreadableError } from './bytes';
import { run, StrangeCommandError, type Registers } from './player-commands';

const machine = (): Registers => ({ general: new Array<number>(16).fill(0), system: new Array<number>(24).fill(0) });
const told = (registers: Registers, ...commands: string[]) =>
  run(
    commands.map((command) => BigInt(`0x${command.replaceAll(' ', '')}`)),
    registers,
  );

describe('commands of a player', () => {
  it('lead to titles, chapters, menus and links', () => {
    const registers = machine();
    expect(told(registers, '30 02 00 00 00 03 00 00')).toEqual({ to: 'title', number: 3 });
    expect(told(registers, '30 03 00 00 00 02 00 00')).toEqual({ to: 'title-of-set', number: 2, chapter: 1 });
    expect(told(registers, '30 05 00 07 00 02 00 00')).toEqual({ to: 'title-of-set', number: 2, chapter: 7 });
    expect(told(registers, '30 06 00 01 01 83 00 00')).toEqual({ to: 'set-menu', set: 1, entry: 3 });
    expect(told(registers, '30 08 00 00 01 83 00 00')).toEqual({ to: 'set-menu', set: null, entry: 3 });
    expect(told(registers, '20 04 00 00 00 00 00 05')).toEqual({ to: 'link', what: 'chain', number: 5, button: 0 });
    expect(told(registers, '20 07 00 00 00 00 00 02')).toEqual({ to: 'link', what: 'cell', number: 2, button: 0 });
    expect(told(registers, '20 01 00 00 00 00 08 10')).toEqual({ to: 'link', what: 'resume', number: 0, button: 2 });
    expect(told(registers, '30 01 00 00 00 00 00 00')).toEqual({ to: 'stop' });
  });
  it('reckon with registers, and go on elsewhere where something holds', () => {
    const registers = machine();
    // g2 = 5; g2 += 7; button = 3
    expect(told(registers, '71 00 00 02 00 05 00 00', '73 00 00 02 00 07 00 00', '56 00 00 00 0c 00 00 00')).toBeNull();
    expect([registers.general[2], registers.system[8]]).toEqual([12, 3 << 10]);
    // if (g2 == 12) goto 3; leads to title 1, else to title 2
    const choice = ['00 a1 00 02 00 0c 00 03', '30 02 00 00 00 02 00 00', '30 02 00 00 00 01 00 00'];
    expect(told(registers, ...choice)).toEqual({ to: 'title', number: 1 });
    registers.general[2] = 13;
    expect(told(registers, ...choice)).toEqual({ to: 'title', number: 2 });
  });
  it('that are not known, or go round for ever, are told of', () => {
    expect(() => told(machine(), 'e0 00 00 00 00 00 00 00')).toThrow(StrangeCommandError);
    expect(() => told(machine(), '00 01 00 00 00 00 00 01')).toThrow(/for ever/);
  });
});

describe('the bytes of an image', () => {
  it('are not read beyond their end', () => {
    const bytes = bytesOf(new Uint8Array([1, 2, 3]));
    expect([bytes.u16(1), bytes.u8(0)]).toEqual([0x0203, 1]);
    expect(() => bytes.u32(0)).toThrow(DiscUnreadableError);
    expect(() => bytes.from(4)).toThrow(DiscUnreadableError);
  });
});
