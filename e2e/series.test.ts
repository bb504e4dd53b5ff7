import { copyFile, mkdir, mkdtemp, rm, writeFile } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { afterAll, beforeAll, describe, expect, it } from '@jest/globals';
import type { Browser, ElementHandle } from 'puppeteer-core';
import {
  type App,
  ask,
  openApp,
  openBrowser,
  openPage,
  type OpenPage,
  press,
  sending,
  seriousIn,
  textOf,
  waitForText,
} from './app';

const SHOW = 'lantern-regatta';
const HEADS = 'Crew;Album;Words';
let app: App;
let browser: Browser;
let page: OpenPage;
let folder: string;
let series: string;

interface Far {
  readonly state: string;
  readonly billToken: string | null;
  readonly rows: { number: number; title: string; state: string; filmId: string | null; showId: string | null }[];
}
const route = () => `${app.address}/api/v1/series/${series}`;
const far = async () => (await (await ask(`${route()}/rows`)).json()) as Far;
async function until(right: (now: Far) => boolean): Promise<Far> {
  for (;;) {
    const now = await far();
    if (right(now)) return now;
    await new Promise((resolve) => setTimeout(resolve, 150));
  }
}
async function give(part: string, file: string): Promise<void> {
  const picker = (await page.waitForSelector(`[data-part=${part}]`)) as unknown as ElementHandle<HTMLInputElement>;
  await picker.uploadFile(file);
}
const lines = () =>
  page.$$eval('[data-part=series-row]', (rows) =>
    rows.map((row) =>
      (row as HTMLElement).innerText
        .split('\n')
        .map((line) => line.trim())
        .filter(Boolean),
    ),
  );

/** The pattern: a show of two short slides, so that films take seconds. */
async function shortShow(): Promise<void> {
  const path = `${app.address}/api/v1/shows/${SHOW}`;
  const { show, revision } = (await (await ask(path)).json()) as {
    show: { slides: { id: string }[]; cues: unknown[] };
    revision: number;
  };
  const kept = show.slides.slice(0, 2).map(({ id }) => id);
  const edits = [
    { kind: 'remove-slides', slideIds: show.slides.map(({ id }) => id).filter((id) => !kept.includes(id)) },
    { kind: 'set-cues', cues: [] },
    { kind: 'remove-sounds', slideId: kept[0], soundIds: ['opening-words'] },
    { kind: 'set-lengths', lengths: kept.map((slideId) => ({ slideId, lengthMs: 1500, by: 'hand' })) },
  ];
  for (const [index, edit] of edits.entries())
    await ask(
      `${path}/edits`,
      sending('POST', { knownRevision: revision, edits: [{ editId: `shorter-${index}`, edit }] }),
    );
}

beforeAll(async () => {
  app = await openApp({ seed: true });
  browser = await openBrowser();
  page = await openPage(browser);
  folder = await mkdtemp(path.join(tmpdir(), 'tanager-crews-'));
  await shortShow();
  for (const [album, names] of [
    ['otters', ['PE_0412.jpg', 'PE_0415.jpg']],
    ['coots', ['PE_0419.jpg', 'PE_0423.jpg']],
    ['herons', ['PE_0426.jpg', 'PE_0431.jpg']],
  ] as const) {
    await mkdir(path.join(folder, 'albums', album), { recursive: true });
    for (const name of names)
      await copyFile(path.resolve('demo/files', name), path.join(folder, 'albums', album, name));
  }
  await writeFile(
    path.join(folder, 'crews.csv'),
    `\uFEFF${HEADS}\r\nThe Otters;otters;"Dry; to the last"\r\nThe Coots;Coots\\;For the pies\r\nThe Grebes;grebes;Late\r\nThe Herons;herons;Tall\r\n`,
  );
});
afterAll(async () => {
  expect(page.faults).toEqual([]);
  await browser.close();
  await app.close();
  await rm(folder, { recursive: true, force: true });
});

describe('a film for each row of a table', () => {
  it('begins with a show in Send, takes a table with semicolons and a folder, and tells the faults of every row before any film', async () => {
    await page.goto(`${app.address}/shows/${SHOW}/send`);
    await (await page.waitForSelector('[data-part=begin-series]:enabled'))!.click();
    await page.waitForSelector('[data-part=series]');
    series = page.url().split('/').at(-1)!;
    await give('series-table-picker', path.join(folder, 'crews.csv'));
    await waitForText(page, '[data-part=series-rows]', /The Herons/);
    await give('series-folder-picker', path.join(folder, 'albums'));
    await waitForText(page, '[data-part=series-files-told]', /6 files/);
    await waitForText(page, '[data-part=series-tally]', /1 row has a fault/);
    expect(await lines()).toEqual([
      ['1', 'The Otters', 'Look'],
      ['2', 'The Coots', 'Look'],
      ['3', 'The Grebes', 'There is no folder “grebes”.', 'Look'],
      ['4', 'The Herons', 'Look'],
    ]);
    expect(await seriousIn(page)).toEqual([]);
  });

  it('is matched by hand, and any row is looked at as a show before a film is made', async () => {
    await press(page, 'The words “Lantern Regatta” on slide 1');
    await page.keyboard.type('Words');
    await page.keyboard.press('Enter');
    await page.waitForFunction(() =>
      document.querySelector('[data-part=series-matching]')!.textContent!.includes('Words'),
    );
    await page.click('[data-number="2"] [data-part=look-row]');
    await (await page.waitForSelector('[data-number="2"] [data-part=open-row]'))!.click();
    await page.waitForSelector('[data-part=running-order]');
    expect(await textOf(page, '[data-part=running-order]')).toContain('For the pies');
    expect((await far()).rows.map(({ filmId }) => filmId)).toEqual([null, null, null, null]);
    // What is a row's stands on the page of the series, not on the shelf.
    await page.goto(app.address);
    await waitForText(page, '[data-part=series-lines]', /0 of 4 films made/);
    expect(await page.$$eval('[data-part=shelf-show]', (shows) => shows.length)).toBe(1);
  });

  it('makes them all though the server is killed in the middle, each once, with one page for all', async () => {
    await page.goto(`${app.address}/series/${series}`);
    await press(page, 'a file and a screening');
    await (await page.waitForSelector('[data-part=make-series]:enabled'))!.click();
    await until(
      ({ rows }) => rows.some(({ state }) => state === 'done') && rows.some(({ state }) => state === 'making'),
    );
    await app.killHard();
    await app.start();
    const done = await until(({ state }) => state === 'done');
    expect(done.rows.map(({ title, state }) => [title, state])).toEqual([
      ['The Otters', 'done'],
      ['The Coots', 'done'],
      ['The Grebes', 'new'],
      ['The Herons', 'done'],
    ]);
    for (const { showId } of done.rows.filter(({ state }) => state === 'done')) {
      const { films } = (await (await ask(`${app.address}/api/v1/shows/${showId}/films`)).json()) as {
        films: { state: string }[];
      };
      expect(films.map(({ state }) => state)).toEqual(['ready']);
    }
    const zip = Buffer.from(await (await ask(`${route()}/films`)).arrayBuffer());
    expect(zip.subarray(0, 2).toString()).toBe('PK');
    for (const name of ['001 The Otters.mp4', '002 The Coots.mp4', '004 The Herons.mp4'])
      expect(zip.includes(name)).toBe(true);
    const guest = await openPage(browser, 'stranger');
    await guest.goto(`${app.address}/b/${done.billToken}`);
    const shown = await textOf(guest, 'body');
    for (const name of ['The Otters', 'The Coots', 'The Herons']) expect(shown).toContain(name);
    await guest.close();
  });

  it('makes again only what changed in a table that is brought anew', async () => {
    const before = (await far()).rows.map(({ filmId }) => filmId);
    await page.bringToFront();
    await page.goto(`${app.address}/series/${series}`);
    await writeFile(
      path.join(folder, 'again.csv'),
      `Words,Album,Crew\nDry; to the last,otters,The Otters\nFor the cake,coots,The Coots\nTall,herons,The Herons\n`,
    );
    await give('series-table-picker', path.join(folder, 'again.csv'));
    await waitForText(page, '[data-part=series-plan]', /3 rows: Words, Album, Crew/);
    await (await page.waitForSelector('[data-part=make-series]:enabled'))!.click();
    await until(({ state, rows }) => state === 'done' && rows[1]!.filmId !== before[1]);
    const again = (await far()).rows;
    expect([again[0]!.filmId, again[2]!.title, again[2]!.filmId]).toEqual([before[0], 'The Herons', before[3]]);
    await writeFile(path.join(folder, 'none.csv'), 'Name,name\na,b\n');
    await give('series-table-picker', path.join(folder, 'none.csv'));
    await waitForText(page, '[role=alert]', /Two columns are called “name”/);
    await waitForText(page, '[data-part=series-plan]', /3 rows/);
  });
});
