import { mkdtemp, rm } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { afterEach, beforeEach, describe, expect, it } from '@jest/globals';
import { eq } from 'drizzle-orm';
import { blankSlide } from '../../core/show/new-slide';
import { showId, slideId, type ShowId } from '../../core/show/ids';
import type { Show } from '../../core/show/show';
import type { ShowEdit } from '../../core/show/edit';
import { openDatabase, type OpenDatabase } from '../database/open-database';
import { documents, edits } from '../database/schema';
import { createEvents, type ShowEvent } from '../events';
import { createVersionService } from './versions';
import { createShowService, type AppliedEdits, type ShowService } from './show-service';

let folder: string;
let database: OpenDatabase;
let shows: ShowService;
let id: ShowId;
const url = () => `file:${path.join(folder, 'test.db')}`;
let counted = 0;
const newId = () => `n${(counted += 1)}`;
const addSlide = (): ShowEdit => ({
  kind: 'add-slides',
  runs: [{ afterId: null, slides: [blankSlide(2000, '#102030', newId)] }],
});
const sent = (edit: ShowEdit, editId = `edit-${newId()}-long`) => ({ editId, edit });

beforeEach(async () => {
  folder = await mkdtemp(path.join(tmpdir(), 'tanager-shows-'));
  database = await openDatabase(url());
  shows = createShowService(database, createEvents());
  id = (await shows.create('Evening')).id;
});
afterEach(async () => {
  database.close();
  await rm(folder, { recursive: true, force: true });
});

/** What another process, started after a crash, would load. */
async function afterRestart() {
  const opened = await openDatabase(url());
  const loaded = await createShowService(opened, createEvents()).load(id);
  opened.close();
  return loaded!;
}

describe('the show service', () => {
  it('keeps every acknowledged edit, far past the point where the document is written whole', async () => {
    for (let step = 0; step < 130; step += 1) {
      const { show } = (await shows.load(id))!;
      const edit: ShowEdit = step % 4 === 3 ? { kind: 'remove-slides', slideIds: [show.slides[0]!.id] } : addSlide();
      expect(await shows.applyEdits(id, [sent(edit)], step)).toMatchObject({ revision: step + 1 });
    }
    const here = (await shows.load(id))!;
    expect(await afterRestart()).toEqual(here);
    expect(here.show.slides).toHaveLength(66);
  });
  it('applies an edit once, however often it is sent', async () => {
    const edit = sent(addSlide(), 'the-same-edit');
    await shows.applyEdits(id, [edit], 0);
    const again = (await shows.applyEdits(id, [edit], 0)) as AppliedEdits;
    expect([again.revision, again.since.length, (await shows.load(id))!.show.slides.length]).toEqual([1, 1, 1]);
  });
  it('tells a tab that was behind what others did, in order, and refuses only what cannot be done', async () => {
    await shows.applyEdits(
      id,
      [sent(addSlide(), 'first-tab-1'), sent({ kind: 'rename-show', title: 'Regatta' }, 'first-tab-2')],
      0,
    );
    const answer = (await shows.applyEdits(
      id,
      [
        sent({ kind: 'remove-slides', slideIds: [slideId('gone')] }, 'second-tab-1'),
        sent({ kind: 'set-default-length', lengthMs: 4000 }, 'second-tab-2'),
      ],
      0,
    ))! as AppliedEdits;
    expect(answer.since.map((entry) => entry.editId)).toEqual(['first-tab-1', 'first-tab-2', 'second-tab-2']);
    expect(answer.refused).toMatchObject([{ editId: 'second-tab-1', reason: 'slide-not-found' }]);
    expect((await shows.load(id))!.show).toMatchObject({ title: 'Regatta', defaultLengthMs: 4000 });
  });
  it('keeps the order of edits that arrive at the same time', async () => {
    await Promise.all(Array.from({ length: 40 }, () => shows.applyEdits(id, [sent(addSlide())], 0)));
    expect((await shows.load(id))!).toMatchObject({ revision: 40, show: { slides: { length: 40 } } });
    expect((await afterRestart()).show.slides).toHaveLength(40);
  });
  it('keeps the shelf in step and takes shows off it and back', async () => {
    await shows.applyEdits(
      id,
      [sent(addSlide()), sent(addSlide()), sent({ kind: 'rename-show', title: 'Regatta' })],
      0,
    );
    expect(await shows.shelf()).toMatchObject([{ id, title: 'Regatta', slideCount: 2, lengthMs: 4000 }]);
    expect(await shows.setRemoved(id, true)).toBe(true);
    expect([
      (await shows.shelf()).map((entry) => entry.place),
      await shows.load(id),
      await shows.applyEdits(id, [], 0),
    ]).toEqual([['removed'], null, null]);
    await shows.setRemoved(id, false);
    expect((await shows.load(id))!.show.slides).toHaveLength(2);
    expect(await shows.setRemoved(showId('none'), true)).toBe(false);
  });
  it('shows each studio its own shelf alone', async () => {
    const theirs = await shows.create('Theirs', 'another');
    const someone = { accountId: 'them', studioId: 'another', role: 'member' } as const;
    expect((await shows.shelf(someone)).map((entry) => entry.id)).toEqual([theirs.id]);
    expect((await shows.shelf()).map((entry) => entry.id)).toEqual([id]);
    const copy = (await shows.duplicate(theirs.id))!;
    expect((await shows.shelf(someone)).map((entry) => entry.id).sort()).toEqual([copy.id, theirs.id].sort());
  });
  it('opens a damaged show as it last was, says so, and lets nothing be changed', async () => {
    const kept: Show = { ...(await shows.load(id))!.show, title: 'As kept' };
    await createVersionService(database).keep(kept, 'Sunday', 'kept');
    const damage = { document: { broken: true } };
    await database.write((db) => db.update(documents).set(damage).where(eq(documents.showId, id)));
    const opened = await openDatabase(url());
    const anew = createShowService(opened, createEvents());
    const loaded = (await anew.load(id))!;
    expect(loaded.show.title).toBe('As kept');
    expect(loaded.damage).toMatch(/damaged.*“Sunday”/);
    expect(await anew.applyEdits(id, [sent(addSlide())], 0)).toEqual({ problem: loaded.damage });
    expect(await anew.stored(id)).toMatchObject({ document: { document: { broken: true } } });
    expect((await anew.load((await anew.duplicate(id))!.id))!.damage).toBeNull();
    opened.close();
  });
  it('opens a show as it was before a stored edit that no longer applies', async () => {
    await shows.applyEdits(id, [sent({ kind: 'rename-show', title: 'Before' }), sent(addSlide())], 0);
    const gone = { edit: { kind: 'remove-slides', slideIds: ['never-there'] } };
    await database.write((db) => db.update(edits).set(gone).where(eq(edits.revision, 2)));
    const loaded = await afterRestart();
    expect(loaded).toMatchObject({ show: { title: 'Before', slides: [] }, revision: 2 });
    expect(loaded.damage).toMatch(/before its change number 2 of 2/);
  });
  it('refuses wrong edits one by one, keeps the others, and gives up on a flood', async () => {
    const wrong = { editId: 'wrong-edit', edit: { kind: 'set-lengths', lengths: 'all of them' } };
    const answer = (await shows.applyEdits(id, [wrong, sent(addSlide())], 0)) as AppliedEdits;
    expect(answer).toMatchObject({ revision: 1, refused: [{ editId: 'wrong-edit', reason: 'unsound' }] });
    const flood = Array.from({ length: 1000 }, (_, index) => ({ ...wrong, editId: `wrong-${index}` }));
    expect(await shows.applyEdits(id, flood, 1)).toEqual({ problem: expect.stringContaining('lengths') });
  });
  it('tells open pages that there is something new', async () => {
    const events = createEvents();
    const heard: ShowEvent[] = [];
    const stop = events.listen(id, (event) => heard.push(event));
    const telling = createShowService(database, events);
    await telling.applyEdits(id, [sent(addSlide())], 0);
    stop();
    await telling.applyEdits(id, [sent(addSlide())], 1);
    expect(heard).toEqual([{ kind: 'edits', revision: 1 }]);
  });
});
