import { seeded } from '@jubb/core';
import { baseRef, limitQuantity, limitWindow, windowOf, type Limit, type SheetFile } from '@jubb/sheet';
import type { DemoUnit } from '@jubb/play';
import type { PlannedJob } from './demo-plan.js';

/** A cause that is behind a complaint shows most of its signs. */
const SHOWS = 0.85;
/** Above it a part is past what it may be. */
const WORN_OUT = 1;

/** What the unit of a planned job really is, on the sheet as the job sees it. */
export function unitOf(sheet: SheetFile, job: PlannedJob, shelf: NonNullable<DemoUnit['shelf']>): DemoUnit {
  const random = seeded(job.seed ^ 0x5eed);
  const out = signsOf(sheet, job.scope.picks, random);
  const limits: Record<string, number> = {};
  const looks: Record<string, string> = {};
  for (const limit of sheet.limits) {
    const isOut = out.has(baseRef(limit)) || (job.wear > WORN_OUT && random() < 0.12);
    if (limit.looks) {
      const wanted = isOut ? 'out' : job.isUnsure ? 'unsure' : 'in';
      const shown = limit.looks.filter(({ verdict }) => verdict === wanted);
      if (shown.length > 0) looks[limit.ref] = shown[Math.floor(random() * shown.length)]!.ref;
    } else {
      const truth = sizeOf(limit, isOut ? 1.15 + 0.5 * random() : Math.min(0.75, job.wear * (0.2 + 0.55 * random())));
      if (truth !== undefined) limits[limit.ref] = truth;
    }
  }
  const { leftAt } = job;
  return {
    limits,
    looks,
    finding: job.finding,
    backedOff: 0.17 + 0.08 * random(),
    receivedBy: job.receivedBy,
    foreman: 'Oswin Tarrell',
    ...(job.byShelf ? { shelf } : {}),
    misses: Object.fromEntries(sheet.settings.map(({ ref }) => [ref, missesOf(random(), job)])),
    ...(leftAt === undefined ? {} : { leftAt: Object.fromEntries(sheet.settings.map(({ ref }) => [ref, leftAt])) }),
    failed: failedOf(sheet, out, random),
  };
}

/** Most settings are in at the first try, some take one or two more. */
function missesOf(drawn: number, { stop }: PlannedJob): number {
  if (stop?.within === 'setting') return 1;
  return drawn < 0.7 ? 0 : drawn < 0.93 ? 1 : 2;
}

/** Limits that are out by what is behind the complaint: one cause of it, drawn by its weight. */
function signsOf(sheet: SheetFile, picks: readonly string[], random: () => number): ReadonlySet<string> {
  const blamed = (sheet.causes ?? []).flatMap((cause) => {
    const weight = Math.max(0, ...cause.blames.filter(({ complaint }) => picks.includes(complaint)).map((blame) => blame.weight));
    return weight > 0 ? [{ cause, weight }] : [];
  });
  let left = random() * blamed.reduce((sum, { weight }) => sum + weight, 0);
  const drawn = blamed.find(({ weight }) => (left -= weight) <= 0);
  const signs = (drawn?.cause.signs ?? []).filter(({ when, speaks }) => when === 'out' && speaks === 'for');
  return new Set(signs.filter(() => random() < SHOWS).map(({ limit }) => limit));
}

/** A size that lies so far from new towards the limit: 0 as new, 1 at the limit; nothing where neither says what that is. */
function sizeOf(limit: Limit, share: number): number | undefined {
  const { from, to } = limitWindow(limit);
  const made = limit.asNew ? windowOf(limit.asNew, limitQuantity(limit)) : undefined;
  const asNew = made && ((made.from ?? made.to ?? 0) + (made.to ?? made.from ?? 0)) / 2;
  if (from === undefined && to === undefined) return undefined;
  if (from !== undefined && to !== undefined) {
    const middle = asNew ?? (from + to) / 2;
    return middle + (to - middle) * share;
  }
  const edge = (to ?? from)!;
  const fresh = asNew ?? (to === undefined ? edge * 1.02 : edge * 0.3);
  return fresh + (edge - fresh) * share;
}

const FAILED = [
  'magnet held flakes',
  'ran dry',
  'water got in',
  'blue from heat',
  'worn evenly, ran its time',
  'grit under the lip',
] as const;

/** Why the parts of what is out have failed. */
function failedOf(sheet: SheetFile, out: ReadonlySet<string>, random: () => number): NonNullable<DemoUnit['failed']> {
  const parts = sheet.limits.flatMap((limit) => (limit.part !== undefined && out.has(baseRef(limit)) ? [limit.part] : []));
  return Object.fromEntries(
    parts.map((part) => {
      const drawn = random();
      if (drawn < 0.15) return [part, { sort: 'unknown' as const }];
      const words = FAILED[Math.floor(random() * FAILED.length)]!;
      return [part, { sort: drawn < 0.6 ? ('found' as const) : ('suspected' as const), words }];
    }),
  );
}
