import type { SheetFile } from '@jubb/sheet';
import { readSheetFile } from '@jubb/sheet/editing';
import { checkOnJob } from './entries/check.js';
import type { EntryKind } from './entries/kept.js';
import type { AnyKeptEntry } from './entries/kept.js';
import { workingFor } from './kinds/registry.js';
import { jobReport, timesIn, type Report } from './report/report.js';
import type { JobView } from './views.js';
import { readFileSync } from 'node:fs';

export function demoSheet(name: string): SheetFile {
  const read = readSheetFile(readFileSync(new URL(`../../../apps/server/demo/sheets/${name}.yaml`, import.meta.url), 'utf8'));
  if (!read.ok) throw new Error(`the demo sheet ${name} does not read`);
  return read.sheet;
}

export interface BookLine {
  readonly kind: EntryKind;
  readonly payload: object;
  readonly step?: string;
}

export function book(sheet: SheetFile, ...lines: readonly BookLine[]): AnyKeptEntry[] {
  return lines.map(
    ({ kind, payload, step }, index) =>
      ({
        id: `entry ${index}`,
        seq: index + 1,
        kind,
        payload,
        step: step ?? null,
        strikes: null,
        personId: 'ilka',
        takenAt: '2026-11-25T09:00:00Z',
        keptAt: '2026-11-25T09:00:00Z',
        working: workingFor(kind, payload, sheet, undefined),
      }) as unknown as AnyKeptEntry,
  );
}

/** Why a line is not kept after others, of a job that a mechanic works on. */
export function refused(sheet: SheetFile, line: BookLine, ...before: readonly BookLine[]): string | undefined {
  const given = { id: 'new', strikes: null, takenAt: '2026-11-29T08:00:00.000Z', ...line, step: line.step ?? null } as never;
  const found = checkOnJob([given], book(sheet, ...before), sheet, { role: 'mechanic', personId: 'ilka' });
  return found && (found.detail ?? found.errors[0]?.allowed);
}

/** The report of a job that holds these entries. */
export function reportOf(file: SheetFile, entries: readonly AnyKeptEntry[]): Report {
  const job = {
    number: 417,
    customer: { id: 'c', name: 'Gelmarn Lift and Piste', phone: null },
    machine: { id: 'm', name: 'Truck', serial: '' },
    unit: { id: 'u', name: 'Unit', serial: '' },
    complaint: '',
    bookedAt: '2026-11-25T08:00:00Z',
    scope: null,
    sheet: { title: file.title, revision: 1, file, notOpened: [] },
    entries,
    people: [{ id: 'ilka', name: 'Ilka Varne', login: 'ilka', role: 'mechanic' }],
    tools: [],
  } as unknown as JobView;
  return jobReport(job, timesIn('UTC'));
}

/** Shims for a gap of 0.4 to 0.7 mm that reads 0.2 mm with half a millimetre in: 0.5 and 0.3 mm. */
export function putIn(setting: string): BookLine {
  const shelf = [0.3, 0.5].map((thickness) => ({ thickness, count: 2 }));
  const input = { gaps: [0.2, 0.2, 0.2], shims: 0.5, from: 0.4, to: 0.7, shelf };
  return { kind: 'worked', payload: { working: 'compressor.air-gap', input, setting } };
}
