import { readFileSync } from 'node:fs';
import { describe, expect, it } from '@jest/globals';
import { COMMANDS, type CommandInfo } from './commands';

const all = Object.values<CommandInfo>(COMMANDS);

describe('the commands', () => {
  it('have keys that no other command of the same place has, nor one that works everywhere', () => {
    const of = (info: CommandInfo) => [...(info.combos?.split(', ') ?? []), ...(info.signs ?? '')];
    for (const place of ['Running order', 'Contact sheet'] as const) {
      const keys = all
        .filter(
          (info) =>
            info.where === place ||
            info.where === 'Everywhere' ||
            (place === 'Running order' && info.where === 'Viewer'),
        )
        .flatMap(of);
      expect(keys.filter((key, at) => keys.indexOf(key) !== at)).toEqual([]);
    }
  });
  it('stand in the README with their keys, every one', () => {
    const readme = readFileSync('README.md', 'utf8');
    expect(
      all
        .filter(
          (info) => !readme.includes(`\`${info.keys}\` ${info.name.charAt(0).toLowerCase()}${info.name.slice(1)}`),
        )
        .map((info) => info.name),
    ).toEqual([]);
  });
});
