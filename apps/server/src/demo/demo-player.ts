import { workerData } from 'node:worker_threads';
import { readLibraryFile } from './demo-library.js';
import { namedPictures, readPictures } from './demo-pictures.js';
import { playedJob, workshopOf, type Workshop } from './demo-played.js';

const { pictures } = workerData as { readonly pictures: string };
let workshop: Promise<Workshop> | undefined;

/** Plays the jobs of these places in the plan, in a thread of its own; each as JSON. */
export default async function play(places: readonly number[]): Promise<readonly string[]> {
  const shop = await (workshop ??= theWorkshop());
  return places.map((at) => JSON.stringify(playedJob(shop.plan.jobs[at]!, shop)));
}

async function theWorkshop(): Promise<Workshop> {
  return workshopOf(await readLibraryFile(), namedPictures(await readPictures(pictures)));
}
