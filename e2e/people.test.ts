import { afterAll, beforeAll, describe, expect, it } from '@jest/globals';
import type { Browser } from 'puppeteer-core';
import {
  type App,
  ask,
  type Hands,
  handsOn,
  openApp,
  openBrowser,
  type OpenPage,
  openPage,
  press,
  seriousIn,
  waitForText,
} from './app';
import { SIGNED_OUT } from '../src/ui/show/call-server';

const SHOW = 'lantern-regatta';
const PASSWORD = 'four lanterns in a row';

let app: App;
let browser: Browser;
let page: OpenPage;
let hands: Hands;

beforeAll(async () => {
  app = await openApp({ seed: true });
  browser = await openBrowser();
  page = await openPage(browser);
  hands = handsOn(app, page, SHOW);
});
afterAll(async () => {
  expect(page.faults).toEqual([]);
  await browser.close();
  await app.close();
});

/** A browser of somebody else. */
async function another(): Promise<OpenPage> {
  const context = await browser.createBrowserContext();
  return openPage(context, 'stranger');
}

async function fill(of: OpenPage, part: string, values: Readonly<Record<string, string>>): Promise<void> {
  // A form is sent once the page is alive.
  await of.waitForSelector(`[data-part=${part}] button[type=submit]:enabled`);
  for (const [name, value] of Object.entries(values)) {
    const field = (await of.waitForSelector(`[data-part=${part}] input[name=${name}]`))!;
    await field.click({ count: 3 });
    await field.type(value);
  }
  await of.keyboard.press('Enter');
}

async function linkMade(): Promise<string> {
  await page.waitForSelector('[data-part=made-link]');
  return page.$eval('[aria-label="The link"]', (field) => (field as HTMLInputElement).value);
}

describe('an account', () => {
  it('is given a password, by which one comes back to the page one wanted', async () => {
    await page.goto(`${app.address}/account`);
    await fill(page, 'own-password', { email: 'owner@example.org', password: PASSWORD });
    await waitForText(page, 'body', /you sign in with this password/);
    expect(await seriousIn(page)).toEqual([]);
    const elsewhere = await another();
    await elsewhere.goto(`${app.address}/shows/${SHOW}/sound`);
    await fill(elsewhere, 'sign-in', { email: 'owner@example.org', password: 'four lanterns in a roW' });
    await waitForText(elsewhere, '[data-part=sign-in-problem]', /do not belong together/);
    expect(await seriousIn(elsewhere)).toEqual([]);
    await fill(elsewhere, 'sign-in', { password: PASSWORD });
    await elsewhere.waitForSelector('[data-part=sound-column]');
    expect(new URL(elsewhere.url()).pathname).toBe(`/shows/${SHOW}/sound`);
    await elsewhere.browserContext().close();
  });
  it('is never told to an address: a form that is sent before the page is alive does nothing, and keeps what was typed', async () => {
    const early = await another();
    await early.setJavaScriptEnabled(false);
    await early.goto(`${app.address}/sign-in`);
    for (const [name, value] of [
      ['email', 'owner@example.org'],
      ['password', PASSWORD],
    ]) {
      await early.click(`[data-part=sign-in] input[name=${name}]`);
      await early.keyboard.type(value!);
    }
    await early.keyboard.press('Enter');
    await new Promise((resolve) => {
      setTimeout(resolve, 500);
    });
    expect(early.url()).toBe(`${app.address}/sign-in`);
    const typed = await early.$eval(
      '[data-part=sign-in] input[name=email]',
      (field) => (field as HTMLInputElement).value,
    );
    expect(typed).toBe('owner@example.org');
    await early.browserContext().close();
  });
  it('whose session ends in the middle of an edit loses nothing: one signs in over the page and goes on', async () => {
    await hands.go('arrange', 'viewer');
    const field = (await page.waitForSelector('[data-part=show-title]'))!;
    await field.click({ count: 3 });
    // As a session that is over.
    const [cookie] = await page.browserContext().cookies();
    await page.browserContext().deleteCookie(cookie!);
    await page.keyboard.type('Lanterns after');
    // As when something the page asks for meanwhile is refused.
    await page.evaluate((name) => window.dispatchEvent(new Event(name)), SIGNED_OUT);
    await page.waitForSelector('[data-part=signed-out]');
    // Nothing opens over what is being typed.
    expect(await page.$('[data-part=sign-in]')).toBeNull();
    await page.keyboard.type(' the rain');
    await page.keyboard.press('Enter');
    await page.waitForSelector('[data-part=signed-out]');
    // With nothing typed in it opens by itself, where it had not been known yet.
    if (!(await page.$('[data-part=sign-in]'))) await page.click('[data-part=signed-out] button');
    await fill(page, 'sign-in', { email: 'owner@example.org', password: PASSWORD });
    await page.waitForFunction(() => !document.querySelector('[data-part=signed-out]'));
    expect((await hands.stored()).title).toBe('Lanterns after the rain');
    // And it hears again what others do.
    const url = `${app.address}/api/v1/shows/${SHOW}`;
    const { revision } = (await (await ask(url)).json()) as { revision: number };
    const edit = { editId: 'from-elsewhere', edit: { kind: 'rename-show', title: 'From elsewhere' } };
    await ask(`${url}/edits`, {
      method: 'POST',
      headers: { 'content-type': 'application/json' },
      body: JSON.stringify({ knownRevision: revision, edits: [edit] }),
    });
    await page.waitForFunction(
      () => document.querySelector<HTMLInputElement>('[data-part=show-title]')!.value === 'From elsewhere',
    );
  });
  it('has passkeys where the address has a name, and says where not', async () => {
    await page.goto(`${app.address}/account`);
    await page.waitForSelector('[data-part=not-secure]');
    const named = app.address.replace('127.0.0.1', 'localhost');
    const own = await another();
    const device = await own.createCDPSession();
    await device.send('WebAuthn.enable');
    await device.send('WebAuthn.addVirtualAuthenticator', {
      options: {
        protocol: 'ctap2',
        transport: 'internal',
        hasResidentKey: true,
        hasUserVerification: true,
        isUserVerified: true,
        automaticPresenceSimulation: true,
      },
    });
    await own.goto(`${named}/sign-in?to=/account`);
    await fill(own, 'sign-in', { email: 'owner@example.org', password: PASSWORD });
    await (await own.waitForSelector('[data-part=add-passkey]:enabled'))!.click();
    await waitForText(own, '[data-part=passkeys]', /Key 1/);
    await own.browserContext().deleteCookie(...(await own.browserContext().cookies()));
    await own.goto(`${named}/sign-in?to=/people`);
    await (await own.waitForSelector('[data-part=by-passkey]'))!.click();
    await own.waitForSelector('[data-part=people]');
    await own.goto(`${named}/account`);
    await (await own.waitForSelector('[aria-label="Remove Key 1"]'))!.click();
    await own.waitForFunction(() => !document.querySelector('[aria-label="Remove Key 1"]'));
    expect(own.faults).toEqual([]);
    await own.browserContext().close();
  });
  it('is signed out everywhere else at a press', async () => {
    const elsewhere = await another();
    await elsewhere.goto(`${app.address}/sign-in`);
    await fill(elsewhere, 'sign-in', { email: 'owner@example.org', password: PASSWORD });
    await elsewhere.waitForSelector('[data-part=shelf]');
    await page.goto(`${app.address}/account`);
    await page.waitForSelector('[data-session]:nth-of-type(2)');
    await press(page, 'Sign out everywhere else');
    await page.waitForFunction(() => document.querySelectorAll('[data-session]').length === 1);
    await elsewhere.goto(app.address);
    await elsewhere.waitForSelector('[data-part=sign-in]');
    await elsewhere.browserContext().close();
  });
});

describe('people', () => {
  it('come by an invitation: a guest sees one show, works on it, and nothing else', async () => {
    await page.goto(`${app.address}/people`);
    await page.waitForSelector('[data-part=inviting]');
    await page.type('[aria-label="For whom"]', 'the harbour choir');
    await press(page, 'As what');
    await press(page, 'guest: one show');
    await press(page, 'Make the link');
    const link = await linkMade();
    expect(await seriousIn(page)).toEqual([]);
    const guest = await another();
    await guest.setViewport({ width: 360, height: 740 });
    await guest.goto(link);
    expect(await seriousIn(guest)).toEqual([]);
    await fill(guest, 'join', { name: 'Ilka', email: 'ilka@example.org', password: 'some words in a row' });
    await guest.waitForSelector('[data-part=shelf-show]');
    await guest.setViewport({ width: 1280, height: 800 });
    expect(await guest.$$('[data-part=new-show]')).toEqual([]);
    const refused: string[] = [];
    guest.on('response', (response) => {
      if (response.status() >= 400) refused.push(`${response.status()} ${response.url()}`);
    });
    const own = handsOn(app, guest, SHOW);
    await own.go('arrange', 'viewer');
    expect(await guest.$$eval('nav[aria-label=Stations] a', (links) => links.map((one) => one.textContent))).toEqual([
      'Gather',
      'Arrange',
      'Sound',
    ]);
    const field = (await guest.waitForSelector('[data-part=show-title]'))!;
    await field.click({ count: 3 });
    await field.type('The choir’s own');
    await guest.keyboard.press('Enter');
    await own.stored();
    await own.go('gather', 'contact-sheet');
    await own.go('sound', 'sound-column');
    // Their pages ask for nothing that is not theirs.
    expect(refused).toEqual([]);
    await guest.goto(`${app.address}/shows/${SHOW}/send`);
    await waitForText(guest, 'body', /There is nothing here/);
    await guest.goto(link);
    await waitForText(guest, '[data-part=door-page]', /does not open/);
    expect(guest.faults).toEqual([]);
    await guest.browserContext().close();
  });
  it('are told apart in what was done, and taken out by an owner, which ends their sessions', async () => {
    await page.goto(`${app.address}/people`);
    await waitForText(page, '[data-part=audit]', /Ilka joined by an invitation/);
    await waitForText(page, '[data-part=audit]', /Ilka worked on “/);
    await press(page, 'Change Ilka');
    await press(page, 'Make a sign-in link');
    const link = await linkMade();
    const ilka = await another();
    await ilka.goto(link);
    await ilka.waitForSelector('[data-part=shelf]');
    await press(page, 'Change Ilka');
    await press(page, 'Take out of the studio');
    await page.waitForFunction(() => !document.querySelector('[aria-label="Change Ilka"]'));
    await ilka.goto(app.address);
    await ilka.waitForSelector('[data-part=sign-in]');
    await ilka.goto(link);
    await waitForText(ilka, '[data-part=door-page]', /used already/);
    await ilka.browserContext().close();
  });
  it('cannot be guessed: passwords are refused after a few, and nobody learns who has an account', async () => {
    const guess = async (email: string) => {
      const answer = await fetch(`${app.address}/api/v1/session/password`, {
        method: 'POST',
        headers: { 'content-type': 'application/json' },
        body: JSON.stringify({ email, password: 'guessed' }),
      });
      return [answer.status, ((await answer.json()) as { problem: string }).problem];
    };
    expect(await guess('owner@example.org')).toEqual(await guess('nobody@example.org'));
    const statuses: unknown[] = [];
    for (let tries = 0; tries < 16; tries += 1) statuses.push((await guess('owner@example.org'))[0]);
    expect(statuses.at(-1)).toBe(429);
    await waitForText(page, '[data-part=audit]', /./);
  });
});
