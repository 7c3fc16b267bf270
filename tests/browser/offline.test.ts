import { isKind, type JobView } from '@jubb/book';
import { expect, test } from '@jest/globals';
import { Hand } from '../kit/browser.ts';
import { Client, entry } from '../kit/client.ts';
import { startServer } from '../kit/server.ts';
import { ownShop } from '../kit/shop.ts';

const shop = ownShop();

test('with no server at all the application opens, the strip goes on over reloads, and everything arrives once', async () => {
  const api = await Client.as(shop.server.base, 'ilka');
  const { revisionId } = await api.sheetKeyed('tindlebrook-cc1-loose-ball-hub');
  const { id } = await api.booked(revisionId);
  await api.workTo(id, 'balls-out-left');
  const before = (await api.get<JobView>(`/jobs/${id}`)).entries.length;

  const hand = await Hand.at(shop.screen.browser, shop.server.base, `/bench/${id}`, { keeps: true });
  await hand.logIn('ilka');
  await hand.page.waitForFunction(() => navigator.serviceWorker.controller !== null);
  await hand.go(`/bench/${id}`);
  await hand.heads('Balls out, left');
  await hand.settles(500);

  await shop.server.stop('SIGKILL');
  await hand.page.reload();
  await hand.heads('Balls out, left');
  await hand.press('Space');
  await hand.page.waitForFunction(() => document.querySelector('.count-name')?.textContent === 'Dust seals');
  await hand.sees('1 held, no link');
  await hand.page.reload();
  await hand.sees('1 held, no link');
  await hand.page.waitForFunction(() => document.querySelector('.count-name')?.textContent === 'Dust seals');
  await hand.press('Space');
  await hand.heads('Balls out, right');
  await hand.press('m');
  await hand.fill('What to what', 'shell to axle');
  await hand.fill('How', 'paint line');
  await hand.press('Enter');
  // The seal was ticked out whole as it came off.
  await hand.sees('4 held, no link');

  shop.server = await startServer(shop.database.url, { port: shop.server.port });
  await hand.sees('live');
  await hand.page.waitForFunction(() => !document.body.innerText.includes('held'));
  const { entries } = await (await Client.as(shop.server.base, 'ilka')).get<JobView>(`/jobs/${id}`);
  expect(entries.length).toBe(before + 4);
  expect(
    entries
      .filter(isKind('came-off'))
      .slice(-2)
      .map(({ payload }) => [payload.part, payload.count]),
  ).toEqual([
    ['balls-left', 9],
    ['dust-seal', 1],
  ]);
  expect(entries.at(-1)).toMatchObject({ kind: 'mark', payload: { what: 'shell to axle', mark: 'paint line' } });
});

test('a clock that was started rings on every page, after a reload too, until somebody heard it', async () => {
  const api = await Client.as(shop.server.base, 'ilka');
  const { id } = await api.booked((await api.sheetKeyed('ostrel-d44-drive-axle')).revisionId);
  const began = new Date(Date.now() - 19 * 60_000 - 55_000).toISOString();
  await api.post(id, entry('wait', { what: 'bearing to come to heat', seconds: 1200 }, { takenAt: began }));

  const hand = await Hand.at(shop.screen.browser, shop.server.base, '/crib');
  await hand.logIn('bram');
  await hand.sees('bearing to come to heat');
  await hand.page.reload();
  await hand.sees('it is time');
  expect(await hand.faults()).toEqual([]);
  await hand.go(`/bench/${id}`);
  await hand.sees('it is time');
  await hand.use('Heard');
  await hand.page.waitForFunction(() => !document.body.innerText.includes('it is time'));
  await hand.go('/jobs');
  await hand.heads('Jobs');
  await hand.settles();
  expect(await hand.text()).not.toContain('it is time');
  const { entries } = await api.get<JobView>(`/jobs/${id}`);
  expect(entries.at(-1)).toMatchObject({ kind: 'wait-over' });
});
