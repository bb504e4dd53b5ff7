import { publicAddress } from '../http/own-address';
import type { RunningServer } from '../running-server';
import { THE_STUDIO } from './may-do';

/**
 * Sees to it that the studio has an owner and that there is a way in: a one-time link with the word that was given (`TANAGER_ENTRY`), or, as long as its owner
 * could not come back otherwise, one that is told where the server was started and nowhere else.
 */
export async function letOwnerIn({ accounts }: Pick<RunningServer, 'accounts'>): Promise<void> {
  const owner = await accounts.owner(THE_STUDIO);
  const given = process.env.TANAGER_ENTRY;
  if (given) {
    if (given.length < 20) throw new Error('TANAGER_ENTRY must be an unguessable word of at least 20 letters.');
    await accounts.entryFor(owner, given);
  } else if (!(await accounts.canComeBack(owner))) {
    const word = await accounts.entryFor(owner);
    process.stdout.write(`Sign in for the first time, within a day: ${entryLink(word)}\n`);
  }
}

/** The link of a one-time word. The word stands where browsers send it to nobody. */
export function entryLink(word: string): string {
  const here = `http://localhost:${process.env.PORT ?? '3000'}`;
  return `${publicAddress()?.origin ?? here}/enter#${word}`;
}
