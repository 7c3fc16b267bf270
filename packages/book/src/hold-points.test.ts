import { describe, expect, test } from '@jest/globals';
import type { SheetFile } from '@jubb/sheet';
import { book, demoSheet, type BookLine } from './book.test-kit.js';
import { checkOnJob, guardOf } from './entries/check.js';
import type { AnyKeptEntry } from './entries/kept.js';
import type { Given, Refusal } from './kinds/define-kind.js';
import { kindOf } from './kinds/registry.js';
import { jobState, stopsSigning } from './state.js';

const pump = demoSheet('tindlebrook-ac2-air-compressor');
const AT = 'bled-and-locked';
const WORK: readonly BookLine[] = [{ kind: 'tick', step: AT, payload: {} }];
const seen: BookLine = { kind: 'hold-met', step: AT, payload: { seen: 'gauge at nothing, lock on' } };
/** The entries of lines by one person after another: "ilka" where nobody is named. */
function by(sheet: SheetFile, ...lines: readonly (BookLine & { readonly person?: string })[]): AnyKeptEntry[] {
  return book(sheet, ...lines).map((entry, at) => ({ ...entry, personId: lines[at]!.person ?? 'ilka' }));
}
const stand = (entries: readonly AnyKeptEntry[], sheet = pump) => jobState(sheet, entries).steps.find(({ step }) => step.ref === AT)!;
const given = ({ kind, payload, step }: BookLine): Given => ({
  id: 'new',
  kind,
  payload: payload as never,
  step: step ?? null,
  strikes: null,
  takenAt: '2026-11-29T08:00:00.000Z',
});
const said = (refusal: Refusal | undefined): string | undefined => refusal && (refusal.detail ?? refusal.errors[0]?.allowed);
const post = (line: BookLine, entries: readonly AnyKeptEntry[], role: 'foreman' | 'mechanic', personId: string, sheet = pump) =>
  said(checkOnJob([given(line)], entries, sheet, { role, personId }));
const next: BookLine = { kind: 'tick', step: 'off-its-bed', payload: {} };

/** The same sheet with another who looks there. */
function heldBy(who: 'foreman' | 'second person' | 'certified person' | 'customer'): SheetFile {
  const steps = pump.steps.map((step) => (step.ref === AT ? { ...step, holdPoint: { who, what: 'looks at it' } } : step));
  return { ...pump, steps };
}

describe('a hold point', () => {
  test('is due once its step is done, and the step is not done until somebody looked', () => {
    expect(stand([])).toMatchObject({ done: false });
    expect(stand([]).holds).toBeUndefined();
    const open = stand(by(pump, ...WORK));
    expect(open).toMatchObject({ done: false, problem: 'waits until the second person reads the gauge and the lock' });
    expect(stopsSigning(jobState(pump, by(pump, ...WORK))).some((stop) => stop.includes('waits until the second person'))).toBe(true);
    expect(stand(by(pump, ...WORK, { ...seen, person: 'oswin' }))).toMatchObject({ done: true });
  });

  test('struck, or with something done at its step since, it waits again; a photo is no work', () => {
    const met = by(pump, ...WORK, { ...seen, person: 'oswin' });
    const strike = { id: 'strike', kind: 'strike', payload: { reason: 'not meant' }, strikes: met.at(-1)!.id, step: null } as never;
    expect(stand([...met, strike]).holds).toBeDefined();
    expect(stand(by(pump, ...WORK, { ...seen, person: 'oswin' }, WORK[0]!)).holds).toBeDefined();
    expect(stand(by(pump, ...WORK, { ...seen, person: 'oswin' }, { kind: 'note', step: AT, payload: { text: 'a photo' } })).done).toBe(
      true,
    );
  });

  test('what comes after it waits, for every client; what comes before it does not, nor a note', () => {
    const entries = by(pump, ...WORK);
    expect(post(next, entries, 'mechanic', 'ilka')).toBe(
      'waits: at “Bled and locked” the second person reads the gauge and the lock first',
    );
    expect(post(next, by(pump, ...WORK, { ...seen, person: 'oswin' }), 'mechanic', 'ilka')).toBeUndefined();
    expect(post({ ...next, step: 'leak-back' }, entries, 'mechanic', 'ilka')).toBeUndefined();
    expect(post({ kind: 'note', step: 'off-its-bed', payload: { text: 'later' } }, entries, 'mechanic', 'ilka')).toBeUndefined();
    // The whole job is looked at before something after a hold point is kept; before it, nothing is.
    const draft = (step: string) => [{ id: 'a', kind: 'tick', payload: {}, step, takenAt: '' }] as never;
    expect([guardOf(draft('off-its-bed'), pump), guardOf(draft('leak-back'), pump)]).toEqual(['all', undefined]);
  });

  test.each([
    ['foreman', 'mechanic', 'bram', 'It takes the foreman: looks at it'],
    ['foreman', 'foreman', 'oswin', undefined],
    ['second person', 'mechanic', 'ilka', 'is looked at by somebody else than who did it: looks at it'],
    ['second person', 'mechanic', 'bram', undefined],
    ['second person', 'foreman', 'ilka', 'is looked at by somebody else than who did it: looks at it'],
    ['certified person', 'mechanic', 'ilka', 'is looked at by somebody else than who did it: looks at it'],
    ['customer', 'mechanic', 'ilka', undefined],
  ] as const)('of the %s, by a %s %s: %s', (who, role, personId, refusal) => {
    const sheet = heldBy(who);
    expect(post(seen, by(sheet, ...WORK), role, personId, sheet)).toBe(refusal);
  });

  test('before the work is done there is nothing to be seen', () => {
    expect(post(seen, [], 'foreman', 'oswin')).toBe('is not done yet, or looked at already');
    expect(post(seen, by(pump, ...WORK, { ...seen, person: 'oswin' }), 'foreman', 'oswin')).toBe('is not done yet, or looked at already');
  });

  test.each([
    ['customer', {}, 'payload.customer'],
    ['customer', { customer: 'Perla’s neighbour' }, undefined],
    ['certified person', {}, 'payload.certificate'],
    ['certified person', { certificate: 'RC 0417' }, undefined],
    ['second person', {}, undefined],
  ] as const)('of the %s with %j', (who, more, field) => {
    const wrongs = kindOf('hold-met').check!({ ...given(seen), payload: { seen: 'good', ...more } } as never, heldBy(who));
    expect(wrongs.map((wrong) => wrong.field)).toEqual(field ? [field] : []);
  });

  test('is no kind of entry where the step has none', () => {
    const wrongs = kindOf('hold-met').check!(given({ ...seen, step: 'off-its-bed' }) as never, pump);
    expect(wrongs).toEqual([{ field: 'step', given: 'off-its-bed', allowed: 'has no hold point' }]);
  });
});
