import { readSheetFigure } from '../given/figures.js';
import type { FieldIssue } from '../given/validation.js';
import { namedBy, type LimitQuantity, type StageKind } from '../model/choices.js';
import type { Limit, Part, Setting, SheetFile, Sided, Step } from '../model/file.js';
import { SHEET_LISTS, rowsOf, type SheetList } from '../model/lists.js';
import { everyPointer } from '../model/pointers.js';
import { BY_BASE, sideRef } from '../model/scope.js';
import type { Span } from '../model/values.js';
import { baseOf, find, limitQuantity, settingQuantity } from '../model/resolve.js';

type Refs = ReadonlySet<string>;

/** One line of a list, as it is spoken of. */
const ONE_OF: Readonly<Record<SheetList, string>> = {
  documents: 'a document',
  features: 'a feature',
  variants: 'a variant',
  complaints: 'a complaint',
  causes: 'a cause',
  tasks: 'a task',
  several: 'several of a kind',
  parts: 'a part',
  kits: 'a kit',
  joints: 'a joint',
  fastenings: 'a fastening',
  settings: 'a setting',
  fits: 'a fit',
  seals: 'a seal',
  limits: 'a limit',
  fluids: 'a fluid',
  cautions: 'a caution',
  obligations: 'an obligation',
  whileOpen: 'a line "while it is open"',
  routings: 'a routing picture',
  steps: 'a step',
  customerNotes: 'a note for the customer',
};

/** What the shape alone cannot say: names used twice, pointers to nothing, windows upside down. */
export function checkSheet(sheet: SheetFile): readonly FieldIssue[] {
  const refs = Object.fromEntries(
    SHEET_LISTS.map((list) => [list, new Set(rowsOf(sheet, list).map((row) => row.ref))]),
  ) as unknown as Record<SheetList, Refs>;
  const issues: FieldIssue[] = SHEET_LISTS.flatMap((list) => usedTwice(list, rowsOf(sheet, list)));
  for (const { path, ref, lists } of everyPointer(sheet))
    if (!lists.some((list) => refs[list].has(ref))) {
      const known = lists.flatMap((list) => [...refs[list]]);
      const what = lists.map((list) => ONE_OF[list]).join(' or ');
      issues.push({
        path,
        given: ref,
        message: `refers to ${what} "${ref}", which the sheet does not have (it has: ${knownWords(known)})`,
      });
    }

  issues.push(...pointsToOneOfSeveral(sheet));
  sheet.several?.forEach(({ names }, index) => {
    const twice = names.findIndex((name, at) => names.slice(0, at).some((other) => sideRef('', other) === sideRef('', name)));
    if (twice >= 0)
      issues.push({
        path: `several[${index}].names[${twice}]`,
        given: names[twice]!,
        message: `names "${names[twice]!}" twice: each has a name of its own`,
      });
  });
  sheet.joints.forEach((joint, index) => {
    const { passes } = joint.pattern;
    if (passes.at(-1) !== 1 || passes.some((share, at) => share < (passes[at - 1] ?? 0))) {
      issues.push({ path: `joints[${index}].pattern.passes`, given: passes.join(', '), message: 'must rise to 1, the full torque' });
    }
    const { positions } = joint.pattern;
    if (positions && positions.length !== joint.count)
      issues.push({
        path: `joints[${index}].pattern.positions`,
        given: `${positions.length} places`,
        message: `must be one for each of the ${joint.count} fasteners`,
      });
    if (joint.pattern.layout === 'free' && !positions)
      issues.push({ path: `joints[${index}].pattern.positions`, message: 'is missing; a free layout names the place of each fastener' });
    joint.stages?.forEach((stage, number) => {
      const wanted = STAGE_NEEDS[stage.kind];
      if (wanted && !stage[wanted])
        issues.push({ path: `joints[${index}].stages[${number}].${wanted}`, message: `is missing; a "${stage.kind}" round needs it` });
    });
  });
  sheet.fastenings?.forEach(({ renewEachTime, part }, index) => {
    if (renewEachTime && part === undefined)
      issues.push({ path: `fastenings[${index}].part`, message: 'is missing; what is new each time is a part that can be ordered' });
  });
  sheet.parts.forEach((part, index) => issues.push(...cyclic(`parts[${index}].superseded`, part)));
  sheet.fluids.forEach((fluid, index) => {
    if ((fluid.fill ?? 'amount') === 'amount' && !fluid.amount)
      issues.push({ path: `fluids[${index}].amount`, message: 'is missing; give it, or say by what it shows that it is full' });
  });
  sheet.variants?.forEach((variant, index) =>
    variant.tells.forEach((tell, number) => {
      const at = `variants[${index}].tells[${number}]`;
      const feature = sheet.features?.find(({ ref }) => ref === tell.feature);
      if (!feature?.quantity) return;
      for (const field of ['is', 'within'] as const) {
        const text = tell[field];
        const read = text === undefined ? undefined : readSheetFigure(text, feature.quantity, true);
        if (read && !read.ok) issues.push({ path: `${at}.${field}`, given: text ?? '', message: read.message });
      }
    }),
  );
  sheet.seals.forEach((seal, index) => {
    if (!seal.depth) return;
    issues.push(...checkSpan(`seals[${index}].depth`, seal.depth, 'length'));
    if (!seal.tool) issues.push({ path: `seals[${index}].tool`, message: 'is missing; say what reads the depth' });
  });
  sheet.settings.forEach((setting, index) => {
    const at = `settings[${index}]`;
    const quantity = settingQuantity(setting);
    issues.push(...checkSpan(`${at}.window`, setting.window, quantity, true));
    if (setting.windowUsed) issues.push(...checkSpan(`${at}.windowUsed`, setting.windowUsed, quantity, true));
    if (setting.method === 'castle-nut' && !setting.nut)
      issues.push({ path: `${at}.nut`, message: 'is missing; a castle nut needs its thread, slots and holes' });
    issues.push(...checkProof(`${at}.proof`, setting, sheet));
  });
  sheet.fits?.forEach((fit, index) => {
    const at = `fits[${index}]`;
    if (fit.wanted) issues.push(...checkSpan(`${at}.wanted`, fit.wanted, 'length', true));
    if ((fit.wanted === undefined) === (fit.zones === undefined))
      issues.push({ path: `${at}.wanted`, message: 'is needed, or "zones" in its place: one of the two says how tight it is' });
    const [outside, seat] = [fit.outside, fit.seat].map((figure) => readSheetFigure(figure, 'length', false));
    if (outside?.ok && seat?.ok && outside.quantity.base <= seat.quantity.base)
      issues.push({ path: `${at}.outside`, given: fit.outside, message: `must be over the seat, ${fit.seat}` });
  });
  sheet.limits.forEach((limit, index) => {
    issues.push(...checkLimit(`limits[${index}]`, limit));
  });
  sheet.steps.forEach((step, index) => {
    const at = `steps[${index}]`;
    if (step.ways && step.ways.length < 2) issues.push({ path: `${at}.ways`, message: 'needs two ways or more to choose from' });
    if (step.ways) issues.push(...usedTwice(`${at}.ways`, step.ways));
    issues.push(...checkRecord(at, step, sheet));
    const { time, most } = step.lead ?? {};
    if (time !== undefined && most !== undefined && baseOf(most, 'time') <= baseOf(time, 'time'))
      issues.push({ path: `${at}.lead.most`, given: most, message: `must be over the time that it takes, ${time}` });
  });
  return issues;
}

const STAGE_NEEDS: Partial<Record<StageKind, 'torque' | 'angle' | 'until'>> = {
  torque: 'torque',
  angle: 'angle',
  turn: 'angle',
  flush: 'until',
  touch: 'until',
  flatten: 'until',
};

/** Causes, variants and ways speak of a line as the sheet has it: of each of several, it is about all of them. */
function isByBase(list: SheetList, field: string): boolean {
  return BY_BASE.has(list) || field.startsWith('ways[]');
}

/**
 * What is there of each of several is pointed to by what is of each of them too, or in a list, which then holds all. A step may
 * be named from anywhere: its first or its last one is meant.
 */
function pointsToOneOfSeveral(sheet: SheetFile): FieldIssue[] {
  if (!sheet.several?.length) return [];
  return everyPointer(sheet).flatMap(({ path, field, ref, lists, list, index }) => {
    const own = (rowsOf(sheet, list)[index] as Partial<Sided> | undefined)?.each;
    const each = lists.flatMap((one) => find(rowsOf(sheet, one) as readonly (Partial<Sided> & { ref: string })[], ref)?.each ?? [])[0];
    if (each === undefined || each === own || isByBase(list, field) || lists.includes('steps') || /^\w+\[\]$/u.test(field)) return [];
    const names = find(sheet.several ?? [], each)?.names.join(', ') ?? each;
    return [{ path, given: ref, message: `is there of each of several (${names}): say "each: ${each}" of this line too` }];
  });
}

/** A chain of numbers that comes back to itself never ends at the one to order. */
function cyclic(at: string, part: Part): FieldIssue[] {
  const by = new Map((part.superseded ?? []).map((line) => [line.number, line.by]));
  for (const [index, line] of (part.superseded ?? []).entries()) {
    const seen = new Set<string>();
    let number: string | undefined = line.number;
    while (number !== undefined && !seen.has(number)) {
      seen.add(number);
      number = by.get(number);
    }
    if (number !== undefined)
      return [{ path: `${at}[${index}].by`, given: line.by, message: `comes back to "${number}": the numbers go round in a ring` }];
  }
  return [];
}

/** So many names as one can look through. */
const MOST_NAMED = 12;

function knownWords(names: readonly string[]): string {
  const rest = names.length - MOST_NAMED;
  return [...names.slice(0, MOST_NAMED), ...(rest > 0 ? [`and ${rest} more`] : [])].join(', ') || 'none';
}

function usedTwice(list: string, rows: readonly { readonly ref: string }[]): FieldIssue[] {
  const seen = new Set<string>();
  return rows.flatMap((row, index) => {
    const twice = seen.has(row.ref);
    seen.add(row.ref);
    return twice ? [{ path: `${list}[${index}].ref`, given: row.ref, message: `"${row.ref}" is used twice among the ${list}` }] : [];
  });
}

function checkLimit(at: string, limit: Limit): FieldIssue[] {
  if (limit.kind === 'look') {
    return (limit.looks?.length ?? 0) >= 2 ? [] : [{ path: `${at}.looks`, message: 'needs at least two looks to pick from' }];
  }
  if (limit.kind === 'electrical' && !limit.between) return [{ path: `${at}.between`, message: 'is missing; say where the meter is held' }];
  if (!limit.service) return [{ path: `${at}.service`, message: `is missing; a ${limit.kind} needs its service limit` }];
  if (!limit.tool) return [{ path: `${at}.tool`, message: 'is missing; say which kind of tool measures it' }];
  const quantity = limitQuantity(limit);
  if (limit.pulled && quantity !== 'torque')
    return [{ path: `${at}.pulled`, given: limit.pulled, message: `goes with a torque; this is a ${quantity}` }];
  if (limit.pulled && limit.service.from === undefined)
    return [{ path: `${at}.service.from`, message: 'is missing; the least that it must hold' }];
  return [...checkSpan(`${at}.service`, limit.service, quantity), ...(limit.asNew ? checkSpan(`${at}.asNew`, limit.asNew, quantity) : [])];
}

function checkSpan(at: string, span: Span, quantity: LimitQuantity, bothEnds = false): FieldIssue[] {
  if (span.from === undefined && span.to === undefined) return [{ path: at, message: 'needs "from", "to", or both' }];
  const ends = (['from', 'to'] as const).map((end) => {
    const text = span[end];
    if (text === undefined)
      return { issues: bothEnds ? [{ path: `${at}.${end}`, message: 'is missing; this window needs both ends' }] : [], base: undefined };
    const read = readSheetFigure(text, quantity, true);
    return read.ok
      ? { issues: [], base: read.quantity.base }
      : { issues: [{ path: `${at}.${end}`, given: text, message: read.message }], base: undefined };
  });
  const [from, to] = ends;
  if (from?.base !== undefined && to?.base !== undefined && to.base < from.base) {
    return [{ path: `${at}.to`, given: span.to ?? '', message: `is below "from" (${span.from ?? ''}): the window is upside down` }];
  }
  return ends.flatMap((end) => end.issues);
}

/** A proof says what it goes by, and one by the whole takes off only what is a torque and was read before it. */
function checkProof(at: string, { ref, proof }: Setting, { settings, limits, steps }: SheetFile): FieldIssue[] {
  if (!proof) return [];
  const place = (is: (step: Step) => boolean): number => steps.findIndex(is);
  if (proof.by === 'closing') {
    if (proof.closes === undefined) return [{ path: `${at}.closes`, message: 'is missing; name the step that hides it' }];
    const set = steps.findLastIndex(({ record, stage }) => record.setting === ref && record.kind === 'setting' && stage === 'build');
    const closes = place((step) => step.ref === proof.closes);
    return closes >= 0 && closes <= set
      ? [{ path: `${at}.closes`, given: proof.closes, message: 'comes before the step that sets it: it would hide what is not set yet' }]
      : [];
  }
  if (proof.reads === undefined) return [{ path: `${at}.reads`, message: 'is missing; say what is turned' }];
  if (!proof.less?.length) return [{ path: `${at}.less`, message: 'is missing; name what else of it is in the whole' }];
  const own = settings.find((one) => one.ref === ref)!;
  if (!proof.window && settingQuantity(own) !== 'torque')
    return [{ path: `${at}.window`, message: `is missing; what is left of the whole is a torque, and the setting is none` }];
  const proving = place(({ record }) => record.kind === 'proof' && record.setting === ref);
  return [
    ...(proof.window ? checkSpan(`${at}.window`, proof.window, 'torque', true) : []),
    ...proof.less.flatMap(({ setting, limit }, index): FieldIssue[] => {
      const share = `${at}.less[${index}]`;
      if ((setting === undefined) === (limit === undefined))
        return [{ path: share, message: 'names a setting or a limit, one of the two' }];
      const [named, field] = [setting ?? limit!, setting === undefined ? 'limit' : 'setting'] as const;
      const quantity = setting === undefined ? limitQuantityOf(limits, limit) : settingQuantityOf(settings, setting);
      if (quantity !== undefined && quantity !== 'torque')
        return [{ path: `${share}.${field}`, given: named, message: `is a ${quantity}; what is taken off a torque is a torque` }];
      const read = place(({ record }) => (field === 'limit' ? record.limit : record.setting) === named && record.kind !== 'proof');
      return proving >= 0 && read > proving
        ? [{ path: `${share}.${field}`, given: named, message: 'is read after the proof; read it before' }]
        : [];
    }),
  ];
}

function limitQuantityOf(limits: readonly Limit[], ref: string | undefined): LimitQuantity | undefined {
  const limit = find(limits, ref);
  return limit && limitQuantity(limit);
}

function settingQuantityOf(settings: readonly Setting[], ref: string): LimitQuantity | undefined {
  const setting = find(settings, ref);
  return setting && settingQuantity(setting);
}

function checkRecord(at: string, step: Step, sheet: SheetFile): FieldIssue[] {
  const needed = namedBy(step.record.kind);
  const kind = step.record.kind === 'pattern' ? find(sheet.settings, step.record.setting)?.kind : undefined;
  if (kind !== undefined && kind !== 'backlash')
    return [
      {
        path: `${at}.record.setting`,
        given: step.record.setting ?? '',
        message: `is of kind "${kind}"; a pattern goes with the backlash of its gears`,
      },
    ];
  if (needed === undefined || step.record[needed] !== undefined) return [];
  return [{ path: `${at}.record.${needed}`, message: `is missing; a step that records "${step.record.kind}" names its ${needed}` }];
}
