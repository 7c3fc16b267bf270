import type { SheetLine, SheetView } from '@jubb/wire';
import { expect, test } from '@jest/globals';
import { Hand } from '../kit/browser.ts';
import { Client } from '../kit/client.ts';
import { ownShop } from '../kit/shop.ts';

const shop = ownShop();

/** Writes into the cell that is active, and takes it. */
async function write(hand: Hand, text: string): Promise<void> {
  await hand.type(text);
  await hand.press('Enter');
}

async function kept(hand: Hand): Promise<void> {
  await hand.page
    .waitForFunction(() => document.querySelector('.keeping')?.textContent === 'Kept')
    .catch(async () => {
      throw new Error(`not kept: ${await hand.page.$eval('.keeping', (said) => said.textContent)}; the page says:\n${await hand.text()}`);
    });
}

test('a model of a kind of one’s own, from nothing to approved, by table and keyboard', async () => {
  const api = await Client.as(shop.server.base, 'oswin');
  const hand = await Hand.at(shop.screen.browser, shop.server.base, '/sheets/new');
  await hand.logIn('oswin');
  await hand.page.bringToFront();
  await hand.fill('Family', 'winch drum brake');
  await hand.sees('A family of your own');
  await hand.fill('Make', 'Ostrel');
  await hand.fill('Model', 'W 1');
  await hand.fill('Machine it is off', 'Winch');
  await hand.press('Enter');
  await hand.sees('Draft of revision 1');
  // It is about the unit until its parts are known.
  await hand.sees('Checker: nothing missing');

  // A new line says what it lacks in the table's words, and the checker leads there.
  await hand.use('Parts');
  await hand.page.waitForSelector('.dsg-add-row');
  await hand.use('One more line');
  await hand.use('Checker:');
  await hand.sees('Parts, line 2');
  await hand.sees('Name: is missing');
  await hand.use('Mend the field');
  await hand.page.waitForFunction(() => document.activeElement?.getAttribute('aria-label') === 'Name');
  await write(hand, 'Brake band');
  await hand.press('Escape');
  await hand.sees('Checker: nothing missing');

  // A new step is a tick, and the page stands; a reload too, with what is not written yet.
  await hand.use('Steps');
  await hand.page.waitForSelector('.dsg-add-row');
  await hand.walkTo('Title');
  // Escape is the way out of the table, to the key behind it.
  await hand.press('Escape');
  await hand.use('One more line');
  await hand.sees('Steps, line 9');
  await hand.sees('Title: is missing');
  await kept(hand);
  await hand.page.reload();
  await hand.sees('Draft of revision 1');
  await hand.sees('Checker: 2 to mend first');
  await hand.use('Checker: 2 to mend first');
  await hand.sees('Steps, line 9');

  // A line that says nothing at all, as another program may have left it, is shown too and can be mended.
  const path = new URL(hand.page.url()).pathname.replace(/^\/sheets\/|\/edit.*$/gu, '');
  await kept(hand);
  const before = await api.get<SheetView>(`/sheets/${path}`);
  const steps = [...before.file.steps, { ref: 'says-nothing' }];
  expect((await api.call('PUT', `/sheets/${path}`, { version: before.version, file: { ...before.file, steps } })).status).toBe(200);
  await hand.page.reload();
  await hand.sees('records nothing yet');
  await hand.use('says-nothing records nothing yet');
  await hand.sees('cannot be shown as the bench will ask it yet');
  expect(await hand.text()).not.toContain('fell over');
  await hand.page.waitForSelector('[aria-label^="Remove line 10"]');
  await hand.page.click('[aria-label^="Remove line 10"]');
  await hand.page.waitForFunction(() => !document.body.innerText.includes('records nothing yet'));

  // The step that was begun is written, and what it counts has fields.
  await hand.use('Checker: 2');
  await hand.sees('Title: is missing');
  const mend = (words: string): Promise<void> =>
    hand.page.evaluate((wanted) => {
      const line = [...document.querySelectorAll('.findings li')].find((one) => (one as HTMLElement).innerText.includes(wanted));
      line?.querySelector('button')?.click();
    }, words);
  for (const [column, text] of [
    ['Title', 'Band off'],
    ['Act', 'Take the band off.'],
    ['Stage', 'strip'],
    ['Records', 'count'],
  ] as const) {
    if (column === 'Title' || column === 'Act') {
      // The line is called by its title as soon as it has one.
      const said = column === 'Title' ? 'Title: is missing' : '“Band off”, Act: is missing';
      await hand.sees(said);
      await mend(said);
      await hand.page.waitForFunction((label) => document.activeElement?.getAttribute('aria-label') === label, {}, column);
    } else {
      await hand.page.waitForFunction(() => document.querySelector('[data-idle]') !== null);
      const order = ['Ref', 'Stage', 'Title', 'Doing', 'Act'];
      for (let step = 0; step < 40; step += 1) await hand.press('ArrowLeft');
      for (let step = 0; step < (column === 'Stage' ? order.indexOf('Stage') : 13); step += 1) await hand.press('ArrowRight');
      await hand.page.waitForFunction((label) => document.activeElement?.getAttribute('aria-label') === label, {}, column);
    }
    await write(hand, text);
    await hand.press('ArrowUp', 'ArrowDown');
  }
  await hand.press('Escape');
  await hand.use('Comes off, in the order it lies: one more');
  await hand.page.waitForFunction(() => document.activeElement?.getAttribute('aria-label') === 'Part, row 1');
  await hand.type('Brake');
  await hand.press('Tab');
  await hand.sees('Checker:');
  await kept(hand);
  // It stands behind the end of the job, and is moved up among the strip.
  await hand.sees('stands after a step of');
  await hand.walkTo('Title');
  await hand.press('Escape');
  await hand.tabTo('Move Band off');
  for (let step = 0; step < 7; step += 1) await hand.press('ArrowUp');
  await hand.sees('Checker: nothing missing');
  await kept(hand);
  expect((await api.get<SheetView>(`/sheets/${path}`)).file.steps[1]).toMatchObject({
    title: 'Band off',
    stage: 'strip',
    record: { kind: 'count', counts: [{ part: 'brake-band', count: 1 }] },
  });
  expect(await hand.faults()).toEqual([]);

  // Thrown away by a slip, it comes back.
  await hand.walkTo('Title');
  await hand.press('Escape');
  await hand.use('Throw the draft away');
  await hand.sees('Throw the draft away?');
  await hand.use('Throw it away');
  await hand.sees('The draft of Ostrel W 1 is thrown away');
  await hand.use('Bring it back');
  await hand.sees('Draft of revision 1');
  await hand.sees('Checker: nothing missing');
  await hand.use('Approve it');
  await hand.sees('Withdraw it');
  const sheets = await api.get<SheetLine[]>('/sheets');
  expect(sheets.find(({ title }) => title === 'Ostrel W 1')).toMatchObject({ status: 'approved', family: 'winch drum brake' });
});

test('a page that falls over keeps nobody’s draft to itself', async () => {
  const api = await Client.as(shop.server.base, 'ilka');
  const { revisionId } = await api.sheetKeyed('quennet-t4-turbocharger');
  const { body } = await api.call<{ revisionId: string }>('POST', `/sheets/${revisionId}/draft`);
  const hand = await Hand.at(shop.screen.browser, shop.server.base, '/sheets');
  await hand.logIn('ilka');
  await hand.page.evaluate((id) => localStorage.setItem(`jubb.draft.sheet.${id}`, '{"file":null}'), body.revisionId);
  await hand.go(`/sheets/${body.revisionId}/edit`);
  await hand.heads('This page fell over');
  await hand.sees('Something is half typed here');
  await hand.use('Let go of what is half typed');
  await hand.use('Yes, let go of what is half typed');
  await hand.sees('Draft of revision');
});
