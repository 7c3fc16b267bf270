// ./jubb shots [folder]: a picture of each main view, from the demo.
import { mkdirSync } from 'node:fs';
import { join, resolve } from 'node:path';
import { v7 as uuid } from 'uuid';
import { launchBrowser } from './browser.mjs';
import { logIn, withDemoShop } from './demo-shop.mjs';
import { say } from './say.mjs';
import { CHROMIUM, ROOT, checkMachine, ensureBuild, ensureDebian, ensureNodeModules } from './setup.mjs';

const PC = [1280, 800];
const TABLET = [1024, 768];
const PHONE = [390, 844];

/** Readings scatter by themselves; pictures do not. */
const steady = () => 0.5;

/** What the hub of the job that is worked on for the pictures really is. */
const UNIT = {
  limits: { 'end-float-found': 0.31, 'inner-journal': 34.979, 'outer-journal': 24.986 },
  looks: {},
  finding: 'Squeal mark on the backing plate, one wheel nut of another make',
  backedOff: 0.21,
  receivedBy: 'Ragna Ollwick',
  foreman: 'Oswin Tarrell',
};

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
  await shot('log-in', PC, '/');
  await page.type('#login', 'ilka');
  await page.type('#password', 'bench-417');
  await page.keyboard.press('Enter');
  await page.waitForSelector('.topbar');
  await shot('today', PC, '/');
  await shot('bench-torque', TABLET, `/bench/${middle.id}`);
  await shot('bench-torque-phone', PHONE, `/bench/${middle.id}`);
  await shot('report', PC, `/jobs/${finished.id}/report`);
  await shot('book-in', PC, '/jobs/new');
  await shot('sheet', PC, `/sheets/${(await ilka('GET', '/sheets')).find(({ key }) => key === 'quennet-ga-alternator').revisionId}`);
  await shot('working-nut', PC, '/workings/bearing.nut');
  await shot('working-pattern', PC, '/workings/torque.pattern');
  await shot('crib', PC, '/crib');

  await workUntil(ilka, newest.id, (act) => act.step?.ref === 'nut-off');
  await shot('strip', PC, `/jobs/${newest.id}/strip`);
  await shot('bench-strip', TABLET, `/bench/${newest.id}`);
  await workUntil(ilka, newest.id, (act) => act.step?.ref === 'inner-journal');
  await shot('measure', PC, `/jobs/${newest.id}/measure`, async () => {
    for (const reading of ['34,9665', '34.966', '34.9655', '34.967']) await page.keyboard.type(`${reading}\n`);
  });
  await workUntil(ilka, newest.id, (act) => act.step?.record.kind === 'decide');
  await shot('decide', PC, `/jobs/${newest.id}/decide`);
  await workUntil(ilka, newest.id, (act, state) => act.step?.record.kind === 'setting' && state.settings[0].phase === 'turn');
  await shot('setting', PC, `/jobs/${newest.id}/build`);
  await shot('bench-setting', TABLET, `/bench/${newest.id}`);
  await shot('bench-setting-night', TABLET, undefined, () => page.evaluate(() => (document.documentElement.dataset.bsTheme = 'night')));
}

/** Lets the demo mechanic work at a job, over the API, until the next act is the wanted one. */
async function workUntil(call, jobId, isThere) {
  const { jobState, nextAct } = await import('../packages/contract/dist/job/index.js');
  const { nextEntries } = await import('../apps/server/dist/demo/demo-mechanic.js');
  for (;;) {
    const job = await call('GET', `/jobs/${jobId}`);
    const sheet = job.sheet.file;
    const state = jobState(sheet, job.entries);
    const act = nextAct(state);
    if (!act || isThere(act, state)) return;
    const entries = nextEntries(sheet, state, UNIT, job.tools, steady);
    const takenAt = new Date().toISOString();
    await call('POST', `/jobs/${jobId}/entries`, { entries: entries.map((entry) => ({ ...entry, id: uuid(), takenAt })) });
  }
}
