import { describe, expect, test } from '@jest/globals';
import { find, scopeSheet, type SheetFile } from '@jubb/sheet';
import { book, demoSheet, refused, type BookLine } from './book.test-kit.js';
import { jobState, stopsSigning } from './state.js';
import type { StepState } from './steps/define-step.js';

const pump = demoSheet('tindlebrook-ac2-air-compressor');
const AT = 'rings-and-pistons-on';
const on: BookLine = { kind: 'tick', step: AT, payload: {} };
const home = (count: number): BookLine => ({ kind: 'seated', step: AT, payload: { fastening: 'pin-clips', count } });
const lies: BookLine = { kind: 'way-round', step: AT, payload: { part: 'pistons', lies: 'arrow front' } };
const at = (sheet: SheetFile, step: string, ...lines: readonly BookLine[]): StepState =>
  jobState(sheet, book(sheet, ...lines)).steps.find((one) => one.step.ref === step)!;
const due = (...lines: readonly BookLine[]) => at(pump, AT, ...lines).looks?.map(({ what }) => what);

describe('what is seen to be home', () => {
  test('is asked once the step is done; three of four keep it open, the fourth closes it', () => {
    expect([at(pump, AT).looks, at(pump, AT).done]).toEqual([undefined, false]);
    expect(due(on)).toEqual(['seated', 'way-round']);
    expect(at(pump, AT, on, lies, home(3))).toMatchObject({ done: false, problem: '1 × Pin clips not seen to be home' });
    expect(stopsSigning(jobState(pump, book(pump, on, lies, home(3)))).some((stop) => stop.includes('1 × Pin clips'))).toBe(true);
    expect(at(pump, AT, on, lies, home(3), home(1))).toMatchObject({ done: true });
  });

  test('none is seen before it is in, none more than there are, and none at a step that does not seat it', () => {
    expect(refused(pump, home(1))).toMatch(/not done yet/u);
    expect(refused(pump, home(2), on, home(3))).toBe('at most 1: so many are left to be seen');
    expect(refused(pump, home(1), on, home(3))).toBeUndefined();
    expect(refused(pump, lies, on, lies)).toMatch(/not asked of it at this step, or was seen already/u);
  });

  test('what was struck, done anew, or came off again is looked at anew', () => {
    const whole = [on, lies, home(4)];
    expect(due(...whole)).toBeUndefined();
    expect(due(...whole, on)).toEqual(['seated', 'way-round']);
    expect(due(...whole, { kind: 'came-off', payload: { part: 'pin-clips', name: 'Pin clips', count: 1 } })).toEqual([
      'seated',
      'way-round',
    ]);
    const entries = book(pump, ...whole);
    const strike = { id: 'strike', kind: 'strike', payload: { reason: 'not looked' }, strikes: entries[2]!.id, step: null } as never;
    expect(
      jobState(pump, [...entries, strike])
        .steps.find(({ step }) => step.ref === AT)
        ?.looks?.map(({ what }) => what),
    ).toEqual(['seated']);
  });

  test('rings and clips that hold but once are here new before their step', () => {
    expect(refused(pump, on)).toBe('takes Pin clips, new each time: say first that the new ones are here');
    expect(
      refused(
        pump,
        on,
        { kind: 'replacement-here', step: AT, payload: { seen: 'four in a bag', part: 'pin-clips', count: 4 } },
        { kind: 'replacement-here', step: AT, payload: { seen: 'two sets', part: 'rings', count: 2 } },
      ),
    ).toBeUndefined();
  });
});

describe('marks and directions', () => {
  test('a mark falls due by name where its part goes in, and where nothing else puts it in, before the signature', () => {
    const off: BookLine = {
      kind: 'came-off',
      step: 'pistons-off',
      payload: { part: 'pistons', name: 'Pistons', count: 2, mark: 'number of its cylinder' },
    };
    const open = at(pump, AT, off, on, lies, home(4));
    expect(open.looks).toMatchObject([{ what: 'mark', mark: { what: 'Pistons', mark: 'number of its cylinder' } }]);
    const met: BookLine = { kind: 'mark-met', step: AT, payload: { mark: 'entry 0' } };
    expect(at(pump, AT, off, on, lies, home(4), met)).toMatchObject({ done: true });
  });
});

describe('what a step expects', () => {
  const unit = demoSheet('quennet-ga-alternator');
  const step = find(unit.steps, 'slip-rings-dressed')!;
  const done: BookLine = { kind: 'tick', step: step.ref, payload: {} };
  const said = (so: boolean, instead?: string): BookLine => ({
    kind: 'as-expected',
    step: step.ref,
    payload: { so, ...(instead === undefined ? {} : { instead }) },
  });
  const looks = (...lines: readonly BookLine[]) => at(unit, step.ref, done, ...lines).looks?.filter(({ what }) => what === 'expected');

  test('is asked after it; not so keeps it open with what it was like, until it is so', () => {
    expect(looks()).toEqual([{ what: 'expected', expect: step.expect }]);
    expect(looks(said(false, 'a groove is left'))).toEqual([{ what: 'expected', expect: step.expect, notSo: 'a groove is left' }]);
    expect(at(unit, step.ref, done, said(false, 'a groove is left')).problem).toContain('not as expected: a groove is left');
    expect(at(unit, step.ref, done, said(false, 'a groove is left'), said(true))).toMatchObject({ done: true });
    expect(looks(said(false, 'a groove is left'), said(true)) ?? []).toEqual([]);
  });

  test('is not answered before, nor where nothing is expected', () => {
    expect(refused(unit, said(true))).toMatch(/not done yet/u);
    expect(refused(unit, said(true), done, said(true))).toMatch(/said to be as expected already/u);
  });
});

describe('which one it is', () => {
  const hub = demoSheet('harrowmere-ut9-trailer-hub');
  const booked = scopeSheet(hub, { variant: 'ut9-5' }).file;
  const step = find(booked.steps, 'cap-off')!;
  const off = step.record.counts!.map((counted): BookLine => {
    const { part, count } = counted;
    return { kind: 'came-off', step: step.ref, payload: { part, count, name: part, tray: '1' } };
  });
  const said = (variant: string): BookLine => ({ kind: 'variant', step: step.ref, payload: { variant, seen: 'wheel studs 6' } });

  test('is asked at the step where it shows, whatever it was booked in as; another answer makes the sheet that of another one', () => {
    expect(at(booked, step.ref, ...off)).toMatchObject({ done: false, problem: 'not said which one it is' });
    const [look] = at(booked, step.ref, ...off).looks!;
    expect(look).toMatchObject({
      what: 'which',
      variants: [{ ref: 'ut9-5', seen: 'bolt head 46 mm · studs 5 · ring colour green · kept by itself alone' }, {}, {}, {}],
    });
    const state = jobState(booked, book(booked, ...off, said('ut9-6')));
    expect(state.variant).toMatchObject({ by: 'found', variant: { ref: 'ut9-6' } });
    expect(find(state.sheet.joints, 'wheel-nuts')!.count).toBe(6);
    expect(at(booked, step.ref, ...off, said('ut9-5'))).toMatchObject({ done: true });
  });

  test('is no work at the step: what was looked at there before is not asked anew', () => {
    const steps = booked.steps.map((one) => (one.ref === step.ref ? { ...one, expect: 'It comes with a pull' } : one));
    const so: BookLine = { kind: 'as-expected', step: step.ref, payload: { so: true } };
    expect(at({ ...booked, steps }, step.ref, ...off, so, said('ut9-5'))).toMatchObject({ done: true });
  });

  test('is not asked where somebody found it out before, nor of a sheet that knows but one', () => {
    expect(at(booked, step.ref, { kind: 'variant', payload: { variant: 'ut9-5', seen: 'plate' } }, ...off).looks).toBeUndefined();
    expect(at({ ...booked, variants: booked.variants!.slice(0, 1) }, step.ref, ...off).looks).toBeUndefined();
  });
});
