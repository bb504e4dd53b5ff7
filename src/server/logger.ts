import pino, { type Logger } from 'pino';

const LEVELS = ['silent', 'fatal', 'error', 'warn', 'info', 'debug', 'trace'];
let made: Logger | null = null;

/** One line of JSON for each failure, with its stack and what it was about, on stderr. `TANAGER_LOG` says how much is told: `error` unless named otherwise. */
export function logger(): Logger {
  const level = process.env.TANAGER_LOG ?? 'error';
  made ??= pino(
    { level: LEVELS.includes(level) ? level : 'error', base: null },
    pino.destination({ dest: 2, sync: true }),
  );
  return made;
}
