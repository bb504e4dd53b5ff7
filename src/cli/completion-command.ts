import type { Surroundings } from './tanager';
import { commandsIn, EXIT_CODES, USAGE, WATCHED, type CommandUsage } from './usage';
import { UsageError } from './usage-error';

const SHELLS = ['bash', 'zsh', 'fish'] as const;

/** Prints what makes a shell complete the commands. */
export function completionCommand([shell, ...more]: readonly string[], { out }: Surroundings): number {
  if (more.length > 0 || !(SHELLS as readonly (string | undefined)[]).includes(shell))
    throw new UsageError(`completion takes a shell: ${SHELLS.join(', ')}.`);
  out(completionFor(shell as (typeof SHELLS)[number], commandsIn(USAGE)));
  return 0;
}

const optionsOf = ({ name, options }: CommandUsage): string =>
  [...options, ...(WATCHED.includes(name) ? ['--watch'] : [])].join(' ');

export function completionFor(shell: (typeof SHELLS)[number], commands: readonly CommandUsage[]): string {
  const names = commands.map(({ name }) => name).join(' ');
  if (shell === 'fish')
    return commands
      .map((command) => {
        const first = `complete -c tanager -f -n __fish_use_subcommand -a ${command.name} -d '${firstSentence(command)}'`;
        const seen = `__fish_seen_subcommand_from ${command.name}`;
        const options = optionsOf(command)
          .split(' ')
          .filter(Boolean)
          .map((option) => `complete -c tanager -n '${seen}' -l ${option.slice(2)}`);
        return `${[first, ...options].join('\n')}\n`;
      })
      .join('');
  const cases = commands.map((command) => `    ${command.name}) words='${optionsOf(command)}' ;;`).join('\n');
  const start = shell === 'zsh' ? 'autoload -U +X bashcompinit && bashcompinit\n' : '';
  return `${start}_tanager() {
  local word="\${COMP_WORDS[COMP_CWORD]}" words=''
  if [ "$COMP_CWORD" -eq 1 ]; then
    COMPREPLY=($(compgen -W '${names}' -- "$word"))
    return
  fi
  case "\${COMP_WORDS[1]}" in
${cases}
  esac
  case "$word" in
    -*) COMPREPLY=($(compgen -W "$words" -- "$word")) ;;
    *) COMPREPLY=($(compgen -f -- "$word")) ;;
  esac
}
complete -o filenames -F _tanager tanager
`;
}

const firstSentence = ({ says }: CommandUsage): string => says.split(/[.;:](?:\s|$)/)[0]!.replaceAll("'", '’');

/** Prints the commands as a man page. */
export function manCommand(args: readonly string[], { out }: Surroundings): number {
  if (args.length > 0) throw new UsageError('man takes nothing.');
  out(manPage(commandsIn(USAGE)));
  return 0;
}

/** A man page in roff (man 7). */
export function manPage(commands: readonly CommandUsage[]): string {
  const plain = (text: string) =>
    text
      .replaceAll('\\', '\\e')
      .replaceAll('-', '\\-')
      .replace(/^([.'])/gm, '\\&$1');
  const ways = commands.flatMap((command) => [
    ...command.ways.map((way) => `.TP\n.B tanager ${plain(way)}`).slice(0, -1),
    `.TP\n.B tanager ${plain(command.ways.at(-1)!)}\n${plain(command.says)}`,
  ]);
  return [
    '.TH TANAGER 1',
    '.SH NAME\ntanager \\- photos, clips and music become an animated slideshow film',
    '.SH SYNOPSIS\n.B tanager\n.I command\n[options]',
    `.SH COMMANDS\n${ways.join('\n')}`,
    `.SH OPTIONS\n.TP\n.B \\-\\-json\nPrints one object to standard output; progress goes to standard error.\n.TP\n.B \\-\\-watch FOLDER\nWith ${WATCHED.join(', ')}: does it again whenever something in the folder changed, until it is ended.`,
    `.SH EXIT STATUS\n${EXIT_CODES.map(([code, means]) => `.TP\n.B ${code}\n${plain(means)}`).join('\n')}`,
    '.SH ENVIRONMENT\n.TP\n.B TANAGER_DATA\nThe data folder.\n.TP\n.B TANAGER_SERVER, TANAGER_TOKEN\nA server to ask, and the token to ask by.',
    '',
  ].join('\n');
}
