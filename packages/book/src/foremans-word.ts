import type { Fate, Part } from '@jubb/sheet';

/** Whether a part goes back, or is reworked, on the foreman's word alone: the sheet renews it each time. */
export function isForemansWord({ policy }: Pick<Part, 'policy'>, fate: Fate): boolean {
  return policy === 'renew' && fate !== 'renew';
}
