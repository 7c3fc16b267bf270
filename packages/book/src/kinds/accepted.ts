import { find } from '@jubb/sheet';
import { mayAccept } from '../runs/setting-run.js';
import { defineKind, wrong, type Kind, type Rule } from './define-kind.js';
import { Ref, Words } from './fields.js';

/** An unsure reading of a setting that the foreman lets stand, and why; the report prints it. */
export class AcceptedPayload {
  @Ref() setting: string;
  @Words(300) why: string;
}

declare module '../entries/kept.js' {
  interface Payloads {
    accepted: AcceptedPayload;
  }
}

/** One that is out is set anew, one that is in needs nobody. */
const isUnsure: Rule<'accepted'> = ({ payload: { setting } }, held) => {
  const last = held.state().settings.find((run) => run.setting.ref === setting)?.last;
  if (last && mayAccept(last)) return undefined;
  const is = last && `the last one is ${last.accepted === undefined ? (last.verdict ?? 'not judged') : 'accepted already'}`;
  return wrong({
    field: 'payload.setting',
    given: setting,
    allowed: `has no unsure reading that could be accepted: ${is ?? 'it was not read yet'}`,
  });
};

export const accepted: Kind<'accepted'> = defineKind({
  id: 'accepted',
  version: 1,
  payload: AcceptedPayload,
  who: ['foreman'],
  points: { setting: 'settings' },
  needs: [isUnsure],
  words: ({ payload }, sheet) =>
    `${find(sheet.settings, payload.setting)?.name ?? payload.setting}: unsure, and accepted so: ${payload.why}`,
  report: [{ section: 'setting' }],
});
