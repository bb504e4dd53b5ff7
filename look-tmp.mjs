import puppeteer from 'puppeteer-core';
const b = await puppeteer.launch({
  executablePath: '/usr/bin/chromium',
  headless: true,
  args: [
    '--no-sandbox',
    '--disable-dev-shm-usage',
    '--disable-gpu',
    '--hide-scrollbars',
    '--force-device-scale-factor=1',
    '--autoplay-policy=no-user-gesture-required',
  ],
});
const p = await b.newPage();
await p.setViewport({ width: 1280, height: 800 });
p.on('console', (m) => {
  if (m.type() === 'error') console.log('console', m.text().slice(0, 300));
});
p.on('pageerror', (e) => console.log('pageerror', String(e).slice(0, 300)));
const base = 'http://127.0.0.1:4700';
const api = await (await fetch(base + '/api/v1/shows')).json();
const id = api.shows[0].id;
console.log(id, api.shows[0].title);
await p.goto(`${base}/shows/${id}/${process.argv[2] ?? 'sound'}`);
await p.waitForSelector('[data-part=viewer]');
await new Promise((r) => setTimeout(r, +(process.argv[4] ?? 4000)));
if (process.argv[5]) await new Function('p', 'return (async()=>{' + process.argv[5] + '})()')(p);
await p.screenshot({ path: process.argv[3] ?? '/tmp/s1.png' });
await b.close();
