import { mkdtemp, rm } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { afterEach, beforeEach, describe, expect, it } from '@jest/globals';
import type { ShowEdit } from '../../core/show/edit';
import { slideId, type ShowId } from '../../core/show/ids';
import { blankSlide } from '../../core/show/new-slide';
import { contentOf } from '../../core/show/show';
import { openDatabase, type OpenDatabase } from '../database/open-database';
import { createEvents } from '../events';
import { createShowService, type AppliedEdits, type ShowService } from './show-service';
import { createVersionService, type VersionService } from './versions';

let folder: string;
let database: OpenDatabase;
let shows: ShowService;
let versions: VersionService;
let show: ShowId;
let time = 1000;
let sentCount = 0;
const send = (edit: ShowEdit, knownRevision: number) =>
  shows.applyEdits(show, [{ editId: `edit-number-${(sentCount += 1)}`, edit }], knownRevision) as Promise<AppliedEdits>;
const rename = (title: string): ShowEdit => ({ kind: 'rename-show', title });

beforeEach(async () => {
  folder = await mkdtemp(path.join(tmpdir(), 'tanager-versions-'));
  database = await openDatabase(`file:${path.join(folder, 'test.db')}`);
  shows = createShowService(database, createEvents(), () => time);
  versions = createVersionService(database, () => time);
  show = (await shows.create('Evening')).id;
});
afterEach(async () => {
  database.close();
  await rm(folder, { recursive: true, force: true });
});

describe('versions', () => {
  it('keep the whole show under a name, newest first, whatever happens to it later', async () => {
    await send(
      { kind: 'add-slides', runs: [{ afterId: null, slides: [blankSlide(2000, '#102030', () => 'first-slide')] }] },
      0,
    );
    const before = (await shows.load(show))!.show;
    const kept = await versions.keep(before, 'For the client', 'kept');
    time += 1;
    await send({ kind: 'remove-slides', slideIds: [slideId('first-slide')] }, 1);
    await versions.keep((await shows.load(show))!.show, 'Without the opener', 'kept');
    expect((await versions.list(show)).map((entry) => [entry.name, entry.slideCount, entry.lengthMs])).toEqual([
      ['Without the opener', 0, 0],
      ['For the client', 1, 2000],
    ]);
    const { content } = (await versions.load(show, kept.id))!;
    expect(content).toEqual(contentOf(before));
    await send({ kind: 'set-content', content }, 2);
    expect((await shows.load(show))!.show).toEqual(before);
  });
  it('are renamed, taken off the list and put back; another show’s are out of reach', async () => {
    const { id } = await versions.keep((await shows.load(show))!.show, 'One', 'safety');
    expect(await versions.rename(show, id, 'Two')).toBe(true);
    expect(await versions.setRemoved(show, id, true)).toBe(true);
    expect(await versions.list(show)).toEqual([]);
    await versions.setRemoved(show, id, false);
    expect((await versions.list(show)).map((entry) => [entry.name, entry.why])).toEqual([['Two', 'kept']]);
    const other = (await shows.create('Other')).id;
    expect([
      await versions.load(other, id),
      await versions.rename(other, id, 'Mine'),
      await versions.setRemoved(other, id, true),
    ]).toEqual([null, false, false]);
  });
});

describe('two windows', () => {
  it('that change the same place both keep their work: the later stands, the earlier is a version', async () => {
    await send(rename('Ours'), 0);
    const answer = await send(rename('Theirs'), 0);
    expect(answer.collided).toBe(true);
    expect((await shows.load(show))!.show.title).toBe('Theirs');
    const [kept] = await versions.list(show);
    expect((await versions.load(show, kept!.id))!.content.title).toBe('Ours');
  });
  it('keep the other’s work too when a page that was closed unsent is opened again and knows by now', async () => {
    await send(rename('By the other'), 0);
    const answer = (await shows.applyEdits(
      show,
      [{ editId: 'left-unsent-by-a-page', edit: rename('By the closed page') }],
      1,
      0,
    )) as AppliedEdits;
    expect([answer.collided, answer.since.length]).toEqual([true, 1]);
    const [kept] = await versions.list(show);
    expect((await versions.load(show, kept!.id))!.content.title).toBe('By the other');
  });
  it('that go on quarrelling fill no list, and do again when some time has passed', async () => {
    await send(rename('A'), 0);
    for (const title of ['B', 'C', 'D']) await send(rename(title), 0);
    expect(await versions.list(show)).toHaveLength(1);
    time += 60_000;
    await send(rename('E'), 0);
    expect(await versions.list(show)).toHaveLength(2);
  });
  it('that change different places, or know of each other, keep none', async () => {
    await send(rename('A'), 0);
    expect((await send({ kind: 'set-default-length', lengthMs: 3000 }, 0)).collided).toBe(false);
    expect((await send(rename('B'), 2)).collided).toBe(false);
    expect(await versions.list(show)).toEqual([]);
  });
});

describe('the shelf', () => {
  it('duplicates, archives, renames and tells where each show is', async () => {
    await send(
      { kind: 'add-slides', runs: [{ afterId: null, slides: [blankSlide(2000, '#102030', () => 'only-slide')] }] },
      0,
    );
    const copy = (await shows.duplicate(show))!;
    expect((await shows.load(copy.id))!.show).toEqual({
      ...(await shows.load(show))!.show,
      id: copy.id,
      title: 'Evening, copy',
    });
    await shows.rename(copy.id, 'x'.repeat(300));
    const copied = (await shows.duplicate(copy.id))!;
    expect(copied.title).toMatch(/^x+…, copy$/);
    expect((await shows.load(copied.id))!.damage).toBeNull();
    await shows.rename(copied.id, 'Copied');
    await shows.setRemoved(copied.id, true);
    await shows.rename(copy.id, 'For the parents');
    await shows.setArchived(show, true);
    const places = async () => Object.fromEntries((await shows.shelf()).map((entry) => [entry.title, entry.place]));
    expect(await places()).toEqual({ Evening: 'archive', 'For the parents': 'shelf', Copied: 'removed' });
    await shows.setArchived(show, false);
    await shows.setRemoved(copy.id, true);
    expect(await places()).toEqual({ Evening: 'shelf', 'For the parents': 'removed', Copied: 'removed' });
  });
  it('has nothing to say of a show that is not there', async () => {
    const nowhere = 'nowhere' as ShowId;
    expect([
      await shows.duplicate(nowhere),
      await shows.rename(nowhere, 'X'),
      await shows.setArchived(nowhere, true),
    ]).toEqual([null, 'not-there', false]);
  });
});
