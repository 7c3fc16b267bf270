import { formatQuantity } from '@jubb/core';
import { LETS_GO_BY, find, type LetsGoBy, type SheetFile } from '@jubb/sheet';
import { IsIn, IsNumber, IsOptional, Max, Min } from 'class-validator';
import type { UsedWorking } from '../entries/kept.js';
import { looksAt } from '../looks-due.js';
import { intentOf, stopAt, wayOff } from '../runs/way-off.js';
import { joined } from '../words.js';
import { defineKind, wrong, type Kind, type Rule } from './define-kind.js';
import { Ref, Words } from './fields.js';
import { BENCH } from './roles.js';

/** How a fit came apart, on what, and what it took. */
export class LetGoPayload {
  @Ref() fit: string;
  @IsIn(LETS_GO_BY) by: LetsGoBy;
  /** What carried the ring, or drew it. */
  @IsOptional() @Words(100) support?: string;
  /** Most that the press showed, N. */
  @IsOptional() @IsNumber() @Min(0) @Max(1e7) force?: number;
  /** °C. */
  @IsOptional() @IsNumber() @Min(-200) @Max(600) temperature?: number;
  /** Why it took more than it should. */
  @IsOptional() @Words(300) note?: string;
}

declare module '../entries/kept.js' {
  interface Payloads {
    'let-go': LetGoPayload;
  }
}

const isDue: Rule<'let-go'> = ({ payload: { fit }, step }, held) =>
  looksAt(held.state().steps, step).some((look) => look.what === 'apart' && look.fit.ref === fit)
    ? undefined
    : wrong({ field: 'payload.fit', given: fit, allowed: 'does not come apart at this step, or was said already' });

/** What is to be kept is neither cut nor cracked. */
const notCut: Rule<'let-go'> = ({ payload: { fit: ref, by } }, held) => {
  const part = find(held.sheet.parts, find(held.sheet.fits ?? [], ref)?.part);
  return by === 'cut' && part && intentOf(part, held.state().intents) === 'keep'
    ? wrong({ field: 'payload.by', given: by, allowed: `is for what may be spoilt; the ${part.name.toLowerCase()} is to be kept` })
    : undefined;
};

/** The way off by the sheet alone, as if the part were kept: what it may take at most. */
function expected(ref: string, sheet: SheetFile): UsedWorking | null {
  const fit = find(sheet.fits ?? [], ref);
  const way = fit && wayOff(sheet, fit, new Map([[fit.part, 'keep']]));
  return way && 'used' in way ? way.used : null;
}

export const letGo: Kind<'let-go'> = defineKind({
  id: 'let-go',
  version: 1,
  payload: LetGoPayload,
  who: BENCH,
  hands: true,
  points: { fit: 'fits' },
  needs: [isDue, notCut],
  check({ payload: { fit, force, note } }, sheet) {
    const stop = stopAt(expected(fit, sheet));
    return force !== undefined && stop !== undefined && force > stop && note === undefined
      ? [
          {
            field: 'payload.note',
            allowed: `is missing: it took ${formatQuantity(force, 'force')}, and ${formatQuantity(stop, 'force')} is where one stops and looks; say what held it`,
          },
        ]
      : [];
  },
  working: ({ fit }, sheet) => expected(fit, sheet),
  words({ payload: { fit, by, support, force, temperature, note } }, sheet) {
    return joined(
      `${find(sheet.fits ?? [], fit)?.name ?? fit} apart: ${LET_GO_WORDS[by]}`,
      support && `on ${support}`,
      force === undefined ? '' : `most ${formatQuantity(force, 'force')}`,
      temperature === undefined ? '' : formatQuantity(temperature, 'temperature', '°C'),
      note,
    );
  },
  report: [{ section: 'fits' }],
});

const LET_GO_WORDS: Readonly<Record<LetsGoBy, string>> = {
  press: 'pressed',
  puller: 'drawn',
  heat: 'let go by heat',
  cut: 'cut and cracked',
  hand: 'by hand',
};
