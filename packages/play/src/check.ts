import { partsPutIn, stopsHandOver } from '@jubb/book';
import { STAGES, baseRef, find, freedBy, partName, type SheetFile, type SheetList, type Step } from '@jubb/sheet';
import { playThrough, type Played } from './play.js';
import { routesOf, type Route } from './routes.js';

/** What a play of a sheet found: a sentence about a line of it, and on which ways through it. A job that cannot be closed is a stop. */
export interface PlayFinding {
  readonly severity: 'stop' | 'care';
  readonly list: SheetList;
  readonly ref: string;
  readonly say: string;
  readonly mend: string;
  /** "Whole axle, D44 3.727": the first of them. */
  readonly on: string;
  readonly routes: number;
}

export interface PlayCheck {
  readonly routes: number;
  readonly findings: readonly PlayFinding[];
}

type Fault = Pick<PlayFinding, 'severity' | 'list' | 'ref' | 'say' | 'mend'>;

/** Plays every task × variant × way of a sheet, and says each fault once. `after` is told after each of them, and how many there are. */
export function checkByPlay(file: SheetFile, after: (done: number, of: number) => void = () => undefined): PlayCheck {
  const routes = routesOf(file);
  const found = new Map<string, PlayFinding>();
  for (const [index, route] of routes.entries()) {
    for (const fault of faultsOn(route)) {
      const before = found.get(fault.say);
      found.set(fault.say, before ? { ...before, routes: before.routes + 1 } : { ...fault, on: route.words, routes: 1 });
    }
    after(index + 1, routes.length);
  }
  return { routes: routes.length, findings: [...found.values()] };
}

function faultsOn(route: Route): readonly Fault[] {
  const played = playThrough(route.sheet, { begins: route.begins });
  const { sheet } = played.state;
  if (played.stuck) {
    const { step, why } = played.stuck;
    return [
      {
        severity: 'stop',
        list: 'steps',
        ref: baseRef(step),
        say: `“${step.title}” does not end: ${why}`,
        mend: 'Mend what it waits for, or take it out of this task.',
      },
    ];
  }
  return [...left(sheet, played), ...offAndOn(sheet), ...loosenedAndPulled(sheet)];
}

/** What stands open when all steps are done. */
function left(sheet: SheetFile, { state }: Played): readonly Fault[] {
  const open = stopsHandOver(state).map((words): Fault => ({
    severity: 'stop',
    list: 'steps',
    ref: sheet.steps.at(-1)?.ref ?? '',
    say: `At the hand-over there is still open: ${words}`,
    mend: 'Add the step that closes it.',
  }));
  const misfits = state.misfits.map((entry): Fault => ({
    severity: 'stop',
    list: 'steps',
    ref: entry.step ?? '',
    say: `What is kept at “${find(sheet.steps, entry.step ?? undefined)?.title ?? entry.step ?? ''}” has no place on the sheet any more`,
    mend: 'Let the way or variant keep that step, or drop what leads to it.',
  }));
  return [...open, ...misfits];
}

/** What puts together; a check touches what stayed where it was. */
function isBuilding({ stage, doing }: Step): boolean {
  return STAGES.indexOf(stage) >= STAGES.indexOf('build') && doing !== 'check';
}

/** Parts that come off and that no step puts in, and the other way round. */
function* offAndOn(sheet: SheetFile): Iterable<Fault> {
  const off = new Map(sheet.steps.flatMap((step) => (step.record.counts ?? []).map((counted) => [counted.part, step] as const)));
  const freed = new Set(sheet.steps.flatMap(freedBy));
  const on = new Map(sheet.steps.filter(isBuilding).flatMap((step) => partsPutIn(sheet, step).map((part) => [part, step] as const)));
  for (const [part, step] of off)
    if (!on.has(part))
      yield {
        severity: 'care',
        list: 'parts',
        ref: baseOfPart(sheet, part),
        say: `${partName(sheet, part)}: comes off at “${step.title}”, and no step puts it in`,
        mend: 'Name it among what goes in at its step; or do not count it off where it stays.',
      };
  for (const [part, step] of on)
    if (!off.has(part) && !freed.has(part) && !mayComeNew(sheet, part))
      yield {
        severity: 'care',
        list: 'steps',
        ref: baseRef(step),
        say: `“${step.title}” puts in the ${partName(sheet, part)}, which never came off`,
        mend: 'Count it off in the strip, or leave it out of what goes in.',
      };
}

/** What no unit has before: a sleeve, a gasket of a way; it is brought, and comes off nothing. */
function mayComeNew(sheet: SheetFile, part: string): boolean {
  const brought = [...(sheet.variants ?? []), ...sheet.steps.flatMap(({ ways = [] }) => ways)].flatMap(({ brings = [] }) => brings);
  return brought.includes(baseOfPart(sheet, part));
}

function baseOfPart(sheet: SheetFile, part: string): string {
  const line = find(sheet.parts, part);
  return line ? baseRef(line) : part;
}

/** Joints that are pulled and were never undone, and screws that come off and get no pull. */
function* loosenedAndPulled(sheet: SheetFile): Iterable<Fault> {
  const off = new Set(sheet.steps.flatMap((step) => [...(step.record.counts ?? []).map(({ part }) => part), ...freedBy(step)]));
  const pulled = new Set(sheet.steps.filter(isBuilding).flatMap(({ record }) => (record.kind === 'torque' ? [record.joint] : [])));
  for (const joint of sheet.joints) {
    const isPulled = pulled.has(joint.ref);
    if (isPulled && !off.has(joint.part))
      yield {
        severity: 'care',
        list: 'joints',
        ref: baseRef(joint),
        say: `${joint.name}: pulled, and never undone`,
        mend: 'Count its screws off in the strip, leave it out of this task, or say that the step only checks.',
      };
    const siblings = sheet.joints.filter(({ part }) => part === joint.part);
    if (!isPulled && off.has(joint.part) && siblings.every(({ ref }) => !pulled.has(ref)))
      yield {
        severity: 'care',
        list: 'joints',
        ref: baseRef(joint),
        say: `${joint.name}: its screws come off, and none gets a pull`,
        mend: 'Add the step that pulls it to this task.',
      };
  }
}
