import type { FieldIssue } from '../validation.js';
import { readSheetFigure } from '../validators.js';
import type { Limit, SheetFile, Span, Step } from './file.js';

type Refs = ReadonlySet<string>;

/** What the shape alone cannot say: names used twice, pointers to nothing, windows upside down. */
export function checkSheet(sheet: SheetFile): readonly FieldIssue[] {
  const lists = ['documents', 'parts', 'joints', 'settings', 'seals', 'limits', 'fluids', 'cautions', 'steps', 'customerNotes'] as const;
  const refs = Object.fromEntries(lists.map((list) => [list, new Set(sheet[list].map((row) => row.ref))])) as unknown as Record<
    (typeof lists)[number],
    Refs
  >;
  const issues: FieldIssue[] = lists.flatMap((list) => usedTwice(list, sheet[list]));
  const pointer = (path: string, ref: string | undefined, known: Refs, what: string): void => {
    if (ref !== undefined && !known.has(ref)) {
      issues.push({
        path,
        given: ref,
        message: `refers to ${what} "${ref}", which the sheet does not have (it has: ${[...known].join(', ') || 'none'})`,
      });
    }
  };

  sheet.joints.forEach((joint, index) => {
    pointer(`joints[${index}].part`, joint.part, refs.parts, 'a part');
    const { passes } = joint.pattern;
    if (passes.at(-1) !== 1 || passes.some((share, at) => share < (passes[at - 1] ?? 0))) {
      issues.push({ path: `joints[${index}].pattern.passes`, given: passes.join(', '), message: 'must rise to 1, the full torque' });
    }
    const part = sheet.parts.find((candidate) => candidate.ref === joint.part);
    if (part && part.quantity < joint.count) {
      issues.push({
        path: `joints[${index}].count`,
        given: String(joint.count),
        message: `is more than the ${part.quantity} that the part "${part.ref}" counts`,
      });
    }
  });
  sheet.seals.forEach((seal, index) => {
    pointer(`seals[${index}].part`, seal.part, refs.parts, 'a part');
    issues.push(...checkSpan(`seals[${index}].depth`, seal.depth, 'length'));
  });
  sheet.settings.forEach((setting, index) => {
    issues.push(...checkSpan(`settings[${index}].window`, setting.window, 'length', true));
  });
  sheet.limits.forEach((limit, index) => {
    pointer(`limits[${index}].part`, limit.part, refs.parts, 'a part');
    issues.push(...checkLimit(`limits[${index}]`, limit));
  });
  sheet.steps.forEach((step, index) => {
    const at = `steps[${index}]`;
    step.cautions?.forEach((ref, number) => pointer(`${at}.cautions[${number}]`, ref, refs.cautions, 'a caution'));
    pointer(`${at}.record.limit`, step.record.limit, refs.limits, 'a limit');
    pointer(`${at}.record.joint`, step.record.joint, refs.joints, 'a joint');
    pointer(`${at}.record.setting`, step.record.setting, refs.settings, 'a setting');
    pointer(`${at}.record.seal`, step.record.seal, refs.seals, 'a seal');
    pointer(`${at}.record.fluid`, step.record.fluid, refs.fluids, 'a fluid');
    step.record.counts?.forEach((counted, number) => pointer(`${at}.record.counts[${number}].part`, counted.part, refs.parts, 'a part'));
    pointer(`${at}.opens.closedBy`, step.opens?.closedBy, refs.steps, 'a step');
    issues.push(...checkRecord(at, step));
  });
  return issues;
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
  if (!limit.service) return [{ path: `${at}.service`, message: 'is missing; a size needs its service limit' }];
  if (!limit.tool) return [{ path: `${at}.tool`, message: 'is missing; say which kind of tool measures it' }];
  const quantity = limit.quantity ?? 'length';
  return [...checkSpan(`${at}.service`, limit.service, quantity), ...(limit.asNew ? checkSpan(`${at}.asNew`, limit.asNew, quantity) : [])];
}

type SpanQuantity = NonNullable<Limit['quantity']>;

function checkSpan(at: string, span: Span, quantity: SpanQuantity, bothEnds = false): FieldIssue[] {
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

/** Which pointer a kind of record cannot do without. */
const NEEDED: Partial<Record<Step['record']['kind'], 'limit' | 'joint' | 'setting' | 'seal' | 'fluid' | 'counts'>> = {
  count: 'counts',
  reading: 'limit',
  look: 'limit',
  fluid: 'fluid',
  seal: 'seal',
  setting: 'setting',
  torque: 'joint',
  proof: 'setting',
};

function checkRecord(at: string, step: Step): FieldIssue[] {
  const needed = NEEDED[step.record.kind];
  if (needed === undefined || step.record[needed] !== undefined) return [];
  return [{ path: `${at}.record.${needed}`, message: `is missing; a step that records "${step.record.kind}" names its ${needed}` }];
}
