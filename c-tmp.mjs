import { open, wait } from './look-tmp.mjs';
const { browser, page } = await open();
await page.waitForSelector('[data-part=snags][data-looking=false]');
console.log(await page.$eval('[data-part=snags]',e=>e.getAttribute('aria-label')));
await page.click('[data-slide=regatta-4] [role=img]'); await wait(1500);
await page.click('[aria-label="What Play plays"]'); await wait(400);
await page.screenshot({path:'/tmp/look.png'});
await page.keyboard.press('ArrowDown');await page.keyboard.press('ArrowDown');await page.keyboard.press('ArrowDown');await page.keyboard.press('Enter'); await wait(700);
await page.screenshot({path:'/tmp/look2.png'});
// versions
await page.keyboard.press('Escape');
await page.click('[data-part=versions]'); await page.waitForSelector('[data-part=keep-version]'); await page.click('[data-part=keep-version]'); await page.waitForSelector('[data-part=beside]');
await page.keyboard.press('Escape'); await wait(500);
await page.click('[data-slide=regatta-7] [role=img]'); await page.keyboard.press('t'); await wait(300); await page.keyboard.type('Changed'); await page.keyboard.press('Enter'); await wait(800);
await page.click('[data-part=versions]'); await page.waitForSelector('[data-part=beside]'); await page.click('[data-part=beside]'); await page.waitForSelector('[data-part=beside-room]'); await wait(1500);
await page.click('[data-part=next-difference]'); await wait(2500);
await page.screenshot({path:'/tmp/look3.png'});
await browser.close();
