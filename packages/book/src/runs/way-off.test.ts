import { expect, test } from '@jest/globals';
import { find, scopeSheet, type Tool } from '@jubb/sheet';
import { book, demoSheet, type BookLine } from '../book.test-kit.js';
import { checkEntry, checkOnJob } from '../entries/check.js';
import { jobState } from '../state.js';
import { pressCrib, presetForOff, wayOff, type Intents } from './way-off.js';

const blower = scopeSheet(demoSheet('quennet-bn2-blower-drive'), { tasks: ['whole-nose'], variant: 'bn2-p' }).file;
const hub = find(blower.steps, 'hub-pulled')!;
const shaft = find(blower.steps, 'shaft-and-bearings-out')!;
const nobody: Intents = new Map();
const fitOf = (ref: string) => find(blower.fits!, ref)!;
const output = (ref: string, crib = pressCrib([]), intents = nobody): Readonly<Record<string, unknown>> => {
  const way = wayOff(blower, fitOf(ref), intents, crib);
  if (!('used' in way)) throw new Error(way.issues[0]?.words);
  return way.used.output;
};
const given = (line: BookLine) =>
  ({ id: 'new', strikes: null, takenAt: '2026-11-29T08:00:00.000Z', ...line, step: line.step ?? null }) as never;
const onJob = (line: BookLine, ...before: readonly BookLine[]): string =>
  checkOnJob([given(line)], book(blower, ...before), blower, { role: 'mechanic', personId: 'ilka' })?.errors[0]?.allowed ?? '';
const off = (part: string): BookLine => ({
  kind: 'came-off',
  step: hub.ref,
  payload: { part, name: part, count: find(blower.parts, part)!.quantity },
});
const intent = (word: string): BookLine => ({ kind: 'intent', step: hub.ref, payload: { part: 'hub', intent: word } });
const counted = [off('coupling'), off('coupling-pins'), off('hub')];
const apart = (more: object = {}): BookLine => ({ kind: 'let-go', step: hub.ref, payload: { fit: 'hub-on-shaft', by: 'puller', ...more } });

test('the result names ring, pipe and push, adds what lets go with it, and refuses a press that is too small', () => {
  const rear = Number(output('rear-on-shaft')['force']);
  const alone = wayOff(blower, { ...fitOf('shaft-in-front'), off: { passes: '25 mm', way: '96 mm' } }, nobody);
  const own = 'used' in alone ? Number(alone.used.output['force']) : 0;
  expect(output('shaft-in-front')['force']).toBeCloseTo(own + rear, -1);
  expect(output('shaft-in-front')['what']).toMatch(/carry the inner ring, push the shaft through/iu);
  const tube = (length: number | null): Tool =>
    ({ tag: 'H2', name: 'Tube 26 × 31', kind: 'tube', low: 26, high: 31, length }) as unknown as Tool;
  expect(output('shaft-in-front', pressCrib([tube(120)]))['which']).toBe('H2 Tube 26 × 31');
  // One that is shorter than the shaft, or of which nobody knows, stands under nothing.
  for (const length of [60, null]) expect(output('shaft-in-front', pressCrib([tube(length)]))['which']).toMatch(/^none of the crib/u);
  const small = pressCrib([{ kind: 'press', high: 5000 } as unknown as Tool]);
  expect(() => output('shaft-in-front', small)).toThrow(/The press has: "5 kN" is too small/u);
});

test('what is renewed may be spoilt; of the rest it is asked first, and it picks the way', () => {
  expect(presetForOff(blower, fitOf('shaft-in-front'), nobody)).toMatchObject({ fate: 'spoil', ring: 'inner ring' });
  expect(presetForOff(blower, fitOf('front-in-nose'), nobody)).toMatchObject({ outerOf: 'aluminium', heatMost: '100 °C' });
  expect(onJob(counted[0]!)).toBe('takes the Pressed hub of the coupling off its seat: say first whether it is kept or may be spoilt');
  expect(onJob(counted[0]!, intent('keep'))).not.toMatch(/say first/u);
  expect(onJob({ ...counted[0]!, step: shaft.ref })).not.toMatch(/say first/u);
  expect(output('hub-on-shaft', pressCrib([]), new Map([['hub', 'keep']]))['what']).toBe('Carry the part, push the shaft through.');
  expect(output('hub-on-shaft', pressCrib([]), new Map([['hub', 'sacrifice']]))['what']).toMatch(/crack it/u);
});

test('its step waits until it is said how it came apart; what is kept was not cut, and what took too much has a reason', () => {
  const at = (...lines: readonly BookLine[]) => jobState(blower, book(blower, ...lines)).steps.find(({ step }) => step.ref === hub.ref)!;
  expect(at(intent('keep'), ...counted)).toMatchObject({ done: false, problem: 'not said how it came apart: Hub on the shaft' });
  expect(at(intent('keep'), ...counted, apart())).toMatchObject({ done: true });
  expect(onJob(apart(), intent('keep'))).toMatch(/does not come apart at this step, or was said already/u);
  expect(onJob(apart({ by: 'cut' }), intent('keep'), ...counted)).toMatch(/is for what may be spoilt; the pressed hub .* is to be kept/u);
  expect(onJob(apart({ by: 'cut' }), intent('sacrifice'), ...counted)).toBe('');
  const stop = Number(output('hub-on-shaft')['stop']);
  const refused = (payload: object): string => {
    const by = { sheet: blower, tools: new Map(), role: 'mechanic', now: Date.parse('2026-11-29T09:00:00.000Z') } as const;
    const refusal = checkEntry({ ...(given(apart(payload)) as object), strikes: undefined } as never, by);
    return refusal?.errors.map(({ allowed }) => allowed).join() ?? '';
  };
  expect(refused({ force: stop * 0.9 })).toBe('');
  expect(refused({ force: stop * 1.1 })).toMatch(/is where one stops and looks; say what held it/u);
  expect(refused({ force: stop * 1.1, note: 'fretted, rust in the seat' })).toBe('');
});
