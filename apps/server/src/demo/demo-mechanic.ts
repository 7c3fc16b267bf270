import {
  baseOf,
  find,
  limitWindow,
  nextAct,
  partName,
  windowOf,
  type JobState,
  type NewEntry,
  type SheetFile,
  type Step,
  type Tool,
} from '@jubb/contract';
import { normal } from './random.js';

export type DemoEntry = Pick<NewEntry, 'kind' | 'payload'> & Partial<Pick<NewEntry, 'step' | 'toolId'>>;

/** What the hub on the bench really is: the demo mechanic's readings scatter about it. */
export interface DemoUnit {
  readonly limits: Readonly<Record<string, number>>;
  readonly looks: Readonly<Record<string, string>>;
  readonly finding: string;
  /** End play once the nut is seated and backed off, mm. */
  readonly backedOff: number;
  readonly receivedBy: string;
  readonly foreman: string;
}

/** Does the next act of a job as a mechanic would, with readings drawn from the unit and the tool. */
export function nextEntries(
  sheet: SheetFile,
  state: JobState,
  unit: DemoUnit,
  tools: readonly Tool[],
  random: () => number,
): readonly DemoEntry[] {
  const act = nextAct(state);
  if (!act) return [];
  const { step } = act;
  if (!step) return [{ kind: 'stage', payload: { stage: act.stage } }];
  const toRead = (step.cautions ?? [])
    .filter((caution) => !state.cautionsRead.some((entry) => entry.payload.caution === caution))
    .map((caution): DemoEntry => ({ kind: 'caution-read', payload: { caution }, step: step.ref }));
  return [...toRead, ...record(sheet, state, step, unit, tools, random)];
}

function record(
  sheet: SheetFile,
  state: JobState,
  step: Step,
  unit: DemoUnit,
  tools: readonly Tool[],
  random: () => number,
): readonly DemoEntry[] {
  const own = (kind: DemoEntry['kind'], payload: object, tool?: Tool): DemoEntry => ({
    kind,
    payload,
    step: step.ref,
    ...(tool ? { toolId: tool.id } : {}),
  });
  const read = (truth: number, repeats: number, tool: Tool): number[] =>
    Array.from(
      { length: repeats },
      () => Math.round(normal(random, truth, tool.s) / tool.resolution) * Number(tool.resolution.toFixed(6)),
    ).map((reading) => Number(reading.toFixed(4)));
  const toolFor = (kind: string | undefined, size: number): Tool => {
    const today = new Date().toISOString().slice(0, 10);
    const tool = tools.find(
      (candidate) =>
        candidate.kind === kind && candidate.low <= size && size <= candidate.high && (candidate.calibrationDue ?? today) >= today,
    );
    if (!tool) throw new Error(`the demo crib has no ${kind ?? 'tool'} for ${size}`);
    return tool;
  };
  const { record: due } = step;
  switch (due.kind) {
    case 'tick':
      return [own('tick', {})];
    case 'arrival':
      return [own('finding', { text: unit.finding, place: 'hub nose' })];
    case 'count':
      return (due.counts ?? []).map(({ part, count, place }) =>
        own('came-off', { part, name: partName(sheet, part), count, ...(place ? { place } : {}), tray: '1' }),
      );
    case 'reading': {
      const limit = find(sheet.limits, due.limit);
      const truth = unit.limits[due.limit ?? ''] ?? limitWindow(limit!).from ?? 0;
      const tool = toolFor(limit?.tool, truth);
      return [own('reading', { limit: due.limit, readings: read(truth, limit?.repeats ?? 3, tool), unit: 'mm' }, tool)];
    }
    case 'look':
      return [own('look', { limit: due.limit, look: unit.looks[due.limit ?? ''] ?? 'clean' })];
    case 'decide':
      return state.decisions
        .filter(({ entry }) => !entry)
        .map(({ part, proposed, because }) =>
          own('decision', { part: part.ref, fate: proposed, quantity: part.quantity, reason: because }),
        );
    case 'reconcile':
      return state.reconcile.map((line) =>
        own('counted', { ...(line.part ? { part: line.part } : {}), name: line.name, count: line.expected }),
      );
    case 'fluid': {
      const amount = baseOf(find(sheet.fluids, due.fluid)!.amount!.figure, 'mass');
      return [own('fluid', { fluid: due.fluid, amount: Number((amount + 0.002).toFixed(3)), unit: 'g' }, toolFor('scale', amount))];
    }
    case 'seal': {
      const seal = find(sheet.seals, due.seal)!;
      const { from = 0, to = from } = windowOf(seal.depth!, 'length');
      const tool = toolFor(seal.tool, 1);
      return [
        own(
          'seal-fitted',
          { seal: seal.ref, directionSeen: true, lubricated: true, depths: read((from + to) / 2, 3, tool), unit: 'mm' },
          tool,
        ),
      ];
    }
    case 'setting':
      return settingEntries(
        state,
        step,
        unit,
        own,
        (truth) => ({ tool: toolFor('dial-indicator', truth), readings: read(truth, 3, toolFor('dial-indicator', truth)) }),
        toolFor('torque-wrench', 70),
      );
    case 'proof': {
      const last = state.settings.find((run) => run.setting.ref === due.setting)?.playNow ?? 0;
      const tool = toolFor('dial-indicator', last);
      return [own('end-play', { setting: due.setting, moment: 'proved', readings: read(last, 3, tool), unit: 'mm' }, tool)];
    }
    case 'torque': {
      const run = state.joints.find((candidate) => candidate.joint.ref === due.joint);
      if (!run?.next) return [];
      const wrench = toolFor('torque-wrench', run.next.torqueNm);
      return [
        own(
          'pull',
          {
            joint: due.joint,
            pass: run.next.pass,
            place: run.next.place,
            torque: run.next.torqueNm,
            result: 'clicked',
            wrenchLength: wrench.length ?? 450,
            adapterLength: 0,
            adapterAngle: 0,
          },
          wrench,
        ),
      ];
    }
    case 'sign':
      return [own('sign', { name: unit.foreman })];
    case 'hand-over':
      return [own('handed-over', { receivedBy: unit.receivedBy, cautionsTold: true })];
  }
}

function settingEntries(
  state: JobState,
  step: Step,
  unit: DemoUnit,
  own: (kind: DemoEntry['kind'], payload: object, tool?: Tool) => DemoEntry,
  dial: (truth: number) => { tool: Tool; readings: number[] },
  wrench: Tool,
): readonly DemoEntry[] {
  const run = state.settings.find((candidate) => candidate.setting.ref === step.record.setting);
  if (!run) return [];
  const { setting } = run;
  const pitch = baseOf(setting.nut!.pitch, 'pitch');
  const endPlay = (moment: string, truth: number): DemoEntry => {
    const { tool, readings } = dial(truth);
    return own('end-play', { setting: setting.ref, moment, readings, unit: 'mm' }, tool);
  };
  switch (run.phase) {
    case 'seat':
      return [
        own(
          'nut',
          {
            setting: setting.ref,
            act: 'seated',
            angle: -baseOf(setting.nut!.backOff, 'angle'),
            torque: baseOf(setting.nut!.seat.figure, 'torque'),
          },
          wrench,
        ),
      ];
    case 'read':
      return [endPlay('now', unit.backedOff)];
    case 'turn':
      return [own('nut', { setting: setting.ref, act: 'turned', angle: Number(run.advice?.output['angle'] ?? 0) })];
    default: {
      const turned = state.live.findLast((entry) => entry.kind === 'nut');
      const angle = turned?.kind === 'nut' ? turned.payload.angle : 0;
      return [endPlay('locked', unit.backedOff - (pitch * angle) / 360)];
    }
  }
}
