import { scopeSheet } from '@jubb/sheet';
import type { SheetFile, TorqueValue, ValueList } from '@jubb/sheet';
import { readSheetFile, fromTemplate } from '@jubb/sheet/editing';
import { sheetIssues } from '@jubb/sheet/file';
import type { AnyKeptEntry } from './entries/kept.js';
import { doubtAt, doubtOf } from './found.js';
import { shaped } from './shape.js';
import { jobState } from './state.js';
import { entryWords, kindOf } from './kinds/registry.js';
import { readFileSync } from 'node:fs';
import { describe, expect, test } from '@jest/globals';

function library(name: string): SheetFile {
  const read = readSheetFile(readFileSync(new URL(`../../../apps/server/demo/sheets/${name}.yaml`, import.meta.url), 'utf8'));
  if (!read.ok) throw new Error(`${name} does not read`);
  return read.sheet;
}

const hub = library('harrowmere-ut9-trailer-hub');
const begun = fromTemplate(hub, { key: 'ostrel-uh3', make: 'Ostrel', model: 'UH 3', machine: 'Trailer' });

function kept(kind: 'value-taken' | 'value-found', payload: object, id = kind): AnyKeptEntry {
  return { id, kind, payload, strikes: null, step: null } as unknown as AnyKeptEntry;
}
const found = (list: ValueList, line: string, field: string, figure: string): AnyKeptEntry =>
  kept('value-found', { list, line, figures: [{ field, figure }], source: 'plate on the axle' });
const stepOf = (sheet: SheetFile, list: 'joint' | 'setting' | 'limit' | 'fluid', ref: string) =>
  sheet.steps.find(({ record }) => record[list] === ref)!;

describe('a value that nobody stands for', () => {
  test('is asked about at every step that uses it, and at no step of a sheet whose values have their page', () => {
    const asked = begun.steps.filter((step) => doubtAt(begun, [], step));
    expect(asked.map(({ ref }) => ref)).toEqual(
      begun.steps
        .filter(({ record: { joint, setting, limit, fluid, seal } }) =>
          [
            ['joints', joint],
            ['settings', setting],
            ['limits', limit],
            ['fluids', fluid],
            ['seals', seal],
          ].some(
            ([list, ref]) =>
              ref !== undefined && JSON.stringify(begun[list as ValueList].find((line) => line.ref === ref)).includes('"unverified"'),
          ),
        )
        .map(({ ref }) => ref),
    );
    expect(asked.length).toBeGreaterThan(10);
    const stood = JSON.parse(JSON.stringify(hub).replaceAll('"unverified"', '"shop"')) as SheetFile;
    expect(stood.steps.filter((step) => doubtAt(stood, [], step))).toEqual([]);
  });

  test('is asked about once: taken as it stands, or with the right figure', () => {
    const step = stepOf(begun, 'joint', 'wheel-nuts');
    expect(doubtAt(begun, [], step)).toMatchObject({ list: 'joints', line: 'wheel-nuts', figures: [{ field: 'torque.figure' }] });
    expect(doubtAt(begun, [kept('value-taken', { list: 'joints', line: 'wheel-nuts' })], step)).toBeUndefined();
    expect(doubtAt(begun, [found('joints', 'wheel-nuts', 'torque.figure', '170 N·m')], step)).toBeUndefined();
    expect(doubtAt(begun, [kept('value-taken', { list: 'joints', line: 'studs' })], step)).toBeDefined();
  });

  test('is missing where a joint has no number at all', () => {
    const bare = structuredClone(hub);
    const joint = bare.joints.find(({ ref }) => ref === 'wheel-nuts')!;
    delete joint.torque;
    expect(doubtOf(bare, 'joints', 'wheel-nuts')).toMatchObject({ source: '', figures: [{ figure: '' }] });
    const sheet = shaped(bare, [found('joints', 'wheel-nuts', 'torque.figure', '170 N·m')]);
    expect(sheet.joints.find(({ ref }) => ref === 'wheel-nuts')?.torque).toEqual({
      figure: '170 N·m',
      trust: 'unverified',
      source: 'found on this job: plate on the axle',
    });
    expect(sheetIssues(sheet as unknown as Record<string, unknown>)).toEqual([]);
  });
});

describe('a figure found on a job', () => {
  const torque: TorqueValue = { figure: '280 N·m', trust: 'unverified', source: 'by word of mouth' };
  /** Its bolt is pulled to a torque, and then until it clicks. */
  const staged: SheetFile = {
    ...begun,
    joints: begun.joints.map((joint) =>
      joint.ref === 'centre-bolt'
        ? {
            ...joint,
            torque,
            stages: [
              { kind: 'torque', torque },
              { kind: 'click', until: 'it clicks' },
            ],
          }
        : joint,
    ),
  };

  test.each([
    ['joints', 'centre-bolt', 'stages.0.torque.figure', '270 N·m'],
    ['settings', 'hub-rock', 'window.to', '0.08 mm'],
    ['limits', 'rock-found', 'service.to', '0.2 mm'],
  ] as const)('%s, %s: stands in its place and nothing else moves', (list, line, field, figure) => {
    const sheet = shaped(staged, [found(list, line, field, figure)]);
    expect(sheetIssues(sheet as unknown as Record<string, unknown>)).toEqual([]);
    expect(JSON.stringify(sheet[list].find(({ ref }) => ref === line))).toContain(figure);
    const others = (one: SheetFile): unknown => ({ ...one, [list]: one[list].filter(({ ref }) => ref !== line) });
    expect(others(sheet)).toEqual(others(staged));
  });

  test('of the last round of a staged joint is the torque of the joint', () => {
    const sheet = shaped(staged, [found('joints', 'centre-bolt', 'stages.0.torque.figure', '270 N·m')]);
    const bolt = sheet.joints.find(({ ref }) => ref === 'centre-bolt')!;
    expect([bolt.torque?.figure, bolt.torque?.source]).toEqual(['270 N·m', 'found on this job: plate on the axle']);
    expect(bolt.stages?.map(({ kind }) => kind)).toEqual(['torque', 'click']);
  });

  test('is what the work goes by, until it is struck', () => {
    const right = found('joints', 'wheel-nuts', 'torque.figure', '170 N·m');
    const torque = (entries: readonly AnyKeptEntry[]): number | undefined =>
      jobState(begun, entries)
        .joints.find(({ joint }) => joint.ref === 'wheel-nuts')
        ?.passes.at(-1)?.torqueNm;
    expect(torque([right])).toBe(170);
    const strike = { id: 'strike', kind: 'strike', payload: { reason: 'misread' }, strikes: right.id } as unknown as AnyKeptEntry;
    expect(torque([right, strike])).toBe(torque([]));
    expect(entryWords(right, begun)).toBe('Found: Wheel nuts, Torque 170 N·m (plate on the axle)');
  });

  test('is taken on a job with two sides, and is looked at there', () => {
    const sides = ['Left', 'Right'];
    const both = scopeSheet({ ...begun, sides }, { sides }).file;
    const wrongs = (figure: string): readonly string[] =>
      kindOf('value-found').check!(
        { ...found('joints', 'wheel-nuts--left', 'torque.figure', figure), step: null, strikes: null } as never,
        both,
      ).map(({ field, allowed }) => `${field} ${allowed}`);
    expect(wrongs('170 N·m')).toEqual([]);
    expect(wrongs('170 mm')[0]).toContain('payload.figures');
  });
});
