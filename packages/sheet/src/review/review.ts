import type { FieldIssue } from '../given/validation.js';
import type { Joint, SheetFile } from '../model/file.js';
import { SHEET_LISTS, rowsOf, type SheetList } from '../model/lists.js';
import { pathParts } from '../reading/read.js';
import { checkFormat } from '../checking/sheet-issues.js';
import { placeWords, soundCopy } from '../reading/sound.js';
import type { Tool } from '../tool.js';
import { checkSheet } from '../checking/check.js';
import { reshapeIssues } from '../checking/reshape-issues.js';
import { HAZARD_WORDS } from './hazards.js';
import { cribCanTell } from './rules/crib.js';
import { dangersHaveCautions, dangersUncovered, licensedWorkIsSaid } from './rules/dangers.js';
import {
  comesTo,
  isProved,
  kitsHoldWhatIsRenewed,
  numbersAreTheLast,
  pinnedPagesAreHere,
  settingsAreProved,
  valuesAreTrusted,
  valuesOf,
  variantsAct,
  variantsShow,
  variantsDiffer,
  windowsAgree,
} from './rules/figures.js';
import { aimsAreInside, fitsMatchTheirRing, rubbersStandTheirMedium, torquesUnderTheMost } from './rules/physics.js';
import { countsAddUp, jointsHaveNumbers, leftHandIsSaid, nutsCanBe, torquesFitThreads } from './rules/joints.js';
import type { Finding, Rule, Severity } from './rules/rule.js';
import {
  actsHaveTheirObligation,
  coatsDrySafely,
  everythingIsUsed,
  jobsCanEnd,
  partsAreOffBefore,
  stepWords,
  stepsStandInOrder,
  waysHaveADefault,
} from './rules/steps.js';

export type { Finding, Severity } from './rules/rule.js';

export interface CompletePart {
  readonly name: string;
  readonly have: number;
  readonly of: number;
}

export interface Review {
  readonly findings: readonly Finding[];
  readonly complete: readonly CompletePart[];
}

/**
 * Reads a sheet as a mechanic would who has to work from it. Takes a draft that does not hold together
 * too, and says all that is wrong with it at once: what has not the shape of a sheet is taken out of a copy.
 * With the tools of a crib it says what none of them can judge.
 */
export function reviewSheet(plain: object, tools: readonly Tool[] = []): Review {
  const format = checkFormat((plain as Record<string, unknown>)['format']);
  if (format) return { findings: [broken(plain, format)], complete: [] };
  const { sheet, issues } = soundCopy(plain);
  const shape = issues.map((issue) => broken(plain, issue));
  if (!sheet) return { findings: shape, complete: [] };
  const isSaid = ({ path }: { readonly path: string }): boolean =>
    issues.some((issue) => path === issue.path || path.startsWith(`${issue.path}.`) || path.startsWith(`${issue.path}[`));
  const pointers = checkSheet(sheet)
    .filter((issue) => !isSaid(issue))
    .map((issue) => broken(plain, { ...issue, path: pathInPlain(plain, sheet, issue.path) }));
  const isWhole = shape.length === 0 && pointers.length === 0;
  const reshaping = isWhole ? reshapeIssues(sheet).map((issue) => broken(plain, issue)) : [];
  const crib: Rule = (read) => (tools.length > 0 ? cribCanTell(read, tools) : []);
  const findings = [
    ...shape,
    ...pointers,
    ...reshaping,
    ...[...RULES, crib].flatMap((rule) => (isWhole ? [...rule(sheet)] : readAsFar(rule, sheet))).filter((found) => !isSaid(found)),
  ];
  return {
    findings: findings.toSorted((a, b) => WEIGHT.indexOf(a.severity) - WEIGHT.indexOf(b.severity)),
    complete: completeness(sheet, findings),
  };
}

/** A line that could not be made whole was left out of the copy: the ones behind it stand further down in the draft. */
function pathInPlain(plain: object, sheet: SheetFile, path: string): string {
  const [list, index] = pathParts(path);
  const lines = (of: object): readonly { readonly ref?: string }[] => {
    const held = (of as Record<string, unknown>)[String(list)];
    return Array.isArray(held) ? (held as { ref?: string }[]) : [];
  };
  if (typeof index !== 'number' || lines(plain).length === lines(sheet).length) return path;
  const ref = lines(sheet)[index]?.ref;
  return path.replace(`[${index}]`, `[${lines(plain).findIndex((line) => line.ref === ref)}]`);
}

/** A rule that stumbles over what does not hold together yet speaks again when that is mended. */
function readAsFar(rule: Rule, sheet: SheetFile): readonly Finding[] {
  try {
    return [...rule(sheet)];
  } catch {
    return [];
  }
}

/** A field that is wrong by itself, in the words of the table it stands in. */
function broken(plain: object, { path, message, given }: FieldIssue): Finding {
  const [list, index] = pathParts(path);
  const lines = (plain as Record<string, unknown>)[String(list)];
  const line = Array.isArray(lines) && typeof index === 'number' ? (lines[index] as { ref?: unknown } | null | undefined) : undefined;
  const isGiven = given !== undefined && given !== '' && given !== '[]' && !message.includes(given);
  return {
    severity: 'stop',
    list: line ? (list as SheetList) : 'sheet',
    ref: typeof line?.ref === 'string' ? line.ref : '',
    path,
    say: `${placeWords(plain, path)}${isGiven ? ` “${given}”` : ''}: ${message}`,
    mend: 'Mend the field',
  };
}

const WEIGHT: readonly Severity[] = ['stop', 'care', 'note'];

const RULES: readonly Rule[] = [
  jointsHaveNumbers,
  torquesFitThreads,
  torquesUnderTheMost,
  fitsMatchTheirRing,
  rubbersStandTheirMedium,
  aimsAreInside,
  countsAddUp,
  leftHandIsSaid,
  nutsCanBe,
  partsAreOffBefore,
  stepsStandInOrder,
  dangersHaveCautions,
  licensedWorkIsSaid,
  kitsHoldWhatIsRenewed,
  settingsAreProved,
  actsHaveTheirObligation,
  coatsDrySafely,
  everythingIsUsed,
  jobsCanEnd,
  windowsAgree,
  variantsDiffer,
  variantsAct,
  variantsShow,
  waysHaveADefault,
  numbersAreTheLast,
  valuesAreTrusted,
  pinnedPagesAreHere,
];

/** What the sheet has of what it should have, part by part. */
function completeness(sheet: SheetFile, findings: readonly Finding[]): readonly CompletePart[] {
  // The sheet itself is one more.
  const lines = 1 + SHEET_LISTS.reduce((sum, list) => sum + rowsOf(sheet, list).length, 0);
  const stopped = new Set(findings.flatMap(({ severity, list, ref }) => (severity === 'stop' ? [`${list} ${ref}`] : [])));
  const values = valuesOf(sheet);
  const proved = sheet.settings.filter((setting) => comesTo(sheet, 'setting', setting.ref) && isProved(sheet, setting));
  const dangerous = sheet.steps.filter((step) => HAZARD_WORDS.some(({ act }) => act.test(stepWords(step)))).length;
  const uncovered = new Set(dangersUncovered(sheet).map(({ step }) => step.ref)).size;
  const judged = sheet.limits.filter(({ kind }) => kind !== 'look');
  const numbered = (joint: Joint): boolean => joint.torque !== undefined || (joint.stages ?? []).length > 0;
  return [
    { name: 'lines with nothing to mend first', have: Math.max(0, lines - stopped.size), of: lines },
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
