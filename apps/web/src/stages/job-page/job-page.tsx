import { KeyCap } from '../../kit/key-cap.tsx';
import { workingsAt, workingsForSeal, openBefore, stacksOf, stageProgress, stageTakes, type StepState, buildCount } from '@jubb/book';
import { STAGES, STAGE_NAMES, find, type Stage } from '@jubb/sheet';
import { FileText, Maximize, Tag } from 'lucide-react';
import { useRef, useState, type ReactElement } from 'react';
import { Link, Navigate, useNavigate, useParams, useSearchParams } from 'react-router';
import Button from 'react-bootstrap/Button';
import { useKeys } from '../../kit/keys.ts';
import { BuildList } from '../build/build-list.tsx';
import { AskLine } from '../../kit/ask-line.tsx';
import { PageTabs, type PageTab } from '../../kit/page-tabs.tsx';
import { Care, Loading, Wrong } from '../../kit/pieces.tsx';
import { MeasuringSheet } from '../measure/measuring-sheet.tsx';
import { WorkedOut } from '../measure/worked-out.tsx';
import { Recorded, Recorder, StepWords } from './recorder.tsx';
import { useStepInHand } from '../../job/use-step-in-hand.ts';
import { DoneMeanwhile } from '../../job/recorder/done-meanwhile.tsx';
import { FreeLine } from '../strip/free-line.tsx';
import { MakeSheet } from '../strip/make-sheet.tsx';
import { Ledger } from '../strip/ledger.tsx';
import { Conflicts } from '../strip/conflicts.tsx';
import { PhotoMaps } from '../strip/photo-map.tsx';
import { Sides } from '../strip/sides.tsx';
import { StackView } from '../strip/stack.tsx';
import { OldParts } from '../build/old-parts.tsx';
import type { JobActs } from '../../job/asks.ts';
import { useJobActs } from './acts.tsx';
import { Beside } from './beside.tsx';
import { keysFor } from '../../job/strip-keys.ts';
import { useWidth } from '../../kit/width.ts';
import { isTouch, takeUpAt } from '../../job/way-in.ts';
import { KeyStrip, type MoreAct } from '../../job/key-strip.tsx';
import { Log, type StrikeProps } from '../../job/log.tsx';
import { StageDone } from '../../job/stage-done.tsx';
import { StepList, type StepChoice } from '../../job/step-list.tsx';
import { JobProvider, useHere, useJob } from '../../job/use-job.ts';
import '../../job/job.scss';

export function JobPage(): ReactElement {
  const { id = '', stage } = useParams();
  const { here, error } = useJob(id);
  if (!here) return error ? <Wrong error={error} /> : <Loading what="the job" />;
  const known = STAGES.find((candidate) => candidate === stage);
  if (!known) {
    const { stage: at, handedOver } = here.state;
    return <Navigate replace to={isTouch() && !handedOver ? takeUpAt(id, at) : `/jobs/${id}/${at}`} />;
  }
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
  const { dialog } = acts;
  const onward = STAGES[STAGES.indexOf(stage) + 1];
  const moveTo = (next: Stage): void => {
    if (!state.handedOver && state.stage !== next && !stageTakes(next, person.role)) keep({ kind: 'stage', payload: { stage: next } });
    void go(`/jobs/${job.id}/${next}`);
  };
  useKeys({ bench: () => void go(`/bench/${job.id}`) });
  const width = useWidth();
  const isFinished = undone === undefined;
  const act = useRef<HTMLElement>(null);
  // The eye goes where the act is, and Enter does it.
  const toStep = (ref: string): void => {
    setSearch((before) => {
      before.set('step', ref);
      return before;
    });
    requestAnimationFrame(() => {
      act.current?.focus({ preventScroll: true });
      act.current?.scrollIntoView({ block: 'nearest' });
    });
  };
  const list = { chosen: chosen?.step, next: undone?.step, onChoose: toStep };
  const isShown = chosen && !(chosen.done && isFinished && !search.get('step') && !isUnkept);
  const more: readonly MoreAct[] = [
    { word: 'Tag', sign: Tag, run: () => void go(`/jobs/${job.id}/label`) },
    { word: 'Report', sign: FileText, run: () => void go(`/jobs/${job.id}/report`) },
  ];
  return (
    <div className="job-page">
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
          {isShown ? (
            <section className="work act-due mb-2" aria-label="The step in hand" ref={act} tabIndex={-1}>
              <StepWords step={chosen.step} />
              {chosen.done && isUnkept ? <DoneMeanwhile step={chosen.step} /> : null}
              {chosen.done && !isUnkept && chosen.step.record.kind !== 'decide' && chosen.step.record.kind !== 'arrival' ? (
                <>
                  <p className="soft mb-0">
                    Recorded. To do it again, strike what is wrong in the book below.{' '}
                    <Button variant="quiet" onClick={() => setSearch({})}>
                      Go on
                    </Button>
                  </p>
                  <Recorded step={chosen.step} />
                </>
              ) : state.handedOver ? null : (
                <Recorder step={chosen.step} />
              )}
            </section>
          ) : (
            <section className="work act-due mb-2" aria-label="Stage done" ref={act} tabIndex={-1}>
              <StageDone stage={stage} />
              {onward && !state.handedOver && stageTakes(onward, person.role) ? (
                <p>
                  To go on to {STAGE_NAMES[onward]} {stageTakes(onward, person.role)}.
                </p>
              ) : onward && !state.handedOver ? (
                <GoOn onward={onward} onGo={() => moveTo(onward)} />
              ) : null}
            </section>
          )}
          {stage === 'strip' && !state.handedOver ? <StripLine /> : null}
          {stage === 'decide' ? <DecideLinks /> : null}
          <UnderTheAct stage={stage} steps={steps} list={list} acts={acts} />
        </div>
        <Beside acts={acts} inHand={chosen?.step.ref} />
      </div>
      <div className="key-bar no-print">
        {state.handedOver ? null : (
          <Link className="btn btn-plain" to={`/bench/${job.id}`}>
            <Maximize size={20} aria-hidden="true" /> Bench <KeyCap of="bench" />
          </Link>
        )}
        <KeyStrip acts={acts} stage={stage} more={more} most={keysFor(width)} />
      </div>
    </div>
  );
}

interface UnderProps {
  readonly stage: Stage;
  readonly steps: readonly StepState[];
  readonly list: StepChoice;
  readonly acts: JobActs;
}

/** What belongs to the work beside the act, one thing at a time: what the stage works by first. */
function UnderTheAct({ stage, steps, list, acts }: UnderProps): ReactElement {
  const { job, state } = useHere();
  const strike: StrikeProps['onStrike'] = (entry) => acts.ask({ what: 'strike', entry });
  const done = steps.filter((one) => one.done).length;
  const { pieces, inNow } = buildCount(state.build);
  const builds = stage === 'build' && pieces > 0;
  // Where a seal goes in, what helps there comes first.
  const seal = find(state.sheet.seals, list.chosen?.record.seal);
  const atSeal = seal ? workingsForSeal(seal) : [];
  const ids = stage === 'measure' || stage === 'build' ? workingsAt(stage, state.sheet.family) : [];
  const stacks = stacksOf(state.ledger);
  const renewed = state.decisions.filter(({ entry }) => entry?.payload.fate === 'renew').length;
  const all: Readonly<Record<string, PageTab | undefined>> = {
    steps: builds
      ? { key: 'steps', name: 'Build list', count: `${inNow}/${pieces}`, body: () => <BuildList {...list} /> }
      : { key: 'steps', name: 'Steps', count: `${done}/${steps.length}`, body: () => <StepList steps={steps} {...list} /> },
    ledger:
      // Struck lines stay in it.
      job.entries.every(({ kind }) => kind !== 'came-off')
        ? undefined
        : {
            key: 'ledger',
            name: 'Ledger',
            count: String(state.ledger.length),
            body: () => <StripLedger onStrike={strike} onPhoto={acts.photo} />,
          },
    sheet: state.sheet.limits.length === 0 ? undefined : { key: 'sheet', name: 'Measuring sheet', body: () => <MeasuringSheet /> },
    drawings:
      stacks.length === 0 && (job.scope?.sides.length ?? 0) < 2 && !state.live.some(({ kind }) => kind === 'photo')
        ? undefined
        : {
            key: 'drawings',
            name: 'Drawings',
            body: () => (
              <>
                <PhotoMaps />
                <Sides />
                {stacks.map((stack) => (
                  <StackView key={stack.name} stack={stack} order={stage === 'strip' ? 'strip' : 'build'} />
                ))}
              </>
            ),
          },
    workings:
      ids.length + atSeal.length === 0 || state.handedOver
        ? undefined
        : {
            key: 'workings',
            name: 'Workings',
            body: () => (
              <>
                {seal ? <WorkedOut ids={atSeal} seal={seal.ref} /> : null}
                <WorkedOut ids={ids} />
              </>
            ),
          },
    parts:
      renewed === 0 || STAGES.indexOf(stage) < STAGES.indexOf('decide')
        ? undefined
        : {
            key: 'parts',
            name: 'Old parts',
            count: String(renewed),
            body: () => <OldParts />,
          },
    book: { key: 'book', name: 'The book', count: String(job.entries.length), body: () => <Log onStrike={strike} /> },
  };
  const first = FIRST_TABS[stage];
  const order = [...first, ...Object.keys(all).filter((key) => !first.includes(key))];
  return <PageTabs id="job-tab" tabs={order.flatMap((key) => all[key] ?? [])} label={(name) => `Under the act: ${name}`} isHigh />;
}

/** What is decided beside the steps: what to have, whether it is worth it, and what it costs. */
function DecideLinks(): ReactElement {
  const { job } = useHere();
  return (
    <p className="keys mt-0">
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
  );
}

/** What a stage works by stands open. */
const FIRST_TABS: Readonly<Record<Stage, readonly string[]>> = {
  'book-in': ['steps'],
  strip: ['ledger', 'steps'],
  measure: ['sheet', 'steps'],
  decide: ['steps', 'parts'],
  build: ['steps'],
  prove: ['steps'],
  'hand-over': ['steps'],
};

/** A line of one's own in the ledger, where the sheet has none. */
function StripLine(): ReactElement {
  const [search, setSearch] = useSearchParams();
  const { state } = useHere();
  const inside = state.ledger.find(({ id }) => id === search.get('inside'));
  const leave = (): void =>
    setSearch((before) => {
      before.delete('inside');
      return before;
    });
  return (
    <>
      <FreeLine inside={inside && { id: inside.id, name: inside.payload.name }} onLeave={inside ? leave : undefined} />
      {inside ? null : <MakeSheet />}
    </>
  );
}

/** The ledger; an assembly of it can be taken apart. */
function StripLedger({ onStrike, onPhoto }: StrikeProps & { readonly onPhoto: JobActs['photo'] }): ReactElement {
  const [, setSearch] = useSearchParams();
  const open = (id: string): void =>
    setSearch((before) => {
      before.set('inside', id);
      return before;
    });
  return <Ledger onStrike={onStrike} onPhoto={onPhoto} onOpen={({ id }) => open(id)} />;
}

/** What the job waits for, and the way on. */
function OnHold({ onUp }: { readonly onUp: () => void }): ReactElement | null {
  const { job, state } = useHere();
  if (!job.hold || state.handedOver) return null;
  return (
    <Care title="On hold">
      {job.hold.words} ({job.hold.reason}).{' '}
      <Button variant="plain" onClick={onUp}>
        Take it up again <KeyCap of="hold" />
      </Button>
    </Care>
  );
}

function GoOn({ onward, onGo }: { readonly onward: Stage; readonly onGo: () => void }): ReactElement {
  useKeys({ act: onGo, keep: onGo });
  return (
    <Button variant="primary" onClick={onGo}>
      Go on to {STAGE_NAMES[onward]}
    </Button>
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
          <Button variant="quiet" hidden={takes !== undefined} onClick={() => (open.length > 0 ? setAsked(true) : take())}>
            Take it {STAGES.indexOf(stage) < STAGES.indexOf(state.stage) ? 'back' : 'on'} to {STAGE_NAMES[stage]}
          </Button>
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
