import { doubtAt, forerunners, hasBegun, hasEnded, holdWords, licencesAt, readsAsFound, trialRun, waitOf } from '@jubb/book';
import { cautionsAt, type RecordKind, type Step, type Way } from '@jubb/sheet';
import { RoutingPicture } from '../../drawings/routing.tsx';
import { useState, type ComponentType, type ReactElement } from 'react';
import { AskLine } from '../../kit/ask-line.tsx';
import Button from 'react-bootstrap/Button';
import { shopToday } from '../../kit/days.ts';
import { Care } from '../../kit/pieces.tsx';
import { PinnedPage } from '../../kit/pinned-page.tsx';
import { unread, useHere } from '../../job/use-job.ts';
import { WhereDone, useNotHere } from '../../job/bench-at.tsx';
import { Pictures } from '../../job/pictures.tsx';
import { DecideRecorder } from '../decide/decide.tsx';
import { RecorderLayout, type RecorderProps } from '../../job/recorder/layout.tsx';
import { ProofRecorder, SettingRecorder } from '../build/setting.tsx';
import { HandOverRecorder, SignRecorder } from '../prove/sign.tsx';
import { WaysOff } from '../strip/way-off.tsx';
import { CountRecorder, ReconcileRecorder } from '../strip/count.tsx';
import { DoubtGate } from '../measure/doubt.tsx';
import { FitRecorder } from '../build/fit.tsx';
import { useGate } from '../../job/recorder/gates.tsx';
import { useTrial } from '../../job/recorder/use-trial.ts';
import { FluidRecorder, SealRecorder } from '../build/fill.tsx';
import { LookRecorder, ReadingRecorder } from '../measure/judge.tsx';
import { PatternRecorder } from '../build/pattern.tsx';
import { ArrivalRecorder, TickRecorder } from '../../job/recorder/simple.tsx';
import { TorqueRecorder, runTitle } from '../build/torque.tsx';
import { KnowHowAt } from '../../job/know-how.tsx';
import { LooksRecorder } from '../../job/looks/looks-recorder.tsx';
import { useTimed } from '../../job/timing/timed.tsx';
import { HoldRecorder } from '../../job/holds/hold-recorder.tsx';
import { useWay } from '../build/use-way.ts';

/** What a step records → what asks for it. */
const RECORDERS: Readonly<Record<RecordKind, ComponentType<RecorderProps>>> = {
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
  pattern: PatternRecorder,
  fit: FitRecorder,
  torque: TorqueRecorder,
  proof: ProofRecorder,
  sign: SignRecorder,
  'hand-over': HandOverRecorder,
};

/** A step that is done and shows how it came to that: every try. */
export function Recorded({ step }: { readonly step: Step }): ReactElement | null {
  const { kind } = step.record;
  if (readsAsFound(step) || (kind !== 'setting' && kind !== 'pattern')) return null;
  const Shows = RECORDERS[kind];
  return <Shows key={step.ref} step={step} />;
}

/** The cautions of a step first, then what it asks; one thing at a time. */
export function Recorder({ step }: { readonly step: Step }): ReactElement {
  const here = useHere();
  const gate = useGate(step);
  const timed = useTimed(step);
  const { chosen: way } = useWay(step);
  const notHere = useNotHere(step, way);
  const cautions = unread(here, step);
  if (cautions.length > 0) {
    const read = (): void =>
      here.keep(...cautions.map((caution) => ({ kind: 'caution-read' as const, payload: { caution: caution.ref }, step: step.ref })));
    return <RecorderLayout say="Read the caution before you begin." primary={{ label: 'I have read it', run: read }} />;
  }
  const { looks: [look, ...then] = [], holds } = here.state.steps.find((one) => one.step.ref === step.ref) ?? {};
  if (look) return <LooksRecorder key={step.ref} step={step} looks={[look, ...then]} />;
  if (holds) return <HoldRecorder key={step.ref} step={step} holds={holds} />;
  // What is looked at and signed afterwards takes no machine.
  if (notHere) return notHere;
  const doubt = doubtAt(here.sheet, here.state.live, step);
  if (doubt) return <DoubtGate key={doubt.line} step={step} doubt={doubt} />;
  // How warm is worked out before anything is warmed.
  const fit = here.state.fits.find((run) => run.fit.ref === step.record.fit);
  const isWorkedOut = fit === undefined || fit.worked !== undefined || (fit.measured !== undefined && way?.by !== 'heat');
  if (timed && isWorkedOut) return timed;
  if (gate) return gate;
  const Asks = RECORDERS[step.record.kind];
  return <Asks key={step.ref} step={step} />;
}

/** What the law leaves to licensed people, and who of the shop is one by what is kept of them. */
function Licensed({ words, step }: { readonly words: string; readonly step: Step }): ReactElement {
  const { job, sheet } = useHere();
  const today = shopToday();
  const kept = job.people
    .map(({ name, licences }) => ({ name, own: licencesAt(sheet, step, licences ?? []) }))
    .filter(({ own }) => own.length > 0);
  const good = kept.filter(({ own }) => own.some((one) => !hasEnded(one, today))).map(({ name }) => name);
  return (
    <span className="fs-6">
      {words}.
      {kept.length === 0
        ? ''
        : good.length === 0
          ? ' Every certificate for it that is kept here is over.'
          : ` With a certificate kept here: ${good.join(', ')}.`}
    </span>
  );
}

/** Heading, cautions and act of a step, before what it asks. */
export function StepWords({ step }: { readonly step: Step }): ReactElement {
  const { sheet, state } = useHere();
  const [isTrial] = useTrial(step);
  const meant = step.record.kind === 'torque' ? state.joints.find((candidate) => candidate.joint.ref === step.record.joint) : undefined;
  const run = meant && isTrial ? trialRun(meant.joint, state.live, sheet.settings) : meant;
  const { problem, looks, holds, done } = state.steps.find((candidate) => candidate.step.ref === step.ref) ?? {};
  return (
    <>
      {cautionsAt(sheet, step).map((caution) => (
        <Care key={caution.ref}>
          {caution.text} {caution.wear ? <b className="fs-6">Wear: {caution.wear}.</b> : null}{' '}
          {caution.licensed ? <Licensed words={caution.licensed} step={step} /> : null}
        </Care>
      ))}
      <h1>{run ? runTitle(run) : step.title}</h1>
      {/* What is done needs no words any more: whoever looks at it needs the room. */}
      {holds || looks ? null : <ActWords step={step} />}
      {step.holdPoint && !holds && !done ? <p className="brass mb-1">Then stop: {holdWords(step.holdPoint)}.</p> : null}
      {problem && !holds && !looks ? <p className="v-out mb-1 first-up">{problem}</p> : null}
      <KnowHowAt step={step} />
      <Pictures of={(entry) => entry.step === step.ref} />
      <NotYet step={step} />
      <WaitClock step={step} />
    </>
  );
}

/** What is done at a step, why and how, and when to stop. */
function ActWords({ step }: { readonly step: Step }): ReactElement {
  const { chosen } = useWay(step);
  return (
    <>
      <p className="act mb-1">{step.act}</p>
      <WhereDone step={step} way={chosen} />
      <Warned step={step} />
      <WaysOff step={step} />
      {step.why ? <p className="soft mb-1 page-only">{step.why}</p> : null}
      {step.needs?.length ? <p className="soft mb-1 page-only">Needs: {step.needs.join(', ')}.</p> : null}
      {step.expect ? <p className="soft mb-1">Expect: {step.expect}</p> : null}
      {step.ways ? <WayPick step={step} /> : null}
      {step.stopWhen ? (
        <p className="mb-1">
          <b>Stop when: </b>
          {step.stopWhen}
        </p>
      ) : null}
      <MoreWords step={step} />
    </>
  );
}

/** What is spoilt by a wrong move: before the hand, at the bench as on the page. */
function Warned({ step: { leaveAlone = [], wrongTools = [] } }: { readonly step: Step }): ReactElement | null {
  const lists = [
    ['Leave alone', leaveAlone],
    ['Wrong tools', wrongTools],
  ] as const;
  return (
    <>
      {lists
        .filter(([, lines]) => lines.length > 0)
        .map(([title, lines]) => (
          <p key={title} className="brass mb-1">
            <b>{title}:</b> {lines.join('; ')}
          </p>
        ))}
    </>
  );
}

/** The wait after a step: its clock begins by itself when the step is done, or here before that. */
function WaitClock({ step }: { readonly step: Step }): ReactElement | null {
  const { state, keep } = useHere();
  const { wait } = step;
  if (!wait || state.handedOver || hasBegun(state, step.ref, wait.what)) return null;
  return (
    <p className="mb-1">
      Then it waits: <b className="fig">{wait.time}</b>, {wait.what}. The clock begins when the step is done.{' '}
      <Button variant="quiet" className="p-0" onClick={() => keep(waitOf(step, wait))}>
        It runs already
      </Button>
    </p>
  );
}

/** A step that is taken out of its turn: what should have come first, and why. */
function NotYet({ step }: { readonly step: Step }): ReactElement | null {
  const { state } = useHere();
  const before = forerunners(state, step);
  if (before.length === 0 || state.steps.some(({ step: { ref }, done }) => ref === step.ref && done)) return null;
  return (
    <Care>
      {before.map(({ step: ref, title, why }) => (
        <div key={ref}>
          {title} comes first. {why}
        </div>
      ))}
    </Care>
  );
}

/** What else the sheet says of a step: beside it on the page, out of the way at the bench. */
function MoreWords({ step }: { readonly step: Step }): ReactElement | null {
  const { sheet } = useHere();
  const routing = (sheet.routings ?? []).find(({ ref }) => ref === step.routing);
  if (!step.ladder?.length && !routing && !step.pinned) return null;
  return (
    <div className="page-only">
      {step.ladder?.length ? (
        <p className="soft mb-1">
          <b>It will not come:</b> {step.ladder.join('; ')}
        </p>
      ) : null}
      <PinnedPage step={step} file={sheet} />
      {routing ? <RoutingPicture routing={routing} /> : null}
    </div>
  );
}

/** The ways of a step, the shop's own first unless another was picked; the pick is kept with the job. */
function WayPick({ step }: { readonly step: Step }): ReactElement {
  const { job, keep } = useHere();
  const { ways = [] } = step;
  const [asking, setAsking] = useState<Way>();
  const { chosen, before } = useWay(step);
  return (
    <div className="way-pick" role="group" aria-label="Ways">
      {ways.map((way) => (
        <Button
          key={way.ref}
          variant="plain"
          className={way === chosen ? 'on' : ''}
          aria-pressed={way === chosen}
          onClick={() => (way.departs ? setAsking(way) : keep({ kind: 'way', payload: { way: way.ref }, step: step.ref }))}
        >
          {way.name}
          {way.shopDefault ? <span className="soft"> the shop’s</span> : null}
          {way.ref === before ? <span className="soft"> as last time</span> : null}
        </Button>
      ))}
      {chosen ? (
        <p className="soft mb-0">
          {[
            chosen.reason,
            chosen.needs && `Needs ${chosen.needs}.`,
            chosen.limits && `Limits: ${chosen.limits}.`,
            chosen.cost && `Costs ${chosen.cost}.`,
          ]
            .filter(Boolean)
            .join(' ')}
          {chosen.departs ? <b className="brass"> Departs from the maker: foreman and customer agree first.</b> : null}
        </p>
      ) : null}
      {asking ? (
        <AskLine
          about={`${job.id}.${step.ref}`}
          title={`${asking.name} departs from the maker`}
          act="Both agree"
          fields={() => [
            { name: 'foreman', label: 'Which foreman agrees', required: true, longest: 100 },
            { name: 'customer', label: 'What the customer said', required: true, hint: 'It is printed in the report.', longest: 300 },
          ]}
          onClose={() => setAsking(undefined)}
          onDone={({ foreman = '', customer = '' }) => {
            keep({ kind: 'way', payload: { way: asking.ref, agreed: { foreman, customer } }, step: step.ref });
            setAsking(undefined);
          }}
        />
      ) : null}
    </div>
  );
}
