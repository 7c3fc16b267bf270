import { kindOf, type UsedWorking } from '@jubb/book';
import { scopeSheet, type SheetFile, type Tool } from '@jubb/sheet';
import { readFile, writeFile } from 'node:fs/promises';
import { availableParallelism } from 'node:os';
import { promisify } from 'node:util';
import { gunzip, gzip } from 'node:zlib';
import { Piscina } from 'piscina';
import { demoTools, moreTools } from './demo-crib.js';
import { readLibraryFile, type LibrarySheet } from './demo-library.js';
import { DEMO_PEOPLE, MORE_PEOPLE } from './demo-people.js';
import { namedPictures, readPictures } from './demo-pictures.js';
import { planShop, type DemoPlan, type Pictures, type PlannedJob } from './demo-plan.js';
import { planShelves } from './demo-stores.js';
import { unitOf } from './demo-unit.js';
import { workAt, type Crew, type TimedEntry, type Worker } from './demo-work.js';

/** What a whole shop works with: its sheets, and those that were in force before, of the ones that changed. */
export interface Workshop {
  readonly plan: DemoPlan;
  readonly sheets: ReadonlyMap<string, SheetFile>;
  readonly earlySheets: ReadonlyMap<string, SheetFile>;
  readonly tools: readonly Tool[];
  /** Stock lines by number. */
  readonly shelf: Readonly<Record<string, string>>;
}

/** An entry as it was worked, whoever it was and with whatever it was by a name that every demo has: its log-in, tag or number. */
export interface PlayedEntry extends Omit<TimedEntry, 'person' | 'working'> {
  readonly by: string;
  /** Of its kind. */
  readonly version: number;
  /** Place among the workings of its job. */
  readonly working: number | null;
}

/** A job as it was worked, but for its hours. */
export interface PlayedJob {
  readonly entries: readonly PlayedEntry[];
  /** Each once: many entries share one. */
  readonly workings: readonly UsedWorking[];
}

/** Written where this module lies when the server is built, a job a line: to work two years takes longer than whoever starts first would wait. */
export const PLAYED = new URL('played.ndjson.gz', import.meta.url);

/** The shop of the demo, from the sheets of its library. */
export function workshopOf(library: readonly LibrarySheet[], pictures: Pictures): Workshop {
  const of = (wanted: LibrarySheet['status']): ReadonlyMap<string, SheetFile> =>
    new Map(library.flatMap(({ key, status, file }) => (status === wanted ? [[key, file] as const] : [])));
  const sheets = of('approved');
  const tools = [...demoTools(), ...moreTools()].toSorted((a, b) => (a.tag < b.tag ? -1 : 1));
  return {
    plan: planShop(sheets, pictures),
    sheets,
    earlySheets: of('superseded'),
    tools: tools.map((tool) => ({ ...tool, id: tool.tag })),
    shelf: Object.fromEntries(planShelves([...sheets.values()]).map(({ body: { number } }) => [number, number])),
  };
}

const ROLES = new Map([...DEMO_PEOPLE, ...MORE_PEOPLE].map(([, login, role]) => [login, role]));

/** Works a job of the plan from its first entry to where it stands. */
export function playedJob(job: PlannedJob, shop: Workshop): PlayedJob {
  const worker = (id: string): Worker => ({ id, role: ROLES.get(id)! });
  const crew: Crew = { hand: worker(job.hand), foreman: worker('oswin'), counter: worker('perla') };
  const sheet = sheetOf(job, shop);
  const workings = new Map<UsedWorking, number>();
  const entries = workAt(sheet, { ...job, unit: unitOf(sheet, job, shop.shelf), crew }, shop.tools).map(
    ({ person, working, ...entry }): PlayedEntry => {
      const place = working && (workings.get(working) ?? workings.size);
      if (working) workings.set(working, place!);
      return { ...entry, by: person.id, version: kindOf(entry.kind).version, working: place };
    },
  );
  return { entries, workings: [...workings.keys()] };
}

/** By the sheet that was in force, as the job sees it. */
function sheetOf({ unit, isEarly, scope }: PlannedJob, { plan, sheets, earlySheets }: Workshop): SheetFile {
  const key = plan.units[unit]!.sheet;
  const file = (isEarly ? earlySheets.get(key) : undefined) ?? sheets.get(key)!;
  const ofSheet = SCOPED.get(file) ?? new Map<string, SheetFile>();
  SCOPED.set(file, ofSheet);
  const of = JSON.stringify([scope.variant, scope.tasks, scope.sides, scope.place]);
  const scoped = ofSheet.get(of) ?? scopeSheet(file, scope).file;
  ofSheet.set(of, scoped);
  return scoped;
}

/** Many jobs see a sheet the same way; workings are known by the sheet that they were made on. */
const SCOPED = new WeakMap<SheetFile, Map<string, SheetFile>>();

/** So many jobs go to a thread at a time. */
const BATCH = 16;

/** Plays every job of the plan, with as many threads as the machine has, and keeps them in its order; the library is there already. */
export async function playAll(pictures: string): Promise<void> {
  const { plan } = workshopOf(await readLibraryFile(), namedPictures(await readPictures(pictures)));
  const pool = new Piscina<readonly number[], readonly string[]>({
    filename: new URL('demo-player.js', import.meta.url).href,
    maxThreads: availableParallelism(),
    workerData: { pictures },
  });
  try {
    const places = plan.jobs.map((_, at) => at);
    const batches = Array.from({ length: Math.ceil(places.length / BATCH) }, (_, batch) =>
      places.slice(batch * BATCH, (batch + 1) * BATCH),
    );
    const lines = await Promise.all(batches.map((batch) => pool.run(batch)));
    await writeFile(PLAYED, await promisify(gzip)(lines.flat().join('\n')));
  } finally {
    await pool.destroy();
  }
}

export async function readPlayed(): Promise<readonly string[]> {
  return (await promisify(gunzip)(await readFile(PLAYED))).toString().split('\n');
}
