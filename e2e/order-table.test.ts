import { mkdtemp, readFile, rm, writeFile } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { afterAll, beforeAll, describe, expect, it } from '@jest/globals';
import Papa from 'papaparse';
import type { Browser, ElementHandle } from 'puppeteer-core';
import { wordsOf } from '../src/core/show/show';
import {
  type App,
  ask,
  type Hands,
  handsOn,
  openApp,
  openBrowser,
  openPage,
  type OpenPage,
  press,
  sending,
  seriousIn,
  waitForText,
} from './app';

let app: App;
let browser: Browser;
let page: OpenPage;
let hands: Hands;
let folder: string;

beforeAll(async () => {
  folder = await mkdtemp(path.join(tmpdir(), 'tanager-table-'));
  app = await openApp({ seed: true });
  browser = await openBrowser();
  page = await openPage(browser);
  hands = handsOn(app, page, 'lantern-regatta');
});
afterAll(async () => {
  expect(page.faults).toEqual([]);
  await browser.close();
  await app.close();
  await rm(folder, { recursive: true, force: true });
});

async function saved(button: string, name: string): Promise<string> {
  const client = await page.createCDPSession();
  await client.send('Browser.setDownloadBehavior', { behavior: 'allow', downloadPath: folder, eventsEnabled: true });
  const done = new Promise<void>((resolve) => {
    client.on('Browser.downloadProgress', ({ state }) => {
      if (state === 'completed') resolve();
    });
  });
  await page.click(`[data-part=${button}]`);
  await done;
  await client.detach();
  return readFile(path.join(folder, name), 'utf8');
}
async function savedTable(): Promise<string[][]> {
  const text = await saved('save-table', 'Lantern Regatta of Port Ellery.csv');
  expect(text.charCodeAt(0)).toBe(0xfeff);
  return Papa.parse<string[]>(text.slice(1), { skipEmptyLines: true }).data;
}
async function bring(name: string, text: string, part = 'table-picker'): Promise<void> {
  const file = path.join(folder, name);
  await writeFile(file, text);
  const picker = (await page.waitForSelector(`[data-part=${part}]`)) as ElementHandle<HTMLInputElement>;
  await picker.uploadFile(file);
}

describe('the order as a table', () => {
  it('comes back from a spreadsheet’s hands – semicolons, other columns first, a row carried, an unknown one – seen beforehand, one step to undo', async () => {
    await hands.go('arrange', 'running-order');
    const before = await hands.stored();
    await page.waitForSelector('[data-part=open-table]:enabled');
    await hands.key('Shift', 'S');
    await page.waitForSelector('[data-part=table-dialog]');
    const [heads, ...rows] = await savedTable();
    expect(rows.map(([id]) => id)).toEqual(before.slides.map(({ id }) => id));
    const at = (name: string) => heads!.indexOf(name);
    rows[1]![at('seconds')] = '7,25';
    rows[2]![at('title')] = 'Ærø; "the ferry"';
    const carried = [...rows.slice(1), rows[0]!, ['nobody', '99', '4', '', '', '', '', '']];
    const turned = [heads!, ...carried].map((row) => row.toReversed());
    await bring('back.csv', `\uFEFF${Papa.unparse(turned, { delimiter: ';' })}\r\n`);
    await waitForText(page, '[data-part=table-says]', /back\.csv: 2 slides change, 1 moves elsewhere\./);
    await waitForText(page, '[data-part=table-faults]', /Row 27: There is no slide “nobody” in this show\./);
    await waitForText(page, '[data-part=table-preview]', /title: (.* → )?Ærø; "the ferry"/);
    expect(await seriousIn(page)).toEqual([]);
    expect((await hands.stored()).slides).toEqual(before.slides);
    await press(page, 'Take over what is understood');
    await page.waitForFunction(() => !document.querySelector('[data-part=table-dialog]'));
    const after = await hands.stored();
    expect(after.slides.map(({ id }) => id)).toEqual(
      [...before.slides.slice(1), before.slides[0]!].map(({ id }) => id),
    );
    expect(after.slides[0]!.lengthMs).toBe(7250);
    expect(wordsOf(after.slides[1]!)!.title).toBe('Ærø; "the ferry"');
    await hands.key('Control', 'z');
    expect((await hands.stored()).slides).toEqual(before.slides);
  });
  it('that is none says so, and changes nothing', async () => {
    await page.click('[data-part=open-table]');
    await bring('none.csv', 'a,b\r\n1,2\r\n');
    await waitForText(page, '[data-part=table-faults]', /There is no column “slide”/);
    await waitForText(page, '[data-part=table-says]', /none\.csv changes nothing/);
    await bring('torn.csv', 'slide,title\r\nx,"never ends');
    await waitForText(page, '[data-part=table-dialog]', /torn\.csv is no table that can be read/);
    expect(await page.$('[data-part=take-table]')).toBeNull();
  });
});

describe('the show as a timeline', () => {
  interface Thing {
    OTIO_SCHEMA: string;
    children: Thing[];
    tracks: Thing;
    source_range: { duration: { value: number } };
  }
  it('comes back from a film editor’s hands – a clip moved, one shorter, one gone – seen beforehand, one step to undo', async () => {
    await hands.go('arrange', 'running-order');
    const before = await hands.stored();
    await page.waitForSelector('[data-part=open-table]:enabled');
    await page.click('[data-part=open-table]');
    const text = await saved('save-timeline', 'Lantern Regatta of Port Ellery.otio');
    const timeline = JSON.parse(text) as Thing;
    const pictures = timeline.tracks.children[0]!;
    const clips = pictures.children.filter(({ OTIO_SCHEMA: schema }) => schema === 'Clip.2');
    expect(clips).toHaveLength(before.slides.length);
    clips[2]!.source_range.duration.value = 60;
    const [first, second, ...rest] = clips as [Thing, Thing, ...Thing[]];
    pictures.children = [second, first, ...rest.slice(0, -1)];
    await bring('cut.otio', JSON.stringify(timeline), 'timeline-picker');
    await waitForText(
      page,
      '[data-part=timeline-preview]',
      /cut\.otio: 24 slides of .*, in the place of the 25 slides there are/,
    );
    expect(await seriousIn(page)).toEqual([]);
    expect((await hands.stored()).slides).toEqual(before.slides);
    await page.click('[data-part=take-timeline]');
    await page.waitForFunction(() => !document.querySelector('[data-part=table-dialog]'));
    const after = await hands.stored();
    const ids = before.slides.map(({ id }) => id);
    expect(after.slides.map(({ id }) => id)).toEqual([ids[1], ids[0], ...ids.slice(2, -1)]);
    expect(after.slides[2]!.lengthMs).toBe(2000);
    expect(after.slides[1]!.layers).toEqual(before.slides[0]!.layers);
    await hands.key('Control', 'z');
    expect((await hands.stored()).slides).toEqual(before.slides);
  });
  it('goes out the identical file again when nothing was done to it, and says what is none', async () => {
    const path = `${app.address}/api/v1/shows/lantern-regatta/timeline`;
    const text = async () => (await ask(path)).text();
    const takeOver = async (timeline: string) => {
      await page.click('[data-part=open-table]');
      await bring('same.otio', timeline, 'timeline-picker');
      await (await page.waitForSelector('[data-part=take-timeline]'))!.click();
      await page.waitForFunction(() => !document.querySelector('[data-part=table-dialog]'));
      await hands.stored();
    };
    // Once: with the first change a slide waits for its voice.
    await takeOver(await text());
    const before = await text();
    const read = (await (await ask(path, sending('POST', { timeline: JSON.parse(before) }))).json()) as {
      told: string[];
      missing: string[];
    };
    expect([read.told, read.missing]).toEqual([[], []]);
    await takeOver(before);
    expect((await text()) === before).toBe(true);
    await page.click('[data-part=open-table]');
    await bring('none.otio', '{"OTIO_SCHEMA":"Clip.1"}', 'timeline-picker');
    await waitForText(page, '[data-part=table-dialog]', /This is no timeline/);
    await bring('torn.otio', '{"OTIO', 'timeline-picker');
    await waitForText(page, '[data-part=table-dialog]', /torn\.otio is no timeline/);
  });
});
