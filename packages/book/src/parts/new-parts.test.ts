import { find } from '@jubb/sheet';
import { book, demoSheet, putIn, type BookLine } from '../book.test-kit.js';
import { lyingFor, presetFor, shimsWanted } from '../runs/setting-guide.js';
import { settingRun } from '../runs/setting-run.js';
import { jobState, stopsSigning } from '../state.js';
import { newMissing } from './new-first.js';
import { newPart, newPartsMissing, partsPutIn } from './new-parts.js';
import { outOfStores, storesMoves } from './out-of-stores.js';
import type { ShimLine } from './stock.js';
import { describe, expect, test } from '@jest/globals';
import { workings } from '@jubb/core';

const axle = demoSheet('ostrel-d44-drive-axle');
const compressor = demoSheet('askvale-rx10-refrigerant-compressor');
const ref = axle.parts.find(({ policy }) => policy === 'renew')!.ref;
const decided = (fate: string, quantity = 1, part = ref): BookLine => ({
  kind: 'decision',
  payload: { part, fate, quantity, reason: 'worn' },
});
const here = (count: number, rest: object = {}): BookLine => ({
  kind: 'replacement-here',
  payload: { part: ref, count, seen: 'from the kit', ...rest },
});

describe('what is new on a job', () => {
  const wanted = (...lines: readonly BookLine[]): readonly unknown[] => {
    const part = newPart(axle, ref, book(axle, ...lines));
    return part ? [part.pieces, part.here] : [];
  };

  test('goes by the sheet until it is decided, and then by what was decided, the last time', () => {
    const { quantity } = find(axle.parts, ref)!;
    expect(wanted()).toEqual([quantity, 0]);
    expect(wanted(decided('reuse'))).toEqual([]);
    expect(wanted(decided('reuse'), decided('renew', 7))).toEqual([7, 0]);
    const kept = axle.parts.find(({ policy }) => policy === 'reuse')!.ref;
    expect(newPart(axle, kept, [])).toBeUndefined();
    expect(newPart(axle, kept, book(axle, decided('renew', 2, kept)))?.pieces).toBe(2);
  });

  test('is counted as it comes, in one lot or several', () => {
    expect(wanted(decided('renew', 3), here(1), here(2))).toEqual([3, 3]);
    expect(newPartsMissing(axle, book(axle, decided('renew', 3), here(2))).find(({ part }) => part.ref === ref)?.here).toBe(2);
  });

  test('holds back every step that puts it in, and none before the build', () => {
    const puts = axle.steps.filter((step) => partsPutIn(axle, step).includes(ref));
    const build = puts.filter(({ stage }) => stage === 'build' || stage === 'prove');
    expect(build.length).toBeGreaterThan(0);
    for (const step of build) {
      expect(newMissing(axle, step, [])?.why).toBe(find(axle.joints, step.record.joint)?.part === ref ? 'new each time' : 'renewed');
      expect(newMissing(axle, { ...step, stage: 'strip' }, [])).toBeUndefined();
      expect(newMissing(axle, { ...step, putsIn: [ref], record: { kind: 'tick' } }, book(axle, decided('renew'), here(1)))).toBeUndefined();
    }
  });

  test('stops the signature until it is said to be here, whether a step puts it in or none does', () => {
    const stops = (...lines: readonly BookLine[]): readonly string[] =>
      stopsSigning(jobState(axle, book(axle, ...lines))).filter((words) => words.startsWith('New, and not said to be here'));
    expect(stops().length).toBe(axle.parts.filter(({ policy }) => policy === 'renew').length);
    const all = newPartsMissing(axle, []).map(({ part, pieces }) => here(pieces, { part: part.ref }));
    expect(stops(...all)).toEqual([]);
    expect(stops(...all.slice(1))).toHaveLength(1);
  });
});

describe('what a job has out of stores', () => {
  const setting = compressor.settings.find(({ kind }) => kind === 'air-gap')!;
  const pack = (...taken: readonly (readonly [item: string, count: number])[]): BookLine => ({
    ...putIn(setting.ref),
    payload: { ...putIn(setting.ref).payload, taken: taken.map(([item, count]) => ({ item, count })) },
  });
  const out = (...lines: readonly BookLine[]): object => Object.fromEntries(outOfStores(book(compressor, ...lines)));

  test('parts add up, a pack takes the place of the one before it', () => {
    expect(out(here(2, { item: 'a' }), here(1, { item: 'a' }), here(9))).toEqual({ a: 3 });
    expect(out(pack(['a', 1], ['b', 2]), pack(['b', 1]))).toEqual({ b: 1 });
    expect(out(pack(['a', 1]), here(2, { item: 'a' }), putIn(setting.ref))).toEqual({ a: 3 });
  });

  test('between two states what is new is taken, what is gone comes back, what stays does not move', () => {
    expect(storesMoves(new Map(Object.entries({ a: 1, b: 2 })), new Map(Object.entries({ b: 2, c: 3 })))).toEqual([
      { item: 'a', pieces: -1 },
      { item: 'c', pieces: 3 },
    ]);
  });

  test('shims of an answer are found on the shelf by their thickness, also one of inches; what lies in counts as free', () => {
    const line = (thicknessMm: number, onHand: number, id = `${thicknessMm}`): ShimLine =>
      ({ id, thicknessMm, onHand, reserved: 0 }) as unknown as ShimLine;
    const shims = [line(0.5, 0), line(0.3, 2, 'few'), line(0.3, 5, 'many'), line(0.3048, 9, 'inch')];
    const answer = (output: object): ReturnType<typeof shimsWanted> =>
      shimsWanted({ working: 'compressor.air-gap', output: { ...output } }, shims);
    expect(answer({ pack: '0.5 + 2 × 0.3 mm' }).map(({ thickness, count, line: of }) => [thickness, count, of?.id])).toEqual([
      [0.5, 1, '0.5'],
      [0.3, 2, 'many'],
    ]);
    expect(answer({ pack: '0.305 + 0.07 mm' }).map(({ line: of }) => of?.id)).toEqual(['inch', undefined]);
    expect(answer({ pack: 'none' })).toEqual([]);
    const run = settingRun(setting, book(compressor, pack(['0.5', 1])));
    expect(presetFor('compressor.air-gap', run, shims.slice(0, 3))['shelf']).toEqual([
      { thickness: 0.5, count: 1 },
      { thickness: 0.3, count: 7 },
    ]);
  });

  test('backlash is shifted with the shims of the carrier: what lies there is not taken again, for that alone', () => {
    const live = book(compressor, pack(['half', 1], ['tenth', 2]));
    expect(lyingFor('bearing.shim', 'backlash', live).size).toBe(0);
    expect(lyingFor('gear.backlash', setting.ref, live).size).toBe(0);
    const shims = [0.5, 0.1].map(
      (thicknessMm) => ({ id: thicknessMm === 0.5 ? 'half' : 'tenth', thicknessMm, onHand: 9, reserved: 0 }) as unknown as ShimLine,
    );
    const answer = { working: 'gear.backlash', output: { teethPack: '0.5 + 0.1 mm', otherPack: '0.5 + 2 × 0.1 mm' } };
    const wanted = shimsWanted(answer, shims, lyingFor('gear.backlash', 'backlash', live));
    expect(wanted.map(({ thickness, count, fresh }) => [thickness, count, fresh])).toEqual([
      [0.5, 2, 1],
      [0.1, 3, 1],
    ]);
  });

  test('every working that picks a pack of shims writes it so that it can be taken off the shelf', () => {
    const { run } = workings.run('compressor.air-gap', {
      gaps: [0.2, 0.2, 0.2],
      shims: 0.5,
      from: 0.4,
      to: 0.7,
      shelf: [
        { thickness: 0.3, count: 4 },
        { thickness: 0.2, count: 1 },
      ],
    }) as { run: Parameters<typeof shimsWanted>[0] };
    const wanted = shimsWanted(run, []);
    const sum = wanted.reduce((total, { thickness, count }) => total + thickness * count, 0);
    expect(sum).toBeCloseTo(Number(run.output['thickness']), 9);
  });
});
