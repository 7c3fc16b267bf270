import { type Setting, type SheetFile, withoutSide } from '@jubb/sheet';
import { type AnyKeptEntry, isKind } from '../entries/kept.js';
import { fitRun } from './fit-run.js';
import { BEARINGS, settingRun, sinceBuild, type Bearings } from './setting-run.js';
import { workings } from '@jubb/core';

/** Figures of earlier jobs: their middle, and between which ends they lay. */
export interface Spread {
  readonly count: number;
  readonly median: number;
  readonly from: number;
  readonly to: number;
}

/** How earlier jobs of the same sheet came to a setting. */
export interface EarlierSetting {
  readonly setting: string;
  /** New and used ones are set otherwise. */
  readonly bearings: Bearings;
  /** Readings as left, mm or N·m, and how many readings it took. */
  readonly left: Spread;
  readonly tries: Spread;
  /** What the nut was turned on in all from where it was backed off, degrees. */
  readonly turned?: Spread;
  /** What was put in by a working: the first figure of its answer. */
  readonly put?: Spread & { readonly working: string; readonly output: string };
}

/** Pulls of a joint in earlier jobs, by the round: degrees to torque, and the peaks, N·m. */
export interface EarlierPulls {
  readonly joint: string;
  readonly pass: number;
  readonly peak?: Spread & { readonly s: number };
  readonly angle?: Spread;
}

/** With what a fit went home the last time. */
export interface EarlierFit {
  readonly fit: string;
  readonly by: string;
  readonly driver: string;
  readonly support?: string;
  readonly force?: number;
}

/** With what a seal was driven in the last time. */
export interface EarlierSeal {
  readonly seal: string;
  readonly driver: string;
}

export interface EarlierView {
  readonly jobs: number;
  readonly settings: readonly EarlierSetting[];
  readonly pulls: readonly EarlierPulls[];
  readonly fits: readonly EarlierFit[];
  readonly seals: readonly EarlierSeal[];
}

export function spread(figures: readonly number[]): Spread | undefined {
  const sorted = figures.toSorted((a, b) => a - b);
  const [low, high] = [sorted[Math.floor((sorted.length - 1) / 2)], sorted[Math.ceil((sorted.length - 1) / 2)]];
  if (low === undefined || high === undefined) return undefined;
  return { count: sorted.length, median: (low + high) / 2, from: sorted[0]!, to: sorted.at(-1)! };
}

/** What other jobs of the same sheet tell about settings, pulls and fits; struck entries are left out before. Newest job first. */
export function earlierOf(sheet: SheetFile, jobs: readonly (readonly AnyKeptEntry[])[]): EarlierView {
  // A job with sides has its lines twice, and both tell of the one line.
  const plain = jobs.flatMap(bySide).map((entries) => sinceBuild(sheet, entries));
  return {
    jobs: jobs.length,
    settings: sheet.settings.flatMap((setting) => BEARINGS.flatMap((bearings) => earlierSetting(setting, bearings, plain) ?? [])),
    pulls: sheet.joints.flatMap(({ ref }) => earlierPulls(ref, plain)),
    fits: (sheet.fits ?? []).flatMap((fit) => {
      const last = plain.map((entries) => fitRun(fit, entries).fitted?.payload).find((one) => one !== undefined);
      if (!last) return [];
      const { by, driver, support, force } = last;
      return [{ fit: fit.ref, by, driver, ...(support ? { support } : {}), ...(force === undefined ? {} : { force }) }];
    }),
    seals: sheet.seals.flatMap(({ ref }) => {
      const [driver] = plain
        .flatMap((entries) => entries.filter(isKind('seal-fitted')))
        .flatMap(({ payload }) => (payload.seal === ref && payload.driver ? [payload.driver] : []));
      return driver === undefined ? [] : [{ seal: ref, driver }];
    }),
  };
}

function bySide(entries: readonly AnyKeptEntry[]): readonly (readonly AnyKeptEntry[])[] {
  const sides = new Map<string, AnyKeptEntry[]>();
  for (const entry of entries) {
    const at = entry.payload as { setting?: string; joint?: string; fit?: string; seal?: string };
    const ref = at.setting ?? at.joint ?? at.fit ?? at.seal ?? '';
    const plain = withoutSide(ref);
    const side = ref.slice(plain.length);
    const field = (['setting', 'joint', 'fit', 'seal'] as const).find((name) => at[name] !== undefined);
    const step = entry.step === null ? null : withoutSide(entry.step);
    const own = (field === undefined ? entry : { ...entry, step, payload: { ...at, [field]: plain } }) as AnyKeptEntry;
    sides.set(side, [...(sides.get(side) ?? []), own]);
  }
  return [...sides.values()];
}

function earlierSetting(setting: Setting, bearings: Bearings, jobs: readonly (readonly AnyKeptEntry[])[]): EarlierSetting | undefined {
  const runs = jobs
    .map((entries) => ({ run: settingRun(setting, entries), entries }))
    .filter(({ run }) => run.phase === 'set' && run.bearings === bearings);
  const left = spread(runs.flatMap(({ run }) => run.tries.at(-1)?.play ?? []));
  const tries = spread(runs.map(({ run }) => run.tries.length));
  if (!left || !tries) return undefined;
  const turned = setting.nut && spread(runs.map(({ entries }) => turnedOn(setting.ref, entries)));
  const put = spreadOfPut(runs.flatMap(({ run }) => run.worked.at(-1) ?? []));
  return { setting: setting.ref, bearings, left, tries, ...(turned ? { turned } : {}), ...(put ? { put } : {}) };
}

/** Degrees of all turns since the nut was last seated. */
function turnedOn(setting: string, entries: readonly AnyKeptEntry[]): number {
  return entries
    .filter(isKind('nut'))
    .filter(({ payload }) => payload.setting === setting)
    .reduce((sum, { payload: { act, angle } }) => (act === 'seated' ? 0 : act === 'turned' ? sum + angle : sum), 0);
}

type Worked = Extract<AnyKeptEntry, { kind: 'worked' }>;

/** The first figure that the working most used answers. */
function spreadOfPut(worked: readonly Worked[]): EarlierSetting['put'] {
  const working = worked[0]?.payload.working;
  const output = working === undefined ? undefined : workings.describe(working)?.outputs.find(({ kind }) => kind === 'number')?.name;
  if (working === undefined || output === undefined) return undefined;
  const figures = worked
    .filter(({ payload }) => payload.working === working)
    .map((entry) => entry.working?.output[output])
    .filter((figure) => typeof figure === 'number');
  const of = spread(figures);
  return of && { ...of, working, output };
}

function earlierPulls(joint: string, jobs: readonly (readonly AnyKeptEntry[])[]): readonly EarlierPulls[] {
  const pulls = jobs
    .flat()
    .filter(isKind('pull'))
    .filter(({ payload }) => payload.joint === joint && payload.result === 'clicked' && payload.sight === undefined && !payload.trial)
    .map(({ payload }) => payload);
  return [...new Set(pulls.map(({ pass }) => pass))].flatMap((pass): readonly EarlierPulls[] => {
    const own = pulls.filter((pull) => pull.pass === pass);
    const peaks = own.flatMap(({ peak }) => peak ?? []);
    const [peak, angle] = [spread(peaks), spread(own.flatMap(({ angle: turned }) => turned ?? []))];
    if (!peak && !angle) return [];
    return [{ joint, pass, ...(peak ? { peak: { ...peak, s: deviation(peaks) } } : {}), ...(angle ? { angle } : {}) }];
  });
}

/** Sample standard deviation; 0 of a single one. */
function deviation(figures: readonly number[]): number {
  const mean = figures.reduce((sum, figure) => sum + figure, 0) / figures.length;
  return figures.length < 2 ? 0 : Math.sqrt(figures.reduce((sum, figure) => sum + (figure - mean) ** 2, 0) / (figures.length - 1));
}
