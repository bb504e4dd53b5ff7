import { open, wait } from './look-tmp.mjs';
const { browser, page } = await open();
await page.waitForFunction(()=>document.querySelector('[data-part=snags]')?.dataset.looking==='false',{timeout:60000}).catch(()=>console.log('still looking'));
console.log(await page.$eval('[data-part=snags]',e=>e.getAttribute('aria-label')));
await page.screenshot({path:'/tmp/look.png'});
await page.click('[data-part=snags]');
await page.waitForSelector('[data-part=snags-room]');
await wait(3500);
console.log(await page.$$eval('[data-part=snag]',es=>es.map(e=>e.dataset.kind+' | '+e.innerText.replace(/\n/g,' '))));
await page.screenshot({path:'/tmp/look2.png'});
const f = await page.$$('[data-part=try-fix]'); console.log(f.length);
if (f[0]) { await f[0].click(); await wait(2500); await page.screenshot({path:'/tmp/look3.png'}); }
await browser.close();
