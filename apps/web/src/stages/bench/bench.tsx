import { keysHelp } from '../../kit/keymap.ts';
import { stageProgress, stageTakes } from '@jubb/book';
import { STAGES, STAGE_NAMES, cautionsAt, type Stage } from '@jubb/sheet';
import { useEffect, useRef, useState, type ReactElement } from 'react';
import { Link, useNavigate, useParams } from 'react-router';
import { useServerEvents, useLinkWords } from '../../link/live.ts';
import { Clocks } from '../../clocks/clocks.tsx';
import { Care, Loading, Wrong } from '../../kit/pieces.tsx';
import { useKeys } from '../../kit/keys.ts';
import { BenchKeys, RecorderLayout } from '../../job/recorder/layout.tsx';
import { Recorder, StepWords } from '../job-page/recorder.tsx';
import { useSpoken } from '../../kit/prefs.ts';
import { Ahead } from '../../job/timing/ahead.tsx';
import { DoneMeanwhile } from '../../job/recorder/done-meanwhile.tsx';
import { useStepInHand } from '../../job/use-step-in-hand.ts';
import { BuildList, LinesOfStep } from '../build/build-list.tsx';
import { useAwake } from './awake.ts';
import { canSpeak, useSpeech } from './speech.ts';
import { useJobActs } from '../job-page/acts.tsx';
import { JobProvider, useHere, useJob } from '../../job/use-job.ts';
import { PersonKey } from '../../app/person-key.tsx';
import { LinkState } from '../../app/top-bar.tsx';
import { Conflicts } from '../strip/conflicts.tsx';
import { beep } from '../../kit/beep.ts';
import './bench.scss';
import { Undo2, ListChecks, Volume2, Keyboard, LogOut } from 'lucide-react';
import { type MoreAct, KeyStrip } from '../../job/key-strip.tsx';
import { StageDone } from '../../job/stage-done.tsx';

const KEPT_HZ = 1320;
const KEPT_S = 0.08;

/** Full screen, one step: do, number, keep. */
export function Bench(): ReactElement {
  useServerEvents();
  const { id = '' } = useParams();
  const { here, error } = useJob(id);
  if (!here) return <main className="page">{error ? <Wrong error={error} /> : <Loading what="the job" />}</main>;
  return (
    <JobProvider value={here}>
      <BenchStep />
    </JobProvider>
  );
}

function BenchStep(): ReactElement {
  const { job, sheet, state, refused, keep, person } = useHere();
  const go = useNavigate();
  const link = useLinkWords();
  const [slot, setSlot] = useState<HTMLElement | null>(null);
  const [backTo, setBackTo] = useState<string>();
  const [help, setHelp] = useState(false);
  const [showsList, setShowsList] = useState(false);
  const { stage } = state;
  const steps = state.steps.filter((candidate) => candidate.step.stage === stage);
  const { inHand: current, isUnkept } = useStepInHand(job.id, steps, backTo);
  const at = current ? steps.indexOf(current) : -1;
  const acts = useJobActs(current?.step);
  const { dialog } = acts;
  const [spoken, setSpoken] = useSpoken();
  useAwake();
  // Heard without looking: what was pressed is kept.
  const kept = useRef(state.live.length);
  useEffect(() => {
    if (spoken && state.live.length > kept.current) beep(KEPT_HZ, KEPT_S);
    kept.current = state.live.length;
  }, [state.live.length, spoken]);
  useSpeech(
    current ? [...cautionsAt(sheet, current.step).map(({ text }) => text), current.step.title, current.step.act].join('. ') : '',
    spoken,
  );
  // What came off goes in again: from the build on there is a list of it.
  const toggleList = state.build.length > 0 && (stage === 'build' || stage === 'prove') ? () => setShowsList(!showsList) : undefined;
  const back = (): void => setBackTo(steps[Math.max(0, (at < 0 ? steps.length : at) - 1)]?.step.ref);
  const onward = STAGES[STAGES.indexOf(stage) + 1];
  const takes = onward && stageTakes(onward, person.role);
  const { left, total } = stageProgress(state, stage);
  const leave = (): void => void go(`/jobs/${job.id}/${stage}`);
  useKeys({ back, leave, help: () => setHelp(!help), bench: toggleList });
  const more: readonly MoreAct[] = [
    { word: 'Back', sign: Undo2, run: back, cap: 'back' },
    ...(toggleList ? [{ word: showsList ? 'No build list' : 'Build list', sign: ListChecks, run: toggleList, cap: 'bench' as const }] : []),
    ...(canSpeak ? [{ word: spoken ? 'Be silent' : 'Say it aloud', sign: Volume2, run: () => setSpoken(!spoken) }] : []),
    { word: 'Keys', sign: Keyboard, run: () => setHelp(!help), cap: 'help' },
    { word: 'Leave', sign: LogOut, run: leave, cap: 'leave' },
  ];
  useEffect(() => {
    document.title = `${job.number} ${current?.step.title ?? STAGE_NAMES[stage]} · Jubb`;
  }, [job.number, current?.step.title, stage]);
  return (
    <BenchKeys value={slot}>
      <div className="bench">
        <header className="bench-top">
          <b className="fig fs-2">{job.number}</b>
          <b>{job.unit.name}</b>
          <span className="hide-narrow">{job.sheet.file.title}</span>
          <span className="ms-auto">
            <span className="hide-narrow">{STAGE_NAMES[stage]} · </span>
            {total - left + (left > 0 ? 1 : 0)} of {total}
          </span>
          <PersonKey />
          <LinkState words={link} />
        </header>
        <main className="bench-do" tabIndex={0}>
          <Clocks />
          {dialog}
          <Conflicts />
          {refused.length > 0 ? (
            <Care title="Refused">
              The server would not take {refused.length === 1 ? 'an entry' : `${refused.length} entries`}: {refused[0]?.refused?.title}.{' '}
              <Link to={`/jobs/${job.id}/${stage}`}>See to it on the job page</Link>
            </Care>
          ) : null}
          {state.handedOver ? (
            <h1>Handed over to {state.handedOver.payload.receivedBy}</h1>
          ) : showsList ? (
            <>
              <BuildList
                heading="h1"
                chosen={current?.step}
                next={steps.find(({ done }) => !done)?.step}
                onChoose={(ref) => {
                  setBackTo(ref);
                  setShowsList(false);
                }}
              />
              <RecorderLayout primary={{ label: 'Back to the step', run: () => setShowsList(false) }} />
            </>
          ) : current ? (
            <>
              <Ahead except={current.step.ref} />
              <StepWords step={current.step} />
              {current.done && isUnkept ? <DoneMeanwhile step={current.step} /> : null}
              {current.done && !isUnkept ? (
                <RecorderLayout say="Recorded." primary={{ label: 'Go on', run: () => setBackTo(undefined) }} />
              ) : (
                <Recorder key={current.step.ref} step={current.step} />
              )}
              <LinesOfStep step={current.step} />
            </>
          ) : (
            <>
              <StageDone stage={stage} />
              <RecorderLayout
                say={takes === undefined ? undefined : `To go on ${takes}`}
                primary={
                  onward && takes === undefined
                    ? {
                        label: `Go on to ${STAGE_NAMES[onward]}`,
                        run: () => keep({ kind: 'stage', payload: { stage: onward satisfies Stage } }),
                      }
                    : undefined
                }
              />
            </>
          )}
          {help ? (
            <dl className="facts">
              {keysHelp('bench').map(([key, words]) => (
                <div key={key} style={{ display: 'contents' }}>
                  <dt>
                    <kbd>{key}</kbd>
                  </dt>
                  <dd>{words}</dd>
                </div>
              ))}
            </dl>
          ) : null}
        </main>
        <footer className="bench-keep">
          <div ref={setSlot} className="d-flex flex-grow-1" />
          <KeyStrip acts={acts} stage={stage} most={1} more={more} />
        </footer>
      </div>
    </BenchKeys>
  );
}
