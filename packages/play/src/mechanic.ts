import {
  FIT_MEASURED,
  beforeSeal,
  countsOf,
  duesOf,
  fitWindow,
  gridPlaces,
  keptOrNot,
  letGoAt,
  isProvedWhole,
  mayAccept,
  newMissing,
  newPartsMissing,
  nextAct,
  notReady,
  orderNumber,
  partsPutIn,
  presetForFit,
  proofReads,
  sharesOf,
  waitOf,
  type Due,
  type FailedBy,
  type JobState,
  type LookDue,
  type NewEntry,
  type Reckoned,
  type SettingRun,
  type StepState,
} from '@jubb/book';
import {
  STAGES,
  amountQuantity,
  baseOf,
  find,
  limitQuantity,
  limitWindow,
  partName,
  settingQuantity,
  settingWindow,
  toolRefusal,
  windowOf,
  type Fate,
  type HoldPoint,
  type Limit,
  type Setting,
  type SheetFile,
  type Step,
  type Tool,
  type ToolSize,
} from '@jubb/sheet';
import { baseUnit, normal, type Window } from '@jubb/core';

export type DemoEntry = Pick<NewEntry, 'kind' | 'payload'> & Partial<Pick<NewEntry, 'step' | 'toolId'>>;

type Own = (kind: DemoEntry['kind'], payload: object, tool?: Tool) => DemoEntry;
type ToolFor = (kind: string | undefined, size: ToolSize) => Tool;
type Read = (truth: number, repeats: number, tool: Tool) => number[];

/** What the unit on the bench really is: the demo mechanic's readings scatter about it. */
export interface DemoUnit {
  /** As it was found, in base units; what is not named is sound. */
  readonly limits: Readonly<Record<string, number>>;
  readonly looks: Readonly<Record<string, string>>;
  readonly finding: string;
  readonly foundAt?: string;
  /** End play once the nut is seated and backed off, mm. */
  readonly backedOff: number;
  readonly receivedBy: string;
  readonly foreman: string;
  /** How often a setting is read out of its window before it is in. */
  readonly misses?: Readonly<Record<string, number>>;
  /** Where in its window a setting is left: 0 at its beginning, 1 at its end; its middle where nothing is said. */
  readonly leftAt?: Readonly<Record<string, number>>;
  /** Why what is renewed has failed, by part. */
  readonly failed?: Readonly<Record<string, FailedBy>>;
  /** Stock lines by the number of what lies there. */
  readonly shelf?: Readonly<Record<string, string>>;
}

/** Who is at the bench: on which unit, with which tools, with what luck from 0 to 1. */
export interface AtBench {
  readonly unit: DemoUnit;
  readonly tools: readonly Tool[];
  readonly random: () => number;
  /** ISO time of the act: clocks go by it. */
  readonly at: string;
  /** The day on which the tools must be good. */
  readonly today: string;
}

/** What of a job its mechanic goes by. */
export type BenchState = Pick<
  JobState,
  'sheet' | 'live' | 'intents' | 'marks' | 'cautionsRead' | 'fits' | 'joints' | 'settings' | 'decisions' | 'reconcile'
>;

/** A reading in every place of a grid, or repeats. A span is made of readings that lie so far apart. */
function readingsOf(limit: Limit, truth: number, tool: Tool, read: Read): number[] {
  const places = gridPlaces(limit);
  if (places === undefined) return read(truth, limit.repeats ?? 3, tool);
  if (limit.grid?.of !== 'span') return read(truth, places, tool);
  return read(0, places, tool).map((zero, place) => zero + (truth / 2) * Math.cos((2 * Math.PI * place) / places));
}

/** Does the next act of a job as a mechanic would, with readings drawn from the unit and the tool. */
export function nextEntries(state: JobState, bench: AtBench): readonly DemoEntry[] {
  const act = nextAct(state);
  if (!act) return [];
  if (!act.step) return [{ kind: 'stage', payload: { stage: act.stage } }];
  const { step } = act;
  const stands = state.steps.find((one) => one.step.ref === step.ref)!;
  const entries = beforeOrAfter(stands, state, bench.at) ?? entriesAt(state, step, bench);
  const firstPull = entries.findIndex(({ kind }) => kind === 'pull');
  return firstPull < 0 ? entries : entries.slice(0, firstPull + 1);
}

/** What was made necessary again, and is done before it is signed. */
export function dueBefore({ sheet, live }: Pick<BenchState, 'sheet' | 'live'>, { record }: Step): Due | undefined {
  return record.kind === 'sign' ? duesOf(sheet, live).find(({ closed }) => !closed) : undefined;
}

/** What is done at a step that is not done yet; before the signature `again` is the step that was made necessary again, and it is its act. */
export function actsAt(state: Reckoned, stands: StepState, bench: AtBench): { readonly acts: readonly DemoEntry[]; readonly again?: Step } {
  const { step } = stands;
  const due = dueBefore(state, step);
  const again = due && find(state.sheet.steps, due.obligation.closedBy);
  const acts = beforeOrAfter(stands, state, bench.at) ?? entriesAt(state, again ?? step, bench);
  return { acts, ...(again ? { again } : {}) };
}

/** What is done at a step from here on, until something must be looked at anew: all pulls that are left, one try of a setting. */
function entriesAt(state: BenchState, step: Step, bench: AtBench): readonly DemoEntry[] {
  const { sheet } = state;
  // Before the signature every mark lines up again.
  const toMeet = step.record.kind === 'sign' ? state.marks.filter(({ met }) => !met) : [];
  const met = toMeet.map(({ entryId }): DemoEntry => ({ kind: 'mark-met', payload: { mark: entryId }, step: step.ref }));
  const toRead = (step.cautions ?? [])
    .filter((caution) => !state.cautionsRead.some((entry) => entry.payload.caution === caution))
    .map((caution): DemoEntry => ({ kind: 'caution-read', payload: { caution }, step: step.ref }));
  // What cannot be undone, and what takes a ring's place, is seen to first.
  const first = [...saidFirst(sheet, state, step), ...hereFirst(sheet, state, step, bench.unit), ...outFirst(state, step)];
  return [...met, ...toRead, ...first, ...record(state, step, bench)];
}

/** What a scale takes for as much as the sheet says. */
const SCALED = 1.01;

const SEEN = 'held against the old';

/** What is due at a step besides its own act: what must be ready before it, what is looked at after it, by oneself and by others. */
function beforeOrAfter(
  { step, looks, holds }: StepState,
  { sheet, live }: Pick<BenchState, 'sheet' | 'live'>,
  at: string,
): readonly DemoEntry[] | undefined {
  if (looks) return looks.map((look) => ({ ...seenHome(look, sheet), step: step.ref }));
  if (holds) return [lookedAt(holds, step)];
  const missing = notReady(step, live, at);
  if (!missing) return undefined;
  if (missing.why === 'under way') return [{ kind: 'wait-over', payload: { wait: missing.begun.wait.id }, step: step.ref }];
  return [waitOf(step, missing.lead)];
}

function seenHome(look: LookDue, { build }: SheetFile): DemoEntry {
  switch (look.what) {
    case 'which': {
      const { ref, seen } = find(look.variants, build) ?? look.variants[0]!;
      return { kind: 'variant', payload: { variant: ref, seen } };
    }
    case 'seated':
      return { kind: 'seated', payload: { fastening: look.fastening.ref, count: look.fastening.count - look.seen } };
    case 'way-round':
      return { kind: 'way-round', payload: { part: look.part, lies: look.lies } };
    case 'apart':
      return { kind: 'let-go', payload: { fit: look.fit.ref, by: 'press' } };
    case 'mark':
      return { kind: 'mark-met', payload: { mark: look.mark.entryId } };
    case 'seal':
      return { kind: 'seal-seen', payload: { seal: look.seal.ref, what: look.sight, fine: true } };
    case 'expected':
      return { kind: 'as-expected', payload: { so: true } };
  }
}

/** It is done, and somebody else looks at it. */
function lookedAt({ who }: HoldPoint, { ref }: Step): DemoEntry {
  const seen = 'as it should be';
  const more =
    who === 'customer' ? { customer: 'the owner' } : who === 'certified person' ? { certificate: 'RC 0417, guild of the valley' } : {};
  return { kind: 'hold-met', payload: { seen, ...more }, step: ref };
}

/** What must be in hand before a step: what takes the place of the old, and before the signature all that is new. */
function hereFirst(sheet: SheetFile, { live }: BenchState, step: Step, { shelf }: DemoUnit): readonly DemoEntry[] {
  const here = (payload: object): DemoEntry => ({ kind: 'replacement-here', payload: { seen: SEEN, ...payload }, step: step.ref });
  const missing = newMissing(sheet, step, live);
  const joint = find(sheet.joints, step.record.joint);
  // New each time is said of the step as a whole, whatever of that part came for another joint.
  const whole = missing && missing.why !== 'renewed' ? [here({})] : [];
  const refs = missing ? partsPutIn(sheet, step).filter((ref) => !joint?.renewEachTime || ref !== joint.part) : [];
  const parts = newPartsMissing(sheet, live, step.record.kind === 'sign' ? undefined : refs);
  const lines = parts.map(({ part, pieces, here: said }) => {
    const item = shelf?.[orderNumber(part) ?? ''];
    return here({ part: part.ref, count: pieces - said, ...(item === undefined ? {} : { item }) });
  });
  return [...whole, ...lines];
}

/** What comes off its seat is to be kept, unless it is renewed anyway. */
function saidFirst(sheet: SheetFile, { intents }: BenchState, step: Step): readonly DemoEntry[] {
  const refs = letGoAt(sheet, step).map(({ part }) => part);
  return [...new Set(refs)]
    .filter((ref) => keptOrNot(sheet, { letsGo: step.letsGo!.filter((fit) => find(sheet.fits ?? [], fit)?.part === ref) }, intents))
    .map((part) => ({ kind: 'intent', payload: { part, intent: 'keep' }, step: step.ref }));
}

function outFirst({ live }: BenchState, { ref, record: { seal } }: Step): readonly DemoEntry[] {
  const isOut = live.some((entry) => entry.kind === 'old-seal-out' && entry.payload.seal === seal);
  return seal === undefined || isOut ? [] : [{ kind: 'old-seal-out', payload: { seal, whole: true }, step: ref }];
}

function record(state: BenchState, step: Step, { unit, tools, random, today }: AtBench): readonly DemoEntry[] {
  const { sheet } = state;
  const own: Own = (kind, payload, tool) => ({
    kind,
    payload,
    step: step.ref,
    ...(tool ? { toolId: tool.id } : {}),
  });
  const read: Read = (truth, repeats, tool) =>
    Array.from(
      { length: repeats },
      () => Math.round(normal(random, truth, tool.s) / tool.resolution) * Number(tool.resolution.toFixed(6)),
    ).map((reading) => Number(reading.toFixed(4)));
  const toolFor: ToolFor = (kind, size) => {
    const tool = tools.find((candidate) => candidate.kind === kind && toolRefusal(candidate, size, today) === undefined);
    if (!tool) throw new Error(`the demo crib has no ${kind ?? 'tool'} for ${size.quantity} ${size.base}`);
    return tool;
  };
  const { record: due } = step;
  switch (due.kind) {
    case 'tick':
      return [own('tick', step.coat ? { masked: step.coat.masked.length } : {})];
    case 'arrival':
      return [own('finding', { text: unit.finding, ...(unit.foundAt === undefined ? {} : { place: unit.foundAt }) })];
    case 'count':
      // How a mark is made is the sheet's; what was marked is the ledger's.
      return countsOf(sheet, step).map(({ part, halfWay: _halfWay, twoPeople: _twoPeople, ...counted }) =>
        own('came-off', { part, name: partName(sheet, part), ...counted, tray: '1' }),
      );
    case 'reading': {
      const limit = find(sheet.limits, due.limit);
      // What is read once it is built is no longer what was found.
      const found = isFound(step) ? unit.limits[due.limit ?? ''] : undefined;
      const truth = found === undefined ? soundSize(limit!) : Math.min(found, mostRead(tools, limit?.tool));
      const quantity = limitQuantity(limit!);
      const tool = toolFor(limit?.tool, { quantity, base: truth });
      const unitTyped = baseUnit(quantity).symbol;
      const reading = (readings: readonly number[], by?: Tool): DemoEntry[] => [
        own('reading', { limit: due.limit, readings, unit: unitTyped }, by),
      ];
      // What a tool only times or holds is read by eye.
      if (tool.quantity !== quantity) return reading(Array.from({ length: limit!.repeats ?? 3 }, () => Number(truth.toPrecision(2))));
      return reading(readingsOf(limit!, truth, tool, read), tool);
    }
    case 'look':
      return [
        own('look', { limit: due.limit, look: (isFound(step) ? unit.looks[due.limit ?? ''] : undefined) ?? soundLook(sheet, due.limit) }),
      ];
    case 'decide':
      return state.decisions
        .filter(({ entry }) => !entry)
        .map(({ part, proposed, because }) =>
          own('decision', {
            part: part.ref,
            fate: proposed,
            quantity: part.quantity,
            reason: because,
            ...failedBy(unit, part.ref, proposed),
          }),
        );
    case 'reconcile':
      return state.reconcile.map((line) =>
        own('counted', { ...(line.part ? { part: line.part } : {}), name: line.name, count: line.expected }),
      );
    case 'fluid': {
      const { figure } = find(sheet.fluids, due.fluid)!.amount ?? {};
      if (figure === undefined) return [own('fluid', { fluid: due.fluid, amount: 0, unit: 'L' })];
      const amount = baseOf(figure, amountQuantity(figure));
      if (amountQuantity(figure) === 'volume') return [own('fluid', { fluid: due.fluid, amount, unit: 'L' })];
      return [
        own(
          'fluid',
          { fluid: due.fluid, amount: Number((amount * SCALED).toPrecision(3)), unit: 'g' },
          toolFor('scale', { quantity: 'mass', base: amount }),
        ),
      ];
    }
    case 'seal': {
      const seal = find(sheet.seals, due.seal)!;
      const fitted = { seal: seal.ref, directionSeen: true, lubricated: true, unit: 'mm' };
      const seen = beforeSeal(seal, state.live).map(({ sight }) => own('seal-seen', { seal: seal.ref, what: sight, fine: true }));
      if (!seal.depth) return [...seen, own('seal-fitted', { ...fitted, depths: [] })];
      const depth = middle(windowOf(seal.depth, 'length'));
      const tool = toolFor(seal.tool, { quantity: 'length', base: depth });
      return [...seen, own('seal-fitted', { ...fitted, depths: read(depth, 3, tool) }, tool)];
    }
    case 'setting':
      return settingEntries(state, step, unit, own, toolFor, read);
    case 'proof': {
      const run = settingOf(state, step);
      const { setting, playNow } = run;
      const atEdge = letStand(run, unit, own);
      if (atEdge) return [atEdge];
      if (isProvedWhole(setting)) return [wholeTurned(setting, sheet, state, own, toolFor, read)];
      const truth = setting.nut ? (playNow ?? 0) : leftAt(setting, unit);
      return [endPlay(setting, 'proved', truth, own, toolFor, read)];
    }
    case 'pattern':
      return [own('pattern', { setting: due.setting, driveAlong: 'centre', driveUp: 'centre', coastAlong: 'centre', coastUp: 'centre' })];
    case 'fit':
      return fitEntries(state, due.fit, own);
    case 'torque': {
      const run = state.joints.find((candidate) => candidate.joint.ref === due.joint);
      const wrenches = new Map<number, Tool>();
      return (run?.left ?? []).map(({ pass, place, torqueNm }) => {
        // A round by hand, by eye or by an angle has no wrench.
        const wrench =
          torqueNm > 0 ? (wrenches.get(torqueNm) ?? toolFor('torque-wrench', { quantity: 'torque', base: torqueNm })) : undefined;
        if (wrench) wrenches.set(torqueNm, wrench);
        return own(
          'pull',
          {
            joint: due.joint,
            pass,
            place,
            torque: torqueNm,
            result: 'clicked',
            wrenchLength: wrench?.length ?? 450,
            adapterLength: 0,
            adapterAngle: 0,
          },
          wrench,
        );
      });
    }
    case 'sign':
      return [own('sign', { name: unit.foreman })];
    case 'hand-over':
      return [own('handed-over', { receivedBy: unit.receivedBy, cautionsTold: true })];
  }
}

/** What the largest tool of a kind reads; past it there is nothing to be read. */
function mostRead(tools: readonly Tool[], kind: string | undefined): number {
  const most = Math.max(...tools.filter((tool) => tool.kind === kind).map(({ high }) => high));
  return most > 0 ? most : Number.POSITIVE_INFINITY;
}

/** Shaft and bore in the middle of what is wanted, then pressed home. */
function fitEntries(state: BenchState, ref: string | undefined, own: Own): readonly DemoEntry[] {
  const run = state.fits.find(({ fit }) => fit.ref === ref)!;
  const { seat } = run.fit;
  const shaft = `${(baseOf(seat, 'length') + middle(fitWindow(run.fit) ?? {})).toFixed(4)} mm`;
  const input = { ...presetForFit(FIT_MEASURED, run, 20), bore: seat, shaft, shaftU: '0.001 mm', boreU: '0.001 mm' };
  return [
    own('worked', { working: FIT_MEASURED, input, fit: ref }),
    own('fitted', { fit: ref, by: 'press', driver: 'tube of the shop', home: 'the note changed' }),
  ];
}

function settingOf(state: BenchState, step: Step): SettingRun {
  return state.settings.find((candidate) => candidate.setting.ref === step.record.setting)!;
}

function endPlay(setting: Setting, moment: string, truth: number, own: Own, toolFor: ToolFor, read: Read): DemoEntry {
  const quantity = settingQuantity(setting);
  const tool = toolFor(setting.tool, { quantity, base: truth });
  const readings = read(truth, setting.repeats, tool);
  return own('end-play', { setting: setting.ref, moment, readings, unit: baseUnit(quantity).symbol }, tool);
}

/** The whole as it turns: what is left in the middle of its window, and all that was read of the rest. */
function wholeTurned(setting: Setting, sheet: SheetFile, { live }: BenchState, own: Own, toolFor: ToolFor, read: Read): DemoEntry {
  const less = sharesOf(setting, sheet, live).map(({ setting: of, limit, torque }) => ({
    ...(of === undefined ? { limit } : { setting: of }),
    torque: torque ?? 0,
  }));
  const whole = middle(proofReads(setting).window) + less.reduce((sum, { torque }) => sum + torque, 0);
  const tool = toolFor(setting.proof?.tool ?? setting.tool, { quantity: 'torque', base: whole });
  const readings = read(whole, setting.repeats, tool);
  return own('end-play', { setting: setting.ref, moment: 'proved', readings, unit: baseUnit('torque').symbol, less }, tool);
}

function settingEntries(state: BenchState, step: Step, unit: DemoUnit, own: Own, toolFor: ToolFor, read: Read): readonly DemoEntry[] {
  const run = settingOf(state, step);
  const { setting } = run;
  const atEdge = letStand(run, unit, own);
  if (atEdge) return [atEdge];
  const readPlay = (moment: string, truth: number): readonly DemoEntry[] => [endPlay(setting, moment, truth, own, toolFor, read)];
  // Whatever is not turned by figures was set by its method, in so many tries.
  if (!setting.nut) {
    const misses = run.tries.length < (unit.misses?.[setting.ref] ?? 0);
    const { from, to } = settingWindow(setting);
    return readPlay('locked', misses ? to + (to - from) * (1 - 0.3 * run.tries.length) : leftAt(setting, unit));
  }
  const { pitch, backOff, seat } = setting.nut;
  switch (run.phase) {
    case 'seat': {
      const torque = baseOf(seat.figure, 'torque');
      const payload = { setting: setting.ref, act: 'seated', angle: -baseOf(backOff, 'angle'), torque };
      return [own('nut', payload, toolFor('torque-wrench', { quantity: 'torque', base: torque }))];
    }
    case 'read':
      return readPlay('now', unit.backedOff);
    case 'turn':
      return [own('nut', { setting: setting.ref, act: 'turned', angle: Number(run.advice?.output['angle'] ?? 0) })];
    default: {
      const turned = state.live.findLast((entry) => entry.kind === 'nut');
      const angle = turned?.kind === 'nut' ? turned.payload.angle : 0;
      return readPlay('locked', unit.backedOff - (baseOf(pitch, 'pitch') * angle) / 360);
    }
  }
}

/** What lies at the edge of its window for good is the foreman's to let stand. */
function letStand({ setting, last }: SettingRun, unit: DemoUnit, own: Own): DemoEntry | undefined {
  if (!last || !mayAccept(last) || unit.leftAt?.[setting.ref] === undefined) return undefined;
  return own('accepted', { setting: setting.ref, why: 'at the edge, and told the customer' });
}

function leftAt(setting: Setting, unit: DemoUnit): number {
  const { from, to } = settingWindow(setting);
  return from + (to - from) * (unit.leftAt?.[setting.ref] ?? 0.5);
}

/** Whether what a step reads is the unit as it came. */
function isFound({ stage }: Step): boolean {
  return STAGES.indexOf(stage) < STAGES.indexOf('decide');
}

function failedBy({ failed }: DemoUnit, part: string, fate: Fate): { readonly cause?: FailedBy } {
  const cause = fate === 'renew' ? failed?.[part] : undefined;
  return cause ? { cause } : {};
}

function middle({ from = 0, to = from }: Window): number {
  return (from + to) / 2;
}

/** A size that nobody would renew a part for. */
function soundSize(limit: Limit): number {
  if (limit.asNew) return middle(windowOf(limit.asNew, limitQuantity(limit)));
  const { from, to } = limitWindow(limit);
  if (from === undefined) return (to ?? 0) * 0.7;
  return to === undefined ? from * 1.01 : middle({ from, to });
}

function soundLook(sheet: SheetFile, limit: string | undefined): string | undefined {
  return find(sheet.limits, limit)?.looks?.find(({ verdict }) => verdict === 'in')?.ref;
}
