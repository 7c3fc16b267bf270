import { isKind, type JobView } from '@jubb/book';
import { expect, test } from '@jest/globals';
import { Hand } from '../kit/browser.ts';
import { Client } from '../kit/client.ts';
import { ownShop } from '../kit/shop.ts';

const shop = ownShop();

test('a gearbox case: screws by length with their places, a line of one’s own put right, what is out of its turn', async () => {
  const api = await Client.as(shop.server.base, 'ilka');
  const { id } = await api.booked((await api.sheetKeyed('askvale-gx5-gearbox')).revisionId);
  await api.workTo(id, 'case-open');
  const hand = await Hand.at(shop.screen.browser, shop.server.base, `/jobs/${id}`);
  await hand.logIn('ilka');
  const pick = async (place: number): Promise<void> => {
    await hand.tabTo(`Place ${place}`);
    await hand.press('Space');
  };

  // The longest: three of four places are not let go without a word, nor by a reload.
  await hand.sees('4 of 60 mm on the sheet');
  for (const place of [1, 2, 25]) await pick(place);
  await hand.sees('3 places are picked, 4 counted');
  await hand.page.reload();
  await hand.sees('3 places are picked, 4 counted');
  await pick(26);
  await hand.page.waitForFunction(() => !document.body.innerText.includes('places are picked'));
  await hand.use('4 came off');
  await hand.sees('14 of 45 mm on the sheet');
  await hand.sees('round: 60 mm');
  await hand.use('14 came off');
  await hand.sees('8 of 30 mm on the sheet');
  await hand.use('8 came off');

  // A line as it is said; where it was read wrong it is put right.
  await hand.fill('Came off, but not on the sheet', '2 x M6x16 sound plate bent, tray 4');
  await hand.sees('2 × plate bent, size M6 x 16, tray 4, looks sound');
  await hand.use('Put it right');
  await hand.fill('What', 'sound plate');
  await hand.fill('Looks', 'bent');
  await hand.press('Enter');
  await hand.use('Same again: sound plate, +1');
  // Nobody leaves a page before what he pressed stands on it, and is on its way.
  await hand.page.waitForFunction(
    () => [...document.querySelectorAll('td')].filter((cell) => cell.innerText.includes('sound plate')).length >= 2,
  );
  await hand.page.waitForFunction(() => document.querySelector<HTMLElement>('.topbar [role="status"]')?.innerText === 'live');

  // What is out of its turn says what comes first.
  await hand.go(`/jobs/${id}/strip?step=differential-out`);
  await hand.sees('comes first. The input shaft');
  expect(await hand.faults()).toEqual([]);

  const { entries } = await api.get<JobView>(`/jobs/${id}`);
  const lines = entries.filter(isKind('came-off')).map(({ payload }) => payload);
  expect(lines.find(({ size }) => size === '60 mm')).toMatchObject({ count: 4, joint: 'case-screws', places: [0, 1, 24, 25] });
  expect(lines.find(({ size }) => size === '45 mm')).not.toHaveProperty('places');
  const own = lines.filter(({ name }) => name === 'sound plate');
  expect(own.map(({ count, size, tray, condition }) => [count, size, tray, condition])).toEqual([
    [2, 'M6 x 16', '4', 'bent'],
    [1, 'M6 x 16', '4', 'bent'],
  ]);
});
