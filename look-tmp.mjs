import puppeteer from 'puppeteer-core';
export const open = async (path = '/shows/lantern-regatta/arrange', size = { width: 1280, height: 800 }) => {
  const browser = await puppeteer.launch({ executablePath: '/usr/bin/chromium', args: ['--no-sandbox', '--disable-dev-shm-usage'], defaultViewport: size });
  const page = await browser.newPage();
  page.on('pageerror', (e) => console.log('pageerror', e.message.slice(0, 400)));
  page.on('console', (m) => { if (m.type() === 'error') console.log('console', m.text().slice(0, 300)); });
  await page.goto('http://127.0.0.1:4700' + path, { waitUntil: 'load' });
  return { browser, page };
};
export const wait = (ms) => new Promise((r) => setTimeout(r, ms));
