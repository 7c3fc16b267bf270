import type { RecordKind, Step } from '@jubb/contract/job';
import type { ComponentType, ReactElement } from 'react';
import { Care } from '../kit/pieces.tsx';
import { unread, useHere } from '../job/use-job.ts';
import { DecideRecorder } from './decide.tsx';
import { RecorderLayout } from './layout.tsx';
import { ProofRecorder, SettingRecorder } from './setting.tsx';
import { HandOverRecorder, SignRecorder } from './sign.tsx';
import {
  ArrivalRecorder,
  CountRecorder,
  FluidRecorder,
  LookRecorder,
  ReadingRecorder,
  ReconcileRecorder,
  SealRecorder,
  TickRecorder,
} from './simple.tsx';
import { TorqueRecorder, runTitle } from './torque.tsx';

/** What a step records → what asks for it. */
const RECORDERS: Readonly<Record<RecordKind, ComponentType<{ readonly step: Step }>>> = {
  tick: TickRecorder,
  arrival: ArrivalRecorder,
  count: CountRecorder,
  reading: ReadingRecorder,
  look: LookRecorder,
  decide: DecideRecorder,
  reconcile: ReconcileRecorder,
  fluid: FluidRecorder,
  seal: SealRecorder,
  setting: SettingRecorder,
  torque: TorqueRecorder,
  proof: ProofRecorder,
  sign: SignRecorder,
  'hand-over': HandOverRecorder,
};

/** The cautions of a step first, then what it asks; one thing at a time. */
export function Recorder({ step }: { readonly step: Step }): ReactElement {
  const here = useHere();
  const cautions = unread(here, step);
  if (cautions.length > 0) {
    const read = (): void =>
      here.keep(...cautions.map((caution) => ({ kind: 'caution-read' as const, payload: { caution: caution.ref }, step: step.ref })));
    return <RecorderLayout say="Read the caution before you begin." primary={{ label: 'I have read it', run: read }} />;
  }
  const Asks = RECORDERS[step.record.kind];
  return <Asks key={step.ref} step={step} />;
}

/** Heading, cautions and act of a step, before what it asks. */
export function StepWords({ step }: { readonly step: Step }): ReactElement {
  const { sheet, state } = useHere();
  const run = step.record.kind === 'torque' ? state.joints.find((candidate) => candidate.joint.ref === step.record.joint) : undefined;
  const problem = state.steps.find((candidate) => candidate.step.ref === step.ref)?.problem;
  return (
    <>
      {(step.cautions ?? []).map((ref) => {
        const caution = sheet.cautions.find((candidate) => candidate.ref === ref);
        return caution ? (
          <Care key={ref}>
            {caution.text} {caution.wear ? <b className="fs-6">Wear: {caution.wear}.</b> : null}
          </Care>
        ) : null;
      })}
      <h1>{run ? runTitle(run) : step.title}</h1>
      <p className="act mb-1">{step.act}</p>
      {step.why ? <p className="soft mb-1 page-only">{step.why}</p> : null}
      {step.needs?.length ? <p className="soft mb-1 page-only">Needs: {step.needs.join(', ')}.</p> : null}
      {step.stopWhen ? (
        <p className="mb-1">
          <b>Stop when: </b>
          {step.stopWhen}
        </p>
      ) : null}
      {problem ? <p className="v-out mb-1">{problem}</p> : null}
    </>
  );
}
