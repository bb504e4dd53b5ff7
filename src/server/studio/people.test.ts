import { mkdtemp, rm } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { afterEach, beforeEach, describe, expect, it } from '@jest/globals';
import { eq } from 'drizzle-orm';
import { auditSentence } from '../../core/studio/audit-sentences';
import { showId } from '../../core/show/ids';
import { openDatabase, type OpenDatabase } from '../database/open-database';
import { channelAsks, sessions as sessionRows, showGuests, shows } from '../database/schema';
import { createAccounts, ENTRY_MS, type Accounts } from './accounts';
import { createAudit } from './audit';
import { createInvitations, INVITATION_MS } from './invitations';
import { letOwnerIn } from './first-owner';
import { THE_STUDIO } from './may-do';
import { browserOf, createSessions, SESSION_MS, type Sessions } from './sessions';

let folder: string;
let database: OpenDatabase;
let clock: number;
let accounts: Accounts;
let sessions: Sessions;
const now = () => clock;
const ILKA = { name: 'Ilka', email: 'Ilka@Example.org', password: 'four lanterns in a row' };

beforeEach(async () => {
  folder = await mkdtemp(path.join(tmpdir(), 'tanager-people-'));
  database = await openDatabase(`file:${path.join(folder, 'people.db')}`);
  clock = 1_000_000;
  accounts = createAccounts(database, now);
  sessions = createSessions(database, now);
  const row = { revision: 0, slideCount: 0, lengthMs: 0, createdAt: 0, changedAt: 0, title: 'Regatta' };
  await database.db.insert(shows).values([
    { ...row, id: 'ours' },
    { ...row, id: 'theirs', studioId: 'another' },
  ]);
});
afterEach(async () => {
  database.close();
  await rm(folder, { recursive: true, force: true });
});

describe('accounts', () => {
  it('begin with an owner, who is made once', async () => {
    const owner = await accounts.owner(THE_STUDIO);
    expect(await accounts.owner(THE_STUDIO)).toBe(owner);
    expect(await accounts.own(owner)).toMatchObject({ role: 'owner', hasPassword: false, email: null });
  });
  it('are signed in to by address and password, however the address is written', async () => {
    const id = await accounts.create({ studioId: THE_STUDIO, role: 'member' }, ILKA);
    expect(await accounts.signIn({ ...ILKA, email: ' ilka@example.ORG ' })).toEqual({ accountId: id });
    expect(await accounts.signIn({ ...ILKA, password: 'four lanterns in a roW' })).toBeNull();
    expect(await accounts.signIn({ ...ILKA, email: 'nobody@example.org' })).toBeNull();
  });
  it('without a password are not signed in to by any', async () => {
    const owner = await accounts.owner(THE_STUDIO);
    await accounts.change(owner, { email: 'owner@example.org' });
    expect(await accounts.signIn({ email: 'owner@example.org', password: 'anything at all' })).toBeNull();
  });
  it('never share an address', async () => {
    await accounts.create({ studioId: THE_STUDIO, role: 'member' }, ILKA);
    await expect(accounts.create({ studioId: 'another', role: 'owner' }, ILKA)).rejects.toMatchObject({ status: 409 });
    const owner = await accounts.owner(THE_STUDIO);
    await expect(accounts.change(owner, { email: ILKA.email })).rejects.toMatchObject({ status: 409 });
  });
  it('change password and address only for who knows the password before', async () => {
    const id = await accounts.create({ studioId: THE_STUDIO, role: 'member' }, ILKA);
    const next = { password: 'another four words', oldPassword: 'guessed' };
    await expect(accounts.change(id, next)).rejects.toMatchObject({ status: 403 });
    await expect(accounts.change(id, { email: 'thief@example.org' })).rejects.toMatchObject({ status: 403 });
    await accounts.change(id, { name: 'Ilka B.' });
    await accounts.change(id, { ...next, oldPassword: ILKA.password });
    expect(await accounts.signIn({ ...ILKA, password: next.password })).toEqual({ accountId: id });
    expect(await accounts.signIn(ILKA)).toBeNull();
  });
  it('a one-time link opens once, within a day', async () => {
    const owner = await accounts.owner(THE_STUDIO);
    const [first, late] = [await accounts.entryFor(owner), await accounts.entryFor(owner)];
    expect([await accounts.enter(first), await accounts.enter(first)]).toEqual([{ accountId: owner }, null]);
    clock += ENTRY_MS + 1;
    expect(await accounts.enter(late)).toBeNull();
  });
  it('a studio keeps an owner', async () => {
    const owner = await accounts.owner(THE_STUDIO);
    const id = await accounts.create({ studioId: THE_STUDIO, role: 'member' }, ILKA);
    await expect(accounts.setRole(THE_STUDIO, owner, 'member')).rejects.toMatchObject({ status: 409 });
    await expect(accounts.remove(THE_STUDIO, owner)).rejects.toMatchObject({ status: 409 });
    expect(await accounts.setRole('another', id, 'owner')).toBe(false);
    await accounts.setRole(THE_STUDIO, id, 'owner');
    expect(await accounts.remove(THE_STUDIO, owner)).toBe('Owner');
  });
  it('who is taken out is signed out at once; who is a guest from elsewhere keeps what is theirs', async () => {
    await accounts.owner(THE_STUDIO);
    const id = await accounts.create({ studioId: THE_STUDIO, role: 'member' }, ILKA);
    const visitor = await accounts.create({ studioId: 'another', role: 'owner' }, { ...ILKA, email: 'v@example.org' });
    await accounts.letInto(visitor, showId('ours'));
    expect((await accounts.people(THE_STUDIO)).map(({ role }) => role).sort()).toEqual(['guest', 'member', 'owner']);
    const word = await sessions.open(id, '');
    const theirs = await sessions.open(visitor, '');
    // Also somebody who is just signing in elsewhere.
    await database.db.insert(channelAsks).values({
      ...{ hash: 'h', accountId: id, studioId: THE_STUDIO, place: 'video', verifier: 'v', redirect: 'r' },
      ...{ showId: 'ours', until: clock + 1000 },
    });
    await accounts.remove(THE_STUDIO, id);
    await accounts.remove(THE_STUDIO, visitor);
    expect([await sessions.of(word), (await sessions.of(theirs))?.role]).toEqual([null, 'owner']);
    expect(await database.db.select().from(showGuests)).toEqual([]);
  });
});

describe('sessions', () => {
  it('are kept as hashes, last while they are used, and end when they are not', async () => {
    const owner = await accounts.owner(THE_STUDIO);
    const word = await sessions.open(owner, 'Mozilla/5.0 (X11; Linux x86_64) Firefox/140.0');
    expect(JSON.stringify(await database.db.select().from(sessionRows))).not.toContain(word);
    expect(await sessions.of(word)).toMatchObject({ kind: 'person', accountId: owner, role: 'owner' });
    clock += SESSION_MS - 1000;
    expect(await sessions.of(word)).not.toBeNull();
    clock += SESSION_MS - 1000;
    expect(await sessions.of(word)).not.toBeNull();
    clock += SESSION_MS + 1000;
    expect(await sessions.of(word)).toBeNull();
    expect(await sessions.of('guessed')).toBeNull();
  });
  it('end one by one and everywhere else, never another person’s', async () => {
    const owner = await accounts.owner(THE_STUDIO);
    const other = await accounts.create({ studioId: THE_STUDIO, role: 'member' }, ILKA);
    const words = [await sessions.open(owner, ''), await sessions.open(owner, ''), await sessions.open(other, '')];
    const [here, there, theirs] = await Promise.all(words.map(async (word) => (await sessions.of(word))!));
    expect(await sessions.end(owner, theirs!.sessionId)).toBe(false);
    await sessions.endAll(owner, here!.sessionId);
    expect(await Promise.all(words.map(async (word) => (await sessions.of(word)) !== null))).toEqual([
      true,
      false,
      true,
    ]);
    expect((await sessions.list(here!)).map(({ id, here: own }) => [id, own])).toEqual([[here!.sessionId, true]]);
    expect(await sessions.end(owner, there!.sessionId)).toBe(false);
  });
  it.each([
    ['Mozilla/5.0 (Windows NT 10.0) AppleWebKit Chrome/140 Safari/537 Edg/140', 'Edge on Windows'],
    ['Mozilla/5.0 (iPhone; CPU iPhone OS 19 like Mac OS X) Safari/604', 'Safari on iPhone'],
    ['curl/8', 'A program'],
  ])('tell of %s no more than its kind', (agent, told) => {
    expect(browserOf(agent)).toBe(told);
  });
});

describe('invitations', () => {
  it('are good for one, for two weeks, and can be taken back', async () => {
    const invitations = createInvitations(database, now);
    const wanted = { role: 'guest', show: 'ours', label: 'the bride' } as const;
    const { id, word } = await invitations.invite(THE_STUDIO, wanted);
    expect(await invitations.find(word)).toMatchObject({ id, role: 'guest', show: { id: 'ours', title: 'Regatta' } });
    expect([await invitations.use(id), await invitations.use(id)]).toEqual([true, false]);
    const second = await invitations.invite(THE_STUDIO, wanted);
    expect(await invitations.takeBack('another', second.id)).toBe(false);
    expect(await invitations.takeBack(THE_STUDIO, second.id)).toBe(true);
    const third = await invitations.invite(THE_STUDIO, wanted);
    clock += INVITATION_MS + 1;
    expect([await invitations.find(second.word), await invitations.find(third.word)]).toEqual([null, null]);
    expect(await invitations.list(THE_STUDIO)).toEqual([]);
  });
});

describe('who did what', () => {
  it('is listed by studio, the latest first; the same work goes on in one line', async () => {
    const audit = createAudit(database, now);
    const note = { studioId: THE_STUDIO, accountId: 'a', name: 'Ilka' };
    await audit.note({ ...note, did: 'signed-in' });
    for (let times = 0; times < 3; times += 1)
      await audit.note({ ...note, did: 'POST /api/v1/shows/[show]/edits', what: 'Regatta' });
    await audit.note({ ...note, studioId: 'another', did: 'signed-in' });
    const done = await audit.list(THE_STUDIO, null);
    expect(done.map(auditSentence)).toEqual(['worked on “Regatta”, 3 times', 'signed in']);
    expect((await audit.list(THE_STUDIO, done[0]!.id)).map(auditSentence)).toEqual(['signed in']);
    clock += 3_600_000;
    await audit.note({ ...note, did: 'POST /api/v1/shows/[show]/edits', what: 'Regatta' });
    expect(await audit.list(THE_STUDIO, null)).toHaveLength(3);
  });
});

describe('the first start', () => {
  it('lets the owner in by the word that was given, and by no short one', async () => {
    process.env.TANAGER_ENTRY = 'a-word-of-more-than-twenty-letters';
    await letOwnerIn({ accounts });
    expect(await accounts.enter(process.env.TANAGER_ENTRY)).toEqual({ accountId: await accounts.owner(THE_STUDIO) });
    process.env.TANAGER_ENTRY = 'short';
    await expect(letOwnerIn({ accounts })).rejects.toThrow(/20 letters/);
    delete process.env.TANAGER_ENTRY;
  });
  it('tells of a link only as long as the owner could not come back without', async () => {
    const told: string[] = [];
    const write = process.stdout.write.bind(process.stdout);
    const listen = async () => {
      process.stdout.write = ((text: string) => told.push(text) > 0) as typeof process.stdout.write;
      await letOwnerIn({ accounts }).finally(() => {
        process.stdout.write = write;
      });
    };
    await listen();
    const owner = await accounts.owner(THE_STUDIO);
    await accounts.change(owner, { email: 'o@example.org', password: 'words in a row' });
    await database.db.delete(sessionRows).where(eq(sessionRows.accountId, owner));
    await listen();
    expect(told).toEqual([expect.stringMatching(/^Sign in for the first time.*\/enter#[\w-]{40,}\n$/)]);
  });
});
