import { type Tool, type SheetFile, scopeSheet } from '@jubb/sheet';
import { readSheetFile } from '@jubb/sheet/editing';
import type { AnyKeptEntry } from './entries/kept.js';
import { canDo, meanwhile, type Around } from './now.js';
import { jobReport } from './report/report.js';
import { jobState, stopsSigning } from './state.js';
import { countsBySide } from './strip/counts.js';
import type { JobView } from './views.js';
import { hasBegun, isBefore } from './waits.js';
import { cameOutWords, turnsWords } from './words.js';
import { readFileSync } from 'node:fs';
import { describe, expect, test } from '@jest/globals';

function library(name: string): SheetFile {
  const read = readSheetFile(readFileSync(new URL(`../../../apps/server/demo/sheets/${name}`, import.meta.url), 'utf8'));
  if (!read.ok) throw new Error(`${name} does not read`);
  return read.sheet;
}
const hub = library('harrowmere-th6-front-hub.json');

let number = 0;
const entry = (kind: string, payload: object, step: string | null = null): AnyKeptEntry => {
  number += 1;
  const at = '2027-01-08T09:00:00.000Z';
  return {
    id: `e${number}`,
    seq: number,
    kind,
    payload,
    step,
    strikes: null,
    working: null,
    takenAt: at,
    keptAt: at,
  } as unknown as AnyKeptEntry;
};
const around = (rest: Partial<Around> = {}): Around => ({
  hold: null,
  tools: [],
  role: 'mechanic',
  now: '2027-01-08T09:10:00.000Z',
  today: '2027-01-08',
  ...rest,
});
const indicator = { kind: 'dial-indicator', quantity: 'length', calibrationDue: '2027-02-01' } as Tool;

describe('what can I do now', () => {
  test('a job on hold waits for what its hold says', () => {
    const hold = { reason: 'parts', words: 'seal is on its way', since: '' } as const;
    expect(canDo(jobState(hub, []), around({ hold }))).toMatchObject({ waits: { words: 'seal is on its way (parts)' }, also: [] });
  });

  test('a tool that the crib has none of in date stops an act; one in date does not', () => {
    const found = [entry('stage', { stage: 'book-in' }), entry('finding', { text: 'rust' }, hub.steps[0]!.ref)];
    const state = jobState(hub, found);
    expect(canDo(state, around())).toMatchObject({ waits: { words: 'no dial indicator in calibration' } });
    expect(canDo(state, around({ tools: [{ ...indicator, calibrationDue: '2027-01-07' }] })).waits).not.toBeNull();
    expect(canDo(state, around({ tools: [indicator] }))).toMatchObject({ waits: null });
  });

  test('an act that is not this person’s to do says whose it is', () => {
    const state = jobState(hub, [entry('stage', { stage: 'decide' })]);
    expect(canDo(state, around({ role: 'apprentice' })).waits).toEqual({ words: 'it takes a mechanic or foreman' });
    expect(canDo(state, around()).waits).toBeNull();
  });

  test('while a clock runs, other steps that need nothing of it are offered; when it is over the act can be done', () => {
    const [first, second, ...rest] = hub.steps.filter(({ stage }) => stage === 'strip');
    const clock = entry('wait', { what: 'penetrating oil to soak', seconds: 1200 }, first!.ref);
    const said = entry('variant', { variant: 'th6', seen: 'ten studs' }, first!.ref);
    const state = jobState(hub, [entry('stage', { stage: 'strip' }), entry('tick', {}, first!.ref), said, clock]);
    expect(canDo(state, around())).toEqual({
      next: second!.title,
      waits: { words: 'penetrating oil to soak', until: '2027-01-08T09:20:00.000Z' },
      also: rest.slice(0, 3).map(({ title }) => title),
    });
    expect(canDo(state, around({ now: '2027-01-08T09:21:00.000Z' }))).toEqual({ next: second!.title, waits: null, also: [] });
  });
});

describe('the clock of a step', () => {
  const [first, second] = hub.steps.filter(({ stage }) => stage === 'strip');
  const clock = entry('wait', { what: 'penetrating oil to soak', seconds: 1200 }, first!.ref);
  const state = jobState(hub, [clock, entry('tick', {}, second!.ref)]);

  test('is begun once its own wait is, and no other', () => {
    expect(hasBegun(state, first!.ref, 'penetrating oil to soak')).toBe(true);
    expect(hasBegun(state, first!.ref, 'bearings to come to heat')).toBe(false);
    expect(hasBegun(state, second!.ref, 'penetrating oil to soak')).toBe(false);
  });

  test('does not stop the step that it runs at, nor what lies before it', () => {
    const [running] = state.clocks;
    expect(isBefore(state, running!, second!)).toBe(true);
    expect(isBefore(state, running!, first!)).toBe(false);
    expect(isBefore(state, running!, hub.steps[0]!)).toBe(false);
    expect(isBefore(state, { ...running!, step: null }, second!)).toBe(false);
  });

  test('what is done already, and what belongs to another stage, is not offered meanwhile', () => {
    const stage = entry('stage', { stage: 'strip' });
    const others = meanwhile(jobState(hub, [stage]), first, around());
    expect(others.every(({ stage: of, ref }) => of === 'strip' && ref !== first!.ref)).toBe(true);
    const done = meanwhile(jobState(hub, [stage, entry('tick', {}, 'wash')]), first, around());
    expect(done.map(({ ref }) => ref)).not.toContain('wash');
    // Nobody counts back while anything is open, nor reads with a tool that is not there.
    const built = meanwhile(jobState(hub, [entry('stage', { stage: 'build' })]), undefined, around());
    expect(built.some(({ record }) => record.kind === 'reconcile' || record.kind === 'setting')).toBe(false);
  });
});

describe('what is made necessary', () => {
  const isDue = (words: readonly string[]): boolean =>
    words.some((line) => line.startsWith('Made necessary again: Track rod off: toe checked'));

  test('stops the signature by itself only where the step that closes it is done, or not of the job', () => {
    const { file } = scopeSheet(hub, { tasks: ['steering-joints'], sides: [] });
    const off = entry('came-off', { part: 'rod-nut', name: 'nut', count: 1 }, 'rod-off');
    // Its step is open, and says so itself.
    expect(isDue(stopsSigning(jobState(file, [off])))).toBe(false);
    const [toe, again] = [entry('tick', {}, 'toe'), entry('came-off', { part: 'rod-nut', name: 'nut', count: 1 }, 'rod-off')];
    expect(isDue(stopsSigning(jobState(file, [off, toe])))).toBe(false);
    expect(isDue(stopsSigning(jobState(file, [off, toe, again])))).toBe(true);
  });

  test('the hand-over and the signature themselves do not stop the signature', () => {
    const words = stopsSigning(jobState(hub, []));
    expect(words.some((line) => line.startsWith('Hand over:'))).toBe(false);
    expect(words.some((line) => line.includes('Foreman signs'))).toBe(false);
    const mark = entry('mark', { what: 'Hub to drum', mark: 'two dots' });
    expect(stopsSigning(jobState(hub, [mark]))).toContain('Mark not met: Hub to drum, two dots');
    expect(stopsSigning(jobState(hub, [mark, entry('mark-met', { mark: mark.id })])).some((line) => line.startsWith('Mark not met'))).toBe(
      false,
    );
  });
});

describe('what is not as it will be', () => {
  test('an open end closes by hand, or with the step that it names, and what was moved must be back before the signature', () => {
    const step = hub.steps.find(({ record, opens }) => record.kind === 'tick' && !opens)!;
    const end = entry('open-end', { what: 'strap', closes: 'off', kind: 'temporary', closedBy: step.ref });
    const adjuster = entry('open-end', { what: 'brake adjuster', closes: 'set', kind: 'adjuster', turns: -2.25 });
    const belt = entry('moved', { what: 'fan belt', how: 'off', routing: 'over the idler' });
    const hose = entry('moved', { what: 'hose', how: 'aside' });
    const open = jobState(hub, [end, adjuster, belt, hose]);
    expect(open.openEnds.map(({ what, turns, entryId }) => [what, turns, entryId !== undefined])).toEqual([
      ['strap', undefined, false],
      ['brake adjuster', -2.25, true],
    ]);
    // The last one moved goes back first.
    expect(open.moved.map(({ what }) => what)).toEqual(['hose', 'fan belt']);
    expect(stopsSigning(open).join('\n')).toContain('Not back where it was: fan belt');
    const closed = jobState(hub, [
      ...[end, adjuster, belt, hose],
      entry('tick', {}, step.ref),
      entry('open-end-closed', { opened: adjuster.id }),
      entry('put-back', { moved: belt.id }),
    ]);
    expect(closed.openEnds).toEqual([]);
    expect(closed.moved.map(({ what }) => what)).toEqual(['hose']);
  });

  test('a part that was to be spoilt in coming off is proposed to be renewed', () => {
    const part = hub.parts.find(({ policy }) => policy !== 'renew')!;
    const state = jobState(hub, [entry('intent', { part: part.ref, intent: 'sacrifice' })]);
    expect(state.decisions.find((decision) => decision.part.ref === part.ref)).toMatchObject({ proposed: 'renew' });
  });
});

describe('two sides', () => {
  test('are columns of one ledger, and what differs stands out', () => {
    const { file } = scopeSheet(library('tindlebrook-sk2-steered-end.yaml'), { tasks: ['whole-end'], sides: ['left', 'right'] });
    const off = (part: string, count: number): AnyKeptEntry => entry('came-off', { part, name: part, count });
    const { ledger } = jobState(file, [off('pin-shims--left', 4), off('pin-shims--right', 3), off('joint--left', 1)]);
    expect(countsBySide(file, ['left', 'right'], ledger)).toEqual([
      { name: expect.not.stringMatching(/left|right/u), counts: [1, 0] },
      { name: expect.not.stringMatching(/left|right/u), counts: [4, 3] },
    ]);
  });
});

describe('the report', () => {
  test('says what came out, where the old parts went, and that the new ones were held against them', () => {
    const part = hub.parts[0]!;
    const entries = [
      entry('came-out', { name: 'grease', colour: 'grey', metal: 'fine dust' }),
      entry('old-part', { part: part.ref, name: part.name, fate: 'hold', compared: false }),
      entry('old-part', { part: part.ref, name: part.name, fate: 'return', compared: true }),
    ];
    const view = {
      sheet: { file: hub, revision: 1, notOpened: [] },
      entries,
      people: [],
      tools: [],
      scope: null,
      ...{ customer: { name: 'C' }, machine: { name: 'M', serial: '1' }, unit: { name: 'U', serial: '2' }, bookedAt: '', complaint: '' },
    } as unknown as JobView;
    const { sections } = jobReport(view, { at: (iso) => iso, day: (iso) => iso });
    const rows = (title: string) => sections.find((section) => section.title === title)?.table?.rows.map(({ cells }) => cells);
    expect(rows('As found')?.[0]?.[0]).toBe('Came out: grease, grey, metal: fine dust');
    expect(rows('Old parts')).toEqual([[part.name, 'given back', 'held against the new one']]);
  });
});

describe('words', () => {
  test.each([
    [-2.25, '2¼ turns out'],
    [0.5, '½ turns in'],
    [1, '1 turn in'],
    [-3.1, '3.1 turns out'],
  ])('%s turns', (turns, words) => expect(turnsWords(turns)).toBe(words));

  test('a fluid that came out', () =>
    expect(cameOutWords({ name: 'gear oil', litres: 2.1, colour: 'dark', metal: 'flakes' })).toBe(
      'Came out: gear oil, 2.1 L, dark, metal: flakes',
    ));
});
