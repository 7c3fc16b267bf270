import { STAGE_NAMES, STAGES, type Stage } from '@jubb/sheet';
import { IsIn, IsOptional } from 'class-validator';
import { openBefore } from '../state.js';
import { joined } from '../words.js';
import { defineKind, wrong, type Kind, type Rule } from './define-kind.js';
import { Words } from './fields.js';
import { stageTakes } from './roles.js';

export class StagePayload {
  @IsIn(STAGES) stage: Stage;
  /** Why it is taken on with something before it open. */
  @IsOptional() @Words(300) why?: string;
}

declare module '../entries/kept.js' {
  interface Payloads {
    stage: StagePayload;
  }
}

/** Over something open a job is taken on to be proved by the foreman, or with the reason. */
const openHasReason: Rule<'stage'> = ({ payload: { stage: to, why } }, held) => {
  const open = openBefore(held.state(), to);
  if (open.length === 0 || why !== undefined || held.role === 'foreman') return undefined;
  return wrong({ field: 'payload.why', allowed: `is missing: say why it goes on over what is open (${open.slice(0, 3).join('; ')})` });
};

export const stage: Kind<'stage'> = defineKind({
  id: 'stage',
  version: 1,
  payload: StagePayload,
  takes({ stage: to }, role) {
    const who = stageTakes(to, role);
    return who === undefined ? undefined : `To go on to "${STAGE_NAMES[to]}" ${who}`;
  },
  needs: [openHasReason],
  byTheWay: true,
  changes: ['stage'],
  words: ({ payload }) => joined(`On to ${STAGE_NAMES[payload.stage]}`, payload.why && `although something was open: ${payload.why}`),
  report: [{ section: 'taken-on', when: ({ payload }) => payload.why !== undefined }],
});
