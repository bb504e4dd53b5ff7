import { readdirSync } from 'node:fs';
import path from 'node:path';
import { afterAll, beforeAll, describe, expect, it } from '@jest/globals';
import type { Browser } from 'puppeteer-core';
import {
  ask,
  chord,
  dropFiles,
  openApp,
  openBrowser,
  openPage,
  press,
  textOf,
  waitForText,
  type App,
  type OpenPage,
} from './app';

const FILES = [
  ...readdirSync('demo/files')
    .filter((name) => /^PE_041.*\.jpg$/.test(name))
    .map((name) => path.resolve('demo/files', name)),
  path.resolve('demo/files/harbour-reel.mp3'),
];
const PICTURES = FILES.length - 1;

let app: App;
let browser: Browser;
let page: OpenPage;
/** Every deliberate action of the way, in words. */
let actions: string[] = [];
const act = async (words: string, how: () => Promise<unknown>) => {
  actions.push(words);
  await how();
};

beforeAll(async () => {
  app = await openApp();
  browser = await openBrowser();
  page = await openPage(browser);
});
afterAll(async () => {
  await browser.close();
  await app.close();
});

const looked = async () => {
  await waitForText(page, '[data-part=tally]', new RegExp(`${PICTURES} pictures[\\s\\S]*1 sound`));
  await page.waitForFunction(() => !document.querySelector('[data-part=intake]'));
};
/** A film of this length takes a slow machine a minute and a half. */
const PATIENT_MS = 200_000;
const theFilm = async () => {
  await page.waitForSelector('[data-part=film][data-state=ready]', { timeout: PATIENT_MS });
  const id = page.url().split('/').at(-2)!;
  const { films } = (await (await ask(`${app.address}/api/v1/shows/${id}/films`)).json()) as {
    films: { id: string }[];
  };
  const { show } = (await (await ask(`${app.address}/api/v1/shows/${id}`)).json()) as {
    show: { slides: { layers: { kind: string; title?: string }[] }[]; cues: unknown[] };
  };
  return { filmCount: films.length, slides: show.slides, songCount: show.cues.length };
};
const expectWhole = async (title: string) => {
  const { filmCount, slides, songCount } = await theFilm();
  expect([filmCount, slides.length, songCount]).toEqual([1, PICTURES, 1]);
  expect(slides[0]!.layers.find((layer) => layer.kind === 'words')?.title).toBe(title);
};

describe('from an empty shelf to a film with music and a title', () => {
  it('takes at most twelve actions by mouse, and what is on the screen leads from each to the next', async () => {
    actions = [];
    await page.goto(app.address);
    expect(await textOf(page, '[data-part=shelf-page]')).toMatch(/drop/i);
    await act('drop the pictures and the song on the shelf', () => dropFiles(page, '[data-part=shelf-page]', FILES));
    await looked();
    await act('“Lay into the order”', () => press(page, 'Lay into the order'));
    await act('“Play under the show”', () => press(page, 'Play under the show'));
    await act('“Arrange”', () => press(page, 'Arrange'));
    await page.waitForSelector('[data-part=slide]');
    await act('“+ words” on the first slide', () => page.locator('[data-part=slide] ::-p-text(+ words)').click());
    await page.waitForFunction(() => document.activeElement?.matches('[data-part=title]'));
    await act('type the title', () => page.keyboard.type('Lantern night'));
    await act('“Send”', () => press(page, 'Send'));
    await page.waitForSelector('[data-part=make-film]:enabled');
    await act('“Make the film”', () => page.locator('[data-part=make-film]').click());
    await expectWhole('Lantern night');
    expect(actions.length).toBeLessThanOrEqual(12);
  });
  it('takes no more by keyboard alone', async () => {
    actions = [];
    await page.goto(app.address);
    await page.waitForSelector('[data-part=new-show]');
    await act('Tab to “New show”', async () => {
      for (let tabs = 0; tabs < 20; tabs += 1) {
        await page.keyboard.press('Tab');
        if (await page.evaluate(() => document.activeElement?.getAttribute('data-part') === 'new-show')) return;
      }
      throw new Error('New show is not reached by Tab');
    });
    await act('Enter', () => page.keyboard.press('Enter'));
    await page.waitForSelector('[data-part=gather]');
    await page.waitForSelector('body[data-commands~="bring-in"]');
    // A browser that has only just been asked to hand its dialog over may miss the first.
    let chooser = page.waitForFileChooser({ timeout: 20_000 });
    await act('I', () => page.keyboard.press('i'));
    chooser = chooser.catch(async () => {
      const again = page.waitForFileChooser();
      await page.keyboard.press('i');
      return again;
    });
    await act('choose the files', async () => (await chooser).accept(FILES));
    await looked();
    await act('Enter: lay into the order', () => page.keyboard.press('Enter'));
    await act('M: the song under the show', () => page.keyboard.press('m'));
    await act('Alt 2: Arrange', () => chord(page, 'Alt', '2'));
    await page.waitForSelector('[data-part=slide]');
    await act('Home: the first slide', () => page.keyboard.press('Home'));
    await act('T: a title', async () => {
      await page.keyboard.press('t');
      await page.waitForFunction(() => document.activeElement?.matches('[data-part=title]'));
      await page.keyboard.type('By hand');
    });
    await act('Escape: out of the words', () => page.keyboard.press('Escape'));
    await act('Alt 4: Send', () => chord(page, 'Alt', '4'));
    await page.waitForSelector('[data-part=make-film]:enabled');
    await act('M: make the film', () => page.keyboard.press('m'));
    await expectWhole('By hand');
    expect(actions.length).toBeLessThanOrEqual(12);
  });
  it('met no error on the way', () => expect(page.faults).toEqual([]));
});
