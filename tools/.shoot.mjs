import { mkdirSync } from 'node:fs';
import { pathToFileURL } from 'node:url';
import { v7 as uuid } from 'uuid';
import { launchBrowser } from './browser.mjs';
import { logIn } from './demo-shop.mjs';
import { workUntil } from './demo-work.mjs';
const base = 'http://127.0.0.1:4170';
mkdirSync('/tmp/pics', { recursive: true });
const who = process.env.WHO ?? 'ilka';
const call = await logIn(base, who);
const { browser, close } = await launchBrowser();
const wait = (ms) => new Promise((done) => setTimeout(done, ms));
try {
  const page = await browser.newPage();
  page.setDefaultTimeout(20000);
  page.on('pageerror', (e) => console.log('PAGEERROR', String(e)));
  await page.setViewport({ width: 1280, height: 800 });
  await page.goto(base);
  await page.waitForSelector('#login');
  await page.type('#login', who);
  await page.type('#password', 'bench-417');
  await page.keyboard.press('Enter');
  await page.waitForSelector('.topbar');
  const shot = async (name, [w, h] = [1280, 800], path, full = false) => {
    await page.setViewport({ width: w, height: h });
    if (path) await page.goto(base + path, { waitUntil: 'load' });
    await wait(900);
    await page.screenshot({ path: `/tmp/pics/${name}.png`, fullPage: full });
    console.log(name);
  };
  const click = (words) => page.evaluate((w) => { const b = [...document.querySelectorAll('button,a')].find((x) => (x.getAttribute('aria-label') ?? x.innerText).trim().startsWith(w)); if (!b) throw new Error('no ' + w); b.click(); }, words);
  const job = async (key, step) => {
    const { revisionId } = (await call('GET', '/sheets')).find((s) => s.key === key && s.status === 'approved');
    const id = uuid();
    await call('POST', '/jobs', { id, customer: { name: 'Hochkar Lift and Piste' }, machine: { name: 'Belt loader 2', serial: `BL-${id.slice(-6)}` }, unit: { name: key.split('-').slice(2).join(' '), serial: `A-${id.slice(-6)}` }, sheetRevisionId: revisionId, complaint: 'Howls.', promise: new Date(Date.now() + 1e8).toISOString(), estimateMinor: 20400 });
    await workUntil(call, id, (act) => act.step?.ref === step);
    return id;
  };
  const mod = await import(pathToFileURL(process.argv[2]).href);
  await mod.default({ page, shot, call, base, click, wait, browser, job, uuid });
} finally { await close(); }
