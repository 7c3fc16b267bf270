import type { LimitQuantity } from './choices.js';
import type { Caution, Joint, JointStage, Limit, Setting, SheetFile, Step } from './file.js';
import type { Span } from './values.js';
import { parseQuantity, type Quantity, type Window } from '@jubb/core';

/** A figure of a checked sheet in base units. A sheet that got past its check always parses. */
export function baseOf(figure: string, quantity: Quantity): number {
  const parsed = parseQuantity(figure, quantity, 'figure');
  if (!parsed.ok) throw new Error(`unchecked figure in a sheet: ${figure}`);
  return parsed.quantity.base;
}

export function windowOf(span: Span, quantity: Quantity): Window {
  return {
    from: span.from === undefined ? undefined : baseOf(span.from, quantity),
    to: span.to === undefined ? undefined : baseOf(span.to, quantity),
  };
}

export function limitQuantity(limit: Limit): LimitQuantity {
  return limit.quantity ?? 'length';
}

export function limitWindow(limit: Limit): Window {
  return limit.service ? windowOf(limit.service, limitQuantity(limit)) : {};
}

/** A preload is read as the torque that turns it; everything else as a length. */
export function settingQuantity(setting: Pick<Setting, 'kind'>): 'length' | 'torque' {
  return setting.kind === 'preload' ? 'torque' : 'length';
}

/** What is wanted, in mm or N·m: of new bearings, or of used ones where the sheet has a window for them. */
export function settingWindow(setting: Setting, bearings: 'new' | 'used' = 'new'): { readonly from: number; readonly to: number } {
  const span = bearings === 'used' ? (setting.windowUsed ?? setting.window) : setting.window;
  const { from = 0, to = 0 } = windowOf(span, settingQuantity(setting));
  return { from, to };
}

/** An amount is weighed or poured, as its unit says. */
export function amountQuantity(figure: string): 'mass' | 'volume' {
  return parseQuantity(figure, 'mass', 'figure').ok ? 'mass' : 'volume';
}

export interface Pass {
  /** From 1. */
  readonly pass: number;
  readonly torqueNm: number;
  /** Places from 0, in the order they are pulled. */
  readonly order: readonly number[];
  readonly check: boolean;
  /** The round of a staged joint. */
  readonly stage?: JointStage;
}

/** Full torque and its tolerance, in N·m; none when the book has no number. */
export function jointTorque(joint: Joint): { readonly torqueNm: number; readonly from: number; readonly to: number } | undefined {
  if (!joint.torque) return undefined;
  const torqueNm = baseOf(joint.torque.figure, 'torque');
  const share = joint.torque.tolerance === undefined ? 0.04 : baseOf(joint.torque.tolerance, 'ratio');
  return { torqueNm, from: torqueNm * (1 - share), to: torqueNm * (1 + share) };
}

export function find<T extends { readonly ref: string }>(rows: readonly T[], ref: string | undefined): T | undefined {
  return rows.find((row) => row.ref === ref);
}

export function partName(sheet: SheetFile, ref: string): string {
  return find(sheet.parts, ref)?.name ?? ref;
}

/** Parts that each step takes off: said, or counted in the strip. */
export function freedBy(step: Step): readonly string[] {
  const counted = step.stage === 'strip' ? (step.record.counts ?? []).map(({ part }) => part) : [];
  return [...(step.frees ?? []), ...counted];
}

export function stepsOf(sheet: SheetFile, stage: string): readonly Step[] {
  return sheet.steps.filter((step) => step.stage === stage);
}

/** Cautions that stand before a step: its own, and those in force over it. */
export function cautionsAt(sheet: SheetFile, step: Step): readonly Caution[] {
  const at = (ref: string): number => sheet.steps.findIndex((candidate) => candidate.ref === ref);
  const here = at(step.ref);
  return sheet.cautions.filter(
    ({ ref, holds }) => step.cautions?.includes(ref) || (holds && at(holds.from) <= here && here <= at(holds.until)),
  );
}
