import type { JobHead, JobView } from '@jubb/book';
import type { SheetView } from '@jubb/wire';
import { expect, test } from '@jest/globals';
import { Hand } from '../kit/browser.ts';
import { Client } from '../kit/client.ts';
import { ownShop } from '../kit/shop.ts';

const shop = ownShop();

test('an unknown alternator is told by two questions and booked in, by keyboard alone', async () => {
  const hand = await Hand.at(shop.screen.browser, shop.server.base, '/jobs/new');
  await hand.logIn('perla');
  await hand.heads('Book in');
  await hand.fill('Name', 'Gelmarn Snow Works');
  await hand.fill('Machine', 'Belt loader 4');
  await hand.fill('Serial', 'BL-4471');
  await hand.fill('Unit and side', 'Alternator');
  await hand.fill('Serial or tag', 'chalked 17');
  await hand.tabTo('What kind of unit is it?');
  await hand.type('alternator');
  await hand.sees('How long is the case');
  await hand.tabTo('How long is the case');
  await hand.type('139 kg');
  await hand.press('Enter');
  await hand.sees('Give a figure');
  await hand.fill('How long is the case', '139,3');
  await hand.press('Enter');
  await hand.sees('How many windows');
  await hand.fill('How many windows', '11');
  await hand.press('Enter');
  await hand.sees('It is this one');
  await hand.use('It is this one');
  await hand.sees('Told by case length 139.3 mm, rear windows 11');
  await hand.sees('The B+ stud is live from the battery');
  await hand.fill('What the customer says', 'Lamp stays on, nothing charges.');
  await hand.tabTo('no charge');
  await hand.press('Space');
  await hand.sees('worn brushes');
  await hand.sees('Before it comes apart');
  await hand.tabTo('Regulator and brushes');
  await hand.press('Space');
  await hand.sees('0.6 h of book time');
  // What was worked out stands in its field.
  expect(await hand.page.$eval('#estimate', (field) => (field as HTMLInputElement).value)).toBe('40.80');
  await hand.use('Book in');
  await hand.heads('Marks and damage on arrival');
  await hand.sees('Likely causes');

  const api = await Client.as(shop.server.base, 'perla');
  const [{ id }] = (await api.get<JobHead[]>('/jobs?find=BL-4471')) as [JobHead];
  const job = await api.get<JobView>(`/jobs/${id}`);
  expect(job).toMatchObject({
    estimateMinor: 4080,
    scope: {
      variant: 'ga-95-late',
      tasks: ['regulator-and-brushes'],
      picks: ['no-charge'],
      identified: [
        { feature: 'case-length', found: '139.3 mm' },
        { feature: 'rear-windows', found: '11' },
      ],
    },
  });
  // What was not picked stays shut.
  expect(job.sheet.file.steps.map(({ ref }) => ref)).not.toContain('front-bearing-out');
  expect(job.sheet.notOpened).toContain('Bearings only');
});

/** Goes to the cell of a column in the first line of the table; only what is in sight is drawn, so the keys lead there. */
async function column(hand: Hand, number: number): Promise<void> {
  await hand.page.click('.dsg-row:not(.dsg-row-header) .dsg-cell:nth-child(2)');
  for (let step = 0; step < 30; step += 1) await hand.press('ArrowLeft');
  for (let step = 0; step < 30; step += 1) await hand.press('ArrowUp');
  for (let step = 0; step < number; step += 1) await hand.press('ArrowRight');
}

const TORQUE_COLUMN = 12;

test('a sheet is changed, checked, approved; a job is told what that changes ahead; two editors lose nothing', async () => {
  const api = await Client.as(shop.server.base, 'oswin');
  const { revisionId } = await api.sheetKeyed('quennet-t4-turbocharger');
  const job = await api.booked(revisionId);

  const hand = await Hand.at(shop.screen.browser, shop.server.base, '/sheets');
  await hand.logIn('oswin');
  await hand.fill('Make, model, part number', 'QT4-112');
  await hand.page.waitForFunction(() => document.querySelectorAll('tbody tr').length === 1);
  await hand.use('Quennet T4 turbocharger');
  await hand.sees('What the checker says');
  await hand.use('Change it in a draft');
  await hand.sees('Draft of revision 2');
  await hand.use('Joints');
  await hand.page.waitForSelector('.dsg-cell');

  // A torque that the thread cannot take is found while it is typed, and stops the approval.
  await column(hand, TORQUE_COLUMN);
  await hand.type('75 N·m');
  await hand.press('Enter');
  await hand.press('Escape');
  await hand.sees('Checker: 1 to mend first');
  await hand.sees('Kept');
  await hand.use('Approve it (1 to mend first)');
  await hand.sees('over what M6 of class 8.8 takes');
  await hand.page.keyboard.down('Control');
  await hand.press('z');
  await hand.page.keyboard.up('Control');
  // One figure of it is still nobody's: a note, and no fault.
  await hand.sees('Checker: 1 to look at');

  // Somebody else changes another line meanwhile.
  const kept = (): Promise<unknown> => hand.page.waitForFunction(() => document.querySelector('.keeping')?.textContent === 'Kept');
  await kept();
  const path = new URL(hand.page.url()).pathname.replace(/\/edit.*$/u, '');
  const draft = await api.get<SheetView>(path);
  expect(draft.file.joints[0]?.torque?.figure).toBe('7.5 N·m');
  const ilka = await Client.as(shop.server.base, 'ilka');
  const file = structuredClone(draft.file);
  file.joints.find(({ ref }) => ref === 'drain-screws')!.torque!.figure = '21 N·m';
  await column(hand, TORQUE_COLUMN);
  await hand.type('8 N·m');
  expect((await ilka.call('PUT', path, { version: draft.version, file })).status).toBe(200);
  await hand.press('Enter', 'Escape');
  await hand.page.waitForFunction(() => document.body.innerText.includes('21 N·m'));
  // "Kept" may still speak of theirs: what was typed here is on its way until the draft has moved once more.
  const own = async (): Promise<SheetView> => api.get<SheetView>(path);
  for (let tries = 0; tries < 600 && (await own()).version < draft.version + 2; tries += 1)
    await new Promise((next) => setTimeout(next, 100));
  await kept();
  const both = await own();
  expect(both.file.joints[0]?.torque?.figure).toBe('8 N·m');
  expect(both.file.joints.find(({ ref }) => ref === 'drain-screws')?.torque?.figure).toBe('21 N·m');

  await hand.use('Differences');
  await hand.sees('says otherwise than');
  await hand.sees('torque: 7.5 N·m 8 N·m');
  expect(await hand.faults()).toEqual([]);
  await hand.use('Back to the draft');
  await hand.sees('Draft of revision 2');
  await hand.use('Approve it');
  await hand.sees('Withdraw it');

  await hand.go(`/jobs/${job.id}`);
  await hand.sees('Revision 2 is there');
  await hand.use('Revision 2 is there');
  await hand.sees('What it changes for the work ahead');
  const words = await hand.text();
  expect(words).toMatch(/Compressor cover screws[\s\S]*7\.5 N·m[\s\S]*8 N·m/u);
  await hand.use('Stay with revision 1');
  await hand.sees('Marks and damage on arrival');
  expect((await api.get<JobView>(`/jobs/${job.id}`)).sheet.revision).toBe(1);
});

test('a step is moved with the keyboard, and a table takes a spreadsheet’s paste of 5 000 lines without holding up the page', async () => {
  const api = await Client.as(shop.server.base, 'ilka');
  const { revisionId } = await api.sheetKeyed('ostrel-mk7-multi-plate-clutch');
  const { body } = await api.call<{ revisionId: string }>('POST', `/sheets/${revisionId}/draft`);
  const hand = await Hand.at(shop.screen.browser, shop.server.base, `/sheets/${body.revisionId}/edit/steps`);
  await hand.logIn('ilka');
  await hand.page.bringToFront();
  await hand.tabTo('Move Lever play');
  await hand.press('ArrowDown');
  await hand.page.waitForFunction(
    () =>
      document.querySelector('.keeping')?.textContent === 'Kept' &&
      document.querySelectorAll('.step-name')[1]?.textContent?.startsWith('On its stand'),
  );
  const moved = await api.get<SheetView>(`/sheets/${body.revisionId}`);
  expect(moved.file.steps.slice(1, 3).map(({ ref, stage }) => [ref, stage])).toEqual([
    ['on-its-stand', 'strip'],
    ['lever-play', 'strip'],
  ]);

  await hand.go(`/sheets/${body.revisionId}/edit/parts`);
  await hand.page.waitForSelector('.dsg-cell');
  const before = moved.file.parts.length;
  const longest = await hand.page.evaluate(
    async (rows) => {
      const gaps: number[] = [];
      let last = performance.now();
      const beat = setInterval(() => {
        gaps.push(performance.now() - last);
        last = performance.now();
      }, 20);
      document.querySelector<HTMLElement>('.dsg-row .dsg-cell:nth-child(2)')?.dispatchEvent(new MouseEvent('mousedown', { bubbles: true }));
      const until = async (isSo: () => boolean): Promise<void> => {
        while (!isSo()) await new Promise(requestAnimationFrame);
      };
      await until(() => document.querySelector('.dsg-active-cell') !== null);
      const clipboardData = new DataTransfer();
      clipboardData.setData('text/plain', rows);
      document.dispatchEvent(new ClipboardEvent('paste', { clipboardData, bubbles: true, cancelable: true }));
      await until(() => Number(/Parts (\d+)/u.exec(document.body.innerText)?.[1]) >= 5000);
      clearInterval(beat);
      return Math.max(...gaps);
    },
    Array.from({ length: 5000 }, (_, index) => `bulk-${index}\tWasher ${index}\tBW-${index}\t\t2\treuse`).join('\n'),
  );
  // A page that holds still for a second or more has lost its person; the machine here is slow.
  expect(longest).toBeLessThan(3000);
  await hand.page.waitForFunction(() => document.querySelector('.keeping')?.textContent === 'Kept');
  expect((await api.get<SheetView>(`/sheets/${body.revisionId}`)).file.parts.length).toBeGreaterThanOrEqual(Math.max(5000, before));
});

test('a figure that nobody stood for is found at the bench and comes home to the sheet; what is put off greets the next booking', async () => {
  const api = await Client.as(shop.server.base, 'ilka');
  const named = { make: 'Ostrel', model: 'UH 3', machine: 'Trailer' };
  const { revisionId } = await api.made<{ revisionId: string }>('/sheets', { family: 'unitised hub with slipping-clutch bolt', ...named });
  const job = await api.booked(revisionId, { unit: { name: 'Hub left', serial: 'UH-77' } });
  await api.workTo(job.id, 'brake-plate-on');

  const hand = await Hand.at(shop.screen.browser, shop.server.base, `/bench/${job.id}`);
  await hand.logIn('ilka');
  await hand.sees('Only somebody’s word');
  await hand.fill('Found: torque', '91 mm');
  await hand.press('Enter');
  await hand.sees('a torque is asked');
  await hand.fill('Found: torque', '91');
  await hand.press('Enter');
  await hand.sees('Say where it stands');
  await hand.fill('Where it stands', 'Plate on the axle');
  // The link is cut in the middle: it is kept here, and the work goes on by it.
  await hand.cut(true);
  await hand.press('Enter');
  await hand.sees('New each time');
  await hand.fill('Where they come from', 'out of the axle kit');
  await hand.press('Enter');
  await hand.sees('full 91 N·m');
  expect(await hand.faults()).toEqual([]);
  await hand.cut(false);
  await hand.go(`/jobs/${job.id}`);
  await hand.sees('full 91 N·m');
  await hand.tab('The book');
  await hand.sees('Found: Brake plate screws');
  await hand.press('u');
  await hand.fill('What is put off', 'Linings of both sides');
  await hand.press('Enter');
  await hand.sees('Say it in a word or two');
  await hand.fill('What the customer said', 'after the winter');
  await hand.press('Enter');
  await hand.sees('Owed: Linings of both sides');
  await hand.page.waitForFunction(() => document.querySelector<HTMLElement>('.topbar [role="status"]')?.innerText === 'live');

  const foreman = await Hand.at(shop.screen.browser, shop.server.base, `/sheets/${revisionId}/edit`);
  await foreman.logIn('oswin');
  await foreman.sees('Next time, from jobs');
  await foreman.use('Put it in the line');
  await foreman.page.waitForFunction(() => !document.body.innerText.includes('Put it in the line'));
  await foreman.page.waitForFunction(() => document.querySelector('.keeping')?.textContent === 'Kept');
  const { file } = await api.get<SheetView>(`/sheets/${revisionId}`);
  expect(file.joints.find(({ ref }) => ref === 'plate-screws')?.torque).toMatchObject({ figure: '91 N·m', trust: 'shop' });

  await foreman.go('/jobs/new');
  await foreman.fill('Customer, or serial or tag', 'uh-77');
  await foreman.use('Hub left');
  await foreman.sees('Linings of both sides');
  await foreman.use('Do it now');
  expect(await foreman.page.$eval('#complaint', (field) => (field as HTMLTextAreaElement).value)).toBe('Owed: Linings of both sides.');
  expect(await foreman.faults()).toEqual([]);
});
