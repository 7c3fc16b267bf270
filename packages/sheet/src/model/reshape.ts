import type { SheetFile, Step, Variant, Way } from './file.js';
import type { ReshapedList } from './choices.js';
import { SHEET_LISTS, rowsOf, type Line, type SheetList } from './lists.js';
import { mapPointers, withoutPointers, type Pointer } from './pointers.js';
import type { Change, Reshaping } from './reshaping.js';
import { find } from './resolve.js';
import { baseRef, sideRef, withSteps, withoutSide } from './scope.js';

/** Which of what a sheet offers a job goes by. */
export interface Chosen {
  /** Ref of a variant; the first of the sheet where nothing is said. */
  readonly variant?: string | undefined;
  /** Refs of ways by the refs of their steps; the shop's own where nothing is said. */
  readonly ways?: ReadonlyMap<string, string>;
}

/** The variant that a job goes by: the one that is named, else the first; none where a sheet has none. */
export function variantOf({ variants = [] }: Pick<SheetFile, 'variants'>, ref: string | undefined): Variant | undefined {
  return find(variants, ref) ?? variants[0];
}

/** The way that a step goes by: the one that is named, else the shop's own, else the first. */
export function wayOf({ ways = [] }: Pick<Step, 'ways'>, ref: string | undefined): Way | undefined {
  return find(ways, ref) ?? ways.find(({ shopDefault }) => shopDefault) ?? ways[0];
}

/**
 * The sheet as a variant and the chosen ways make it: fields that are otherwise, steps and parts that are there with them alone.
 * The same object where they change nothing. Works on a sheet as a job sees it: what is said of a line holds on each side.
 */
export function reshaped(file: SheetFile, { variant, ways }: Chosen): SheetFile {
  const built = reshape(placed(file), variantOf(file, variant), file.variants ?? []);
  return built.steps.reduce((at, { ref }) => {
    // A way before it may have taken the step away, or changed what ways it has.
    const step = find(at.steps, ref);
    return step?.ways ? reshape(at, wayOf(step, ways?.get(ref)), step.ways) : at;
  }, built);
}

/** The sheet of a unit that stays in its machine, or of one that came in by itself. */
function placed(file: SheetFile): SheetFile {
  const { place = 'on the bench' } = file;
  const elsewhere = file.steps.flatMap(({ ref, only }) => (only !== undefined && only !== place ? [ref] : []));
  return elsewhere.length > 0 ? without(file, elsewhere) : file;
}

/** The sheet with one of several that shape it. */
function reshape(file: SheetFile, chosen: Reshaping | undefined, all: readonly Reshaping[]): SheetFile {
  const brought = chosen?.brings ?? [];
  const gone = [...all.flatMap(({ brings = [] }) => brings).filter((ref) => !brought.includes(ref)), ...(chosen?.drops ?? [])];
  const changed = (chosen?.changes ?? []).reduce(withChange, file);
  gone.push(...tooMany(changed));
  return gone.length > 0 ? without(changed, gone) : changed;
}

/** Steps and parts of such of several as are not there: the fourth planet's where there are three. A sheet names the most there may be. */
function tooMany({ several = [], parts, steps }: SheetFile): readonly string[] {
  const names = new Map(several.map((of) => [of.ref, of.names]));
  return [...parts, ...steps].flatMap(({ ref, each, instance }) =>
    each !== undefined && instance !== undefined && names.get(each)?.includes(instance) === false ? [ref] : [],
  );
}

/** Whether a ref that shapes a sheet means a line of it: the line itself, or every side's where it names none. */
function isMeant(line: Line, ref: string): boolean {
  return line.ref === ref || baseRef(line) === ref;
}

function withChange(file: SheetFile, { list, line: ref, field, is }: Change): SheetFile {
  const lines: readonly Line[] = rowsOf(file, list);
  const changed = lines.map((line) => (isMeant(line, ref) ? onItsSide(file, list, changedAt(line, field.split('.'), is) as Line) : line));
  return { ...file, [list]: changed };
}

/** Something that a line of one side points to anew is that side's. */
function onItsSide(file: SheetFile, list: ReshapedList, line: Line & { readonly base?: string; readonly side?: string }): Line {
  const { base, side } = line;
  if (base === undefined) return line;
  // Of one side and one of several it has both behind its ref; what it points to may have the side alone.
  const behind = [line.ref.slice(base.length), ...(side === undefined ? [] : [sideRef('', side)])];
  const has = (lists: readonly SheetList[], ref: string): boolean => lists.some((one) => rowsOf(file, one).some((row) => row.ref === ref));
  return mapPointers(list, line, ({ ref, lists }) => {
    const own = has(lists, ref) ? undefined : behind.find((end) => has(lists, ref + end));
    return ref + (own ?? '');
  });
}

function changedAt(held: unknown, [name, ...rest]: readonly string[], is: string | undefined): unknown {
  if (name === undefined) return is === undefined ? undefined : asBefore(held, is);
  if (Array.isArray(held)) {
    const index = held.findIndex((row: unknown, at) => String(at) === name || isRow(row, name));
    return held.map((row: unknown, at) => (at === index ? changedAt(row, rest, is) : row)).filter((row) => row !== undefined);
  }
  const { [name]: old, ...others } = (held ?? {}) as Readonly<Record<string, unknown>>;
  const inner = changedAt(old, rest, is);
  return inner === undefined ? others : { ...(held as object | undefined), [name]: inner };
}

/** A row of a list within a line, by its own ref or by the part that it is about. */
function isRow(row: unknown, name: string): boolean {
  const { ref, part } = row as { ref?: string; part?: string };
  return ref === name || (part !== undefined && withoutSide(part) === name);
}

/** What a cell says, as the kind of thing that stood there. */
function asBefore(held: unknown, is: string): unknown {
  if (typeof held === 'number') return Number(is);
  if (typeof held === 'boolean') return is === 'yes';
  if (!Array.isArray(held)) return is;
  const [first] = held as readonly unknown[];
  return is.split(/\s*[;/]\s*/u).map((one) => asBefore(first, one));
}

/** Lists whose lines are gone with the part that they are about. */
const OF_A_PART = ['joints', 'fastenings', 'fits', 'seals'] as const;
const RECORDS = ['joint', 'setting', 'seal', 'fit', 'limit', 'fluid'] as const;

/** The sheet without some of its steps and parts, and without what was there for them alone. */
function without(file: SheetFile, refs: readonly string[]): SheetFile {
  const isGone = (line: Line): boolean => refs.some((ref) => isMeant(line, ref));
  const gone = new Set([
    ...file.parts.filter(isGone).map(({ ref }) => `parts/${ref}`),
    ...file.steps.filter(isGone).map(({ ref }) => `steps/${ref}`),
  ]);
  for (const list of OF_A_PART)
    for (const { ref, part } of file[list] ?? []) if (part !== undefined && gone.has(`parts/${part}`)) gone.add(`${list}/${ref}`);
  // A step that records what is not there cannot be done, nor one that counts nothing else.
  for (const { ref, record } of file.steps) {
    const isOfNothing = record.counts?.length && record.counts.every(({ part }) => gone.has(`parts/${part}`));
    if (isOfNothing || RECORDS.some((name) => record[name] !== undefined && gone.has(`${name}s/${record[name]}`))) gone.add(`steps/${ref}`);
  }
  const leads = ({ lists, ref }: Pointer): boolean => lists.every((list) => gone.has(`${list}/${ref}`) || !has(file, list, ref));
  const left = <L extends SheetList>(list: L): SheetFile[L] =>
    rowsOf(file, list)
      .filter(({ ref }) => !gone.has(`${list}/${ref}`))
      .map((line) => withoutPointers(list, line as Line, leads)) as unknown as SheetFile[L];
  const lists = Object.fromEntries(SHEET_LISTS.filter((list) => file[list] && !WHOLE.has(list)).map((list) => [list, left(list)]));
  const cut = { ...file, ...lists } as SheetFile;
  const steps = cut.steps.map((step) => (step.opens && !('closedBy' in step.opens) ? withoutOpens(step) : step));
  const whileOpen = cut.whileOpen?.filter((line) => 'step' in line);
  return withSteps({ ...cut, ...(whileOpen ? { whileOpen } : {}) }, steps, file);
}

/** Lists that are cut down by what is left to point to, or that are what is chosen from. */
const WHOLE: ReadonlySet<SheetList> = new Set<SheetList>(['variants', 'cautions', 'obligations', 'causes', 'kits']);

function has(file: SheetFile, list: SheetList, ref: string): boolean {
  return rowsOf(file, list).some((line) => line.ref === ref);
}

function withoutOpens({ opens: _, ...step }: Step): Step {
  return step;
}

/** Everything that shapes a sheet, with the place where it stands: "variants[1]", "steps[4].ways[0]". */
export function reshapings(file: SheetFile): readonly { readonly path: string; readonly chosen: Chosen; readonly of: Variant | Way }[] {
  const variants = (file.variants ?? []).map((of, index) => ({ path: `variants[${index}]`, chosen: { variant: of.ref }, of }));
  const ways = file.steps.flatMap((step, at) =>
    (step.ways ?? []).map((of, index) => ({
      path: `steps[${at}].ways[${index}]`,
      chosen: { ways: new Map([[step.ref, of.ref]]) },
      of,
    })),
  );
  return [...variants, ...ways];
}

/** Whether something makes a sheet another one, and does not only say so. */
export function reshapes({ brings = [], drops = [], changes = [] }: Reshaping): boolean {
  return brings.length + drops.length + changes.length > 0;
}
