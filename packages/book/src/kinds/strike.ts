import { wrong, defineKind, type Kind, type Rule } from './define-kind.js';
import { Words } from './fields.js';

export class StrikePayload {
  @Words(300) reason: string;
}

declare module '../entries/kept.js' {
  interface Payloads {
    strike: StrikePayload;
  }
}

const strikesWhatStands: Rule<'strike'> = ({ strikes }, held) => {
  const struck = held.entry(strikes ?? '');
  if (!struck) return wrong({ field: 'strikes', given: strikes ?? '', allowed: 'is not an entry of this job' });
  if (struck.kind === 'strike')
    return wrong({ field: 'strikes', given: struck.id, allowed: 'is a strike itself; make the entry again instead' });
  // What somebody may not say, they may not take back either.
  if (!held.mayMake(struck.kind))
    return { code: 'not-yours', errors: [], detail: `An entry "${struck.kind}" is not struck by: ${held.role}` };
  const other = held.entries.find((entry) => entry.strikes === struck.id);
  return other ? { code: 'struck-before', errors: [], current: other } : undefined;
};

export const strike: Kind<'strike'> = defineKind({
  id: 'strike',
  version: 1,
  payload: StrikePayload,
  tellsOfNew: true,
  check: ({ strikes }) => (strikes === null ? [{ field: 'strikes', allowed: 'is missing: which entry is struck?' }] : []),
  needs: [strikesWhatStands],
  // It may strike what changed either.
  changes: ['sheet', 'list'],
  words: ({ payload }) => `Struck: ${payload.reason}`,
});
