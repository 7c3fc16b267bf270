import type { JobView } from '@jubb/book';
import type { StockView, ToolView } from '@jubb/wire';
import { beforeAll, describe, expect, test } from '@jest/globals';
import { Hand } from '../kit/browser.ts';
import { Client } from '../kit/client.ts';
import { ownShop } from '../kit/shop.ts';

const shop = ownShop();
let hand: Hand;
let api: Client;

beforeAll(async () => {
  hand = await Hand.at(shop.screen.browser, shop.server.base);
  await hand.logIn('oswin');
  api = await Client.as(shop.server.base, 'oswin');
  // What a list writes is caught before it becomes a file.
  await hand.page.evaluateOnNewDocument(() => {
    const made = window as unknown as { csv_: Promise<string> };
    URL.createObjectURL = (blob) => {
      made.csv_ = (blob as Blob).text();
      return 'blob:nothing';
    };
  });
});

const column = (at: number): Promise<readonly string[]> =>
  hand.page.$$eval(`.data-table tbody tr td:nth-child(${at})`, (cells) => cells.map((cell) => (cell as HTMLElement).innerText.trim()));

describe('a list of the shop', () => {
  test('is sorted by a head, one way and the other, and says so', async () => {
    await hand.go('/crib');
    await hand.heads('Crib');
    const tags = await column(1);
    await hand.use('Tool');
    const names = await column(2);
    expect(names).toEqual(names.toSorted((one, other) => one.localeCompare(other, undefined, { numeric: true })));
    expect(await hand.page.$eval('.data-table th:nth-child(2)', (head) => head.getAttribute('aria-sort'))).toBe('ascending');
    await hand.press('Enter');
    expect(await column(2)).toEqual(names.toReversed());
    await hand.press('Enter');
    expect(await column(1)).toEqual(tags);
  });

  test('hides a column for good, and writes what is shown, or what is picked, as CSV', async () => {
    await hand.go('/crib');
    await hand.heads('Crib');
    const rows = (await column(1)).length;
    await hand.use('Columns');
    await hand.tabTo('Uncertainty u');
    await hand.press('Space', 'Escape');
    await hand.page.reload();
    await hand.heads('Crib');
    const heads = await hand.page.$$eval('.data-table th', (all) => all.map((head) => (head as HTMLElement).innerText.trim()));
    expect(heads).toEqual(['Tag', 'Tool', 'From', 'To', 'Reads to', 'Length', 'Check due']);
    const written = async (): Promise<readonly string[]> =>
      (await hand.page.evaluate(() => (window as unknown as { csv_: Promise<string> }).csv_)).split('\r\n');
    await hand.use('CSV of all shown');
    await hand.page.waitForFunction(() => 'csv_' in window);
    expect((await written())[0]).toBe('Tag,Tool,From,To,Reads to,Length,Check due');
    expect((await written()).length).toBe(rows + 1);
    await hand.use('Pick lines');
    await hand.tabTo('Pick B1');
    await hand.press('Space');
    await hand.sees('1 picked');
    await hand.use('CSV of these');
    await hand.page.waitForFunction(async () => (await (window as unknown as { csv_: Promise<string> }).csv_).split('\r\n').length === 2);
    expect((await written())[1]).toMatch(/^B1,/u);
    expect(await hand.faults()).toEqual([]);
  });

  test('that is long is drawn where one looks, and nowhere else', async () => {
    await hand.go('/stores');
    await hand.heads('Stores');
    for (let more = 0; more < 2; more += 1) {
      await hand.page.waitForSelector('.page .btn.mt-3:not([disabled])');
      await hand.page.click('.page .btn.mt-3');
      await hand.page.waitForFunction(
        (least) => Number(document.querySelector('.data-table')?.getAttribute('aria-rowcount')) > least,
        {},
        61 + 50 * more,
      );
    }
    const all = await hand.page.$eval('.data-table', (table) => Number(table.getAttribute('aria-rowcount')) - 1);
    expect(all).toBeGreaterThan(100);
    expect((await column(1)).length).toBeLessThan(70);
    const last = async (): Promise<number> =>
      Number(await hand.page.$$eval('.data-table tbody tr[data-index]', (rows) => rows.at(-1)!.getAttribute('data-index')));
    const before = await last();
    await hand.page.evaluate(() => window.scrollTo(0, document.body.scrollHeight));
    await hand.page.waitForFunction(
      (wanted) =>
        document
          .querySelector('.data-table tbody tr:last-of-type[data-index], .data-table tbody tr[data-index]:last-child')
          ?.getAttribute('data-index') === wanted,
      {},
      String(all - 1),
    );
    expect(await last()).toBeGreaterThan(before);
  });
});

describe('what is no entry can be taken back for a while', () => {
  test('a tool that was lent, a shelf that was changed, goods that were put away', async () => {
    const tool = (await api.get<readonly ToolView[]>('/tools')).find(({ tag }) => tag === 'D2')!;
    await hand.go(`/crib/tools/${tool.id}`);
    await hand.use('I have it');
    await hand.sees('D2 is with you');
    await hand.use('Undo');
    await hand.page.waitForFunction(() => document.querySelector('.toast') === null);
    expect((await api.get<ToolView>(`/tools/${tool.id}`)).holder).toBeNull();

    const [line] = await api.get<readonly StockView[]>('/stock?find=ADB-103');
    await hand.go(`/stores/${line!.id}`);
    await hand.fill('How many', '4');
    await hand.press('Enter');
    await hand.sees('Came in: 4');
    expect((await api.get<StockView>(`/stock/${line!.id}`)).onHand).toBe(line!.onHand + 4);
    // The same once more is another movement.
    await hand.fill('How many', '4');
    await hand.press('Enter');
    await hand.page.waitForFunction(() => document.querySelector<HTMLInputElement>('#move-quantity')?.value === '');
    expect((await api.get<StockView>(`/stock/${line!.id}`)).onHand).toBe(line!.onHand + 8);
    await hand.use('Undo');
    await hand.page.waitForFunction(() => document.querySelector('.toast') === null);
    const after = await api.get<StockView>(`/stock/${line!.id}`);
    expect(after.onHand).toBe(line!.onHand + 4);
    expect(after.movements.slice(0, 2).map(({ kind, words }) => [kind, words])).toEqual([
      ['issue', 'taken back'],
      ['receive', null],
    ]);
    expect(await hand.faults()).toEqual([]);
  });
});

describe('workings by what is in the hand', () => {
  test('the example is grey and nobody’s, the answer stays in sight, and what was asked last comes first', async () => {
    await hand.go('/workings');
    await hand.heads('What is in your hand?');
    expect(await hand.faults()).toEqual([]);
    await hand.go('/workings/torque.preload');
    await hand.sees('Example: ');
    expect(await hand.text()).not.toContain('Keep it on a job');
    const label = await hand.page.$eval('.work .form-label', (one) => (one as HTMLElement).innerText.split(' ')[0]!);
    expect(label.length).toBeGreaterThan(0);
    await hand.go('/workings/torque.adapter');
    await hand.fill('Torque known', '100 N·m');
    await hand.fill('Wrench length', '450');
    await hand.sees('100 N·m');
    await hand.page.evaluate(() => window.scrollTo(0, document.body.scrollHeight));
    const { top, bottom } = await hand.page.$eval('.answer-main', (main) => main.getBoundingClientRect().toJSON() as DOMRect);
    expect([top >= 0, bottom <= 800]).toEqual([true, true]);
    await hand.go('/workings');
    await hand.sees('Last: What do I set the wrench to');
    const first = await hand.page.$eval('.hands section li', (line) => (line as HTMLElement).innerText);
    expect(first).toContain('What do I set the wrench to');
  });

  test('what was worked out goes to a job with what was typed', async () => {
    const { id } = await api.jobNumbered(402);
    await hand.go('/workings/torque.adapter');
    await hand.use('Keep it on a job');
    await hand.use('402');
    await hand.sees('Keep it on the job');
    expect(await hand.page.$eval('#in-wrench', (field) => (field as HTMLInputElement).value)).toBe('450');
    await hand.use('Keep it on the job');
    await hand.page.waitForFunction(() => document.querySelector<HTMLElement>('.topbar [role="status"]')?.innerText === 'live');
    expect((await api.get<JobView>(`/jobs/${id}`)).entries.at(-1)).toMatchObject({
      kind: 'worked',
      payload: { working: 'torque.adapter' },
    });
  });

  test('words of a question find it, and the palette takes its letters in their order', async () => {
    await hand.go('/workings');
    await hand.fill('Or say what you want to know', 'rolling cord');
    await hand.sees('Cord and spring balance: is the preload right?');
    expect((await column(1)).length).toBe(1);
    await hand.page.keyboard.down('Control');
    await hand.press('k');
    await hand.page.keyboard.up('Control');
    await hand.page.waitForSelector('#find');
    await hand.type('shims by');
    await hand.page.waitForFunction(() => document.querySelectorAll('#found li').length < 4);
    await hand.page.keyboard.down('Control');
    await hand.press('a');
    await hand.page.keyboard.up('Control');
    await hand.type('shm ring');
    await hand.page.waitForFunction(() => document.querySelector<HTMLElement>('#found li')?.innerText.includes('Shims and rings'));
    await hand.press('Enter');
    await hand.page.waitForFunction(() => location.pathname === '/stores/shims');
  });
});

test('the first tour: a joint pulled, a reading judged, a nut set; nothing of it is kept', async () => {
  const count = async (): Promise<number> => (await api.get<JobView>(`/jobs/${(await api.jobNumbered(402)).id}`)).entries.length;
  const before = await count();
  await hand.go('/');
  await hand.use('Take the tour');
  await hand.heads('Wheel nuts');
  expect(await hand.faults()).toEqual([]);
  for (let pull = 1; pull <= 4; pull += 1) {
    await hand.sees(`Next is number ${pull}`);
    await hand.press('Space');
  }
  await hand.heads('Outer journal');
  await hand.page.waitForSelector('.bench-do input');
  await hand.type('24.982');
  await hand.press('Enter', 'Enter');
  await hand.heads('Set the nut');
  await hand.use('Skip it');
  await hand.heads('Now, for Oswin');
  expect(await hand.text()).not.toContain('ninety seconds');
  expect(await count()).toBe(before);
});

test('a line of a sheet is written with the names of the format, and what is wrong is marked where it stands', async () => {
  const { revisionId } = await api.sheetKeyed('harrowmere-th6-front-hub');
  const { body } = await api.call<{ revisionId: string }>('POST', `/sheets/${revisionId}/draft`, {});
  await hand.go(`/sheets/${body.revisionId}/edit/joints?line=wheel-nuts`);
  await hand.page.waitForSelector('.yaml-editor .cm-content');
  await hand.page.click('.yaml-editor .cm-content');
  await hand.page.keyboard.down('Control');
  await hand.press('End');
  await hand.page.keyboard.up('Control');
  await hand.press('Enter');
  // What stands there already is not offered again; what may come is.
  await hand.type('pr');
  // It may still ask for the format: then it offers when it is asked.
  for (let asked = 0; asked < 60 && !(await hand.page.$('.cm-tooltip-autocomplete')); asked += 1) {
    await hand.page.keyboard.down('Control');
    await hand.press('Space');
    await hand.page.keyboard.up('Control');
    await hand.page.waitForSelector('.cm-tooltip-autocomplete', { timeout: 1000 }).catch(() => undefined);
  }
  const offered = await hand.page.$$eval('.cm-completionLabel', (labels) => labels.map((label) => (label as HTMLElement).innerText));
  expect(offered).toContain('prevailing');
  expect(offered).not.toContain('propertyClass');
  await hand.press('Escape', 'Backspace', 'Backspace');
  await hand.type('nonsense: 3');
  await hand.page.waitForSelector('.cm-lintRange-error');
  expect(await hand.faults()).toEqual([]);
});
