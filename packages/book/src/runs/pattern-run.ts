import { type Setting, type SheetFile, type Step, find } from '@jubb/sheet';
import type { AnyKeptEntry, KeptEntry, PayloadOf } from '../entries/kept.js';
import { gearMovedWords } from './gear-words.js';
import type { JointRun } from './joint-run.js';
import { verdictOf } from '../measured/verdict.js';
import { didWords, type SettingRun } from './setting-run.js';
import { contactOff, contactStep, type ContactSpots } from '@jubb/core';

export type PatternPhase = 'set-first' | 'read' | 'move' | 'good';

export interface PatternTry {
  readonly entry: KeptEntry<'pattern'>;
  readonly verdict: string | undefined;
  /** What was moved before it was marked. */
  readonly before: string;
}

/** The pattern of two gears: marked, read, answered by a move, and marked again, until it is good. */
export interface PatternRun {
  readonly setting: Setting;
  readonly phase: PatternPhase;
  readonly tries: readonly PatternTry[];
  /** What was done since the last pattern, in words. */
  readonly before: string;
  /** Moves since the last pattern. */
  readonly moves: readonly PayloadOf<'gear-moved'>[];
  /** Steps whose setting or joint a move undid, or that are not done yet: before it is marked. */
  readonly first: readonly Step[];
  /** Joints that are tight, of which a move may undo some. */
  readonly tight: readonly JointRun[];
}

interface Runs {
  readonly settings: readonly SettingRun[];
  readonly joints: readonly JointRun[];
}

/** The patterns that the steps of a sheet read, each with the backlash of its gears. */
export function patternRuns(sheet: SheetFile, entries: readonly AnyKeptEntry[], runs: Runs): readonly PatternRun[] {
  const refs = new Set(sheet.steps.flatMap(({ record }) => (record.kind === 'pattern' ? (record.setting ?? []) : [])));
  return [...refs].flatMap((ref) => {
    const setting = find(sheet.settings, ref);
    return setting ? [patternRun(setting, sheet, entries, runs)] : [];
  });
}

function patternRun(setting: Setting, sheet: SheetFile, entries: readonly AnyKeptEntry[], { settings, joints }: Runs): PatternRun {
  const tries: PatternTry[] = [];
  const undone = new Set<string>();
  let moves: PayloadOf<'gear-moved'>[] = [];
  let before = 'as set';
  let phase: PatternPhase = 'read';
  let isPinionOut = false;
  for (const entry of entries) {
    if (entry.kind === 'pattern' && entry.payload.setting === setting.ref) {
      const verdict = verdictOf(entry);
      tries.push({ entry, verdict, before });
      phase = verdict === 'in' || entry.payload.left !== undefined ? 'good' : 'move';
      moves = [];
      before = 'marked again';
    }
    if (entry.kind === 'gear-moved' && entry.payload.setting === setting.ref) {
      moves.push(entry.payload);
      entry.payload.undone.forEach((ref) => undone.add(ref));
      isPinionOut ||= entry.payload.gear === 'pinion';
      before = moves.map(gearMovedWords).join(', ');
      phase = 'read';
    }
    // Shims that were worked out at the backlash move the ring as well.
    if (entry.kind === 'worked' && entry.payload.setting === setting.ref) {
      before = didWords(entry);
      phase = 'read';
    }
  }
  const unset = settings.filter(
    (run) => run.phase !== 'set' && (run.setting.ref === setting.ref || (isPinionOut && run.setting.kind === 'preload')),
  );
  const loose = joints.filter(({ joint, next }) => undone.has(joint.ref) && next !== undefined);
  const first = sheet.steps.filter(
    ({ stage, record }) =>
      stage === 'build' &&
      ((record.kind === 'setting' && unset.some((run) => run.setting.ref === record.setting)) ||
        (record.kind === 'torque' && loose.some(({ joint }) => joint.ref === record.joint))),
  );
  if (phase === 'read' && first.length > 0) phase = 'set-first';
  return { setting, phase, tries, before, moves, first, tight: joints.filter(({ total, next }) => total > 0 && next === undefined) };
}

/** A pattern as it is kept: with what the moves since the last one show of how far a move goes. */
export function patternRead({ setting, tries, moves }: PatternRun, spots: ContactSpots): PayloadOf<'pattern'> {
  const last = tries.at(-1)?.entry.payload;
  const read: PayloadOf<'pattern'> = { setting: setting.ref, ...spots, ...stepsOf(last) };
  if (!last) return read;
  const [was, is] = [contactOff(last), contactOff(spots)];
  const by = (gear: PayloadOf<'gear-moved'>['gear']): number => moves.reduce((sum, move) => (move.gear === gear ? sum + move.by : sum), 0);
  const [pinion, ring] = [by('pinion'), by('ring')];
  if (pinion !== 0) read.pinionStep = contactStep(was.depth, is.depth, pinion, last.pinionStep);
  // A pinion that moved has the backlash set anew: what the ring did then shows nothing.
  else if (ring !== 0) read.ringStep = contactStep(was.apart, is.apart, ring, last.ringStep);
  return read;
}

function stepsOf(last: PayloadOf<'pattern'> | undefined): Pick<PayloadOf<'pattern'>, 'pinionStep' | 'ringStep'> {
  return {
    ...(last?.pinionStep === undefined ? {} : { pinionStep: last.pinionStep }),
    ...(last?.ringStep === undefined ? {} : { ringStep: last.ringStep }),
  };
}

/** Most of backlash that a ring takes with it for each mm: of 35° of spiral, at 20° and 75°. */
const TAKES = 0.86;
/** No shim is thinner, mm. */
const LEAST_MOVE_MM = 0.01;

export interface PatternMove {
  readonly gear: PayloadOf<'gear-moved'>['gear'];
  /** mm; plus is the pinion deeper, the ring to the pinion. Of a ring no more than its backlash lets it. */
  readonly by: number;
  /** mm that the pattern asks for. */
  readonly asked: number;
  readonly what: string;
}

/** What the last pattern asks for; nothing asked where its sides contradict each other. */
export function patternMove({ tries }: PatternRun, backlash: SettingRun | undefined): PatternMove | undefined {
  const output = tries.at(-1)?.entry.working?.output;
  if (!output) return undefined;
  const [pinion, ring] = [Number(output['pinion']), Number(output['ring'])];
  const what = String(output['what']);
  if (pinion !== 0) return { gear: 'pinion', by: pinion, asked: pinion, what };
  if (backlash?.playNow === undefined) return { gear: 'ring', by: ring, asked: ring, what };
  const { playNow, window } = backlash;
  const room = Math.max(0, ring > 0 ? playNow - window.from : window.to - playNow) / TAKES;
  const far = Math.min(Math.abs(ring), room);
  return { gear: 'ring', by: far < LEAST_MOVE_MM ? 0 : Math.sign(ring) * far, asked: ring, what };
}
