import { execFileSync } from 'node:child_process';
import { mkdtemp, rm, writeFile } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { afterAll, beforeAll, describe, expect, it } from '@jest/globals';
import { completionFor, manPage } from './completion-command';
import { againWhenChanged, watchIn } from './watch';
import { commandsIn, USAGE, WATCHED } from './usage';
import { UsageError } from './usage-error';

const commands = commandsIn(USAGE);
let folder: string;
beforeAll(async () => {
  folder = await mkdtemp(path.join(tmpdir(), 'tanager-completion-'));
});
afterAll(async () => {
  await rm(folder, { recursive: true, force: true });
});

/** What bash would offer after these words. */
async function offered(...words: string[]): Promise<string[]> {
  const file = path.join(folder, 'tanager.bash');
  await writeFile(file, completionFor('bash', commands));
  const script = `source ${file}; COMP_WORDS=(tanager ${words.map((word) => `'${word}'`).join(' ')}); COMP_CWORD=${words.length}; _tanager; printf '%s\\n' "\${COMPREPLY[@]}"`;
  return execFileSync('bash', ['-c', script], { encoding: 'utf8', cwd: folder }).split('\n').filter(Boolean);
}

describe('completion', () => {
  it('offers commands, then the options of the one that was typed, then files', async () => {
    expect(await offered('ser')).toEqual(['series']);
    expect(await offered('b')).toEqual(['band', 'bundle', 'backup', 'bring-back']);
    expect(await offered('series', '--')).toEqual(expect.arrayContaining(['--out', '--match', '--check', '--watch']));
    expect(await offered('enter', '--')).toEqual(['--json']);
    expect(await offered('export', 'tanager.b')).toEqual(['tanager.bash']);
  });
  it('knows every command there is', () => {
    const names = commands.map(({ name }) => name);
    for (const name of ['make', 'export', 'check', 'series', 'timeline', 'mounts', 'bring-back', 'studio', 'man'])
      expect(names).toContain(name);
    for (const name of WATCHED) expect(names).toContain(name);
    expect(completionFor('zsh', commands)).toMatch(/^autoload -U \+X bashcompinit/);
    expect(completionFor('fish', commands)).toContain(
      "complete -c tanager -n '__fish_seen_subcommand_from make' -l out",
    );
  });
});

describe('the man page', () => {
  it('is roff with every command, the exit codes and no line that would be taken for a request', () => {
    const page = manPage(commands);
    for (const { name } of commands) expect(page).toContain(`.B tanager ${name.replaceAll('-', '\\-')}`);
    expect(page).toContain('.SH EXIT STATUS');
    const requests = new Set([...page.matchAll(/^\.(\w+)/gm)].map(([, request]) => request));
    expect([...requests].sort()).toEqual(['B', 'I', 'SH', 'TH', 'TP']);
  });
});

describe('watching a folder', () => {
  it.each<[readonly string[], string | null, readonly string[]]>([
    [['a', '--out', 'x'], null, ['a', '--out', 'x']],
    [['a', '--watch', 'in', '--json'], 'in', ['a', '--json']],
    [['--watch=in', 'a'], 'in', ['a']],
  ])('is asked for by %j', (args, watched, rest) => {
    expect(watchIn(args)).toEqual({ folder: watched, rest });
  });
  it('takes a folder', () => {
    expect(() => watchIn(['--watch'])).toThrow(UsageError);
    expect(() => watchIn(['--watch', '--json'])).toThrow(UsageError);
  });
  it('does it again once what changed has come to rest, and not for what it makes itself', async () => {
    const out = path.join(folder, 'film.mp4');
    const ending = new AbortController();
    let runs = 0;
    const run = async () => {
      runs += 1;
      await writeFile(out, `film ${runs}`);
      await writeFile(`${out}.part`, 'part');
      if (runs === 1) setTimeout(() => void writeFile(path.join(folder, 'new.jpg'), 'x'), 200);
      if (runs === 2) setTimeout(() => ending.abort(), 2500);
      return runs;
    };
    const told: string[] = [];
    const code = await againWhenChanged(
      { folder, out, tell: (text) => void told.push(text), signal: ending.signal },
      run,
    );
    expect([runs, code]).toEqual([2, 2]);
    expect(told).toHaveLength(2);
  });
  it('says when there is no such folder', async () => {
    const none = { folder: path.join(folder, 'none'), out: null, tell: () => {}, signal: new AbortController().signal };
    await expect(againWhenChanged(none, async () => 0)).rejects.toThrow(UsageError);
  });
});
