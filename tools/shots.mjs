// ./jubb shots [folder]: a picture of each main view, from the demo.
import { mkdirSync } from 'node:fs';
import { join, resolve } from 'node:path';
import { v7 as uuid } from 'uuid';
import { launchBrowser } from './browser.mjs';
import { logIn, withDemoShop } from './demo-shop.mjs';
import { workUntil } from './demo-work.mjs';
import { say } from './say.mjs';
import { CHROMIUM, ROOT, checkMachine, ensureBuild, ensureDebian, ensureNodeModules } from './setup.mjs';

const PC = [1280, 800];
const TABLET = [1024, 768];
const PHONE = [390, 844];

export async function shots([to = 'docs/screenshots']) {
  checkMachine();
  ensureNodeModules();
  ensureDebian([CHROMIUM]);
  ensureBuild();
  const folder = resolve(ROOT, to);
  mkdirSync(folder, { recursive: true });
  await withDemoShop(async ({ base }) => {
    const ilka = await logIn(base, 'ilka');
    const { browser, close } = await launchBrowser();
    try {
      const page = await browser.newPage();
      page.setDefaultTimeout(20_000);
      await takeAll(page, base, ilka, async (name, [width, height], path, prepare) => {
        await page.setViewport({ width, height });
        if (path !== undefined) await page.goto(`${base}${path}`, { waitUntil: 'load' });
        await page.waitForSelector('h1');
        await prepare?.();
        await page.evaluate(() => document.fonts.ready);
        await new Promise((done) => setTimeout(done, 400));
        await page.screenshot({ path: join(folder, `${name}.png`) });
        say(`${name}.png`);
      });
    } finally {
      await close();
    }
  });
}

async function takeAll(page, base, ilka, shot) {
  const jobs = await ilka('GET', '/jobs');
  const [newest, middle, finished] = jobs;
  await page.goto(base);
  await page.waitForSelector('#login');
  await page.type('#login', 'ilka');
  await page.type('#password', 'bench-417');
  await page.keyboard.press('Enter');
  await page.waitForSelector('.topbar');
  await shot('today', PC, '/');
  await shot('bench-torque', TABLET, `/bench/${middle.id}`);
  await shot('bench-torque-phone', PHONE, `/bench/${middle.id}`);
  await shot('report', PC, `/jobs/${finished.id}/report`);
  await shot('identify', PC, '/jobs/new', async () => {
    await page.select('#which-family', 'alternator');
    await page.waitForSelector('.ask-figure');
    await page.type('.ask-figure', '116,3\n');
    await page.waitForFunction(() => document.body.innerText.includes('How do the stator leads'));
    await page.evaluate(() => document.querySelector('.section').scrollIntoView());
  });
  await shot('book-in', PC, undefined, async () => {
    for (const [selector, words] of [
      ['.ask-box button', 'in pairs'],
      ['.causes button', 'It is this one'],
      ['.pick', 'no charge'],
    ]) {
      await page.waitForFunction(
        (of, named) => [...document.querySelectorAll(of)].some((one) => one.textContent.trim().startsWith(named)),
        {},
        selector,
        words,
      );
      await page.evaluate(
        (of, named) => [...document.querySelectorAll(of)].find((one) => one.textContent.trim().startsWith(named)).click(),
        selector,
        words,
      );
    }
    await page.evaluate(() => document.querySelector('.sheet-box').scrollIntoView());
  });
  await shot('library', PC, '/sheets');
  await shot('sheet', PC, `/sheets/${(await ilka('GET', '/sheets')).find(({ key }) => key === 'quennet-ga-alternator').revisionId}`);
  const draft = await beginDraft(ilka);
  await shot('sheet-editor', PC, `/sheets/${draft.id}/edit/joints`, () => page.waitForSelector('.dsg-cell'));
  await shot('sheet-differences', PC, `/sheets/${draft.id}/differences/${draft.from}`);
  await shot('working-nut', PC, '/workings/bearing.nut');

  const compressor = await booked(ilka, 'askvale-rx10-refrigerant-compressor', 'Cabin compressor', 'Does not cool, the clutch slips.');
  await workUntil(ilka, compressor.id, (act) => act.step?.ref === 'bearing-out-of-the-pulley');
  await shot('stack', PC, `/jobs/${compressor.id}/strip`, async () => {
    await page.waitForSelector('figure');
    await page.evaluate(() => document.querySelector('figure').scrollIntoView());
  });
  await workUntil(ilka, newest.id, (act) => act.step?.ref === 'nut-off');
  await shot('strip', PC, `/jobs/${newest.id}/strip`);
  const gearbox = await booked(ilka, 'askvale-gx5-gearbox', 'Transaxle', 'Grinds going into third.');
  await workUntil(ilka, gearbox.id, (act) => act.step?.ref === 'case-open');
  await shot('bench-strip', TABLET, `/bench/${gearbox.id}`, async () => {
    for (const place of [1, 9, 14, 22]) await page.click(`[aria-label="Place ${place}"]`);
  });
  await shot('instruments', PC, '/crib/instruments', async () => {
    const press = (name) => page.evaluate((label) => document.querySelector(`[aria-label="${label}"]`).click(), name);
    await press('K1: pair with this tablet');
    await page.waitForFunction(() => document.body.innerText.includes('paired with this tablet'));
    await press('K1: stand-in');
    await page.waitForSelector('.driver');
    await page.evaluate(() => [...document.querySelectorAll('.driver button')].find(({ innerText }) => innerText === 'Send').click());
    await page.waitForFunction(() => /\d\d mm/u.test(document.querySelector('[aria-label="K1 Calliper 0–150"] .fs-2')?.textContent ?? ''));
  });
  await workUntil(ilka, newest.id, (act) => act.step?.ref === 'inner-journal');
  await shot('measure', PC, `/jobs/${newest.id}/measure`, async () => {
    for (const reading of ['34,9665', '34.966', '34.9655', '34.967']) await page.keyboard.type(`${reading}\n`);
  });
  await workUntil(ilka, newest.id, (act) => act.step?.record.kind === 'decide');
  await shot('decide', PC, `/jobs/${newest.id}/decide`);
  await workUntil(ilka, newest.id, (act, state) => act.step?.record.kind === 'setting' && state.settings[0].phase === 'turn');
  await shot('setting', PC, `/jobs/${newest.id}/build`);
  await shot('bench-setting', TABLET, `/bench/${newest.id}`);
}

/** A draft with a few changes, to show what differs. */
async function beginDraft(call) {
  const { revisionId: from } = (await call('GET', '/sheets')).find(({ key }) => key === 'quennet-t4-turbocharger');
  const { revisionId: id } = await call('POST', `/sheets/${from}/draft`);
  const { file, version } = await call('GET', `/sheets/${id}`);
  file.joints[0].torque.figure = '8 N·m';
  file.parts = file.parts.filter(({ ref }) => ref !== 'heat-shield');
  file.steps.splice(13, 0, ...file.steps.splice(11, 1));
  await call('PUT', `/sheets/${id}`, { version, file });
  return { id, from };
}

async function booked(call, key, unit, complaint) {
  const { revisionId } = (await call('GET', '/sheets')).find((sheet) => sheet.key === key);
  return call('POST', '/jobs', {
    id: uuid(),
    customer: { name: 'Hochkar Lift and Piste' },
    machine: { name: 'Groomer 4', serial: 'G-4' },
    unit: { name: unit, serial: `${unit.slice(0, 2).toUpperCase()}-4` },
    sheetRevisionId: revisionId,
    complaint,
    promise: new Date(Date.now() + 3 * 86_400_000).toISOString(),
    estimateMinor: 52_000,
  });
}
