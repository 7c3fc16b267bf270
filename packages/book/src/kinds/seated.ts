import { find } from '@jubb/sheet';
import { IsInt, Max, Min } from 'class-validator';
import { looksAt } from '../looks-due.js';
import { defineKind, wrong, type Kind, type Rule } from './define-kind.js';
import { Ref } from './fields.js';
import { BENCH } from './roles.js';

/** Pieces of a fastening without a thread that were seen, or felt, to be home. */
export class SeatedPayload {
  @Ref() fastening: string;
  @IsInt() @Min(1) @Max(120) count: number;
}

declare module '../entries/kept.js' {
  interface Payloads {
    seated: SeatedPayload;
  }
}

/** None is seen home before the step that puts it in is done, and none more than there are. */
const noneTooMany: Rule<'seated'> = ({ payload: { fastening, count }, step }, held) => {
  const due = looksAt(held.state().steps, step).find((look) => look.what === 'seated' && look.fastening.ref === fastening);
  if (due?.what !== 'seated')
    return wrong({ field: 'step', given: step ?? '', allowed: 'is not done yet, or all of these were seen to be home already' });
  const left = due.fastening.count - due.seen;
  return count > left
    ? wrong({ field: 'payload.count', given: String(count), allowed: `at most ${left}: so many are left to be seen` })
    : undefined;
};

export const seated: Kind<'seated'> = defineKind({
  id: 'seated',
  version: 1,
  payload: SeatedPayload,
  who: BENCH,
  points: { fastening: 'fastenings' },
  check({ payload: { fastening }, step }, sheet) {
    const at = find(sheet.steps, step ?? undefined);
    return at?.seats?.includes(fastening)
      ? []
      : [
          {
            field: 'payload.fastening',
            allowed: `is not seated at this step: ${at?.seats?.join(', ') ?? 'it seats none'}`,
            given: fastening,
          },
        ];
  },
  needs: [noneTooMany],
  words({ payload: { fastening: ref, count } }, sheet) {
    const fastening = find(sheet.fastenings ?? [], ref);
    return `Seen to be home: ${count} of ${fastening?.count ?? count} × ${fastening?.name ?? ref}`;
  },
  report: [
    {
      section: 'home',
      cells({ payload: { fastening: ref, count } }, sheet) {
        const fastening = find(sheet.fastenings ?? [], ref);
        return [`${count} × ${fastening?.name ?? ref}`, fastening?.seated ?? ''];
      },
    },
  ],
});
