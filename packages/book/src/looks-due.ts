import { STAGES, find, partName, type Fastening, type Fit, type Seal, type SheetFile, type Step, type Tell } from '@jubb/sheet';
import { isKind, type AnyKeptEntry } from './entries/kept.js';
import { isWork } from './no-work.js';
import { partsPutIn } from './parts/new-parts.js';
import { letGoAt } from './runs/way-off.js';
import { afterSeal, sightLine, type SealSight } from './runs/seal-run.js';
import { marksOf, type Mark } from './strip/marks.js';

/** What is looked at once a step is done, before the next one. */
export type LookDue =
  /** A fastening without a thread: each piece is home. */
  | { readonly what: 'seated'; readonly fastening: Fastening; readonly seen: number }
  /** What goes in one way only. */
  | { readonly what: 'way-round'; readonly part: string; readonly lies: string }
  /** A mark that was made when it came off. */
  | { readonly what: 'mark'; readonly mark: Mark }
  /** What tells the variants apart is in sight: which one it is. */
  | { readonly what: 'which'; readonly variants: readonly Shown[] }
  /** A fit that came apart: how. */
  | { readonly what: 'apart'; readonly fit: Fit }
  /** A seal that is in: what covered the way is off, what must show shows. */
  | { readonly what: 'seal'; readonly seal: Seal; readonly sight: SealSight; readonly notSo?: string }
  /** Feel, sound or drop that the sheet expects; not so is where somebody said that it is otherwise. */
  | { readonly what: 'expected'; readonly expect: string; readonly notSo?: string };

/** A variant by what of it is in sight at a step. */
export interface Shown {
  readonly ref: string;
  readonly name: string;
  /** "wheel studs 8" */
  readonly seen: string;
}

/** What is still to be looked at at a step whose own act is done. New work at it, or its part off again, asks for all of it anew. */
export function looksDue(sheet: SheetFile, step: Step, live: readonly AnyKeptEntry[]): readonly LookDue[] {
  const { seats = [], expect, shows = [] } = step;
  const puts = putsTogether(step) ? partsPutIn(sheet, step) : [];
  const apart = letGoAt(sheet, step);
  const seal = find(sheet.seals, step.record.seal);
  if (!seal && seats.length === 0 && expect === undefined && puts.length === 0 && apart.length === 0 && shows.length === 0) return [];
  const fastenings = seats.flatMap((ref) => find(sheet.fastenings ?? [], ref) ?? []);
  const held = new Set([...puts, ...fastenings.flatMap(({ part }) => part ?? [])]);
  const from = live.findLastIndex((entry) =>
    entry.kind === 'came-off'
      ? entry.payload.part !== undefined && held.has(entry.payload.part)
      : entry.step === step.ref && isWork(entry.kind),
  );
  const since = live.slice(from + 1);
  const own = since.filter((entry) => entry.step === step.ref);
  return [
    ...whichDue(sheet, shows, live),
    ...apart
      .filter(({ ref }) => !own.some((entry) => isKind('let-go')(entry) && entry.payload.fit === ref))
      .map((fit) => ({ what: 'apart' as const, fit })),
    ...(seal ? afterSeal(seal, own).map((one) => ({ what: 'seal' as const, ...one })) : []),
    ...seatedDue(fastenings, own),
    ...waysRound(sheet, step, puts)
      .filter(
        ({ part, lies }) => !own.some((entry) => isKind('way-round')(entry) && entry.payload.part === part && entry.payload.lies === lies),
      )
      .map((look) => ({ what: 'way-round' as const, ...look })),
    ...marksOf(live)
      .filter(({ part, met }) => !met && part !== undefined && puts.includes(part))
      .map((mark) => ({ what: 'mark' as const, mark })),
    ...expectedDue(expect, own),
  ];
}

/** Asked once on a job, whoever answers it and at whichever side. */
function whichDue({ variants = [] }: SheetFile, shows: readonly string[], live: readonly AnyKeptEntry[]): readonly LookDue[] {
  if (shows.length === 0 || variants.length < 2 || live.some(isKind('variant'))) return [];
  const seen = (tells: readonly Tell[]): string =>
    tells.flatMap(({ feature, is }) => (shows.includes(feature) ? [`${feature.replaceAll('-', ' ')} ${is}`] : [])).join(' · ');
  return [{ what: 'which', variants: variants.map(({ ref, name, tells }) => ({ ref, name, seen: seen(tells) })) }];
}

function seatedDue(fastenings: readonly Fastening[], own: readonly AnyKeptEntry[]): readonly LookDue[] {
  return fastenings.flatMap((fastening): readonly LookDue[] => {
    const seen = own
      .filter(isKind('seated'))
      .reduce((sum, { payload }) => sum + (payload.fastening === fastening.ref ? payload.count : 0), 0);
    return seen < fastening.count ? [{ what: 'seated', fastening, seen }] : [];
  });
}

function expectedDue(expect: string | undefined, own: readonly AnyKeptEntry[]): readonly LookDue[] {
  const said = own.findLast(isKind('as-expected'))?.payload;
  if (expect === undefined || said?.so) return [];
  return [{ what: 'expected', expect, ...(said?.instead === undefined ? {} : { notSo: said.instead }) }];
}

/** Whether a step puts together what was taken apart. */
function putsTogether({ stage }: Step): boolean {
  return STAGES.indexOf(stage) >= STAGES.indexOf('build');
}

/** Parts that a step puts in and that came off one way only; a seal's way is asked with the seal. */
function waysRound(
  sheet: SheetFile,
  { record }: Step,
  puts: readonly string[],
): readonly { readonly part: string; readonly lies: string }[] {
  const sealed = find(sheet.seals, record.seal)?.part;
  const counted = sheet.steps.flatMap((step) => step.record.counts ?? []);
  return puts
    .filter((part) => part !== sealed)
    .flatMap((part) =>
      [...new Set(counted.flatMap((line) => (line.part === part && line.direction !== undefined ? [line.direction] : [])))].map((lies) => ({
        part,
        lies,
      })),
    );
}

/** What is to be looked at at a step now, among all steps of a job. */
export function looksAt(
  steps: readonly { readonly step: Pick<Step, 'ref'>; readonly looks?: readonly LookDue[] }[],
  ref: string | null,
): readonly LookDue[] {
  return steps.find(({ step }) => step.ref === ref)?.looks ?? [];
}

/** "3 of 4 × Piston pin clips are home". */
export function lookWords(sheet: SheetFile, look: LookDue): string {
  switch (look.what) {
    case 'seated':
      return `${look.fastening.count - look.seen} × ${look.fastening.name} not seen to be home`;
    case 'way-round':
      return `which way the ${partName(sheet, look.part)} lies was not looked at`;
    case 'which':
      return 'not said which one it is';
    case 'apart':
      return `not said how it came apart: ${look.fit.name}`;
    case 'mark':
      return `mark not met: ${look.mark.what}`;
    case 'seal':
      return look.notSo === undefined ? `not looked at: ${sightLine(sheet, look.seal.ref, look.sight)}` : `not right: ${look.notSo}`;
    case 'expected':
      return look.notSo === undefined ? `not said whether it is so: ${look.expect}` : `not as expected: ${look.notSo}`;
  }
}
