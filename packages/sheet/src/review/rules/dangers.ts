import type { SheetFile, Part, Step } from '../../model/file.js';
import { baseOf, cautionsAt, freedBy } from '../../model/resolve.js';
import { LICENSED_FAMILIES } from '../../model/licensed.js';
import { HAZARD_WORDS, hazardsIn, type HazardWords } from '../hazards.js';
import { finding, ofSheet, type Finding } from './rule.js';
import { stepWords } from './steps.js';

/** From this mass on a part is not carried by one person alone (common practice; site rules may say less). */
const HEAVY_KG = 20;

function heavyPart(sheet: SheetFile, step: Step): Part | undefined {
  const off = freedBy(step);
  return sheet.parts.find(({ ref, mass }) => off.includes(ref) && mass !== undefined && baseOf(mass, 'mass') >= HEAVY_KG);
}

export function dangersUncovered(sheet: SheetFile): readonly { step: Step; danger: HazardWords }[] {
  return sheet.steps.flatMap((step) => {
    const covered = new Set(cautionsAt(sheet, step).flatMap((caution) => caution.hazards ?? hazardsIn(caution.text.toLowerCase())));
    const words = stepWords(step);
    const heavy = heavyPart(sheet, step);
    const dangers = HAZARD_WORDS.filter(({ hazard, act }) => act.test(words) || (hazard === 'lift' && heavy));
    return dangers.filter(({ hazard }) => !covered.has(hazard)).map((danger) => ({ step, danger }));
  });
}

export function* dangersHaveCautions(sheet: SheetFile): Iterable<Finding> {
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

export function* licensedWorkIsSaid(sheet: SheetFile): Iterable<Finding> {
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
