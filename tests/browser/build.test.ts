import { expect, test } from '@jest/globals';
import { allKept, atJob, openBuild, reads, stateOf } from '../kit/at-job.ts';
import { Hand } from '../kit/browser.ts';
import { Client } from '../kit/client.ts';
import { ownShop } from '../kit/shop.ts';

const shop = ownShop();

test('a compressor goes together: a mark before its part, an air gap set from the shelf after a wrong figure, and the obligation met', async () => {
  const { api, id, hand } = await atJob(shop, 'askvale-rx10-refrigerant-compressor', 'body-rings-in', 'build');
  await hand.sees('Build list');
  const before = await stateOf(api, id);
  const marked = before.build.find(({ mark }) => mark && !mark.met)!;
  expect(await hand.faults()).toEqual([]);
  await hand.use(`All ${before.build.length} lines`);
  await hand.use(`It lines up, ${marked.name}`);
  await hand.use(`In, ${marked.name}`);
  await allKept(hand);
  expect((await stateOf(api, id)).build.find(({ entryId }) => entryId === marked.entryId)).toMatchObject({ inNow: 1, mark: { met: true } });

  await api.workTo(id, 'gap-set');
  await hand.go(`/jobs/${id}/build`);
  await hand.sees('Reading 1 of 3');
  await reads(hand, '0,21', '0,22', '0,21');
  await hand.sees('Which shims give the clutch its air gap?');
  // 5 mm for half a millimetre: no pack of the box is so thick.
  await hand.fill('Shims now', '50 mm');
  await hand.sees('is too large');
  await hand.fill('Shims now', '0.5');
  // A window narrower than the steps of the box: nothing is answered but what would be right.
  await hand.fill('Gap from', '0,53');
  await hand.fill('Gap to', '0,55');
  await hand.sees('none of the shims will do: the nearest');
  await hand.sees('in all would be right');
  expect(await hand.faults()).toEqual([]);
  await hand.fill('Gap from', '0,4');
  await hand.fill('Gap to', '0,7');
  await hand.sees('The pack has');
  expect(await hand.faults()).toEqual([]);
  await hand.use('Done so; now read it again');
  await hand.sees('put in');
  await allKept(hand);
  // The nut that lies over it is undone by it: it is pulled anew before the gap is read.
  await hand.go(`/jobs/${id}/build`);
  await hand.sees('pulled before, and undone again');
  await api.workTo(id, 'gap-set');
  await hand.go(`/jobs/${id}/build`);
  await hand.sees('Reading 1 of 3');
  await reads(hand, '0,55', '0,55', '0,56');
  await hand.sees('Air gap of the clutch 0.553 mm');
  await allKept(hand);
  const after = await stateOf(api, id);
  expect(after.settings[0]).toMatchObject({ phase: 'set', tries: [{ verdict: 'out' }, { verdict: 'in' }] });
  expect(after.settings[0]?.tries[1]?.before).toContain('put in');
});

test('a joint without a number: worked out from its screw, refused for a thread that is none, then pulled', async () => {
  const api = await Client.as(shop.server.base, 'ilka');
  const named = { make: 'Ostrel', model: 'UH 4', machine: 'Trailer' };
  const { revisionId } = await api.made<{ revisionId: string }>('/sheets', { family: 'unitised hub with slipping-clutch bolt', ...named });
  const job = await api.booked(revisionId, { unit: { name: 'Hub right', serial: 'UH-78' } });
  await api.workTo(job.id, 'brake-plate-on');
  const hand = await Hand.at(shop.screen.browser, shop.server.base, `/jobs/${job.id}`);
  await hand.logIn('ilka');
  await hand.sees('Only somebody’s word');
  await hand.use('Work it out from the screw');
  await hand.sees('The book gives no torque: how tight?');
  await hand.fill('Thread', 'G 1/4');
  await hand.sees('names no 60° thread');
  await hand.fill('Thread', 'M12');
  await hand.sees('Go on by');
  expect(await hand.faults()).toEqual([]);
  await hand.use('Go on by');
  // New each time: the old ones do not go back.
  await hand.fill('Where they come from', 'out of the axle kit');
  await hand.use('New ones in hand');
  await hand.sees('Set the wrench to');
  await allKept(hand);
  const { sheet } = await stateOf(api, job.id);
  expect(sheet.joints.find(({ ref }) => ref === 'plate-screws')?.torque).toMatchObject({ trust: 'calculated' });
});

test('an answer goes into the sheet where nobody stands for its figure, by what its quantity fits', async () => {
  const api = await Client.as(shop.server.base, 'ilka');
  const named = { make: 'Ostrel', model: 'UH 5', machine: 'Trailer' };
  const { revisionId } = await api.made<{ revisionId: string }>('/sheets', { family: 'unitised hub with slipping-clutch bolt', ...named });
  const job = await api.booked(revisionId, { unit: { name: 'Hub left', serial: 'UH-79' } });
  const hand = await Hand.at(shop.screen.browser, shop.server.base, `/jobs/${job.id}/work/torque.no-spec`);
  await hand.logIn('ilka');
  await hand.fill('Thread', 'M10');
  await hand.page.select('#in-propertyClass', '8.8');
  await hand.sees('Nobody stands for this figure of the sheet yet');
  // Nothing is chosen by itself.
  const key = '[aria-label="Into the sheet"] button';
  expect(await hand.page.$eval(key, (button) => (button as HTMLButtonElement).disabled)).toBe(true);
  const [, ...options] = await hand.page.$$eval('[aria-label="Into the sheet"] option', (all) =>
    all.map((option) => [option.value, option.innerText] as const),
  );
  const places = options.map(([, words]) => words);
  // A torque is no length: the windows of the seals are not offered.
  expect(places.length).toBeGreaterThan(3);
  expect(places.every((place) => place.includes('N·m'))).toBe(true);
  const wanted = places.findIndex((place) => place.startsWith('Brake plate screws, torque: ') && place.endsWith('(aim)'));
  await hand.tabTo('Nobody stands for this figure');
  await hand.page.select('[aria-label="Into the sheet"] select', options[wanted]![0]);
  expect(await hand.faults()).toEqual([]);
  await hand.use('Put it into the sheet, as worked out');
  await hand.heads('Marks and damage on arrival');
  await allKept(hand);
  const { sheet, live } = await stateOf(api, job.id);
  const { torque } = sheet.joints.find(({ ref }) => ref === 'plate-screws')!;
  expect(torque).toMatchObject({ trust: 'calculated', source: 'The book gives no torque: how tight?' });
  expect(places[wanted]).toContain(torque!.figure);
  expect(live.map(({ kind }) => kind)).toEqual(['worked', 'value-found']);
});

test('an apprentice practises: guided to a good setting, and the same piece answers the same', async () => {
  const hand = await Hand.at(shop.screen.browser, shop.server.base, '/learn');
  await hand.logIn('joss');
  await hand.heads('Practice');
  const setIt = async (): Promise<string> => {
    await hand.use('Seat at 50 N·m');
    await hand.use('Read three times');
    await hand.sees('Tighten');
    await hand.use('Take it');
    await hand.tabTo('Turn the nut');
    await hand.press('Enter');
    await hand.use('Lock');
    await hand.use('Read three times');
    await hand.use('It is set: how good?');
    await hand.sees('It really is');
    return hand.page.$eval('[role="status"].score', (element) => (element as HTMLElement).innerText);
  };
  const first = await setIt();
  expect(first).toMatch(/^in/u);
  expect(await hand.faults()).toEqual([]);
  await hand.use('The same again');
  expect(await setIt()).toBe(first);
});

test('two at one axle: a list ticked from two tablets, a torque run left in the middle, gone on with by the other, exact to the screw', async () => {
  const { api, id, hand: ilka } = await atJob(shop, 'ostrel-d44-drive-axle', 'caps-on', 'build');
  const bram = await Hand.at(shop.screen.browser, shop.server.base, `/jobs/${id}/build`);
  await bram.logIn('bram');
  const screws = 'Bearing cap screws M12 × 70';
  // What the steps before it put in is in, without a tick.
  const before = (await stateOf(api, id)).build.reduce((sum, { inNow }) => sum + inNow, 0);
  expect(before).toBeGreaterThan(0);
  for (const at of [ilka, bram]) await at.use('All 26 lines');
  // Caps are bored with their seat: they go in by their mark and not before.
  expect(await bram.page.$eval('[aria-label^="All 2 in, Bearing caps"]', (key) => (key as HTMLButtonElement).disabled)).toBe(true);
  await bram.use('It lines up, Bearing caps, a pair');
  await ilka.page.waitForSelector('[aria-label^="All 2 in, Bearing caps"]:enabled');
  await ilka.use('All 2 in, Bearing caps, a pair');
  await ilka.use(`One in, ${screws}`);
  await bram.sees(`${before + 3} of 53 are in`);
  await bram.use(`All 3 in, ${screws}`);
  for (const at of [ilka, bram]) await at.sees(`${before + 6} of 53 are in`);
  expect(await bram.faults()).toEqual([]);

  await openBuild({ hand: ilka, id }, 'Bearing cap screws, pass 1 of 3. Next is number 1.');
  await ilka.use('Pulled');
  await ilka.sees('Next is number 2');
  await ilka.use('Pulled');
  await ilka.sees('Next is number 3');
  await allKept(ilka);
  await ilka.page.reload();
  await ilka.sees('Next is number 3');
  await openBuild({ hand: bram, id }, 'Bearing cap screws, pass 1 of 3. Next is number 3.');
  await bram.use('Pulled');
  await ilka.sees('Next is number 4');
  await ilka.use('Pulled');
  await bram.sees('pass 2 of 3. Next is number 1');
  for (const at of [ilka, bram]) await allKept(at);
  const { joints, build } = await stateOf(api, id);
  const { pulls, done, total } = joints.find(({ joint }) => joint.ref === 'cap-screws')!;
  expect({ done, total, places: new Set(pulls.map(({ payload }) => payload.place)).size }).toEqual({ done: 4, total: 12, places: 4 });
  expect(new Set(pulls.map(({ personId }) => personId)).size).toBe(2);
  expect(build.filter(({ ticked }) => ticked > 0).map(({ ticked, count }) => [ticked, count])).toEqual([
    [2, 2],
    [4, 4],
  ]);
});
