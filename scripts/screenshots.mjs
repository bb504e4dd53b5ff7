// Takes the pictures in docs/screenshots from a running demo: node scripts/screenshots.mjs LINK, the one the demo prints (it signs in once). Makes a small film first when there is none.
import { spawnSync } from 'node:child_process';
import { rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import puppeteer from 'puppeteer-core';
import { root } from './ensure.mjs';

const entrance = process.argv[2];
if (!entrance?.includes('/enter#')) throw new Error('give the link that the demo prints');
const address = new URL(entrance).origin;
const show = `${address}/shows/lantern-regatta`;
/** What the microphone hears: the demo's own narrator. */
const microphone = path.join(tmpdir(), `tanager-microphone-${process.pid}.wav`);
spawnSync('ffmpeg', [
  ...['-v', 'error', '-y', '-i', path.join(root, 'demo/files/opening-words.flac')],
  ...['-af', 'adelay=3500', '-ar', '48000', '-ac', '1', '-c:a', 'pcm_s16le', microphone],
]);
const browser = await puppeteer.launch({
  executablePath: process.env.CHROMIUM ?? '/usr/bin/chromium',
  headless: true,
  // Films are waited for.
  protocolTimeout: 1_800_000,
  args: [
    '--no-sandbox',
    '--disable-dev-shm-usage',
    '--disable-gpu',
    '--hide-scrollbars',
    '--force-device-scale-factor=1',
    '--autoplay-policy=no-user-gesture-required',
    '--use-fake-ui-for-media-stream',
    '--use-fake-device-for-media-stream',
    `--use-file-for-fake-audio-capture=${microphone}`,
  ],
});
const page = await browser.newPage();
await page.setViewport({ width: 1280, height: 800 });
const rest = (ms) => new Promise((resolve) => setTimeout(resolve, ms));
const shoot = (name) => page.screenshot({ path: path.join(root, 'docs/screenshots', `${name}.png`) });
const drawn = () =>
  page.waitForFunction(() => !document.querySelector('[data-part=viewer]')?.textContent.includes('Preparing'));

await page.goto(entrance);
await page.waitForSelector('[data-part=shelf]');
await page.goto(`${show}/send`);
await page.waitForFunction(() => !document.body.innerText.includes('Looking …'));
const only = async (...purposes) => {
  for (const card of await page.$$('[data-purpose]')) {
    const { purpose, chosen } = await card.evaluate((element) => ({
      purpose: element.dataset.purpose,
      chosen: element.querySelector('input').checked,
    }));
    if (chosen !== purposes.includes(purpose)) await card.evaluate((element) => element.click());
  }
};
const have = (count) =>
  page.waitForFunction(
    (wanted) => document.querySelectorAll('[data-part=film][data-state=ready]').length >= wanted,
    { timeout: 1_200_000 },
    count,
  );
if (!(await page.$('[data-part=film][data-state=ready]'))) {
  await only('web', 'phone', 'teaser', 'sound');
  await page.locator('[data-part=make-film]').click();
  await have(4);
}
await page.click('[data-part=screen-film]');
await page.waitForSelector('[data-part=screening-dialog]');
await page.keyboard.press('Escape');
const link = await page.$eval('[data-part=screening-link]', (element) => element.href);
// Letters and a film go out to the doubles that come with the app.
await page.click('[data-part=send-screening-on]');
await page.waitForSelector('[data-part=letter-form]');
await page.type('[aria-label=To]', 'ilka@example.org, nobody@example.org');
await page.click('[data-part=send-letters]');
await page.waitForSelector('[data-part=went-out-line][data-state=there]', { timeout: 60_000 });
const postRoom = await page.$eval('[data-part=door-mail]', (element) => element.href);
await only('screen', 'upright', 'email');
await page.waitForFunction(() => document.querySelector('[data-part=will-take]').innerText.includes('about'), {
  timeout: 120_000,
});
await page.locator('[data-part=make-film]').click();
await page.waitForSelector('[data-part=film][data-state=making] [data-part=glimpse]', { timeout: 60_000 });
await rest(9000);
await shoot('send');
for (let more = 3; more > 0; more -= 1) {
  await page.locator('aria/Stop[role="button"]').click();
  await rest(1500);
}
await page.goto(postRoom);
await rest(1500);
await shoot('post-room');

await page.goto(address);
await rest(800);
await shoot('shelf');

await page.goto(`${show}/gather`);
await page.waitForSelector('[role=option]');
const prints = await page.$$('[role=option]');
await prints[2].click();
await page.keyboard.down('Shift');
await prints[5].click();
await page.keyboard.up('Shift');
await rest(2500);
await shoot('gather');
await page.click('[data-part=open-choose]');
await page.waitForSelector('[data-choice]');
await rest(1200);
await shoot('choose');
await page.keyboard.press('Escape');
await page.waitForFunction(() => !document.querySelector('[role=dialog]'));
await page.click('[data-part=open-start]');
await page.waitForSelector('[data-part=start] [data-part=build-preview][data-playing=true]', { timeout: 60_000 });
await page.click('[data-start=travel-diary]');
await rest(6000);
await shoot('start');
await page.keyboard.press('Escape');

await page.goto(`${show}/arrange`);
await drawn();
await (await page.waitForSelector('[data-slide=regatta-4]')).click();
await rest(1500);
await page.click('[data-slide=regatta-4]');
await rest(1500);
await page.locator('aria/Light[role="tab"]').click();
await page.waitForSelector('[data-part=histogram]');
await rest(2500);
await shoot('arrange');

// The loupe over the band, on the bench opened wide; and lanterns before they are made.
await page.goto(`${show}/arrange`);
const choose = async (slide, last) => {
  await page.waitForSelector('[data-part=slide]');
  for (let step = 0; step < slide; step += 1) await page.keyboard.press('ArrowDown');
  if (!last) return;
  await page.keyboard.down('Shift');
  for (let step = slide; step < last; step += 1) await page.keyboard.press('ArrowDown');
  await page.keyboard.up('Shift');
};
await choose(8);
await page.keyboard.press('Enter');
await page.locator('[data-part=layer][data-layer=band-loupe]').click();
await page.locator('li:nth-child(2) > [data-part=loupe-place]').click();
await rest(4000);
await shoot('wide');
await page.keyboard.press('Escape');
// A mount before it is laid; a plumage put on and taken off again.
await page.goto(`${show}/arrange`);
await choose(5, 7);
await page.keyboard.press('a');
await page.waitForSelector('[data-part=mounts]');
await rest(7000);
await page.click('[data-mount=album-page]');
await rest(6000);
await shoot('mounts');
await page.keyboard.press('Escape');
await page.goto(`${show}/arrange`);
await drawn();
await page.waitForSelector('[data-part=slide]');
await page.click('[data-part=open-plumage]');
await page.waitForSelector('[data-part=plumage][data-loaded=true]');
await page.click('[data-plumage=swan]');
await rest(1500);
await page.click('[data-slide=regatta-4]');
await rest(4000);
await page.$eval('[data-plumage=swan]', (card) => card.scrollIntoView({ block: 'start' }));
await shoot('plumage');
await page.click('[data-part=undress]');
await page.waitForSelector('[data-part=saving][data-state=saved]');
await page.goto(`${address}/studio`);
await page.waitForSelector('[data-part=studio][data-loaded=true]');
await rest(1500);
await shoot('studio');

// Films of the demo's series: made, but for the row that lacks its folder.
await page.goto(address);
await page.locator('[data-part=series-lines] a').click();
await page.locator('[data-part=make-series]:enabled').click();
await page.waitForFunction(() => document.querySelector('[data-part=series]')?.dataset.state === 'done', {
  timeout: 600_000,
});
await rest(1500);
await shoot('series');

// The demo's disc, its menu as a television shows it.
await page.goto(address);
await page.locator('[data-part=disc-lines] a').click();
await page.waitForSelector('[data-part=menu-page]');
await rest(1500);
await shoot('disc');

await page.goto(`${show}/sound`);
await drawn();
await rest(1200);
await shoot('sound');
await page.locator('aria/Booth').click();
await page.click('[data-slide=regatta-1] button');
await page.locator('aria/Pause').click();
await page.click('[data-part=open-microphone]');
await page.waitForSelector('[data-part=booth][data-phase=ready]');
await page.click('[data-part=record]');
await page.waitForSelector('[data-part=booth][data-phase=recording]');
await rest(4500);
await shoot('booth');
await page.keyboard.press('Escape');
await page.waitForSelector('[data-part=booth][data-phase=ready]');
await page.locator('aria/Captions').click();
await page.waitForSelector('[data-part=caption-line]');
await page.click('[data-part=caption-block] button');
await rest(2500);
await page.locator('aria/Pause').click();
await rest(600);
await shoot('captions');
await page.locator('aria/Music').click();

// The room of snags, with some planted in a copy of the show that is taken off again.
const api = async (method, route, body) => {
  const asked = {
    method,
    headers: { 'content-type': 'application/json' },
    ...(body && { body: JSON.stringify(body) }),
  };
  return page.evaluate(async (where, how) => (await fetch(where, how)).json(), `/api/v1/shows/${route}`, asked);
};
const { id: copy } = await api('POST', 'lantern-regatta/copy');
const { show: copied, revision } = await api('GET', copy);
const words = (index, title, style, place = 'bottom') => ({
  kind: 'set-words',
  slideId: copied.slides[index].id,
  layerId: copied.slides[index].layers.find((layer) => layer.kind === 'words')?.id ?? `planted-${index}`,
  words: { title, subtitle: '', place, style },
});
const planted = [
  words(4, 'All lit by hand', { colour: '#f0b060', shadow: 'none' }, 'centre'),
  words(6, 'The boats leave', { colour: '#3a3048', shadow: 'none' }),
  words(8, 'Port Elery, when the band has gone home and only the lanterns are left upon the water', {}),
  {
    kind: 'set-move',
    slideId: copied.slides[5].id,
    layerId: copied.slides[5].layers[0].id,
    move: {
      kind: 'set',
      first: { x: 0.5, y: 0.5, width: 0.2, height: 0.2, turnDegrees: 0 },
      last: { x: 0.9, y: 0.5, width: 0.5, height: 0.5, turnDegrees: 0 },
    },
  },
  {
    kind: 'set-transitions',
    transitions: [{ slideId: copied.slides[9].id, transition: { kind: 'dissolve', lengthMs: 8000 } }],
  },
];
await api('POST', `${copy}/edits`, {
  knownRevision: revision,
  edits: planted.map((edit, index) => ({ editId: `planted-for-a-picture-${index}`, edit })),
});
await page.goto(`${address}/shows/${copy}/arrange`);
await page.waitForSelector('[data-part=snags][data-looking=false]', { timeout: 60_000 });
await page.click('[data-part=snags]');
await page.waitForSelector('[data-part=try-fix]', { timeout: 30_000 });
await rest(1200);
await page.click('[data-part=try-fix]');
await rest(2800);
await shoot('snags');
await page.keyboard.press('Escape');
await api('DELETE', copy).catch(() => {});

// Both windows of a showing; the presenter's is what is looked at.
await page.goto(`${address}/showing/lantern-regatta`);
await page.waitForSelector('[data-part=open-projector]');
const opened = new Promise((resolve) => page.once('popup', resolve));
await page.click('[data-part=open-projector]');
const projector = await opened;
await projector.waitForSelector('[data-part=projector][data-ready=true]', { timeout: 120_000 });
await projector.mouse.click(300, 300);
await page.bringToFront();
await page.click('[data-part=next]');
await projector.bringToFront();
await rest(4000);
await page.bringToFront();
await rest(2000);
await shoot('presenter');
await projector.close();

await page.goto(link);
await page.waitForFunction(() => document.querySelector('video').readyState > 1);
await page.$eval('video', (video) => {
  video.currentTime = 70;
});
await rest(1200);
await shoot('screening');
await browser.close();
rmSync(microphone, { force: true });
