import { mkdtemp, rm } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { afterEach, beforeEach, describe, expect, it } from '@jest/globals';
import { eq } from 'drizzle-orm';
import { blankSlide } from '../../core/show/new-slide';
import { showId, slideId, type ShowId } from '../../core/show/ids';
import type { ShowEdit } from '../../core/show/edit';
import { openDatabase, type OpenDatabase } from '../database/open-database';
import { documents } from '../database/schema';
import { createEvents, type ShowEvent } from '../events';
import { createShowService, type ShowService } from './show-service';

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
      expect((await shows.applyEdits(id, [sent(edit)], step))!.revision).toBe(step + 1);
    }
    const here = (await shows.load(id))!;
    expect(await afterRestart()).toEqual(here);
    expect(here.show.slides).toHaveLength(66);
  });
  it('applies an edit once, however often it is sent', async () => {
    const edit = sent(addSlide(), 'the-same-edit');
    await shows.applyEdits(id, [edit], 0);
    const again = (await shows.applyEdits(id, [edit], 0))!;
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
    ))!;
    expect(answer.since.map((entry) => entry.editId)).toEqual(['first-tab-1', 'first-tab-2', 'second-tab-2']);
    expect(answer.refused).toEqual([{ editId: 'second-tab-1', reason: 'slide-not-found' }]);
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
  it('says so when a stored show is damaged, instead of opening half of it', async () => {
    await database.write((db) =>
      db
        .update(documents)
        .set({ document: { broken: true } as never })
        .where(eq(documents.showId, id)),
    );
    await expect(afterRestart()).rejects.toMatchObject({
      name: 'DamagedShowError',
      message: expect.stringContaining(id),
    });
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
