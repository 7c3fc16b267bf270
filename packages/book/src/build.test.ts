import { book, demoSheet, putIn, type BookLine } from './book.test-kit.js';
import { workOut } from './measured/measured.js';
import { duesOf } from './obligations.js';
import type { ShimLine } from './parts/stock.js';
import { presetFor, workingsForSetting } from './runs/setting-guide.js';
import { settingRun } from './runs/setting-run.js';
import { jobState, stopsSigning } from './state.js';
import { describe, expect, test } from '@jest/globals';

const axle = demoSheet('ostrel-d44-drive-axle');
const compressor = demoSheet('askvale-rx10-refrigerant-compressor');

describe('the build list', () => {
  const off = (name: string, rest: object = {}): BookLine => ({ kind: 'came-off', payload: { name, count: 1, ...rest } });
  const state = (...lines: readonly BookLine[]): ReturnType<typeof jobState> => jobState(axle, book(axle, ...lines));
  const stripped = [off('cover', { count: 10 }), off('carrier'), off('pin', { inside: 'entry 1', mark: 'dot to dot' }), off('shaft')];

  test('is the ledger the other way round, an assembly after what goes into it', () => {
    expect(state(...stripped).build.map(({ name, into }) => [name, into])).toEqual([
      ['shaft', undefined],
      ['pin', 'carrier'],
      ['carrier', undefined],
      ['cover', undefined],
    ]);
  });

  test('counts what is in, exact to the piece, and what is not in stops the signature once the list is used', () => {
    const some = state(...stripped, { kind: 'went-in', payload: { line: 'entry 0', name: 'cover', count: 4 } });
    expect(some.build.at(-1)).toMatchObject({ count: 10, inNow: 4 });
    expect(stopsSigning(some)).toContain('Not in yet: 6 × cover');
    expect(stopsSigning(state(...stripped)).some((words) => words.startsWith('Not in yet'))).toBe(false);
  });

  test('a step that is done has put in what it puts in: the list and the steps say the same', () => {
    const joint = axle.joints.find(({ torque, renewEachTime, stages }) => torque && !renewEachTime && !stages)!;
    const step = axle.steps.find(({ record, stage }) => stage === 'build' && record.joint === joint.ref)!;
    const [seal] = axle.seals as [(typeof axle.seals)[number]];
    const fitted = axle.steps.find(({ record }) => record.seal === seal.ref)!;
    const stripped = [off('ring', { part: seal.part }), off('screw', { joint: joint.ref, count: joint.count }), off('cover')];
    const sealIn: BookLine = {
      kind: 'seal-fitted',
      payload: { seal: seal.ref, directionSeen: true, lubricated: true, depths: [], unit: 'mm' },
      step: fitted.ref,
    };
    const ticked: BookLine = { kind: 'went-in', payload: { line: 'entry 2', name: 'cover', count: 1 } };
    const inNow = (...lines: readonly BookLine[]): readonly number[] => state(...stripped, ...lines).build.map((line) => line.inNow);
    expect(inNow()).toEqual([0, 0, 0]);
    expect(inNow(sealIn)).toEqual([0, 0, 1]);
    expect(step.record.kind).toBe('torque');
    // Nobody has to tick what was fitted at its step.
    const stops = stopsSigning(state(...stripped, sealIn, ticked)).filter((words) => words.startsWith('Not in yet'));
    expect(stops).toEqual([`Not in yet: ${joint.count} × screw`]);
  });

  test('a mark stands at its line until it is met; a renewed part is a new one', () => {
    const part = axle.parts.find(({ policy }) => policy === 'renew')!;
    const marked = state(...stripped, { kind: 'mark-met', payload: { mark: 'entry 2' } });
    expect(marked.build[1]?.mark).toMatchObject({ mark: 'dot to dot', met: true });
    expect(state(off('seal', { part: part.ref })).build[0]?.renewed).toBe('renewed every time');
    expect(state(off('cover')).build[0]?.renewed).toBeUndefined();
  });
});

describe('this makes that necessary', () => {
  const [obligation] = compressor.obligations!;
  const part = obligation!.madeBy.find((ref) => compressor.parts.some((one) => one.ref === ref))!;
  const renewed: BookLine = { kind: 'decision', payload: { part, fate: 'renew', quantity: 1 } };
  const closed: BookLine = {
    kind: 'end-play',
    payload: { setting: 'air-gap', moment: 'locked', readings: [0.5, 0.5, 0.5] },
    step: obligation!.closedBy,
  };
  const due = (...lines: readonly BookLine[]): boolean | undefined =>
    duesOf(compressor, book(compressor, ...lines)).find((one) => one.obligation.ref === obligation!.ref)?.closed;

  test('a renewed part opens it, the reading at its step closes it, and the next renewal opens it again', () => {
    expect(due()).toBeUndefined();
    expect(due(closed)).toBeUndefined();
    expect(due(renewed)).toBe(false);
    expect(due(renewed, closed)).toBe(true);
    expect(due(renewed, closed, renewed)).toBe(false);
    expect(due({ ...renewed, payload: { part, fate: 'reuse', quantity: 1 } })).toBeUndefined();
  });

  test('an open one stands in the way of the signature', () => {
    const steps = compressor.steps.filter(({ ref }) => ref === obligation!.closedBy);
    const only = { ...compressor, steps };
    expect(stopsSigning(jobState(only, book(only, renewed, closed, renewed))).join()).toContain(
      `Made necessary again: ${obligation!.name}`,
    );
    expect(stopsSigning(jobState(only, book(only, renewed, closed))).join()).not.toContain('Made necessary');
  });
});

describe('setting by a working', () => {
  const setting = compressor.settings.find(({ kind }) => kind === 'air-gap')!;
  const shims = [0.1, 0.3, 0.5].map(
    (thicknessMm, index) => ({ thicknessMm, onHand: 5, reserved: index === 1 ? 5 : 1 }) as unknown as ShimLine,
  );
  const read = (gap: number): BookLine => ({
    kind: 'end-play',
    payload: { setting: setting.ref, moment: 'locked', readings: [gap, gap, gap], unit: 'mm' },
  });
  const run = (...lines: readonly BookLine[]): ReturnType<typeof settingRun> => settingRun(setting, book(compressor, ...lines));

  test('starts from the window, the last readings and what is free on the shelf', () => {
    const preset = presetFor('compressor.air-gap', run(read(0.2)), shims);
    expect(preset).toMatchObject({
      from: '0.4 mm',
      to: '0.7 mm',
      gaps: [0.2, 0.2, 0.2],
      shelf: [
        { thickness: 0.1, count: 4 },
        { thickness: 0.5, count: 4 },
      ],
    });
    expect('used' in workOut('compressor.air-gap', { ...preset, shims: '0.5 mm' })).toBe(true);
  });

  test('what was put in stands before the next reading, and takes a setting that was in with it', () => {
    const worked = putIn(setting.ref);
    const set = run(read(0.2), worked, read(0.55));
    expect(set.phase).toBe('set');
    expect(set.tries.map(({ before, verdict }) => [before, verdict])).toEqual([
      ['as put together', 'out'],
      ['put in 0.5 + 0.3 mm', 'in'],
    ]);
    expect(run(read(0.55), worked).phase).toBe('read-locked');
  });

  test('every way of setting that is not by hand alone has a working, and takes what is known', () => {
    for (const sheet of [
      axle,
      compressor,
      demoSheet('askvale-gx5-gearbox'),
      demoSheet('ostrel-mk7-multi-plate-clutch'),
      demoSheet('tindlebrook-cc1-loose-ball-hub'),
    ])
      for (const one of sheet.settings.filter(({ method }) => method !== 'adjusters')) {
        const ids = workingsForSetting(one, sheet.family);
        expect(ids.length).toBeGreaterThan(0);
        for (const id of ids) {
          const given = presetFor(
            id,
            settingRun(
              one,
              book(sheet, { kind: 'end-play', payload: { setting: one.ref, moment: 'locked', readings: [0.3, 0.31, 0.3], unit: 'mm' } }),
            ),
            shims,
          );
          const answer = workOut(id, given);
          // Nothing that is filled in is wrong: at most something is still to be asked.
          if ('issues' in answer) expect(answer.issues.filter(({ field, code }) => field in given && code !== 'cannot-be')).toEqual([]);
        }
      }
  });
});
