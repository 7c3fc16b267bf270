import { ROLES, type Role, type Stage } from '@jubb/sheet';

export const BENCH: readonly Role[] = ['mechanic', 'foreman', 'apprentice'];
export const TRUSTED: readonly Role[] = ['mechanic', 'foreman', 'counter'];
export const WRITERS: readonly Role[] = ['mechanic', 'foreman'];

/** Who takes a job into a stage: whoever works in it; into the building, who may decide what is renewed. */
const STAGE_ACCESS: Readonly<Record<Stage, readonly Role[]>> = {
  'book-in': ROLES,
  strip: BENCH,
  measure: BENCH,
  decide: BENCH,
  build: WRITERS,
  prove: BENCH,
  'hand-over': ROLES,
};

/** Who it takes to bring a job into a stage; undefined for whoever may. */
export function stageTakes(stage: Stage, role: Role): string | undefined {
  return STAGE_ACCESS[stage].includes(role) ? undefined : `it takes a ${STAGE_ACCESS[stage].join(' or ')}`;
}
