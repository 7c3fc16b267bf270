import { KeyCap } from '../../kit/key-cap.tsx';
import { workingsAt, openBefore, stacksOf, stageProgress, stageTakes } from '@jubb/book';
import { STAGES, STAGE_NAMES, type Stage } from '@jubb/sheet';
import { useState, type ReactElement } from 'react';
import { Link, Navigate, useNavigate, useParams, useSearchParams } from 'react-router';
import { useKeys } from '../../kit/keys.ts';
import { BuildList } from '../build/build-list.tsx';
import { AskLine } from '../../kit/ask-line.tsx';
import { Loading, Wrong } from '../../kit/pieces.tsx';
import { MeasuringSheet } from '../measure/measuring-sheet.tsx';
import { WorkedOut } from '../measure/worked-out.tsx';
import { Recorded, Recorder, StepWords } from './recorder.tsx';
import { useStepInHand } from '../../job/use-step-in-hand.ts';
import { DoneMeanwhile } from '../../job/recorder/done-meanwhile.tsx';
import { FreeLine } from '../strip/free-line.tsx';
import { Ledger } from '../strip/ledger.tsx';
import { Conflicts } from '../strip/conflicts.tsx';
import { PhotoMaps } from '../strip/photo-map.tsx';
import { Sides } from '../strip/sides.tsx';
import { StackView } from '../strip/stack.tsx';
import { OldParts } from '../build/old-parts.tsx';
import type { JobActs } from '../../job/asks.ts';
import { useJobActs } from './acts.tsx';
import { Beside } from './beside.tsx';
import { Log, type StrikeProps } from '../../job/log.tsx';
import { StepList } from '../../job/step-list.tsx';
import { JobProvider, useHere, useJob } from '../../job/use-job.ts';
import '../../job/job.scss';

export function JobPage(): ReactElement {
  const { id = '', stage } = useParams();
  const { here, error } = useJob(id);
  if (!here) return error ? <Wrong error={error} /> : <Loading what="the job" />;
  const known = STAGES.find((candidate) => candidate === stage);
  if (!known) return <Navigate replace to={`/jobs/${id}/${here.state.stage}`} />;
  return (
    <JobProvider value={here}>
      <StagePage key={known} stage={known} />
    </JobProvider>
  );
}

/** One stage of a job: the ribbon, the step in hand, the other steps, what was recorded. */
function StagePage({ stage }: { readonly stage: Stage }): ReactElement {
  const { job, state, keep, person } = useHere();
  const [search, setSearch] = useSearchParams();
  const go = useNavigate();
  const steps = state.steps.filter((candidate) => candidate.step.stage === stage);
  const undone = steps.find((candidate) => !candidate.done);
  const { inHand: chosen, isUnkept } = useStepInHand(job.id, steps, search.get('step'));
  const acts = useJobActs(chosen?.step);
  const { dialog, ask } = acts;
  const onward = STAGES[STAGES.indexOf(stage) + 1];
  const moveTo = (next: Stage): void => {
    if (!state.handedOver && state.stage !== next && !stageTakes(next, person.role)) keep({ kind: 'stage', payload: { stage: next } });
    void go(`/jobs/${job.id}/${next}`);
  };
  useKeys({ bench: () => void go(`/bench/${job.id}`) });
  const isFinished = undone === undefined;
  const list = { chosen: chosen?.step, next: undone?.step, onChoose: (ref: string) => setSearch({ step: ref }) };
  return (
    <>
      <Ribbon stage={stage} />
      {dialog}
      <OnHold onUp={acts.hold} />
      <Conflicts />
      {state.handedOver ? (
        <p>
          Handed over to {state.handedOver.payload.receivedBy}. <Link to={`/jobs/${job.id}/report`}>The report</Link>
        </p>
      ) : null}
      <div className="two">
        <div>
          {chosen && !(chosen.done && isFinished && !search.get('step') && !isUnkept) ? (
            <section className="work mb-3" aria-label="The step in hand">
              <StepWords step={chosen.step} />
              {chosen.done && isUnkept ? <DoneMeanwhile step={chosen.step} /> : null}
              {chosen.done && !isUnkept && chosen.step.record.kind !== 'decide' && chosen.step.record.kind !== 'arrival' ? (
                <>
                  <p className="soft mb-0">
                    Recorded. To do it again, strike what is wrong below.{' '}
                    <button type="button" className="btn btn-quiet" onClick={() => setSearch({})}>
                      Go on
                    </button>
                  </p>
                  <Recorded step={chosen.step} />
                </>
              ) : state.handedOver ? null : (
                <Recorder step={chosen.step} />
              )}
            </section>
          ) : null}
          {isFinished && !search.get('step') && !isUnkept ? (
            <section className="work mb-3" aria-label="Stage done">
              <h1>{STAGE_NAMES[stage]} is done</h1>
              {onward && !state.handedOver && stageTakes(onward, person.role) ? (
                <p>
                  To go on to {STAGE_NAMES[onward]} {stageTakes(onward, person.role)}.
                </p>
              ) : onward && !state.handedOver ? (
                <GoOn onward={onward} onGo={() => moveTo(onward)} />
              ) : null}
            </section>
          ) : null}
          {stage === 'strip' ? <StripLedger onStrike={(entry) => ask({ what: 'strike', entry })} onPhoto={acts.photo} /> : null}
          {stage === 'build' ? <BuildList {...list} /> : null}
          {stage === 'build' ? <WorkedOut ids={workingsAt('build', state.sheet.family)} /> : null}
          {stage === 'build' ? <Stacks order="build" /> : null}
          {stage === 'decide' ? (
            <p className="keys">
              <Link className="btn btn-plain" to={`/jobs/${job.id}/parts`}>
                Parts to have
              </Link>
              <Link className="btn btn-plain" to={`/jobs/${job.id}/worth`}>
                Worth it?
              </Link>
              <Link className="btn btn-plain" to={`/jobs/${job.id}/quote`}>
                Quote
              </Link>
            </p>
          ) : null}
          {stage === 'measure' ? <MeasuringSheet /> : null}
          {stage === 'decide' || stage === 'build' || stage === 'hand-over' ? <OldParts /> : null}
          {stage === 'build' && state.build.length > 0 ? null : (
            <>
              <h2 className="mt-3">Steps</h2>
              <StepList steps={steps} {...list} />
            </>
          )}
          <h2 className="mt-4">The book</h2>
          <Log onStrike={(entry) => ask({ what: 'strike', entry })} />
        </div>
        <Beside acts={acts} />
      </div>
    </>
  );
}

/** The ledger with a line of one's own, and what lies on an axis as a drawing. */
function StripLedger({ onStrike, onPhoto }: StrikeProps & { readonly onPhoto: JobActs['photo'] }): ReactElement {
  const { state } = useHere();
  const [opened, setOpened] = useState<{ id: string; name: string }>();
  return (
    <>
      {state.handedOver ? null : <FreeLine inside={opened} onLeave={opened ? () => setOpened(undefined) : undefined} />}
      <Ledger onStrike={onStrike} onPhoto={onPhoto} onOpen={({ id, payload }) => setOpened({ id, name: payload.name })} />
      <PhotoMaps />
      <Sides />
      <Stacks order="strip" />
    </>
  );
}

/** What the job waits for, and the way on. */
function OnHold({ onUp }: { readonly onUp: () => void }): ReactElement | null {
  const { job, state } = useHere();
  if (!job.hold || state.handedOver) return null;
  return (
    <div className="care" role="note">
      <b>On hold</b>
      {job.hold.words} ({job.hold.reason}).{' '}
      <button type="button" className="btn btn-plain" onClick={onUp}>
        Take it up again <KeyCap of="hold" />
      </button>
    </div>
  );
}

function Stacks({ order }: { readonly order: 'strip' | 'build' }): ReactElement {
  const { state } = useHere();
  return (
    <>
      {stacksOf(state.ledger).map((stack) => (
        <StackView key={stack.name} stack={stack} order={order} />
      ))}
    </>
  );
}

function GoOn({ onward, onGo }: { readonly onward: Stage; readonly onGo: () => void }): ReactElement {
  useKeys({ act: onGo, keep: onGo });
  return (
    <button type="button" className="btn btn-primary" onClick={onGo}>
      Go on to {STAGE_NAMES[onward]}
    </button>
  );
}

/** So many open steps are named before the rest is counted. */
const OPEN_SHOWN = 4;

function Ribbon({ stage }: { readonly stage: Stage }): ReactElement {
  const { job, state, keep, person } = useHere();
  const takes = stageTakes(stage, person.role);
  const [isBack, setBack] = useState(false);
  const [isAsked, setAsked] = useState(false);
  const open = openBefore(state, stage);
  const take = (why?: string): void => {
    keep({ kind: 'stage', payload: { stage, ...(why !== undefined && { why }) } });
    setAsked(false);
    setBack(true);
  };
  return (
    <nav aria-label="Stages">
      <ol className="ribbon">
        {STAGES.map((candidate) => {
          const { left, total } = stageProgress(state, candidate);
          const isHere = candidate === stage;
          return (
            <li key={candidate}>
              <Link
                to={`/jobs/${job.id}/${candidate}`}
                className={isHere ? 'here' : left === 0 ? 'done' : ''}
                aria-current={isHere ? 'step' : undefined}
              >
                {STAGE_NAMES[candidate]} <small>{left === 0 ? 'done' : left === total ? '' : `${left} left`}</small>
              </Link>
            </li>
          );
        })}
      </ol>
      {stage !== state.stage && !state.handedOver && !isBack ? (
        <p className="soft">
          The job is at {STAGE_NAMES[state.stage]}. {takes === undefined ? null : `To take it to ${STAGE_NAMES[stage]} ${takes}.`}
          <button
            type="button"
            className="btn btn-quiet"
            hidden={takes !== undefined}
            onClick={() => (open.length > 0 ? setAsked(true) : take())}
          >
            Take it {STAGES.indexOf(stage) < STAGES.indexOf(state.stage) ? 'back' : 'on'} to {STAGE_NAMES[stage]}
          </button>
        </p>
      ) : null}
      {isAsked ? (
        <AskLine
          about={job.id}
          title={`On to ${STAGE_NAMES[stage]} with something open`}
          fields={() => [
            {
              name: 'why',
              label: 'Why it goes on',
              required: true,
              longest: 300,
              hint: `Open: ${open.slice(0, OPEN_SHOWN).join('; ')}${open.length > OPEN_SHOWN ? ` and ${open.length - OPEN_SHOWN} more` : ''}. The reason is printed in the report.`,
            },
          ]}
          act={`Take it on to ${STAGE_NAMES[stage]}`}
          onDone={({ why = '' }) => take(why.trim())}
          onClose={() => setAsked(false)}
        />
      ) : null}
    </nav>
  );
}
