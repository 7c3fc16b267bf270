import type { CoatThinned } from './choices.js';
import type { SheetFile, Step } from './file.js';
import { partName } from './resolve.js';

/** Rubbers by what thins a coat. Common practice, after the solvent groups of rubber makers' tables, from memory. */
const ATTACKED: Readonly<Record<CoatThinned, readonly string[]>> = {
  water: [],
  'white spirit': ['EPDM', 'VMQ', 'CR', 'NR'],
  xylene: ['NBR', 'HNBR', 'EPDM', 'VMQ', 'ACM', 'PU', 'CR', 'NR'],
  'nitro or two-pack thinner': ['NBR', 'HNBR', 'FKM', 'FVMQ', 'EPDM', 'VMQ', 'ACM', 'PU', 'CR', 'NR'],
};
const RUBBERS: ReadonlySet<string> = new Set(Object.values(ATTACKED).flat());
/** Bears all of them. */
const BEARS = 'PTFE';

/** A seal that is in by then, and whose rubber the thinner swells or cracks. */
export interface AttackedSeal {
  readonly ref: string;
  readonly name: string;
  readonly rubber: string;
}

/** Seals that go in before a step and that its coat would attack; nothing of what is no rubber. */
export function sealsAttacked(sheet: SheetFile, { ref, coat }: Step): readonly AttackedSeal[] {
  if (!coat) return [];
  const here = sheet.steps.findIndex((step) => step.ref === ref);
  return sheet.seals.flatMap((seal): AttackedSeal[] => {
    const inAt = sheet.steps.findIndex(({ record }) => record.seal === seal.ref);
    // Paper, fibre and metal have no such letters. What nobody knows is never fit.
    const rubber = /\b[A-Z]{2,4}\b/u.exec(seal.material)?.[0];
    const isUnknown = rubber !== undefined && rubber !== BEARS && !RUBBERS.has(rubber) && coat.thinned !== 'water';
    if (inAt < 0 || inAt > here || rubber === undefined || (!isUnknown && !ATTACKED[coat.thinned].includes(rubber))) return [];
    return [{ ref: seal.ref, name: partName(sheet, seal.part), rubber }];
  });
}

/** Those of them that no word of what is masked speaks of. */
export function sealsBare(sheet: SheetFile, step: Step): readonly AttackedSeal[] {
  const masked = (step.coat?.masked ?? []).join(' ').toLowerCase();
  const spoken = ({ name, rubber }: AttackedSeal): boolean =>
    masked.includes(rubber.toLowerCase()) ||
    /\b(?:all|every) (?:seals?|rubber)\b/u.test(masked) ||
    name
      .toLowerCase()
      .split(/[^a-z]+/u)
      .some((word) => word.length > 3 && word !== 'seal' && masked.includes(word));
  return sealsAttacked(sheet, step).filter((one) => !spoken(one));
}
