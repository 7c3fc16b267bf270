import { type RecordKind, ROLES, type Role, type Stage } from '@jubb/sheet';
import type { EntryKind } from './entries/entry.js';

const BENCH: readonly Role[] = ['mechanic', 'foreman', 'apprentice'];
const TRUSTED: readonly Role[] = ['mechanic', 'foreman', 'counter'];
const WRITERS: readonly Role[] = ['mechanic', 'foreman'];

/** Kinds of entry that not everyone may make. */
const ENTRY_ACCESS: Partial<Record<EntryKind, readonly Role[]>> = {
  decision: WRITERS,
  answered: TRUSTED,
  nut: BENCH,
  pull: BENCH,
  'end-play': BENCH,
  accepted: ['foreman'],
  pattern: BENCH,
  'gear-moved': BENCH,
  'went-in': BENCH,
  fitted: BENCH,
  'value-taken': WRITERS,
  'value-found': WRITERS,
  pinned: WRITERS,
  sign: ['foreman'],
  'handed-over': TRUSTED,
};

export function mayMake(kind: EntryKind, role: Role): boolean {
  return rolesFor(kind).includes(role);
}

export function rolesFor(kind: EntryKind): readonly Role[] {
  return ENTRY_ACCESS[kind] ?? ROLES;
}

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

/** The entry that a step ends in, where it is one that not everyone may make. */
export const ENDS_IN: Partial<Record<RecordKind, EntryKind>> = {
  decide: 'decision',
  setting: 'end-play',
  pattern: 'pattern',
  proof: 'end-play',
  torque: 'pull',
  fit: 'fitted',
  sign: 'sign',
  'hand-over': 'handed-over',
};
