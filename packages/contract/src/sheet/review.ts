import { validated } from '../validation.js';
import { SheetFile, type Joint } from './file.js';
import { HAZARD_WORDS } from './hazards.js';
import type { SheetList } from './lists.js';
import { pathParts, sheetIssues } from './read.js';
import type { Finding, Rule, Severity } from './review/rule.js';
import { countsAddUp, jointsHaveNumbers, leftHandIsSaid, torquesFitThreads } from './review/joints.js';
import {
  actsHaveTheirObligation,
  everythingIsUsed,
  jobsCanEnd,
  partsAreOffBefore,
  stepWords,
  stepsStandInOrder,
  waysHaveADefault,
} from './review/steps.js';
import { dangersHaveCautions, dangersUncovered, licensedWorkIsSaid } from './review/dangers.js';
import {
  comesTo,
  kitsHoldWhatIsRenewed,
  numbersAreTheLast,
  pinnedPagesAreHere,
  settingsAreProved,
  valuesAreTrusted,
  valuesOf,
  variantsDiffer,
  windowsAgree,
} from './review/figures.js';

export type { Finding, Severity } from './review/rule.js';

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
