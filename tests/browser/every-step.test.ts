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
          await hand.page.evaluate(() => window.scrollTo(0, 0));
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
  const { keyboard } = hand.page;
  const before = keyboard.press.bind(keyboard);
  let count = 0;
  keyboard.press = async (key, options) => {
    if (key === 'Enter' || key === 'Space') count += 1;
    await before(key, options);
  };
  try {
    await work();
  } finally {
    keyboard.press = before;
  }
  return count;
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
      await hand.sees(`${unit.name}, ${unit.serial}`);
      await hand.press('Enter');
      await hand.use('Same sheet as then');
      await hand.fill('What the customer says', 'Warm again.');
      await hand.use('Book in');
      await hand.page.waitForFunction(() => /\/(?:jobs|bench)\/[0-9a-f-]{36}/u.test(location.pathname));
    });
    expect(pressed).toBeLessThanOrEqual(6);
  });
});
