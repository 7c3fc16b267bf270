import { stageProgress } from '@jubb/book';
import { useEffect, useState, type ReactElement } from 'react';
import Button from 'react-bootstrap/Button';
import ProgressBar from 'react-bootstrap/ProgressBar';
import { useNavigate } from 'react-router';
import { BenchKeys } from '../job/recorder/layout.tsx';
import { useTrialJob } from '../job/trial-job.ts';
import { JobProvider, useHere } from '../job/use-job.ts';
import { Recorder, StepWords } from '../stages/job-page/recorder.tsx';
import { endTour } from './tour-seen.ts';
import { TOUR_SHEET, TOUR_TOOLS } from './tour-sheet.ts';
import '../stages/bench/bench.scss';
import './tour.scss';

/** What is said of each act of the tour, before it is done. */
const SAYS: Readonly<Record<string, string>> = {
  'wheel-nuts':
    'The figure is what the wrench is set to; the plate shows which nut is next. Pull it, then press the large key, Space or Enter. Each pull is an entry: who, when, which wrench.',
  journal:
    'Say which micrometer, type what it reads, such as 24.982, and keep it. Jubb says whether that is in, out, or too near to the limit for this tool to tell.',
  'set-nut':
    'Press what you have done: seated, backed off. Then type what the dial shows, such as 0.17: Jubb says how far to turn and which slot takes the pin.',
};

/** Ninety seconds at a bench that is not there: a joint pulled, a reading judged, a nut set. Nothing of it is kept. */
export function TourPage(): ReactElement {
  // Begun again, it is another job.
  const [run, setRun] = useState(0);
  return <Tour key={run} onAgain={() => setRun(run + 1)} />;
}

function Tour({ onAgain }: { readonly onAgain: () => void }): ReactElement | null {
  const here = useTrialJob(TOUR_SHEET, { stage: 'build', tools: TOUR_TOOLS, keeps: true });
  if (!here) return null;
  return (
    <JobProvider value={here}>
      <TourStep onAgain={onAgain} />
    </JobProvider>
  );
}

function TourStep({ onAgain }: { readonly onAgain: () => void }): ReactElement {
  const { state } = useHere();
  const go = useNavigate();
  const [slot, setSlot] = useState<HTMLElement | null>(null);
  const { left, total } = stageProgress(state, 'build');
  const current = state.steps.find(({ done }) => !done)?.step;
  useEffect(() => {
    document.title = 'First tour · Jubb';
    if (left === 0) endTour();
  }, [left]);
  const leave = (): void => {
    endTour();
    void go('/');
  };
  return (
    <BenchKeys value={slot}>
      <div className="bench">
        <header className="bench-top tour-top">
          <b>First tour</b>
          <div className="progress">
            <ProgressBar isChild now={total - left} max={total} aria-label={`${total - left} of ${total} done`} />
          </div>
          <Button variant="quiet" className="ms-auto" onClick={leave}>
            {current ? 'Skip it' : 'Leave'}
          </Button>
        </header>
        <main className="bench-do" tabIndex={0}>
          {current ? (
            <>
              <p className="tour-says" role="status">
                {SAYS[current.ref]}
              </p>
              <StepWords step={current} />
              <Recorder key={current.ref} step={current} />
            </>
          ) : (
            <>
              <h1>That was the bench.</h1>
              <p>
                A joint pulled in its order, a reading judged with its tool, a nut set by what the dial showed. On a job each of these is in
                the book at once, and in the report that the customer gets. What you press by mistake is struck, never lost.
              </p>
              <div className="keys">
                <Button variant="primary" onClick={leave}>
                  To the benches
                </Button>
                <Button variant="plain" onClick={onAgain}>
                  Once more
                </Button>
              </div>
            </>
          )}
        </main>
        <footer className="bench-keep">
          <div ref={setSlot} className="d-flex flex-grow-1" />
        </footer>
      </div>
    </BenchKeys>
  );
}
