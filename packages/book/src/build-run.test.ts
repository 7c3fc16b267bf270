import { find, type Setting, type SheetFile } from '@jubb/sheet';
import { book, demoSheet, putIn, type BookLine } from './book.test-kit.js';
import { buildSteps, earlySteps } from './build-list.js';
import { workOut } from './measured/measured.js';
import { newMissing } from './parts/new-first.js';
import { earlierOf, spread } from './runs/earlier.js';
import { FIT_MEASURED, FIT_WAYS, driverWords, fitWindow, presetForFit } from './runs/fit-run.js';
import { settingRun } from './runs/setting-run.js';
import { heldBy, waitsBegun } from './waits.js';
import { jobState, type JobState } from './state.js';
import { forerunners } from './strip/traps.js';
import { describe, expect, test } from '@jest/globals';

const axle = demoSheet('ostrel-d44-drive-axle');
const blower = demoSheet('quennet-bn2-blower-drive');
const hub = demoSheet('askvale-ph80-planetary-hub');
const shaft = demoSheet('ostrel-ps2-propeller-shaft');

/** A window as a sheet has it, of mm. */
const span = ({ from, to }: { from: number; to: number }): Setting['window'] => ({
  from: `${from} mm`,
  to: `${to} mm`,
  trust: 'shop',
  source: 'shop',
});
const CASTLE = {
  nut: {
    thread: 'M24x1.5',
    pitch: '1.5 mm',
    slots: 6,
    openings: [0, 90],
    seat: { figure: '50 N·m', trust: 'shop', source: 'shop' },
    backOff: '40°',
  },
} as const;

const stateOf = (sheet: SheetFile, ...lines: readonly BookLine[]): JobState => jobState(sheet, book(sheet, ...lines));
const stepOf = (sheet: SheetFile, ref: string): SheetFile['steps'][number] => find(sheet.steps, ref)!;
const off = (part: string, rest: object = {}): BookLine => ({ kind: 'came-off', payload: { part, name: part, count: 1, ...rest } });

describe('the steps of the build and the ledger as one list', () => {
  const stripped = [off('pulley'), off('pulley-screw'), off('nose'), off('my own clip'), off('front-bearing')];

  test('a line stands at the step that puts it in; one that no step names goes in before the next one that is', () => {
    const { steps, build } = stateOf(blower, ...stripped);
    const at = new Map(buildSteps(blower, steps, build).map(({ state, lines }) => [state?.step.ref, lines.map(({ name }) => name)]));
    expect(at.get('bearings-in')).toEqual(['front-bearing']);
    expect(at.get('nose-on')).toEqual(['my own clip', 'nose']);
    expect(at.get('pulley-on')).toEqual(['pulley-screw', 'pulley']);
    expect([...at.values()].flat()).toHaveLength(stripped.length);
  });

  test('what cannot go in later is called out ahead, and stands before what bars its way', () => {
    const state = stateOf(blower);
    expect(earlySteps(state.steps).map(({ step, before }) => [step.ref, before.ref])).toEqual([['ring-in-the-nose', 'shaft-in']]);
    expect(forerunners(state, stepOf(blower, 'shaft-in'))).toContainEqual(
      expect.objectContaining({ step: 'ring-in-the-nose', why: expect.stringContaining('any more') }),
    );
    expect(earlySteps(stateOf(blower, { kind: 'tick', payload: {}, step: 'ring-in-the-nose' }).steps)).toEqual([]);
  });

  test('screws of two joints go in each at its own', () => {
    const { steps, build } = stateOf(
      shaft,
      off('flange-screws', { count: 4, joint: 'flange-rear' }),
      off('flange-screws', { count: 4, joint: 'flange-front' }),
    );
    const at = new Map(buildSteps(shaft, steps, build).map(({ state, lines }) => [state?.step.ref, lines.map(({ joint }) => joint)]));
    expect([at.get('on-the-machine'), at.get('rear-flange-on')]).toEqual([['flange-front'], ['flange-rear']]);
  });
});

describe('clocks', () => {
  const cover = (...more: readonly BookLine[]): JobState =>
    stateOf(axle, { kind: 'old-seal-out', payload: { seal: 'cover-joint', whole: true }, step: 'cover-on' }, ...more);
  const laid: BookLine = {
    kind: 'seal-fitted',
    payload: { seal: 'cover-joint', directionSeen: true, lubricated: true, depths: [], unit: 'mm' },
    step: 'cover-on',
  };

  test('begin with the entry that does their step, once', () => {
    // What the cover hides was read.
    const backlash = { setting: 'backlash', moment: 'locked', readings: [0.15, 0.16, 0.15, 0.16], unit: 'mm' };
    const read: BookLine = { kind: 'end-play', payload: backlash, step: 'backlash-set' };
    const begun = waitsBegun(cover(read), () => cover(read, laid));
    expect(begun).toEqual([{ kind: 'wait', payload: { what: 'sealant to skin', seconds: 600 }, step: 'cover-on' }]);
    expect(waitsBegun(cover(read, laid), () => cover(read, laid))).toEqual([]);
    expect(waitsBegun(cover(read, ...begun), () => cover(read, ...begun, laid))).toEqual([]);
  });

  test('hold back the step that comes after', () => {
    const state = cover(laid, { kind: 'wait', payload: { what: 'sealant to skin', seconds: 600 }, step: 'cover-on' });
    expect(heldBy(state, state.clocks[0]!)?.ref).toBe('cover-screws-tight');
  });
});

test('screws that are new each time are seen before they are pulled, and not before they are loosened', () => {
  expect(newMissing(shaft, stepOf(shaft, 'on-the-machine'), [])).toMatchObject({ why: 'new each time', of: { ref: 'flange-front' } });
  expect(newMissing(axle, stepOf(axle, 'caps-on'), [])).toBeUndefined();
  expect(newMissing(shaft, { ...stepOf(shaft, 'on-the-machine'), stage: 'strip' }, [])).toBeUndefined();
});

describe('settings by their act', () => {
  // Read again when it is closed: what closes it is another matter.
  const { proof: _, ...rolling } = hub.settings.find(({ method }) => method === 'locknut')!;
  const read = (moment: string, nm: number, rest: object = {}): BookLine => ({
    kind: 'end-play',
    payload: { setting: rolling.ref, moment, readings: [nm, nm, nm], unit: 'N·m', ...rest },
  });
  const locked: BookLine = { kind: 'nut', payload: { setting: rolling.ref, act: 'locked', angle: 0 } };
  const run = (...lines: readonly BookLine[]): ReturnType<typeof settingRun> => settingRun(rolling, book(hub, ...lines));

  test('a locknut is read before and after; what it changed is what the next try makes up for', () => {
    expect(run().phase).toBe('read');
    expect(run(read('now', 8)).phase).toBe('act');
    expect(run(read('now', 8), locked).phase).toBe('read-locked');
    const out = run(read('now', 8), locked, read('locked', 11));
    // Wanted 6 to 10 N·m, so 8; the lock added 3.
    expect([out.phase, out.readFirst]).toEqual(['read', 5]);
    const set = run(read('now', 8), locked, read('locked', 11), read('now', 5), locked, read('locked', 8));
    expect(set.phase).toBe('set');
    expect(set.tries.map(({ before }) => before)).toEqual(['set, not locked yet', 'locked', 'set, not locked yet', 'locked']);
  });

  test('used bearings have their own window, said with the reading', () => {
    expect(run(read('locked', 4)).tries[0]?.verdict).toBe('out');
    expect(run(read('locked', 4, { bearings: 'used' }))).toMatchObject({ phase: 'set', bearings: 'used', window: { from: 3, to: 5 } });
  });

  test('an unsure reading stands where the foreman accepts it, until it is set or read anew; one that is out, or in, does not', () => {
    const accepted: BookLine = { kind: 'accepted', payload: { setting: rolling.ref, why: 'no finer tool here' } };
    // At the end of the window nobody knows on which side it is.
    const scatter = { readings: [9.6, 10.4, 10] };
    const edge = [read('locked', 10, scatter), accepted];
    expect(run(edge[0]!).tries[0]?.verdict).toBe('unsure');
    expect(run(...edge)).toMatchObject({ phase: 'set', tries: [{ verdict: 'unsure', accepted: 'no finer tool here' }] });
    expect(run(...edge, locked).phase).toBe('read-locked');
    expect(run(...edge, read('proved', 10, scatter)).proved?.accepted).toBeUndefined();
    expect(run(...edge, read('proved', 10, scatter), accepted).proved?.accepted).toBe('no finer tool here');
    expect(run(read('locked', 13), accepted)).toMatchObject({ phase: 'read' });
    expect(run(read('now', 10, scatter), accepted).phase).toBe('act');
    expect(run(read('locked', 8), accepted).tries[0]?.accepted).toBeUndefined();
  });

  test('bearings that are kept are used ones without being asked', () => {
    const kept = ['outer-bearing', 'inner-bearing'].map((part): BookLine => ({
      kind: 'decision',
      payload: { part, fate: 'reuse', quantity: 1 },
    }));
    const bearings = (...lines: readonly BookLine[]): string | undefined =>
      stateOf(hub, ...lines).settings.find(({ setting }) => setting.ref === rolling.ref)?.bearings;
    expect([
      bearings(...kept),
      bearings(kept[0]!, { kind: 'decision', payload: { part: 'inner-bearing', fate: 'renew', quantity: 1 } }),
    ]).toEqual(['used', 'new']);
  });

  test('a reading as found sets nothing in the build', () => {
    const depth = blower.settings[0]!;
    const at = (step: string): BookLine => ({
      kind: 'end-play',
      payload: { setting: depth.ref, moment: 'locked', readings: [62, 62, 62], unit: 'mm' },
      step,
    });
    const asFound = blower.steps.find(({ stage, record }) => stage === 'strip' && record.setting === depth.ref)!.ref;
    const done = (state: JobState, ref: string): boolean | undefined => state.steps.find(({ step }) => step.ref === ref)?.done;
    const found = stateOf(blower, at(asFound));
    expect([done(found, asFound), done(found, 'hub-set'), found.settings[0]?.phase]).toEqual([true, false, 'act']);
    expect(done(stateOf(blower, at(asFound), at('hub-set')), 'hub-set')).toBe(true);
  });
});

describe('fits', () => {
  /** ISO 286-2, 80 mm: P7 −51 to −21 µm, h6 −19 to 0; from memory. */
  test('two zones are the window of the interference', () => {
    const { from, to } = fitWindow(find(axle.fits!, 'head-cup')!)!;
    expect([from, to].map((mm) => Math.round(mm * 1000))).toEqual([2, 51]);
  });

  test('the force goes through the ring that is fitted', () => {
    expect(driverWords(find(axle.fits!, 'head-bearing')!)).toContain('inner ring only: bore over 30.5 mm');
    expect(driverWords(find(axle.fits!, 'head-cup')!)).toContain('outer ring only: 71.5 mm');
  });

  test('its workings begin from the sheet and from what was measured, and then have an answer', () => {
    const measured: BookLine = {
      kind: 'worked',
      payload: {
        working: 'fit.measured',
        input: { shaft: 30.015, bore: 30, wanted: 'figures', from: 0.004, to: 0.03 },
        fit: 'head-bearing',
      },
    };
    const [cups, , head] = stateOf(axle, measured).fits;
    expect(presetForFit(FIT_MEASURED, cups!, 20)).toEqual({ wanted: 'zones', nominal: '72 mm', holeZone: 'P7', shaftZone: 'h6' });
    expect(presetForFit(FIT_MEASURED, head!, 20)).toMatchObject({ wanted: 'figures', from: '0.004 mm', to: '0.03 mm' });
    const heat = workOut(FIT_WAYS.heat, presetForFit(FIT_WAYS.heat, head!, 20));
    // 15 µm and as much to slide of 30 mm: 30 µm over 11.5e-6 · 30 mm are 87 K.
    expect('used' in heat && Math.round(Number(heat.used.output['temperature']))).toBe(107);
    expect('used' in workOut(FIT_WAYS.press, presetForFit(FIT_WAYS.press, head!, 20))).toBe(true);
    const tubes = [{ name: 'tube 31 × 38', inside: 31, outside: 38, length: 80 }];
    const tube = workOut(FIT_WAYS.hand, { ...presetForFit(FIT_WAYS.hand, head!, 20), outside: '72 mm', tubes });
    expect('used' in tube && tube.used.output['which']).toBe('tube 31 × 38');
    expect(presetForFit(FIT_WAYS.hand, cups!, 20)).toEqual({ into: 'housing', outside: '72 mm' });
  });

  test('a new measurement begins it anew', () => {
    const measured: BookLine = {
      kind: 'worked',
      payload: {
        working: 'fit.measured',
        input: { shaft: 30.015, bore: 30, wanted: 'figures', from: 0.004, to: 0.03 },
        fit: 'head-bearing',
      },
    };
    const home: BookLine = { kind: 'fitted', payload: { fit: 'head-bearing', by: 'heat', driver: 'tube', home: 'feeler' } };
    const run = (...lines: readonly BookLine[]): JobState['fits'][number] | undefined =>
      stateOf(axle, ...lines).fits.find(({ fit }) => fit.ref === 'head-bearing');
    expect(run(measured, home)).toMatchObject({ verdict: 'in', fitted: { payload: { by: 'heat' } } });
    expect(run(measured, home, measured)?.fitted).toBeUndefined();
  });
});

describe('what earlier jobs came to', () => {
  test('a nut by the turns since it was seated, each side of a job for itself; a pack by what was put in', () => {
    const ends = { from: 0.03, to: 0.13 };
    const nut = {
      ...hub.settings[0]!,
      ref: 'hub-end-play',
      kind: 'end-play',
      method: 'castle-nut',
      window: span(ends),
      ...CASTLE,
    } as unknown as Setting;
    const shims = { ...hub.settings[0]!, ref: 'gap', kind: 'air-gap', method: 'shims', window: span({ from: 0.4, to: 0.7 }) } as Setting;
    const sheet = { ...hub, settings: [nut, shims] };
    const side = (name: string, ...turns: readonly number[]): readonly BookLine[] => [
      { kind: 'nut', payload: { setting: `hub-end-play--${name}`, act: 'turned', angle: 500 } },
      { kind: 'nut', payload: { setting: `hub-end-play--${name}`, act: 'seated', angle: -40, torque: 50 } },
      ...turns.map((angle): BookLine => ({ kind: 'nut', payload: { setting: `hub-end-play--${name}`, act: 'turned', angle } })),
      { kind: 'end-play', payload: { setting: `hub-end-play--${name}`, moment: 'locked', readings: [0.08], unit: 'mm' } },
    ];
    const put: readonly BookLine[] = [
      putIn('gap'),
      { kind: 'end-play', payload: { setting: 'gap', moment: 'locked', readings: [0.55], unit: 'mm' } },
    ];
    // A side's lines name the side's setting, which the sheet of a job with sides has.
    const both = {
      ...sheet,
      settings: [...sheet.settings, ...['left', 'right'].map((name) => ({ ...nut, ref: `hub-end-play--${name}` }))],
    };
    const { settings } = earlierOf(sheet, [book(both, ...side('left', 30, -10), ...side('right', 30), ...put)]);
    expect(settings[0]).toMatchObject({
      setting: 'hub-end-play',
      turned: { count: 2, median: 25, from: 20, to: 30 },
      tries: { median: 1 },
    });
    expect(settings[1]?.put).toMatchObject({ working: 'compressor.air-gap', count: 1 });
  });

  test('a spread is its middle and its ends', () => {
    expect(spread([3, 1, 2, 10])).toEqual({ count: 4, median: 2.5, from: 1, to: 10 });
    expect(spread([])).toBeUndefined();
  });

  test('settings as left, pulls of a round, the driver of the last fit', () => {
    const job = (nm: number, peak: number, driver: string): ReturnType<typeof book> =>
      book(
        axle,
        { kind: 'end-play', payload: { setting: 'pinion-preload', moment: 'locked', readings: [nm, nm, nm], unit: 'N·m' } },
        {
          kind: 'pull',
          payload: {
            joint: 'cap-screws',
            pass: 2,
            place: 0,
            torque: 80,
            result: 'clicked',
            peak,
            angle: 30,
            wrenchLength: 450,
            adapterLength: 0,
            adapterAngle: 0,
          },
        },
        {
          kind: 'worked',
          payload: {
            working: 'fit.measured',
            input: { shaft: 30.015, bore: 30, wanted: 'figures', from: 0.004, to: 0.03 },
            fit: 'head-bearing',
          },
        },
        { kind: 'fitted', payload: { fit: 'head-bearing', by: 'press', driver, home: 'note' } },
      );
    const before = earlierOf(axle, [job(2.4, 81, 'newest tube'), job(2.6, 79, 'older tube'), job(9, 80, 'tube')]);
    // The third was never in: it tells nothing of how it is set.
    expect(before.settings[0]).toMatchObject({ setting: 'pinion-preload', left: { count: 2, median: 2.5 } });
    expect(before.pulls[0]).toMatchObject({ joint: 'cap-screws', pass: 2, peak: { count: 3, median: 80, s: 1 }, angle: { median: 30 } });
    expect(before.fits).toMatchObject([{ fit: 'head-bearing', driver: 'newest tube' }]);
  });
});
