import { formatQuantity, parseThread, tellsApart, torqueAtYield } from '@jubb/core';
import { validated } from '../validation.js';
import { STAGES, STAGE_NAMES, VALUE_LISTS, type ValueList } from '../words.js';
import { SheetFile, type Joint, type Part, type Step } from './file.js';
import { candidatesOf, readingU } from './identify.js';
import { HAZARD_WORDS, LICENSED_FAMILIES, hazardsIn, type HazardWords } from './hazards.js';
import { LIST_NAMES, rowsOf, type SheetList } from './lists.js';
import { pathParts, sheetIssues } from './read.js';
import { baseOf, cautionsAt, jointTorque, limitQuantity, windowOf } from './resolve.js';
import { sourcedIn, type SourcedValue } from './sourced.js';

/** How much a finding weighs: a sheet with a stop is not approved; care wants a look; a note is only said. */
export type Severity = 'stop' | 'care' | 'note';

export interface Finding {
  readonly severity: Severity;
  readonly list: SheetList | 'sheet';
  /** Line that it is about; empty for the sheet itself. */
  readonly ref: string;
  /** Path within the sheet, to jump to. */
  readonly path: string;
  readonly say: string;
  /** What would mend it. */
  readonly mend: string;
}

export interface CompletePart {
  readonly name: string;
  readonly have: number;
  readonly of: number;
}

export interface Review {
  readonly findings: readonly Finding[];
  readonly complete: readonly CompletePart[];
}

/** Reads a sheet as a mechanic would who has to work from it. Takes a draft that does not hold together too. */
export function reviewSheet(plain: object): Review {
  const broken = sheetIssues(plain as Record<string, unknown>).map((issue): Finding => {
    const [list, index] = pathParts(issue.path);
    const lines = (plain as Record<string, unknown>)[String(list)];
    const line = Array.isArray(lines) && typeof index === 'number' ? (lines[index] as { ref?: string } | undefined) : undefined;
    return {
      severity: 'stop',
      list: line ? (list as SheetList) : 'sheet',
      ref: line?.ref ?? '',
      path: issue.path,
      say: `${issue.path} ${issue.message}`,
      mend: 'Mend the field.',
    };
  });
  if (broken.length > 0) return { findings: broken, complete: [] };
  const { body: sheet } = validated(SheetFile, plain);
  const findings = RULES.flatMap((rule) => [...rule(sheet)]);
  return {
    findings: findings.toSorted((a, b) => WEIGHT.indexOf(a.severity) - WEIGHT.indexOf(b.severity)),
    complete: completeness(sheet),
  };
}

const WEIGHT: readonly Severity[] = ['stop', 'care', 'note'];

type Rule = (sheet: SheetFile) => Iterable<Finding>;

function finding(severity: Severity, list: SheetList, sheet: SheetFile, ref: string, field: string, say: string, mend: string): Finding {
  const index = (rowsOf(sheet, list) as readonly { ref: string }[]).findIndex((line) => line.ref === ref);
  return { severity, list, ref, path: `${list}[${index}]${field === '' ? '' : `.${field}`}`, say, mend };
}

function ofSheet(severity: Severity, path: string, say: string, mend: string): Finding {
  return { severity, list: 'sheet', ref: '', path, say, mend };
}

const RULES: readonly Rule[] = [
  jointsHaveNumbers,
  torquesFitThreads,
  countsAddUp,
  leftHandIsSaid,
  partsAreOffBefore,
  stepsStandInOrder,
  dangersHaveCautions,
  licensedWorkIsSaid,
  kitsHoldWhatIsRenewed,
  settingsAreProved,
  actsHaveTheirObligation,
  everythingIsUsed,
  jobsCanEnd,
  windowsAgree,
  variantsDiffer,
  waysHaveADefault,
  numbersAreTheLast,
  valuesAreTrusted,
  pinnedPagesAreHere,
];

function* jointsHaveNumbers(sheet: SheetFile): Iterable<Finding> {
  for (const joint of sheet.joints) {
    if (joint.torque ?? joint.stages?.some((stage) => stage.torque ?? stage.angle)) continue;
    if (joint.stages && !pulled(sheet, joint.ref)) continue;
    yield finding(
      pulled(sheet, joint.ref) ? 'stop' : 'care',
      'joints',
      sheet,
      joint.ref,
      'torque.figure',
      `${joint.name} have no torque`,
      'Give the number from the book; when the book has none, have one worked out from thread, class and surface, and mark it calculated.',
    );
  }
}

function pulled(sheet: SheetFile, ref: string): boolean {
  return sheet.steps.some(({ record }) => record.kind === 'torque' && record.joint === ref);
}

/** Dry steel screws at most have about this much friction; with less, the screw yields at a lower torque still. */
const HIGH_FRICTION = 0.18;

function* torquesFitThreads(sheet: SheetFile): Iterable<Finding> {
  for (const joint of sheet.joints) {
    const thread = parseThread(joint.thread);
    const given = jointTorque(joint);
    if (!thread) {
      yield finding(
        'care',
        'joints',
        sheet,
        joint.ref,
        'thread',
        `${joint.name}: "${joint.thread}" names no thread`,
        'Write it as M12x1.25 or 1/2-20 UNF.',
      );
      continue;
    }
    // An angle after a snug torque takes the screw on from there; its own figure says nothing of the end.
    if (!given || joint.propertyClass === undefined || joint.stages?.some(({ kind }) => kind === 'angle')) continue;
    const most = torqueAtYield(thread, joint.propertyClass, HIGH_FRICTION, 1);
    if (most !== undefined && given.torqueNm > most)
      yield finding(
        'stop',
        'joints',
        sheet,
        joint.ref,
        'torque.figure',
        `${joint.name}: ${joint.torque?.figure ?? ''} is over what ${joint.thread} of class ${joint.propertyClass} takes, even dry: it yields at ${formatQuantity(most, 'torque')}`,
        'Look up the torque, the thread and the class again.',
      );
  }
}

function* countsAddUp(sheet: SheetFile): Iterable<Finding> {
  for (const joint of sheet.joints) {
    const say = (field: string, words: string, mend: string): Finding =>
      finding('stop', 'joints', sheet, joint.ref, field, `${joint.name}: ${words}`, mend);
    const part = sheet.parts.find(({ ref }) => ref === joint.part);
    if (part && part.quantity < joint.count)
      yield say('count', `${joint.count} in the joint, ${part.quantity} among the parts`, 'Count them again.');
    const { layout, columns } = joint.pattern;
    if (layout === 'two-rows' && joint.count % 2 === 1)
      yield say('count', `${joint.count} do not stand in two even rows`, 'Correct the count or the layout.');
    if (layout === 'grid' && columns !== undefined && joint.count % columns !== 0)
      yield say('pattern.columns', `${joint.count} do not stand in full rows of ${columns}`, 'Correct the count or the rows.');
    const lengths = (joint.lengths ?? []).reduce((sum, { count }) => sum + count, 0);
    if (joint.lengths && lengths !== joint.count)
      yield say('count', `the lengths count ${lengths}, the joint ${joint.count}`, 'Count each length again.');
    if (joint.renewEachTime && part && part.policy !== 'renew')
      yield finding(
        'care',
        'parts',
        sheet,
        part.ref,
        'policy',
        `${joint.name} are new each time, their part is not`,
        'Set the policy of the part to renew.',
      );
  }
}

function* leftHandIsSaid(sheet: SheetFile): Iterable<Finding> {
  for (const joint of sheet.joints) {
    if (joint.hand !== 'left') continue;
    const said = sheet.steps.some((step) => stepWords(step).includes('left-hand'));
    if (!said)
      yield finding(
        'care',
        'joints',
        sheet,
        joint.ref,
        'hand',
        `${joint.name} have a left-hand thread, and no step says so`,
        'Say "left-hand" in the step that undoes them.',
      );
  }
}

function stepWords(step: Step): string {
  const ways = (step.ways ?? []).map(({ name, reason }) => `${name} ${reason}`);
  return [step.title, step.act, ...(step.ladder ?? []), ...ways].join(' ').toLowerCase();
}

/** Parts that each step takes off: said, or counted in the strip. */
function freedBy(step: Step): readonly string[] {
  const counted = step.stage === 'strip' ? (step.record.counts ?? []).map(({ part }) => part) : [];
  return [...(step.frees ?? []), ...counted];
}

function* partsAreOffBefore(sheet: SheetFile): Iterable<Finding> {
  const off = new Set<string>();
  for (const step of sheet.steps) {
    for (const ref of step.needsOff ?? []) {
      if (off.has(ref)) continue;
      const name = sheet.parts.find((part) => part.ref === ref)?.name ?? ref;
      yield finding(
        'stop',
        'steps',
        sheet,
        step.ref,
        'needsOff',
        `"${step.title}" needs the ${name.toLowerCase()} off, and no step before takes it off`,
        'Add the step, or move this one behind it.',
      );
    }
    for (const ref of freedBy(step)) off.add(ref);
  }
}

function* stepsStandInOrder(sheet: SheetFile): Iterable<Finding> {
  const place = new Map(sheet.steps.map((step, index) => [step.ref, index]));
  const at = (ref: string): number => place.get(ref) ?? -1;
  for (const [index, step] of sheet.steps.entries()) {
    const before = sheet.steps[index - 1];
    if (before && STAGES.indexOf(before.stage) > STAGES.indexOf(step.stage))
      yield finding(
        'stop',
        'steps',
        sheet,
        step.ref,
        'stage',
        `"${step.title}" of ${STAGE_NAMES[step.stage]} stands after a step of ${STAGE_NAMES[before.stage]}`,
        'Move it among the steps of its stage.',
      );
    for (const ref of step.after ?? [])
      if (at(ref) >= index)
        yield finding(
          'stop',
          'steps',
          sheet,
          step.ref,
          'after',
          `"${step.title}" is to come after a step that stands behind it`,
          'Put the two in order.',
        );
    if (step.opens && at(step.opens.closedBy) <= index)
      yield finding(
        'stop',
        'steps',
        sheet,
        step.ref,
        'opens.closedBy',
        `"${step.title}" opens what an earlier step closes`,
        'Name a later step that closes it.',
      );
  }
  for (const caution of sheet.cautions)
    if (caution.holds && at(caution.holds.until) <= at(caution.holds.from))
      yield finding(
        'stop',
        'cautions',
        sheet,
        caution.ref,
        'holds.until',
        'A caution ends before it begins',
        'Put its two steps in order.',
      );
}

/** From this mass on a part is not carried by one person alone (common practice; site rules may say less). */
const HEAVY_KG = 20;

function heavyPart(sheet: SheetFile, step: Step): Part | undefined {
  const off = freedBy(step);
  return sheet.parts.find(({ ref, mass }) => off.includes(ref) && mass !== undefined && baseOf(mass, 'mass') >= HEAVY_KG);
}

function dangersUncovered(sheet: SheetFile): readonly { step: Step; danger: HazardWords }[] {
  return sheet.steps.flatMap((step) => {
    const covered = new Set(cautionsAt(sheet, step).flatMap((caution) => caution.hazards ?? hazardsIn(caution.text.toLowerCase())));
    const words = stepWords(step);
    const heavy = heavyPart(sheet, step);
    const dangers = HAZARD_WORDS.filter(({ hazard, act }) => act.test(words) || (hazard === 'lift' && heavy));
    return dangers.filter(({ hazard }) => !covered.has(hazard)).map((danger) => ({ step, danger }));
  });
}

function* dangersHaveCautions(sheet: SheetFile): Iterable<Finding> {
  for (const { step, danger } of dangersUncovered(sheet))
    yield finding(
      'stop',
      'steps',
      sheet,
      step.ref,
      'cautions',
      `"${step.title}": ${danger.say}, and no caution stands before it`,
      'Put a caution before the step, with what to wear and to block.',
    );
}

function* licensedWorkIsSaid(sheet: SheetFile): Iterable<Finding> {
  const hazard = LICENSED_FAMILIES[sheet.family];
  if (!hazard) return;
  const said = sheet.cautions.some((caution) => caution.licensed !== undefined && (caution.hazards ?? []).includes(hazard));
  if (!said)
    yield ofSheet(
      'stop',
      'cautions',
      `Work on ${hazard} is licensed in many places, and no caution says so`,
      `Add a caution on ${hazard} that defers to the local rules and licensed people.`,
    );
}

function* kitsHoldWhatIsRenewed(sheet: SheetFile): Iterable<Finding> {
  const inKits = new Set((sheet.kits ?? []).flatMap((kit) => kit.parts));
  if (inKits.size === 0) return;
  for (const part of sheet.parts)
    if (part.policy === 'renew' && !inKits.has(part.ref))
      yield finding(
        'care',
        'parts',
        sheet,
        part.ref,
        'policy',
        `${part.name}: renewed every time, and in no kit`,
        'Add it to the kit, or say that it is bought alone by a kit of its own.',
      );
}

/** Whether a step of this kind comes to a setting. */
function comesTo(sheet: SheetFile, kind: 'setting' | 'proof', ref: string): boolean {
  return sheet.steps.some(({ record }) => record.kind === kind && record.setting === ref);
}

function* settingsAreProved(sheet: SheetFile): Iterable<Finding> {
  for (const setting of sheet.settings) {
    if (!comesTo(sheet, 'setting', setting.ref))
      yield finding('stop', 'settings', sheet, setting.ref, '', `${setting.name}: no step sets it`, 'Add the step that sets it.');
    if (!comesTo(sheet, 'proof', setting.ref))
      yield finding(
        'stop',
        'settings',
        sheet,
        setting.ref,
        '',
        `${setting.name}: no step proves it`,
        'Add a step that reads it again when all is locked.',
      );
  }
}

interface Due {
  readonly act: RegExp;
  readonly closes: (step: Step, sheet: SheetFile) => boolean;
  readonly say: string;
  readonly mend: string;
}

/** Acts that make another necessary, wherever they stand. */
const DUE: readonly Due[] = [
  {
    act: /\b(hydraulic|brake)( \w+)? (line|hose|pipe|port)s?\b(?!.{0,12}\bnot\b)[^.]*\b(off|undo|open|loose)|\b(undo|open|loosen|take off)[^.]*\b(hydraulic|brake)( \w+)? (line|hose|pipe)|\b(unions|banjo) off\b/u,
    closes: (step) => /\bbleed|\bbled\b|purge the air/u.test(stepWords(step)),
    say: 'opens the hydraulics, and no later step bleeds them',
    mend: 'Add the step that bleeds and holds.',
  },
  {
    act: /\bdrain (the|it|all|off)\b|\boil out\b/u,
    closes: (step) => step.record.kind === 'fluid',
    say: 'drains it, and no later step fills it',
    mend: 'Add the step that fills it, and the neighbouring levels.',
  },
  {
    act: /\b(recover|draw off|take out) (the )?(refrigerant|charge)\b/u,
    closes: (step) => /\bevacuat|\bcharge\b/u.test(stepWords(step)),
    say: 'takes the charge out, and no later step evacuates and charges',
    mend: 'Add the step, or hand it to the licensed person.',
  },
];

function* actsHaveTheirObligation(sheet: SheetFile): Iterable<Finding> {
  for (const { act, closes, say, mend } of DUE) {
    const index = sheet.steps.findIndex((step) => act.test(stepWords(step)));
    const step = sheet.steps[index];
    if (step && !sheet.steps.slice(index + 1).some((later) => closes(later, sheet)))
      yield finding('stop', 'steps', sheet, step.ref, 'act', `"${step.title}" ${say}`, mend);
  }
  const closing = new Set((sheet.obligations ?? []).map(({ closedBy }) => closedBy));
  for (const setting of sheet.settings) {
    const bearings = sheet.parts.filter((part) => /\bbearing/iu.test(part.name) && part.policy !== 'reuse');
    const sets = sheet.steps.filter(({ record }) => record.setting === setting.ref).map(({ ref }) => ref);
    if (bearings.length > 0 && ['preload', 'backlash', 'end-play'].includes(setting.kind) && !sets.some((ref) => closing.has(ref)))
      yield finding(
        'care',
        'settings',
        sheet,
        setting.ref,
        '',
        `${setting.name}: new bearings make it necessary, and no obligation says so`,
        'Add the obligation from the bearings to the step that sets it.',
      );
  }
}

/** What each list is for: the record of a step that points to it. */
const USED_BY = { joints: 'joint', settings: 'setting', seals: 'seal', limits: 'limit', fluids: 'fluid' } as const;

function* everythingIsUsed(sheet: SheetFile): Iterable<Finding> {
  for (const [list, pointer] of Object.entries(USED_BY) as [keyof typeof USED_BY, 'joint'][]) {
    const used = new Set(sheet.steps.map(({ record }) => record[pointer]));
    for (const line of sheet[list])
      if (!used.has(line.ref))
        yield finding(
          'care',
          list,
          sheet,
          line.ref,
          '',
          `${'name' in line ? line.name : line.ref}: no step comes to it`,
          `Add the step, or take it off the ${LIST_NAMES[list].toLowerCase()}.`,
        );
  }
  const spoken = new Set([
    ...sheet.steps.flatMap(({ cautions = [] }) => cautions),
    ...sheet.cautions.filter(({ holds }) => holds).map(({ ref }) => ref),
  ]);
  for (const caution of sheet.cautions)
    if (!spoken.has(caution.ref))
      yield finding('care', 'cautions', sheet, caution.ref, '', 'A caution stands before no step', 'Put it before the step it is about.');
}

function* jobsCanEnd(sheet: SheetFile): Iterable<Finding> {
  const kinds = new Set(sheet.steps.map(({ record }) => record.kind));
  const stages = new Set(sheet.steps.map(({ stage }) => stage));
  for (const stage of STAGES)
    if (!stages.has(stage)) yield ofSheet('stop', 'steps', `${STAGE_NAMES[stage]} has no step`, 'Add what is done in it.');
  for (const [kind, words] of [
    ['sign', 'No step has the foreman sign'],
    ['hand-over', 'No step hands it over'],
    ['reconcile', 'Nothing counts what came off against what goes back'],
    ['decide', 'Nothing decides what goes back'],
  ] as const)
    if (!kinds.has(kind)) yield ofSheet('stop', 'steps', words, `Add a step that records "${kind}".`);
}

function* windowsAgree(sheet: SheetFile): Iterable<Finding> {
  for (const limit of sheet.limits) {
    if (!limit.asNew || !limit.service) continue;
    const made = windowOf(limit.asNew, limitQuantity(limit));
    const may = windowOf(limit.service, limitQuantity(limit));
    const under = made.from !== undefined && may.from !== undefined && made.from < may.from;
    const over = made.to !== undefined && may.to !== undefined && made.to > may.to;
    if (under || over)
      yield finding(
        'stop',
        'limits',
        sheet,
        limit.ref,
        'service',
        `${limit.name}: a new one would be out`,
        'The service limit is wider than the new size, or the two are swapped.',
      );
  }
}

function* variantsDiffer(sheet: SheetFile): Iterable<Finding> {
  const candidates = candidatesOf([{ key: sheet.key, file: sheet }]);
  for (const [index, a] of candidates.entries())
    for (const b of candidates.slice(index + 1)) {
      if (tellsApart(a.candidate, b.candidate, (feature) => readingU(sheet.features ?? [], feature)).length > 0) continue;
      yield finding(
        'stop',
        'variants',
        sheet,
        b.variant?.ref ?? '',
        'tells',
        `${a.name} and ${b.name} cannot be told apart`,
        'Add a feature on which they differ, or make them one.',
      );
    }
}

function* waysHaveADefault(sheet: SheetFile): Iterable<Finding> {
  for (const step of sheet.steps) {
    const chosen = (step.ways ?? []).filter(({ shopDefault }) => shopDefault);
    if (step.ways && chosen.length !== 1)
      yield finding(
        'care',
        'steps',
        sheet,
        step.ref,
        'ways',
        `"${step.title}" has ${step.ways.length} ways and ${chosen.length === 0 ? 'none' : 'more than one'} is the shop’s`,
        'Mark the one that the shop goes by.',
      );
  }
}

function* numbersAreTheLast(sheet: SheetFile): Iterable<Finding> {
  for (const part of sheet.parts) {
    const next = part.superseded?.find(({ number }) => number === part.number);
    if (next)
      yield finding(
        'care',
        'parts',
        sheet,
        part.ref,
        'number',
        `${part.name}: ${next.number} is superseded by ${next.by}`,
        'Put the last number of the chain.',
      );
  }
}

function* pinnedPagesAreHere(sheet: SheetFile): Iterable<Finding> {
  for (const step of sheet.steps) {
    const document = sheet.documents.find(({ ref }) => ref === step.pinned?.document);
    if (document && document.paper === undefined)
      yield finding(
        'care',
        'documents',
        sheet,
        document.ref,
        'paper',
        `"${step.title}" is pinned to a page of ${document.title}, and its paper is not here`,
        'Bring in the PDF.',
      );
  }
}

function valuesOf(sheet: SheetFile): readonly (SourcedValue & { readonly list: ValueList; readonly ref: string })[] {
  return VALUE_LISTS.flatMap((list) => sheet[list].flatMap((line) => sourcedIn(line).map((value) => ({ list, ref: line.ref, ...value }))));
}

function* valuesAreTrusted(sheet: SheetFile): Iterable<Finding> {
  for (const { list, ref, trust, path } of valuesOf(sheet))
    if (trust === 'unverified')
      yield finding(
        'note',
        list,
        sheet,
        ref,
        `${path}.trust`,
        `${nameIn(sheet, list, ref)}: a value is only somebody’s word`,
        'Find it in a book, have it worked out, or have the foreman stand for it.',
      );
}

function nameIn(sheet: SheetFile, list: SheetList, ref: string): string {
  const line = (rowsOf(sheet, list) as readonly { ref: string; name?: string }[]).find((candidate) => candidate.ref === ref);
  return line?.name ?? ref;
}

/** What the sheet has of what it should have, part by part. */
function completeness(sheet: SheetFile): readonly CompletePart[] {
  const values = valuesOf(sheet);
  const proved = sheet.settings.filter(({ ref }) => comesTo(sheet, 'setting', ref) && comesTo(sheet, 'proof', ref));
  const dangerous = sheet.steps.filter((step) => HAZARD_WORDS.some(({ act }) => act.test(stepWords(step)))).length;
  const uncovered = new Set(dangersUncovered(sheet).map(({ step }) => step.ref)).size;
  const judged = sheet.limits.filter(({ kind }) => kind !== 'look');
  const numbered = (joint: Joint): boolean => joint.torque !== undefined || (joint.stages ?? []).length > 0;
  return [
    { name: 'joints with a number', have: sheet.joints.filter(numbered).length, of: sheet.joints.length },
    { name: 'settings set and proved', have: proved.length, of: sheet.settings.length },
    {
      name: 'seals with their protective acts',
      have: sheet.seals.filter(({ protect }) => protect.length > 0).length,
      of: sheet.seals.length,
    },
    { name: 'sizes with a new window too', have: judged.filter(({ asNew }) => asNew).length, of: judged.length },
    { name: 'dangerous acts with a caution', have: dangerous - uncovered, of: dangerous },
    {
      name: 'values from a named page or working',
      have: values.filter(({ page, trust }) => page !== undefined || trust !== 'unverified').length,
      of: values.length,
    },
    { name: 'parts with a number', have: sheet.parts.filter(({ number }) => number !== undefined).length, of: sheet.parts.length },
  ].filter(({ of }) => of > 0);
}
