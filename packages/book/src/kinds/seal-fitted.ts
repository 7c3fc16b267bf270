import { find, partName, windowOf, type Seal, type SheetFile } from '@jubb/sheet';
import { IsBoolean, IsOptional, IsString, MaxLength } from 'class-validator';
import { isKind } from '../entries/kept.js';
import { worstPlace } from '../measured/measured.js';
import { depthsText } from '../measured/reading-line.js';
import { judgeWindow } from '../measured/working-for.js';
import { verdictOf } from '../measured/verdict.js';
import { beforeSeal, sightWords } from '../runs/seal-run.js';
import { joined, judged } from '../words.js';
import { defineKind, wrong, type Kind, type Rule, type Wrong } from './define-kind.js';
import { Figures, Ref, Words } from './fields.js';
import { ofAnother } from './places.js';

export class SealFittedPayload {
  @Ref() seal: string;
  @IsBoolean() directionSeen: boolean;
  @IsBoolean() lubricated: boolean;
  /** Nothing for a ring that has no depth to read. */
  @Figures(-100, 500, 0) depths: number[];
  @IsString() @MaxLength(10) unit: string;
  /** What it was driven in with. Offered again the next time. */
  @IsOptional() @Words(100) driver?: string;
}

declare module '../entries/kept.js' {
  interface Payloads {
    'seal-fitted': SealFittedPayload;
  }
}

const oldOneOut: Rule<'seal-fitted'> = ({ payload: { seal } }, { live }) => {
  const out = live.filter(isKind('old-seal-out')).findLast(({ payload }) => payload.seal === seal);
  return out?.payload.whole
    ? undefined
    : wrong({ field: 'payload.seal', given: seal, allowed: 'takes no new ring until the old one is ticked out whole' });
};

/** No new one goes in while its place, itself or the way in is not as it must be. */
const lookedAtBefore: Rule<'seal-fitted'> = ({ payload: { seal: ref } }, { live, sheet }) => {
  const seal = find(sheet.seals, ref);
  const [first] = seal ? beforeSeal(seal, live) : [];
  return first
    ? wrong({
        field: 'payload.seal',
        given: ref,
        allowed:
          first.notSo === undefined
            ? `does not go in before it was looked at: ${sightWords(first.seal, first.sight)}`
            : `does not go in like that: ${first.notSo}`,
      })
    : undefined;
};

/** A ring goes in the right way round, and not dry; how deep it stands is read where the sheet asks for it. */
function unlooked({ seal: ref, directionSeen, lubricated, depths }: SealFittedPayload, sheet: SheetFile): readonly Wrong[] {
  const wrongs: Wrong[] = [];
  if (!directionSeen) wrongs.push({ field: 'payload.directionSeen', allowed: 'must be seen before it goes in', given: 'false' });
  if (!lubricated)
    wrongs.push({ field: 'payload.lubricated', allowed: 'must be so: no ring goes in as it comes out of its bag', given: 'false' });
  if (find(sheet.seals, ref)?.depth && depths.length === 0)
    wrongs.push({ field: 'payload.depths', allowed: 'must be read: the sheet has a window for it', given: 'none' });
  return wrongs;
}

export const sealFitted: Kind<'seal-fitted'> = defineKind({
  id: 'seal-fitted',
  version: 1,
  payload: SealFittedPayload,
  points: { seal: 'seals' },
  act: true,
  earlier: true,
  check: ({ payload, step }, sheet) => [...unlooked(payload, sheet), ...ofAnother('seal', payload.seal, step, sheet)],
  needs: [oldOneOut, lookedAtBefore],
  working({ seal: ref, depths }, sheet, tool) {
    const seal = find(sheet.seals, ref);
    if (!seal?.depth || depths.length === 0) return null;
    // Depths are read round the ring: the worst place counts, not their mean.
    const window = windowOf(seal.depth, 'length');
    return judgeWindow('length', [worstPlace(depths, window)], window, tool);
  },
  words(entry, sheet) {
    const seal = find(sheet.seals, entry.payload.seal);
    const { depths, driver } = entry.payload;
    const depth = depthWords(depths, seal);
    return `${joined(`${seal ? partName(sheet, seal.part) : 'Seal'} fitted`, driver, depth)}${judged(entry)}`;
  },
  report: [
    {
      section: 'seals',
      cells(entry, sheet) {
        const seal = find(sheet.seals, entry.payload.seal);
        const name = seal ? partName(sheet, seal.part) : entry.payload.seal;
        return [`${name}, ${seal?.direction ?? ''}`, depthWords(entry.payload.depths, seal) ?? 'seated', verdictOf(entry) ?? ''];
      },
    },
  ],
});

function depthWords(depths: readonly number[], seal: Seal | undefined): string | undefined {
  return depths.length === 0 ? undefined : `depth ${depthsText(depths, seal?.depth ? windowOf(seal.depth, 'length') : {})}`;
}
