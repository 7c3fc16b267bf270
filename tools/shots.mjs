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
  }, 'full');
}

/** Jobs of the demo that are pictured as they are. */
const IN_THE_MIDDLE = 1001;

async function takeAll(page, base, ilka, shot) {
  const [middle] = await ilka('GET', `/jobs?find=${IN_THE_MIDDLE}`);
  const finished = (await ilka('GET', '/jobs?find=front%20hub')).find(({ closedAt, stage }) => closedAt !== null && stage === 'hand-over');
  const newest = await booked(
    ilka,
    'harrowmere-th6-front-hub',
    'Left front hub',
    'Squeals after the car wash. Please look at the bearing.',
  );
  await page.goto(base);
  await page.waitForSelector('#login');
  await page.type('#login', 'ilka');
  await page.type('#password', 'bench-417');
  await page.keyboard.press('Enter');
  await page.waitForSelector('.topbar');
  await shot('today', PC, '/');
  await shot('bench-torque', TABLET, `/bench/${middle.id}`);
  await shot('report', PC, `/jobs/${finished.id}/report`);
  const draft = await beginDraft(ilka);
  await shot('sheet-editor', PC, `/sheets/${draft.id}/edit/joints`, () => page.waitForSelector('.dsg-cell'));

  await workUntil(ilka, newest.id, (act) => act.step?.ref === 'nut-off');
  await shot('strip', PC, `/jobs/${newest.id}/strip`);
  await shot('instruments', PC, '/crib/instruments', async () => {
    const press = (name) => page.evaluate((label) => document.querySelector(`[aria-label="${label}"]`).click(), name);
    await press('K1: pair with this tablet');
    await page.waitForFunction(() => document.body.innerText.includes('paired with this tablet'));
    await press('K1: stand-in');
    await page.waitForSelector('.driver');
    await page.evaluate(() => [...document.querySelectorAll('.driver button')].find(({ innerText }) => innerText === 'Send').click());
    await page.waitForFunction(() => /\d\d mm/u.test(document.querySelector('[aria-label="K1 Calliper 0–150"] .fs-2')?.textContent ?? ''));
  });
  await workUntil(ilka, newest.id, (act, state) => act.step?.record.kind === 'setting' && state.settings[0].phase === 'turn');
  await shot('setting', PC, `/jobs/${newest.id}/build`);

  const compressor = await booked(ilka, 'askvale-rx10-refrigerant-compressor', 'Compressor', 'Clutch slips when it is hot.');
  const oswin = await logIn(base, 'oswin');
  await workUntil(ilka, compressor.id, (act) => act.step?.record.kind === 'setting', oswin);
  await shot('set-by-shims', PC, `/jobs/${compressor.id}/build`, async () => {
    for (const reading of ['0,21', '0,22', '0,21', '']) await page.keyboard.type(`${reading}\n`);
    await page.waitForSelector('#in-shims');
    await page.type('#in-shims', '0.5');
    await page.evaluate(() => document.querySelector('[aria-label="What it is worked out by"]').scrollIntoView());
  });
  const end = await booked(ilka, 'tindlebrook-sk2-steered-end', 'Left steered end', 'Oil on the inside of the wheel.');
  await workUntil(ilka, end.id, (act) => act.step?.ref === 'inner-seal-in', oswin);
  await shot('seal-run', TABLET, `/bench/${end.id}`, async () => {
    for (const seen of ['Take out of stores', 'Out, whole', 'It is so']) {
      await page.waitForFunction((words) => document.querySelector('.bench-keep')?.innerText.includes(words), {}, seen);
      await page.keyboard.press('PageDown');
    }
    await page.waitForFunction(() => document.body.innerText.includes('whole on every face'));
  });
  const axle = await booked(ilka, 'ostrel-d44-drive-axle', 'Rear axle', 'Howls on the overrun.');
  await workUntil(ilka, axle.id, (act) => act.step?.ref === 'head-bearing-on-with-its-shim');
  const input = { shaft: '40.021 mm', bore: '40.002 mm', wanted: 'figures', from: '0.004 mm', to: '0.03 mm' };
  const measured = {
    kind: 'worked',
    payload: { working: 'fit.measured', input, fit: 'head-bearing' },
    step: 'head-bearing-on-with-its-shim',
  };
  const read = { kind: 'caution-read', payload: { caution: 'hot' }, step: 'head-bearing-on-with-its-shim' };
  const first = [read, measured].map((entry) => ({ ...entry, id: uuid(), takenAt: new Date().toISOString() }));
  await ilka('POST', `/jobs/${axle.id}/entries`, { entries: first });
  await shot('fit', PC, `/jobs/${axle.id}/build`, () => page.waitForFunction(() => document.body.innerText.includes('inner ring only')));
  await shot('practice', PC, '/learn', async () => {
    const press = (name) =>
      page.evaluate((label) => [...document.querySelectorAll('button')].find(({ innerText }) => innerText.startsWith(label)).click(), name);
    await press('Seat at');
    await press('Read three');
    await page.waitForFunction(() => document.body.innerText.includes('Tighten'));
  });
  await decideShots(page, base, ilka, shot);
}

/** An alternator from its meter to the customer's telephone. */
async function decideShots(page, base, ilka, shot) {
  const perla = await logIn(base, 'perla');
  const alternator = await booked(ilka, 'quennet-ga-alternator', 'Alternator', 'Does not charge.');
  await workUntil(ilka, alternator.id, (act) => act.stage === 'measure' && act.step?.record.kind === 'look');
  await shot('electrical', PC, `/jobs/${alternator.id}/work/alternator.diodes`, async () => {
    for (const reading of ['0.52', 'OL', '0.521', 'OL', '0.518', 'OL', '0.52', 'OL', '0.002', '0.002', '0.519', 'OL'])
      await page.keyboard.type(`${reading}\n`);
  });
  const diodes = ['+1', '+2', '+3', '−1', '−2', '−3'].map((diode) =>
    diode === '−2' ? { diode, forward: '0.002 V', reverse: '0.002 V' } : { diode, forward: '0.52 V', reverse: 'OL' },
  );
  const worked = { working: 'alternator.diodes', part: 'rectifier', input: { readings: diodes } };
  const takenAt = new Date().toISOString();
  await ilka('POST', `/jobs/${alternator.id}/entries`, { entries: [{ id: uuid(), kind: 'worked', payload: worked, takenAt }] });
  await shot('measuring-sheet', PC, `/jobs/${alternator.id}/measure?tab=sheet`, async () => {
    await page.waitForSelector('[aria-label="Measuring sheet"] svg');
    await page.evaluate(() => document.querySelector('[aria-label="Measuring sheet"]').scrollIntoView());
  });
  await workUntil(ilka, alternator.id, (act) => act.step?.record.kind === 'decide');
  await shot('decide', PC, `/jobs/${alternator.id}/decide`);
  await workUntil(ilka, alternator.id, (act) => act.stage === 'build');
  await shot('parts', PC, `/jobs/${alternator.id}/parts`, () =>
    page.waitForFunction(() => document.body.innerText.includes('Put it on the orders')),
  );
  await shot('worth', PC, `/jobs/${alternator.id}/worth`, () => page.waitForSelector('[aria-label^="What the answer hangs on"]'));
  await shot('quote', PC, `/jobs/${alternator.id}/quote`, () => page.waitForSelector('.quote-lines'));
  const line = (what, unitMinor, more = {}) => ({ sort: 'part', what, quantity: 1, unitMinor, ...more });
  const labour = (quantity) => ({ sort: 'labour', what: 'Labour', quantity, unitMinor: 6800 });
  const { link } = await perla('POST', `/jobs/${alternator.id}/quotes`, {
    id: uuid(),
    to: '0555 0178',
    words: 'One diode is shorted, so the battery runs flat over night. The rest is sound.',
    validUntil: new Date(Date.now() + 12e8).toISOString().slice(0, 10),
    taxShare: 0.2,
    findings: [
      { words: 'Diode −2 passes both ways', verdict: 'out' },
      { words: 'Brush length standing out', verdict: 'unsure', readings: [5.1], from: 5, to: 13, unit: 'mm' },
    ],
    options: [
      { name: 'As planned', lines: [labour(2.5), line('Rectifier', 8410), line('Regulator with brushes', 6230, { optional: true })] },
      { name: 'Only the rectifier', lines: [labour(1.5), line('Rectifier', 8410)] },
    ],
  });
  await shot('customer', PHONE, link, () => page.waitForSelector('.offer-lines'));
  const wanted = { id: uuid(), supplier: 'Tarnholt Trade Parts', number: 'HT6-K1', quantity: 2, jobId: alternator.id };
  const [order] = await perla('POST', '/orders/lines', { lines: [wanted] });
  await perla('POST', `/orders/${order.id}/send`);
  await perla('POST', `/orders/${order.id}/deliver`);
  await shot('orders', PC, '/stores/orders', () => page.waitForFunction(() => document.body.innerText.includes('The van brought')));
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
    customer: { name: 'Gelmarn Lift and Piste' },
    machine: { name: 'Groomer 4', serial: 'G-4' },
    unit: { name: unit, serial: `${unit.slice(0, 2).toUpperCase()}-4` },
    sheetRevisionId: revisionId,
    complaint,
    promise: new Date(Date.now() + 3 * 86_400_000).toISOString(),
    estimateMinor: 52_000,
  });
}
