import { pointersOf } from '../../model/pointers.js';
import type { SheetFile, Step } from '../../model/file.js';
import { LIST_NAMES } from '../../model/lists.js';
import { sealsBare } from '../../model/coat-attacks.js';
import { freedBy } from '../../model/resolve.js';
import { STAGES, STAGE_NAMES } from '../../words.js';
import { finding, ofSheet, type Finding } from './rule.js';

export function stepWords(step: Step): string {
  const ways = (step.ways ?? []).map(({ name, reason }) => `${name} ${reason}`);
  return [step.title, step.act, ...(step.ladder ?? []), ...ways].join(' ').toLowerCase();
}

export function* partsAreOffBefore(sheet: SheetFile): Iterable<Finding> {
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

export function* stepsStandInOrder(sheet: SheetFile): Iterable<Finding> {
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
    if (step.lead?.from !== undefined && at(step.lead.from) >= index)
      yield finding(
        'stop',
        'steps',
        sheet,
        step.ref,
        'lead.from',
        `What is readied for "${step.title}" would begin after it`,
        'Name a step before it, or none.',
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

/** What is painted dries, and no seal that is in already is wetted by what its rubber cannot bear. */
export function* coatsDrySafely(sheet: SheetFile): Iterable<Finding> {
  for (const step of sheet.steps) {
    if (!step.coat) continue;
    if (step.record.kind !== 'tick')
      yield finding(
        'stop',
        'steps',
        sheet,
        step.ref,
        'coat',
        `"${step.title}" puts a coat on and records something else`,
        'Give the coat a step of its own.',
      );
    if (!step.wait)
      yield finding(
        'stop',
        'steps',
        sheet,
        step.ref,
        'wait',
        `"${step.title}" is wet, and nothing says how long`,
        'Say how long it dries.',
      );
    for (const { name, rubber } of sealsBare(sheet, step))
      yield finding(
        'care',
        'steps',
        sheet,
        step.ref,
        'coat.masked',
        `"${step.title}": ${step.coat.thinned} attacks the ${rubber} of the ${name.toLowerCase()}, and nothing masks it`,
        'Mask it, take another coat, or paint before it goes in.',
      );
  }
}

export function* actsHaveTheirObligation(sheet: SheetFile): Iterable<Finding> {
  for (const { act, closes, say, mend } of DUE) {
    const index = sheet.steps.findIndex((step) => act.test(stepWords(step)));
    const step = sheet.steps[index];
    if (step && !sheet.steps.slice(index + 1).some((later) => closes(later, sheet)))
      yield finding('stop', 'steps', sheet, step.ref, 'act', `"${step.title}" ${say}`, mend);
  }
  const closing = new Set((sheet.obligations ?? []).map(({ closedBy }) => closedBy));
  for (const setting of sheet.settings) {
    const bearings = sheet.parts.filter((part) => /\bbearing/iu.test(part.name) && part.policy !== 'reuse');
    // What is read before it is built, as it was found, sets nothing.
    const sets = sheet.steps
      .filter(({ record, stage }) => record.setting === setting.ref && STAGES.indexOf(stage) >= STAGES.indexOf('build'))
      .map(({ ref }) => ref);
    if (
      sets.length > 0 &&
      bearings.length > 0 &&
      ['preload', 'backlash', 'end-play'].includes(setting.kind) &&
      !sets.some((ref) => closing.has(ref))
    )
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

/** Lists that are there for what a step records. */
const RECORDED = ['joints', 'settings', 'fits', 'seals', 'limits', 'fluids'] as const;

export function* everythingIsUsed(sheet: SheetFile): Iterable<Finding> {
  const used = new Set(
    sheet.steps.flatMap((step) => pointersOf('steps', step).flatMap(({ lists, ref }) => lists.map((list) => `${list}/${ref}`))),
  );
  for (const list of RECORDED) {
    for (const line of sheet[list] ?? [])
      if (!used.has(`${list}/${line.ref}`))
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
  for (const fastening of sheet.fastenings ?? [])
    if (fastening.kind !== 'jacking-thread' && !used.has(`fastenings/${fastening.ref}`))
      yield finding(
        'care',
        'fastenings',
        sheet,
        fastening.ref,
        '',
        `${fastening.name}: no step looks whether it is home`,
        'Name it among what is seated at the step that puts it in.',
      );
  const spoken = new Set([
    ...sheet.steps.flatMap(({ cautions = [] }) => cautions),
    ...sheet.cautions.filter(({ holds }) => holds).map(({ ref }) => ref),
  ]);
  for (const caution of sheet.cautions)
    if (!spoken.has(caution.ref))
      yield finding('care', 'cautions', sheet, caution.ref, '', 'A caution stands before no step', 'Put it before the step it is about.');
}

export function* jobsCanEnd(sheet: SheetFile): Iterable<Finding> {
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

export function* waysHaveADefault(sheet: SheetFile): Iterable<Finding> {
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
