import { formatQuantity } from '@jubb/core';
import { find, GOES_BY, type GoesBy } from '@jubb/sheet';
import { IsIn, IsNumber, IsOptional, Max, Min } from 'class-validator';
import { fitRun } from '../runs/fit-run.js';
import { joined } from '../words.js';
import { defineKind, wrong, type Kind, type Rule } from './define-kind.js';
import { Ref, Words } from './fields.js';
import { BENCH } from './roles.js';

/** A fit that went home: how, with what, and what shows that it is there. */
export class FittedPayload {
  @Ref() fit: string;
  @IsIn(GOES_BY) by: GoesBy;
  /** Driver, tube, plate; and what stood under it. Offered again the next time. */
  @Words(100) driver: string;
  @IsOptional() @Words(100) support?: string;
  /** Most that the press showed, N; how warm it was, °C. */
  @IsOptional() @IsNumber() @Min(0) @Max(1e7) force?: number;
  @IsOptional() @IsNumber() @Min(-200) @Max(400) temperature?: number;
  /** What showed that it is home: the change of note, a feeler that does not go under. */
  @Words(200) home: string;
  /** Why it went in although its fit is not what is wanted. */
  @IsOptional() @Words(300) note?: string;
}

declare module '../entries/kept.js' {
  interface Payloads {
    fitted: FittedPayload;
  }
}

/** A fit goes home once it was measured, and one that is not what is wanted only with the reason. */
const measuredFirst: Rule<'fitted'> = ({ payload: { fit: ref, note } }, { live, sheet }) => {
  const fit = find(sheet.fits ?? [], ref);
  if (!fit) return undefined;
  const { measured, verdict } = fitRun(fit, live);
  if (!measured) return wrong({ field: 'payload.fit', given: ref, allowed: 'is not measured yet: shaft and bore first' });
  if (verdict === 'in' || note !== undefined) return undefined;
  return wrong({ field: 'payload.note', allowed: `is missing: the fit is ${verdict ?? 'not judged'}; say why it goes in all the same` });
};

export const fitted: Kind<'fitted'> = defineKind({
  id: 'fitted',
  version: 1,
  payload: FittedPayload,
  who: BENCH,
  points: { fit: 'fits' },
  act: true,
  needs: [measuredFirst],
  earlier: true,
  words({ payload: { fit, by, driver, support, force, temperature, home, note } }, sheet) {
    const how = { press: 'pressed', heat: 'warmed and dropped', hand: 'driven by hand' }[by];
    return joined(
      `${find(sheet.fits ?? [], fit)?.name ?? fit}: ${how}`,
      temperature === undefined ? '' : formatQuantity(temperature, 'temperature', '°C'),
      force === undefined ? '' : `most ${formatQuantity(force, 'force')}`,
      driver,
      support && `on ${support}`,
      `home: ${home}`,
      note && `although ${note}`,
    );
  },
  report: [{ section: 'fits' }],
});
