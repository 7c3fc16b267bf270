import type { JobPlace } from '../words.js';
import { isOnce } from './choices.js';
import type { SheetFile, Sided, Step, Task, WhileOpen } from './file.js';
import { SHEET_LISTS, rowsOf, type Line, type SheetList } from './lists.js';
import { mapPointers, pointersOf, spreadPointers, type Pointer } from './pointers.js';
import { freedBy } from './resolve.js';
import type { Reshaping } from './reshaping.js';

/** What of a sheet a job picked. Nothing picked is the whole unit, one side. */
export interface Picked {
  readonly variant?: string;
  readonly tasks?: readonly string[];
  readonly sides?: readonly string[];
  /** On the bench where nothing is said. */
  readonly place?: JobPlace;
}

export interface ScopedSheet {
  readonly file: SheetFile;
  /** Tasks that were not picked: said in the report. */
  readonly notOpened: readonly Task[];
}

/**
 * The sheet as one job sees it: the steps of the tasks it picked with all they depend on, and each
 * side that it picked as a column of its own. Refs of a line that a side has of its own get the
 * side behind them: "hub-nut" becomes "hub-nut--left".
 */
export function scopeSheet(file: SheetFile, picked: Picked | null): ScopedSheet {
  const tasks = file.tasks ?? [];
  const wanted = new Set(picked?.tasks?.length ? picked.tasks : tasks.filter(({ whole }) => whole).map(({ ref }) => ref));
  const narrowed = tasks.length === 0 || wanted.size === 0 ? file : narrow(file, wanted);
  const sides = (picked?.sides ?? []).filter((side) => file.sides?.includes(side));
  // Where the whole unit is done, a task that has no steps of its own is done with it.
  const allWhole = tasks.some(({ ref, whole }) => whole && wanted.has(ref));
  const one = inInstances(narrowed);
  const scoped = sides.length > 1 ? inColumns(one, sides) : one;
  const isKnown = file.variants?.some(({ ref }) => ref === picked?.variant);
  return {
    file: {
      ...scoped,
      ...(isKnown ? { build: picked!.variant! } : {}),
      ...(picked?.place && scoped.steps.some(({ only }) => only) ? { place: picked.place } : {}),
    },
    notOpened: tasks.filter((task) => !task.whole && !wanted.has(task.ref) && (!allWhole || isOwn(file, task))),
  };
}

/** Whether a task has steps that nothing else brings in. */
function isOwn(file: SheetFile, task: Task): boolean {
  return file.steps.some(({ tasks }) => tasks?.includes(task.ref) && tasks.length === 1);
}

function narrow(file: SheetFile, wanted: ReadonlySet<string>): SheetFile {
  const chosen = new Set(file.steps.filter(({ tasks }) => !tasks?.length || tasks.some((task) => wanted.has(task))).map(({ ref }) => ref));
  const byRef = new Map(file.steps.map((step) => [step.ref, step]));
  // What a step depends on comes with it, and what that depends on.
  const queue = [...chosen];
  for (let ref = queue.pop(); ref !== undefined; ref = queue.pop()) {
    const step = byRef.get(ref);
    for (const needed of [
      ...(step?.after ?? []),
      ...freeing(file, step),
      ...(step?.opens ? [step.opens.closedBy] : []),
      ...hiding(file, step),
    ])
      if (!chosen.has(needed)) {
        chosen.add(needed);
        queue.push(needed);
      }
  }
  const steps = file.steps.filter(({ ref }) => chosen.has(ref));
  return steps.length === file.steps.length ? file : withSteps(file, steps);
}

/**
 * The sheet with some of its steps alone, as they are given, and of the other lists what those point to, or what nothing
 * pointed to before.
 */
export function withSteps(file: SheetFile, steps: SheetFile['steps'], before: SheetFile = file): SheetFile {
  const chosen = new Set(steps.map(({ ref }) => ref));
  const whileOpen = (file.whileOpen ?? []).filter(({ step }) => chosen.has(step));
  const [kept, all] = [pointed(file, steps, whileOpen), pointed(before, before.steps, before.whileOpen ?? [])];
  const only = <K extends Pointed>(list: K): SheetFile[K] =>
    (file[list] ?? []).filter(({ ref }) => kept.has(`${list}/${ref}`) || !all.has(`${list}/${ref}`)) as SheetFile[K];
  const left: SheetFile = {
    ...file,
    steps,
    parts: only('parts'),
    joints: only('joints'),
    settings: only('settings'),
    ...(file.fits ? { fits: only('fits') } : {}),
    seals: only('seals'),
    limits: only('limits'),
    fluids: only('fluids'),
    whileOpen,
  };
  return withFittingReshapings({ ...left, ...pointing(before, left) });
}

/** What variants and ways make of a sheet, as far as it is about lines that are left. */
function withFittingReshapings(file: SheetFile): SheetFile {
  const has = (list: SheetList, ref: string): boolean => rowsOf(file, list).some((line) => line.ref === ref);
  const isThere = (ref: string): boolean => has('steps', ref) || has('parts', ref);
  const fitting = <R extends Reshaping>(of: R): R => {
    const { brings, drops, changes } = of;
    if (!brings && !drops && !changes) return of;
    return {
      ...of,
      ...(brings ? { brings: brings.filter(isThere) } : {}),
      ...(drops ? { drops: drops.filter(isThere) } : {}),
      ...(changes ? { changes: changes.filter(({ list, line }) => has(list, line)) } : {}),
    };
  };
  return {
    ...file,
    ...(file.variants ? { variants: file.variants.map(fitting) } : {}),
    steps: file.steps.map((step) => withoutEarlier(step.ways ? { ...step, ways: step.ways.map(fitting) } : step, file)),
  };
}

/** What is readied ahead of a step may begin at once where the step that it would come after is not done on the job. */
function withoutEarlier(step: Step, { steps }: SheetFile): Step {
  const { lead } = step;
  if (lead?.from === undefined || steps.some(({ ref }) => ref === lead.from)) return step;
  const { from: _from, ...begun } = lead;
  return { ...step, lead: begun };
}

/** The lists that only point to others, cut down to what is left to point to. */
function pointing(file: SheetFile, left: SheetFile): Partial<SheetFile> {
  const has = <L extends { readonly ref: string }>(lines: readonly L[]): ((ref: string) => boolean) => {
    const refs = new Set(lines.map(({ ref }) => ref));
    return (ref) => refs.has(ref);
  };
  const [isStep, isPart, isLimit] = [has(left.steps), has(left.parts), has(left.limits)];
  /** The first step that is left, at a place in the whole order or after it. */
  const stepFrom = (ref: string): string | undefined =>
    file.steps.slice(file.steps.findIndex((step) => step.ref === ref)).find((step) => isStep(step.ref))?.ref;
  const named = new Set(left.steps.flatMap(({ cautions }) => cautions ?? []));
  const cautions = file.cautions.flatMap(({ holds, ...caution }) => {
    const [from, until] = [holds && stepFrom(holds.from), holds && stepFrom(holds.until)];
    // The whole stretch is out of the job where the first step left lies behind it.
    const stretch =
      from !== undefined && until !== undefined && (from !== until || isStep(holds?.until ?? '')) ? { from, until } : undefined;
    if (!stretch && !named.has(caution.ref)) return [];
    return [stretch ? { ...caution, holds: stretch } : caution];
  });
  return {
    cautions,
    kits: (file.kits ?? []).map((kit) => ({ ...kit, parts: kit.parts.filter(isPart) })).filter(({ parts }) => parts.length > 0),
    // One that is seated by steps goes with them; one that none looks at, with its part.
    fastenings: (file.fastenings ?? []).filter(({ ref, part }) =>
      seatedBy(file, ref) ? seatedBy(left, ref) : part === undefined || isPart(part),
    ),
    obligations: (file.obligations ?? [])
      .map((line) => ({ ...line, madeBy: line.madeBy.filter((ref) => isStep(ref) || isPart(ref)) }))
      .filter(({ madeBy, closedBy }) => madeBy.length > 0 && isStep(closedBy)),
    causes: (file.causes ?? []).map((cause) => ({
      ...cause,
      signs: (cause.signs ?? []).filter(({ limit }) => isLimit(limit)),
      parts: (cause.parts ?? []).filter(isPart),
    })),
  };
}

function seatedBy({ steps }: SheetFile, fastening: string): boolean {
  return steps.some(({ seats }) => seats?.includes(fastening));
}

/** The step that closes what a step sets, and proves it by that. */
function hiding({ settings }: SheetFile, step: Step | undefined): readonly string[] {
  const set = settings.find(({ ref }) => ref === step?.record.setting);
  return set?.proof?.closes === undefined ? [] : [set.proof.closes];
}

/** Steps that take off what a step needs off. */
function freeing(file: SheetFile, step: Step | undefined): readonly string[] {
  const needed = new Set(step?.needsOff ?? []);
  if (needed.size === 0) return [];
  return file.steps.filter((other) => freedBy(other).some((part) => needed.has(part))).map(({ ref }) => ref);
}

type Pointed = 'parts' | 'joints' | 'settings' | 'fits' | 'seals' | 'limits' | 'fluids';

/** The lines that steps point to, as list and ref, and the parts behind those. What must be off already is no use of it. */
function pointed(file: SheetFile, steps: readonly Step[], whileOpen: readonly WhileOpen[]): ReadonlySet<string> {
  const lines = new Set<string>();
  const point = (pointers: readonly Pointer[]): void => {
    for (const { lists, ref } of pointers) for (const list of lists) lines.add(`${list}/${ref}`);
  };
  for (const step of steps) point(pointersOf('steps', step).filter(({ field }) => field !== 'needsOff[]'));
  // The parts come last: they point to each other.
  for (const list of ['joints', 'fastenings', 'fits', 'seals', 'limits', 'settings', 'parts'] as const)
    for (const line of file[list] ?? []) if (lines.has(`${list}/${line.ref}`)) point(pointersOf(list, line));
  for (const line of whileOpen) point(pointersOf('whileOpen', line));
  return lines;
}

/** Lists whose lines each side has of its own. */
const PER_SIDE = ['parts', 'joints', 'fastenings', 'settings', 'fits', 'seals', 'limits', 'fluids'] as const;

function inColumns(file: SheetFile, sides: readonly string[]): SheetFile {
  const ownSteps = file.steps.filter((step) => !isOnce(step.record.kind));
  const twice = new Set([...ownSteps, ...PER_SIDE.flatMap((list): readonly { ref: string }[] => file[list] ?? [])].map(({ ref }) => ref));
  const columns = sides.map((side): Column => ({ which: { side }, of: (ref) => (twice.has(ref) ? sideRef(ref, side) : ref) }));
  const [first, last] = [columns[0]!, columns.at(-1)!];
  const perSide = PER_SIDE.map((list) => {
    const lines: readonly { readonly ref: string }[] | undefined = file[list];
    return [list, lines && columns.flatMap((column) => lines.map((line) => inColumn(list, line, column)))] as const;
  });
  return {
    ...file,
    ...(Object.fromEntries(perSide.filter(([, lines]) => lines)) as Partial<SheetFile>),
    steps: stepsInColumns(file.steps, columns),
    // In force from the first side that comes to it until the last one is done.
    cautions: file.cautions.map((caution) =>
      caution.holds
        ? { ...caution, holds: { from: first.of(caution.holds.from, ['steps']), until: last.of(caution.holds.until, ['steps']) } }
        : caution,
    ),
    obligations: (file.obligations ?? []).flatMap((line) =>
      columns.map(({ of }, at) => ({ ...pointedInto('obligations', line, of), ref: sideRef(line.ref, sides[at]!) })),
    ),
    whileOpen: columns.flatMap(({ of }, at) =>
      (file.whileOpen ?? []).map((line) => ({ ...pointedInto('whileOpen', line, of), ref: sideRef(line.ref, sides[at]!) })),
    ),
  };
}

/** One of several: its side or its name, and the ref that a line has there. */
interface Column {
  readonly which: { readonly side: string } | { readonly instance: string };
  readonly of: (ref: string, lists: readonly SheetList[]) => string;
}

/** Runs of steps that each column has of its own are gone through column by column; the rest stays where it is. */
function stepsInColumns(
  steps: readonly Step[],
  columns: readonly Column[],
  isAlone: (step: Step) => boolean = ({ record }) => isOnce(record.kind),
): Step[] {
  const out: Step[] = [];
  let run: Step[] = [];
  const close = (): void => {
    for (const column of columns) out.push(...run.map((step) => inColumn('steps', step, column)));
    run = [];
  };
  for (const step of steps) {
    if (run.length > 0 && (isAlone(step) || run[0]?.stage !== step.stage)) close();
    if (isAlone(step)) out.push(step);
    else run.push(step);
  }
  close();
  return out;
}

/**
 * Lines that are of each of several, once for each of them: "head-screws" becomes "head-screws--front-head" and
 * "head-screws--rear-head". What lists one of them from outside lists all; what begins with a step of them begins with the first
 * one, what ends with it, with the last. What such a step makes necessary no more is made necessary by each.
 */
function inInstances(file: SheetFile): SheetFile {
  return (file.several ?? []).reduce((at, { ref: each, names }) => {
    // A part and a joint may have one ref: it is the list that tells which of them there are several of.
    const own = new Set(
      IN_COLUMNS_LISTS.flatMap((list) =>
        (rowsOf(at, list) as readonly (Line & Sided)[]).flatMap((line) => (line.each === each ? [`${list}/${line.ref}`] : [])),
      ),
    );
    const isOwn = (ref: string, lists: readonly SheetList[]): boolean => lists.some((list) => own.has(`${list}/${ref}`));
    const columns = names.map((instance): Column => ({
      which: { instance },
      of: (ref, lists) => (isOwn(ref, lists) ? sideRef(ref, instance) : ref),
    }));
    const all = (ref: string, lists: readonly SheetList[]): readonly string[] =>
      isOwn(ref, lists) ? columns.map(({ of }) => of(ref, lists)) : [ref];
    const outer = ({ field, lists, ref }: Pointer): string =>
      lists.includes('steps') && !field.startsWith('ways') ? columns.at(BEGINS.has(field) ? 0 : -1)!.of(ref, ['steps']) : ref;
    const spread = SHEET_LISTS.filter((list) => at[list] && !BY_BASE.has(list)).map((list) => {
      const lines = (rowsOf(at, list) as readonly (Line & Partial<Sided>)[]).flatMap((line) => {
        if (line.each === each) return [line];
        const wide = spreadPointers(list, line, all);
        const { closedBy } = wide as { readonly closedBy?: string };
        if (list !== 'obligations' || !own.has(`steps/${closedBy ?? ''}`)) return [mapPointers(list, wide, outer)];
        const { name } = wide as { readonly name?: string };
        return columns.map(({ of }, index) => ({
          ...wide,
          ref: sideRef(line.ref, names[index]!),
          name: `${name ?? ''}, ${names[index]!}`,
          closedBy: of(closedBy!, ['steps']),
        }));
      });
      return [list, lines] as const;
    });
    const wide = { ...at, ...Object.fromEntries(spread) } as SheetFile;
    const multiplied = PER_SIDE.filter((list) => wide[list]).map((list) => {
      const lines = rowsOf(wide, list) as readonly (Line & Sided)[];
      return [
        list,
        lines.flatMap((line) => (line.each === each ? columns.map((column) => inColumn(list, line, column)) : [line])),
      ] as const;
    });
    return {
      ...wide,
      ...(Object.fromEntries(multiplied) as Partial<SheetFile>),
      steps: stepsInColumns(wide.steps, columns, (step) => step.each !== each),
    };
  }, file);
}

export function sideRef(ref: string, side: string): string {
  return `${ref}--${side.toLowerCase().replace(/[^a-z0-9]+/gu, '-')}`;
}

/** The same of a ref that an entry holds, where no line is at hand. */
export function withoutSide(ref: string): string {
  return ref.replace(/--.*$/u, '');
}

/** The ref of a line as the sheet has it, whichever side of a job it stands on. */
export function baseRef({ ref, base }: { readonly ref: string; readonly base?: string }): string {
  return base ?? ref;
}

/** Lists that speak of lines as the sheet has them. */
export const BY_BASE: ReadonlySet<SheetList> = new Set<SheetList>(['causes', 'variants']);
/** Fields that name the step at which something begins. */
const BEGINS: ReadonlySet<string> = new Set(['holds.from', 'tooLateAfter']);
const IN_COLUMNS_LISTS = [...PER_SIDE, 'steps'] as const;
const IN_COLUMNS: ReadonlySet<SheetList> = new Set<SheetList>(IN_COLUMNS_LISTS);

/** A copy of a line for one side or instance: its own ref, its name, and all that it points to in this column. */
function inColumn<L extends Line>(list: SheetList, line: L, { of, which }: Column): L {
  const { name, title } = line as { name?: string; title?: string };
  const words = Object.values(which)[0] ?? '';
  return {
    ...pointedInto(list, line, of),
    ref: of(line.ref, [list]),
    base: baseRef(line),
    ...which,
    ...(name === undefined ? {} : { name: `${name}, ${words}` }),
    ...(title === undefined ? {} : { title: `${title}, ${words}` }),
  };
}

function pointedInto<L extends object>(list: SheetList, line: L, of: Column['of']): L {
  return mapPointers(list, line, ({ ref, lists }) => (lists.some((one) => IN_COLUMNS.has(one)) ? of(ref, lists) : ref));
}
