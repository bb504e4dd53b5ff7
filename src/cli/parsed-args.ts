import { parseArgs, type ParseArgsConfig } from 'node:util';
import { UsageError } from './usage-error';

/** What was typed after a command’s name. @throws {UsageError} for what the command does not know */
export function parsedArgs<const Options extends NonNullable<ParseArgsConfig['options']>>(
  args: readonly string[],
  options: Options,
) {
  try {
    return parseArgs({ args: [...args], allowPositionals: true, options });
  } catch (error) {
    throw new UsageError((error as Error).message);
  }
}
