import { nanoid } from 'nanoid';
import { EMPTY_PROFILE } from '../core/studio/studio-profile';
import { openDatabase } from '../server/database/open-database';
import { studios } from '../server/database/schema';
import { createAccounts } from '../server/studio/accounts';
import { entryLink } from '../server/studio/first-owner';
import { THE_STUDIO } from '../server/studio/may-do';
import { parsedArgs } from './parsed-args';
import type { Surroundings } from './tanager';
import { UsageError } from './usage-error';

/**
 * `enter`: a one-time link for the owner who cannot sign in. `studio NAME`: another studio, with a link for its owner. Whoever has the data folder has
 * everything in it; the server may go on meanwhile.
 */
export async function peopleCommand(
  which: 'enter' | 'studio',
  args: readonly string[],
  { out }: Surroundings,
): Promise<number> {
  const { values, positionals } = parsedArgs(args, { json: { type: 'boolean' } });
  const name = positionals.join(' ').trim();
  if (which === 'enter' && name !== '') throw new UsageError('enter takes nothing.');
  if (which === 'studio' && (name === '' || name.length > 200))
    throw new UsageError('studio takes the name of the new studio, of at most 200 letters.');
  const database = await openDatabase();
  try {
    const accounts = createAccounts(database);
    const studioId = which === 'enter' ? THE_STUDIO : nanoid(12);
    if (which === 'studio')
      await database.write((one) =>
        one.insert(studios).values({ id: studioId, profile: { ...EMPTY_PROFILE, name }, revision: 1 }),
      );
    const link = entryLink(await accounts.entryFor(await accounts.owner(studioId)));
    out(
      values.json
        ? `${JSON.stringify({ studio: studioId, link })}\n`
        : `Signs the owner in, once, within a day: ${link}\n`,
    );
    return 0;
  } finally {
    database.close();
  }
}
