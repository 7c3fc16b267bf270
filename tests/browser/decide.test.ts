import { jobState, type JobView, type QuoteView } from '@jubb/book';
import type { OrderView, SentQuote } from '@jubb/wire';
import { expect, test } from '@jest/globals';
import { allKept } from '../kit/at-job.ts';
import { Hand } from '../kit/browser.ts';
import { Client, entry } from '../kit/client.ts';
import { ownShop } from '../kit/shop.ts';

const shop = ownShop();

/** A job on a sheet, worked until its first step of a stage. */
async function jobAt(api: Client, key: string, stage: string): Promise<JobView> {
  const { id } = await api.bookedOn(key, { customer: { name: 'Gelmarn Lift and Piste', phone: '0555 0178' } });
  const { sheet } = await api.get<JobView>(`/jobs/${id}`);
  await api.workTo(id, sheet.file.steps.find((step) => step.stage === stage)!.ref);
  return api.get<JobView>(`/jobs/${id}`);
}

async function handOf(login: string, path = '/'): Promise<Hand> {
  const hand = await Hand.at(shop.screen.browser, shop.server.base, path);
  await hand.logIn(login);
  return hand;
}

/** The customer with a telephone, at a link of the quote that is out. */
async function customerAt(api: Client, jobId: string): Promise<Hand> {
  const [quote] = await api.get<QuoteView[]>(`/jobs/${jobId}/quotes`);
  const { link } = await api.made<SentQuote>(`/jobs/${jobId}/quotes/${quote!.id}/link`, {});
  const hand = await Hand.at(shop.screen.browser, shop.server.base, '/');
  await hand.page.setViewport({ width: 390, height: 844 });
  await hand.go(link!);
  await hand.sees('What it takes').catch(() => hand.sees('Ways to go on'));
  return hand;
}

test('an alternator: a bad diode by its name, decided, quoted, answered by telephone, ordered over a cut link, held, released by the van', async () => {
  const ilka = await Client.as(shop.server.base, 'ilka');
  const perla = await Client.as(shop.server.base, 'perla');
  const job = await jobAt(ilka, 'quennet-ga-alternator', 'decide');
  const stateNow = async (): Promise<JobView> => perla.get<JobView>(`/jobs/${job.id}`);

  const mechanic = await handOf('ilka', `/jobs/${job.id}/work/alternator.diodes`);
  await mechanic.heads('Which diode is bad?');
  for (const diode of ['+1', '+2', '+3', '−1', '−2', '−3'])
    for (const way of ['forward', 'reverse']) {
      await mechanic.type(diode === '−2' ? '2 mV' : way === 'forward' ? '0,52' : 'OL');
      await mechanic.press('Enter');
    }
  await mechanic.sees('−2 shorted');
  expect(await mechanic.faults()).toEqual([]);
  await mechanic.use('Keep it on the job');
  await mechanic.sees('Parts to have');
  await mechanic.go(`/jobs/${job.id}/decide`);
  await mechanic.sees('Which diode is bad? −2 shorted');
  await mechanic.press('Enter');
  await mechanic.sees('Decide is done');
  const decide = job.sheet.file.steps.find(({ record }) => record.kind === 'decide')!;
  await mechanic.go(`/jobs/${job.id}/decide?step=${decide.ref}`);
  await mechanic.sees('Why did it fail?');
  expect(await mechanic.faults()).toEqual([]);
  await mechanic.use('Why did it fail? Rectifier');
  await mechanic.press('1');
  await mechanic.type('battery joined the wrong way');
  await mechanic.press('Enter');
  await mechanic.sees('found: battery joined the wrong way');
  await allKept(mechanic);
  const decided = jobState(job.sheet.file, (await stateNow()).entries).decisions.find(({ part }) => part.ref === 'rectifier');
  expect(decided?.entry?.payload.fate).toBe('renew');

  const counter = await handOf('perla', `/jobs/${job.id}/quote`);
  await counter.sees('What was found');
  await counter.sees('Which diode is bad?: out');
  expect(await counter.faults()).toEqual([]);
  await counter.fill('Tax, %', '120');
  await counter.sees('A share from 0 to 100 %');
  await counter.fill('Tax, %', '20');
  await counter.use('Send the quote');
  await counter.sees('with the customer');
  expect((await stateNow()).hold).toMatchObject({ reason: 'answer' });

  const customer = await customerAt(perla, job.id);
  expect(await customer.faults()).toEqual([]);
  await customer.use('Yes, do it for');
  await customer.sees('You said yes');
  await counter.sees('Taken: As planned');
  expect((await stateNow()).hold).toBeNull();

  await counter.go(`/jobs/${job.id}/parts`);
  await counter.sees('To order');
  await counter.use('Keep all that is on the shelf');
  await counter.page.waitForFunction(() => !document.body.innerText.includes('Keep all that is on the shelf'));
  await counter.sees('kept');
  await counter.page.waitForFunction(() => document.body.innerText.includes('Put it on the orders'));
  expect(await counter.faults()).toEqual([]);
  await counter.use('Put it on the orders');
  await counter.sees('All of it is kept, out, or on order');
  await counter.go('/stores/orders');
  await counter.sees('being gathered');
  await counter.cut(true);
  await counter.use('Send the order');
  await counter.sees('The server cannot be reached');
  await counter.cut(false);
  for (;;) {
    const open = (await perla.get<OrderView[]>('/orders')).filter(({ state }) => state === 'open');
    if (open.length === 0) break;
    await counter.use('Send the order');
    await counter.page.waitForFunction(
      (left) => [...document.querySelectorAll('button')].filter((key) => key.innerText === 'Send the order').length < left,
      {},
      open.length,
    );
  }
  const sent = (await perla.get<OrderView[]>('/orders')).filter(({ lines }) => lines.some(({ jobId }) => jobId === job.id));
  expect(sent.length).toBeGreaterThan(0);
  expect((await stateNow()).hold).toMatchObject({ reason: 'parts' });
  expect(await counter.faults()).toEqual([]);
  for (const { id } of sent) {
    await counter.use('The stand-in’s van comes');
    await counter.sees('The van brought');
    await counter.use('Put it away');
    await counter.page.waitForFunction(() => !document.body.innerText.includes('The van brought'));
    expect((await perla.get<OrderView[]>('/orders')).find((order) => order.id === id)).toBeDefined();
  }
  expect((await stateNow()).hold).toBeNull();
  await counter.go(`/jobs/${job.id}/parts`);
  await counter.sees('All of it is kept, out, or on order');
  expect(await counter.text()).not.toMatch(/\d on order/u);
});

test('a cylinder whose ram is scored: three ways with their costs, and another one wins when the life changes', async () => {
  const ilka = await Client.as(shop.server.base, 'ilka');
  const perla = await Client.as(shop.server.base, 'perla');
  const job = await jobAt(ilka, 'harrowmere-hs40-steering-cylinder', 'decide');
  const score = job.sheet.file.limits.find(({ ref }) => ref === 'rod-score')!;
  await ilka.post(job.id, entry('look', { limit: score.ref, look: score.looks!.find(({ verdict }) => verdict === 'out')!.ref }));

  const counter = await handOf('perla', `/jobs/${job.id}/worth`);
  await counter.sees('Cheapest by season');
  expect(await counter.faults()).toEqual([]);
  const best = (): Promise<string> => counter.page.evaluate(() => document.querySelector<HTMLElement>('.fig.fs-2')?.innerText ?? '');
  const before = await best();
  await counter.fill(`Lasts, seasons, ${before}`, '0,2');
  await counter.page.waitForFunction((was) => document.querySelector<HTMLElement>('.fig.fs-2')?.innerText !== was, {}, before);
  await counter.fill(`Comes back, ${await best()}`, '140 %');
  await counter.sees('the most allowed is 100 %');

  await counter.go(`/jobs/${job.id}/quote`);
  await counter.sees(score.name);
  await counter.use('One more way');
  await counter.use('One more way');
  await counter.use('Send the quote');
  await counter.sees('with the customer');
  const customer = await customerAt(perla, job.id);
  await customer.use('Better');
  await customer.use('I have a question');
  await customer.type('Will it last the winter?');
  await customer.use('Send the question');
  await customer.sees('You asked');
  await customer.use('No, leave it');
  await customer.sees('You said no');
  const { entries, hold } = await perla.get<JobView>(`/jobs/${job.id}`);
  expect(entries.filter(({ kind }) => kind === 'answered').map(({ payload }) => (payload as { answer: string }).answer)).toEqual([
    'ask',
    'no',
  ]);
  expect(hold).toMatchObject({ reason: 'answer', words: expect.stringContaining('no') });
});

test('a clutch that slips: it is the springs, not the plates', async () => {
  const ilka = await Client.as(shop.server.base, 'ilka');
  const job = await jobAt(ilka, 'ostrel-mk7-multi-plate-clutch', 'decide');
  const hand = await handOf('ilka', `/jobs/${job.id}/work/spring.check`);
  await hand.heads('Are the springs tired?');
  await hand.fill('Springs', '');
  for (const [index, spring] of ['38 212 0.4', '36.9 188 0.5', '37 190 0.5'].entries()) {
    if (index > 0) await hand.press('Enter');
    await hand.type(spring);
  }
  // Nothing of the example stands in for the sheet: what it asks is given.
  for (const [field, figure] of [
    ['Set length', '26'],
    ['Free length at least', '37,4'],
    ['Load at least', '205 N'],
  ] as const)
    await hand.fill(field, figure);
  await hand.sees('load out');
  expect(await hand.faults()).toEqual([]);
  await hand.use('Keep it on the job');
  await hand.sees('Parts to have');
  await allKept(hand);
  const { sheet, entries } = await ilka.get<JobView>(`/jobs/${job.id}`);
  const proposed = new Map(jobState(sheet.file, entries).decisions.map(({ part, ...decision }) => [part.ref, decision]));
  expect(proposed.get('springs')).toMatchObject({ proposed: 'renew', because: expect.stringContaining('Are the springs tired?') });
  expect(proposed.get('friction-plates')).toMatchObject({ proposed: 'reuse' });
});
