import { afterEach, beforeEach, describe, expect, it } from '@jest/globals';
import { mkdtemp, rm } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { showId } from '../../core/show/ids';
import { emptyShow } from '../../core/show/show';
import { openDatabase, type OpenDatabase } from '../database/open-database';
import { tokens as tokenTable } from '../database/schema';
import { createShowService } from '../shows/show-service';
import { createEvents } from '../events';
import { createAccounts } from './accounts';
import { actorOf } from './actor';
import { mayDo, type Deed } from './may-do';
import { createSessions } from './sessions';
import { createTokens } from './tokens';

let folder: string;
let database: OpenDatabase;
let now = 1_700_000_000_000;
beforeEach(async () => {
  folder = await mkdtemp(path.join(tmpdir(), 'tanager-tokens-'));
  process.env.TANAGER_DATA = folder;
  database = await openDatabase();
});
afterEach(async () => {
  database.close();
  delete process.env.TANAGER_DATA;
  await rm(folder, { recursive: true, force: true });
});

const asked = (header: Record<string, string>) => ({ method: 'GET', header: (name: string) => header[name] ?? null });
async function opened() {
  const accounts = createAccounts(database);
  const tokens = createTokens(database, () => now);
  const sessions = createSessions(database, () => now);
  const owner = await accounts.create(
    { studioId: 'studio', role: 'owner' },
    { name: 'Ilka', email: 'ilka@example.org', password: 'a long password' },
  );
  return { accounts, tokens, sessions, owner };
}

describe('a token', () => {
  it('stands for who made it, within its scopes, and for nobody once it has ended or was taken away', async () => {
    const { tokens, sessions, owner } = await opened();
    const show = showId('evening');
    await createShowService(database, createEvents()).put(emptyShow(show, 'An evening'));
    const word = await tokens.make(owner, { name: ' Script ', scopes: ['shows'], days: 2 });
    const actor = await actorOf({ sessions, tokens }, asked({ authorization: `Bearer ${word}` }));
    expect(actor).toMatchObject({ kind: 'person', name: 'Ilka', role: 'owner', scopes: ['shows'] });
    const may = (deed: Deed) => mayDo(database.db, actor, deed, { show });
    expect(
      await Promise.all((['see-show', 'change-show', 'make-show', 'bring-files', 'see-shelf'] as const).map(may)),
    ).toEqual([true, true, true, true, true]);
    expect(
      await Promise.all(
        (
          [
            'send-show',
            'change-studio',
            'see-people',
            'change-people',
            'see-audit',
            'own-account',
            'own-tokens',
            'clear-away',
          ] as const
        ).map(may),
      ),
    ).toEqual(Array(8).fill(false));
    expect(await tokens.list(owner)).toEqual([
      expect.objectContaining({ name: 'Script', scopes: ['shows'], usedAt: now, until: now + 2 * 86_400_000 }),
    ]);
    now += 3 * 86_400_000;
    expect(await tokens.of(word)).toBeNull();
    const other = await tokens.make(owner, { name: 'Other', scopes: ['look'] });
    const [row] = await tokens.list(owner);
    expect(await tokens.remove('somebody', row!.id)).toBe(false);
    expect(await tokens.remove(owner, row!.id)).toBe(true);
    expect(await tokens.of(other)).toBeNull();
  });
  it('that is none is nobody, whatever the browser holds; its word is not kept', async () => {
    const { tokens, sessions, owner } = await opened();
    const cookie = `tanager-session=${await sessions.open(owner, 'browser')}`;
    expect((await actorOf({ sessions, tokens }, asked({ cookie }))).kind).toBe('person');
    expect((await actorOf({ sessions, tokens }, asked({ cookie, authorization: 'Bearer tanager_guess' }))).kind).toBe(
      'stranger',
    );
    const word = await tokens.make(owner, { name: 'x', scopes: ['look'] });
    const rows = await database.db.select().from(tokenTable);
    expect(JSON.stringify(rows)).not.toContain(word);
  });
  it('goes with who made it', async () => {
    const { accounts, tokens, owner } = await opened();
    await accounts.create(
      { studioId: 'studio', role: 'owner' },
      { name: 'Tom', email: 'tom@example.org', password: 'a long password' },
    );
    const word = await tokens.make(owner, { name: 'x', scopes: ['look'] });
    await accounts.remove('studio', owner);
    expect(await tokens.of(word)).toBeNull();
  });
});
