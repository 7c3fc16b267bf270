import type { SheetLine, SheetView } from '@jubb/wire';
import { jobState, type JobView } from '@jubb/book';
import { STAGES } from '@jubb/sheet';
import { beforeAll, describe, expect, test } from '@jest/globals';
import { Hand } from '../kit/browser.ts';
import { Client } from '../kit/client.ts';
import { ownShop } from '../kit/shop.ts';

const SIZES = [
  [1280, 800],
  [1024, 768],
  [390, 844],
] as const;

const shop = ownShop();
let hand: Hand;
let api: Client;

beforeAll(async () => {
  hand = await Hand.at(shop.screen.browser, shop.server.base);
  await hand.logIn('ilka');
  api = await Client.as(shop.server.base, 'ilka');
});

/** What stands wrong on the page as it is now, in words. */
async function wrongNow(width: number, height: number): Promise<readonly string[]> {
  return hand.page.evaluate(
    (wide, high) => {
      const wrong: string[] = [];
      const within = (name: string, { top, bottom, left, right }: DOMRect): void => {
        if (top < 0 || bottom > high + 1 || left < 0 || right > wide + 1)
          wrong.push(`${name} stands at ${Math.round(top)} to ${Math.round(bottom)} px, ${Math.round(left)} to ${Math.round(right)}`);
      };
      const act = document.querySelector('.act-due, .bench-do')!;
      within('the heading', act.querySelector('h1')!.getBoundingClientRect());
      const keys = document.querySelector('.act-due .step-keys, .bench-keep .keys, .act-due .keys');
      const key = keys?.querySelector('.btn-primary') ?? keys?.querySelector('.btn');
      if (key) within(`the key "${(key as HTMLElement).innerText}"`, key.getBoundingClientRect());
      const over = document.documentElement.scrollWidth - wide;
      if (over > 0) wrong.push(`the page is ${over} px wider than the window`);
      for (const element of act.querySelectorAll<HTMLElement>('h1, p, .btn, label, dd, li')) {
        const style = getComputedStyle(element);
        const isCut = element.scrollWidth > element.clientWidth + 1 && style.overflowX !== 'visible' && element.clientWidth > 0;
        if (isCut) wrong.push(`"${element.innerText.slice(0, 40)}" is cut`);
      }
      const focused = document.activeElement;
      if (focused && focused !== document.body && !act.contains(focused) && !focused.closest('.bench'))
        wrong.push(`the focus is at ${focused.outerHTML.slice(0, 80)}`);
      return wrong;
    },
    width,
    height,
  );
}

describe('every kind of step at every stage', () => {
  test('the act and its key are in the window, nothing is cut, and the page goes down alone', async () => {
    const seen = new Set<string>();
    const wrong: string[] = [];
    const sheets = (await api.get<readonly SheetLine[]>('/sheets')).filter(({ status }) => status === 'approved');
    for (const { revisionId, key } of sheets) {
      const { file } = await api.get<SheetView>(`/sheets/${revisionId}`);
      const fresh = file.steps.filter(({ stage, record }) => {
        const is = `${stage} ${record.kind}`;
        if (seen.has(is)) return false;
        seen.add(is);
        return true;
      });
      if (fresh.length === 0) continue;
      const { id } = await api.booked(revisionId);
      for (const step of fresh) {
        await hand.page.setViewport({ width: 1280, height: 800 });
        await hand.go(`/jobs/${id}/${step.stage}?step=${step.ref}`);
        await hand.page.waitForSelector('.act-due h1');
        for (const [width, height] of SIZES) {
          await hand.page.setViewport({ width, height });
          // What hangs on the width is drawn anew in the frame after.
          await hand.page.evaluate(async () => {
            window.scrollTo(0, 0);
            for (let frame = 0; frame < 3; frame += 1) await new Promise(requestAnimationFrame);
          });
          for (const words of await wrongNow(width, height))
            wrong.push(`${key}, ${step.stage} ${step.record.kind} at ${width} × ${height}: ${words}`);
        }
      }
    }
    expect(wrong).toEqual([]);
    // So that a library that shrinks is told.
    expect(new Set([...seen].map((is) => is.split(' ')[0]))).toEqual(new Set(STAGES));
    expect(seen.size).toBeGreaterThan(25);
  });
});

/** Counts what is pressed but for letters and figures. */
async function presses(work: () => Promise<void>): Promise<number> {
  const before = hand.pressed.acts;
  await work();
  return hand.pressed.acts - before;
}

describe('presses', () => {
  test('a pull is one', async () => {
    const { id } = await api.jobNumbered(402);
    const pulls = async (): Promise<number> => (await api.get<JobView>(`/jobs/${id}`)).entries.filter(({ kind }) => kind === 'pull').length;
    await hand.page.setViewport({ width: 1280, height: 800 });
    await hand.go(`/bench/${id}`);
    await hand.heads('Wheel nuts');
    if ((await hand.text()).includes('Read the caution before you begin')) await hand.use('I have read it');
    await hand.sees('of 40 pulls');
    const before = await pulls();
    expect(await presses(() => hand.press('Space'))).toBe(1);
    await hand.page.waitForFunction(() => document.querySelector<HTMLElement>('.bench-top [role="status"]')?.innerText === 'live');
    expect(await pulls()).toBe(before + 1);
  });

  test('three readings and their keeping take two besides the figures', async () => {
    const { revisionId } = await api.sheetKeyed('harrowmere-th6-front-hub');
    const { id } = await api.booked(revisionId);
    await api.workTo(id, 'end-float-found');
    await hand.go(`/bench/${id}`);
    await hand.heads('End float as found');
    if ((await hand.text()).includes('Read the caution before you begin')) await hand.use('I have read it');
    await hand.sees('Reading 1 of 3');
    const figures = ['0.31', '0.32', '0.31'];
    const pressed = await presses(async () => {
      for (const figure of figures) {
        await hand.type(figure);
        await hand.press('Enter');
      }
      await hand.press('Enter');
    });
    expect(pressed - figures.length).toBeLessThanOrEqual(2);
    await hand.page.waitForFunction(() => document.querySelector<HTMLElement>('.bench-top [role="status"]')?.innerText === 'live');
    const { entries, sheet } = await api.get<JobView>(`/jobs/${id}`);
    expect(jobState(sheet.file, entries).steps.find(({ step }) => step.ref === 'end-float-found')?.done).toBe(true);
  });

  test('a known unit is booked in with six at most', async () => {
    const { unit } = await api.jobNumbered(401);
    await hand.page.setViewport({ width: 1280, height: 800 });
    await hand.go('/jobs/new');
    const pressed = await presses(async () => {
      await hand.fill('Customer, or serial or tag', unit.serial ?? '');
      await hand.sees(unit.serial ?? '');
      await hand.press('Enter');
      await hand.use('Same sheet as then');
      await hand.fill('What the customer says', 'Warm again.');
      await hand.use('Book in');
      await hand.page.waitForFunction(() => /\/(?:jobs|bench)\/[0-9a-f-]{36}/u.test(location.pathname));
    });
    expect(pressed).toBeLessThanOrEqual(6);
  });
});

describe('whoever sees little, or is made ill by movement', () => {
  const PLACES = ['/', '/jobs', '/jobs/new', '/sheets', '/workings', '/stores', '/stores/orders', '/crib', '/learn', '/shop'];

  test('at 200 % no place goes sideways', async () => {
    // Twice as large in a window of 1280 × 800 is half the window.
    await hand.page.setViewport({ width: 640, height: 400, deviceScaleFactor: 2 });
    const { id } = await api.jobNumbered(402);
    const wide: string[] = [];
    for (const path of [...PLACES, `/jobs/${id}/build`, `/bench/${id}`]) {
      await hand.go(path);
      await hand.page.waitForSelector('h1');
      const over = await hand.page.evaluate(() => document.documentElement.scrollWidth - window.innerWidth);
      if (over > 0) wide.push(`${path} by ${over} px`);
    }
    expect(wide).toEqual([]);
  });

  test('nothing moves where movement is not wanted', async () => {
    await hand.page.emulateMediaFeatures([{ name: 'prefers-reduced-motion', value: 'reduce' }]);
    await hand.page.setViewport({ width: 390, height: 844 });
    const { id } = await api.jobNumbered(402);
    await hand.go(`/jobs/${id}/build`);
    await hand.page.waitForSelector('.act-due h1');
    await hand.page.click('.menu-key');
    await hand.page.waitForSelector('.offcanvas.show');
    const moving = await hand.page.evaluate(() =>
      document
        .getAnimations()
        .filter((one) => one.playState === 'running' && Number(one.effect?.getComputedTiming().endTime ?? 0) > 20)
        .map((one) => (one.effect as KeyframeEffect).target?.outerHTML.slice(0, 60)),
    );
    expect(moving).toEqual([]);
    await hand.press('Escape');
    await hand.page.emulateMediaFeatures([]);
  });
});

test('with fingers alone: a job taken up, its nuts pulled to the last, the stage ended', async () => {
  const other = await Hand.at(shop.screen.browser, shop.server.base);
  await other.logIn('bram');
  const { page } = other;
  await page.setViewport({ width: 1024, height: 768, hasTouch: true, isMobile: true });
  const { id } = await api.jobNumbered(402);
  const state = async (): Promise<ReturnType<typeof jobState>> => {
    const { entries, sheet } = await api.get<JobView>(`/jobs/${id}`);
    return jobState(sheet.file, entries);
  };
  await other.go('/');
  await page.waitForSelector('a[aria-label="Take up 402"]');
  await page.tap('a[aria-label="Take up 402"]');
  await page.waitForSelector('.bench');
  for (let taps = 0; taps < 60; taps += 1) {
    const heading = await page.$eval('.bench-do h1', (words) => (words as HTMLElement).innerText);
    if (!heading.startsWith('Wheel nuts')) break;
    const before = await page.$eval('.bench-do', (act) => (act as HTMLElement).innerText);
    await page.tap('.bench-keep .btn-primary');
    await page.waitForFunction((was) => document.querySelector<HTMLElement>('.bench-do')?.innerText !== was, {}, before);
  }
  await page.waitForFunction(() => document.querySelector<HTMLElement>('.bench-top [role="status"]')?.innerText === 'live');
  expect((await state()).joints.find(({ joint }) => joint.ref === 'wheel-nuts')).toMatchObject({ next: undefined });
  // What opens by itself with fingers is the bench; leaving it is leaving it.
  await other.go(`/jobs/${id}`);
  await page.waitForSelector('.bench');
  await page.tap('.bench-keep .key-strip button:last-of-type');
  await page.waitForSelector('.more-keys.show');
  const keys = await page.$$('.more-keys .btn');
  for (const key of keys) if ((await key.evaluate((one) => (one as HTMLElement).innerText)).startsWith('Leave')) await key.tap();
  await page.waitForFunction((path) => location.pathname.startsWith(`${path}/`), {}, `/jobs/${id}`);
});
