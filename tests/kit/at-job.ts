import { jobState, type JobState, type JobView } from '@jubb/book';
import { Hand } from './browser.ts';
import { Client } from './client.ts';
import type { OwnShop } from './shop.ts';

export interface AtJob {
  readonly api: Client;
  readonly id: string;
  readonly hand: Hand;
}

export async function stateOf(api: Client, id: string): Promise<JobState> {
  const job = await api.get<JobView>(`/jobs/${id}`);
  return jobState(job.sheet.file, job.entries);
}

/** Waits until nothing is held on the tablet any more. */
export async function allKept(hand: Hand): Promise<void> {
  await hand.page.waitForFunction(
    () => document.querySelector<HTMLElement>('.topbar [role="status"], .bench-top [role="status"]')?.innerText === 'live',
  );
}

/** A job on a sheet, worked up to a step, and somebody before it. */
export async function atJob({ server, screen }: OwnShop, key: string, step: string, path: string): Promise<AtJob> {
  const api = await Client.as(server.base, 'ilka');
  const { id } = await api.bookedOn(key);
  await api.workTo(id, step);
  const hand = await Hand.at(screen.browser, server.base, `/jobs/${id}/${path}`);
  await hand.logIn('ilka');
  return { api, id, hand };
}

/** Types readings one after the other, the last Enter keeps them. */
export async function reads(hand: Hand, ...readings: readonly string[]): Promise<void> {
  for (const reading of [...readings, '']) {
    await hand.type(reading);
    await hand.press('Enter');
  }
}

/** Opens the build at the step that is next, and reads the cautions that stand before it. */
export async function openBuild({ hand, id }: Pick<AtJob, 'hand' | 'id'>, title: string, stage = 'build'): Promise<void> {
  await hand.go(`/jobs/${id}/${stage}`);
  await hand.heads(title);
  if ((await hand.text()).includes('Read the caution before you begin')) await hand.use('I have read it');
}
