import { jobState, nextAct, type JobState, type JobView } from '@jubb/book';
import { find, type Step } from '@jubb/sheet';
import { beforeAll, expect, test } from '@jest/globals';
import type { ElementHandle, Page } from 'puppeteer-core';
import { allKept } from '../kit/at-job.ts';
import { Hand } from '../kit/browser.ts';
import { Client } from '../kit/client.ts';
import { hubFigure } from '../kit/hub.ts';
import { ownShop } from '../kit/shop.ts';

const shop = ownShop();
let api: Client;
let page: Page;
let hand: Hand;

beforeAll(async () => {
  api = await Client.as(shop.server.base, 'ilka');
  hand = await Hand.at(shop.screen.browser, shop.server.base);
  ({ page } = hand);
  // Where the foreman logged in once, their PIN will do.
  await hand.logIn('oswin');
  await hand.use('Log out');
  await hand.logIn('ilka');
  await page.setViewport({ width: 1024, height: 768, hasTouch: true, isMobile: true });
  hand.hasKeys = false;
});

/** What a finger can press whose name begins with the words, if it is there. */
async function pressable(words: string): Promise<ElementHandle<HTMLElement> | undefined> {
  const found = await page.evaluateHandle((wanted) => {
    const name = (one: HTMLElement): string => (one.innerText || one.getAttribute('aria-label') || '').trim().replaceAll(/\s+/gu, ' ');
    const all = [...document.querySelectorAll<HTMLElement>('button, a, label')];
    return all.find((one) => name(one).startsWith(wanted) && one.offsetParent !== null && !one.matches(':disabled, .disabled'));
  }, words);
  return (found.asElement() as ElementHandle<HTMLElement> | null) ?? undefined;
}

async function isTapped(words: string): Promise<boolean> {
  const key = await pressable(words);
  await key?.tap();
  return key !== undefined;
}

async function tap(words: string): Promise<void> {
  await hand.sees(words);
  expect([words, await isTapped(words)]).toEqual([words, true]);
}

/** The key that keeps what is done at the act, once it can be pressed. */
const KEEPS = '.bench-keep .btn-primary:not(:disabled), .bench-do .btn-primary:not(:disabled), .act-due .btn-primary:not(:disabled)';

async function keep(): Promise<void> {
  await (await page.waitForSelector(KEEPS, { visible: true }))!.tap();
}

/** Puts a finger into a field, and writes there. */
async function write(selector: string, text: string): Promise<void> {
  await (await page.waitForSelector(selector, { visible: true }))!.tap();
  await page.keyboard.type(text);
}

/** One thing that a finger does at an act. */
async function doAt(step: Step | undefined, state: JobState): Promise<void> {
  if (await isTapped('I have read it')) return;
  if (await pressable('Take the ')) return tap('Take the ');
  if ((await hand.text()).includes('Now it can be seen')) return tap('TH-6');
  const wants = '.bench-do input[placeholder^="From the kit"]';
  const from = await page.$(wants);
  if (from && (await from.evaluate((field) => (field as HTMLInputElement).value)) === '') {
    await write(wants, 'brought by the van');
    return keep();
  }
  if (step?.record.kind === 'arrival') await write('.bench-do input[id$="-text"], .bench-do textarea', 'Grease on the tyre wall');
  if (step?.record.kind === 'look') return tap(find(state.sheet.limits, step.record.limit)!.looks![0]!.words);
  const figure = step && hubFigure(step, state);
  // The field stands there while something is to be read, and is empty until then.
  const field = figure === undefined ? null : await page.$('.num-field');
  if (field && (await page.$('.bench-keep .btn-primary:disabled'))) await write('.num-field', figure!);
  await keep();
}

async function stateNow(id: string): Promise<JobState> {
  await allKept(hand);
  const job = await api.get<JobView>(`/jobs/${id}`);
  return jobState(job.sheet.file, job.entries);
}

test('a wheel hub from the bench to its driver, with nothing but a finger', async () => {
  const { revisionId } = await api.sheetKeyed('harrowmere-th6-front-hub');
  const { id } = await api.booked(revisionId);
  await hand.go(`/jobs/${id}`);
  await page.waitForSelector('.bench');
  let acts = 0;
  for (;;) {
    const state = await stateNow(id);
    const act = nextAct(state);
    if (act?.step?.record.kind === 'sign') break;
    expect((acts += 1)).toBeLessThan(250);
    await page.waitForFunction((title) => document.querySelector('h1')?.innerText.startsWith(title), {}, act?.step?.title ?? '');
    await doAt(act?.step, state);
    await page.evaluate(async () => void (await new Promise(requestAnimationFrame)));
  }

  // The foreman takes over the tablet, signs, and tells the driver.
  await (await page.waitForSelector('.person-key'))!.tap();
  // Who was here before stands there with a number of their own.
  await (await page.waitForSelector('::-p-xpath(//button[contains(., "Oswin Tarrell")])', { visible: true }))!.tap();
  await page.waitForSelector('.pin-pad', { visible: true });
  for (const digit of '4170') {
    const keys = await page.$$('.pin-pad button');
    for (const key of keys) if ((await key.evaluate((one) => (one as HTMLElement).innerText.trim())) === digit) await key.tap();
  }
  await page.waitForFunction(() => document.querySelector<HTMLElement>('.person-key')?.innerText.startsWith('Oswin'));
  await tap('Sign as Oswin Tarrell');
  await tap('Go on to Hand over');
  expect((await stateNow(id)).signed).toBeDefined();
});
