import { LICENSED_FAMILIES, cautionsAt, find, type Hazard, type SheetFile, type Step } from '@jubb/sheet';

/** A certificate of licensed practice, as the shop keeps it of somebody who works there. */
export interface Licence {
  readonly id: string;
  /** The danger that it lets its holder work at. */
  readonly covers: Hazard;
  readonly number: string;
  readonly givenBy: string;
  /** The last day on which it is good, like 2027-03-01; nothing where it has no end. */
  readonly until: string | null;
  /** Its PDF. */
  readonly paperId: string | null;
}

type Ends = Pick<Licence, 'until'>;

/** So many days before its end somebody has to see to it: a course is not had in a week. */
const SOON_DAYS = 42;
const DAY_MS = 24 * 3600 * 1000;

/** Whether a certificate is over on a day, like 2027-03-01. */
export function hasEnded({ until }: Ends, day: string): boolean {
  return until !== null && until < day;
}

/** "RC 0417, guild of the valley". */
export function certificateWords({ number, givenBy }: Pick<Licence, 'number' | 'givenBy'>): string {
  return `${number}, ${givenBy}`;
}

/** Dangers that the cautions in force at a step leave to licensed people; nothing where none does. */
export function licensedAt(sheet: SheetFile, step: Step): readonly Hazard[] {
  const own = LICENSED_FAMILIES[sheet.family];
  const licensed = cautionsAt(sheet, step).filter((caution) => caution.licensed !== undefined);
  return [...new Set(licensed.flatMap(({ hazards = [] }) => licensedOf(hazards, own)))];
}

/** Of the dangers of one caution, the one that the family's work is licensed for; all of them where it is none of these. */
function licensedOf(hazards: readonly Hazard[], own: Hazard | undefined): readonly Hazard[] {
  return own !== undefined && hazards.includes(own) ? [own] : hazards;
}

/** What of somebody's certificates speaks of a step; where its cautions name no danger, all of them. */
export function licencesAt(sheet: SheetFile, step: Step, licences: readonly Licence[]): readonly Licence[] {
  const dangers = licensedAt(sheet, step);
  return dangers.length === 0 ? licences : licences.filter(({ covers }) => dangers.includes(covers));
}

/**
 * Why somebody is no certified person at a step, by what the shop keeps of them: every certificate that speaks of it is
 * over. Of whom none is kept nothing is known, and what they say is kept as they say it.
 */
export function licenceRefusal(sheet: SheetFile, ref: string | undefined, licences: readonly Licence[], day: string): string | undefined {
  const step = find(sheet.steps, ref);
  if (step?.holdPoint?.who !== 'certified person') return undefined;
  const own = licencesAt(sheet, step, licences);
  if (own.length === 0 || own.some((one) => !hasEnded(one, day))) return undefined;
  const last = own.toSorted((one, other) => (one.until! < other.until! ? 1 : -1))[0]!;
  return `is over: ${certificateWords(last)} was good until ${last.until}. A newer one is kept with the person first`;
}

/** Whose certificates are over or soon will be, in words, the nearest first; `today` is like 2027-03-01. */
export function licencesDue(
  people: readonly { readonly name: string; readonly leftAt?: string | null; readonly licences?: readonly Licence[] | null }[],
  today: string,
): readonly string[] {
  const here = people.filter(({ leftAt = null }) => leftAt === null);
  const ends = here.flatMap(({ name, licences }) => lastOfEach(licences ?? []).map((licence) => ({ name, ...licence })));
  const days = (until: string): number => Math.round((Date.parse(until) - Date.parse(today)) / DAY_MS);
  return ends
    .flatMap(({ name, covers, until }) => (until === null || days(until) > SOON_DAYS ? [] : [{ name, covers, until }]))
    .toSorted((one, other) => (one.until < other.until ? -1 : 1))
    .map(({ name, covers, until }) =>
      until < today
        ? `${name}’s certificate for ${covers} work ended ${until}.`
        : `${name}’s certificate for ${covers} work ends ${until}, in ${days(until)} days.`,
    );
}

/** An older certificate is none to see to where a later one stands beside it. */
function lastOfEach(licences: readonly Licence[]): readonly Licence[] {
  const end = ({ until }: Ends): string => until ?? '9999';
  return licences.filter((one) => !licences.some((other) => other.covers === one.covers && end(other) > end(one)));
}
