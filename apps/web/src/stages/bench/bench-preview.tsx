import type { SheetFile, Step, Tool } from '@jubb/sheet';
import { useState, type ReactElement } from 'react';
import { useTools } from '../../link/queries.ts';
import { KeysOff } from '../../kit/keys.ts';
import { useTrialJob } from '../../job/trial-job.ts';
import { JobProvider } from '../../job/use-job.ts';
import { BenchKeys } from '../../job/recorder/layout.tsx';
import { Recorder, StepWords } from '../job-page/recorder.tsx';
import './bench.scss';

const NO_TOOLS: readonly Tool[] = [];

/** A step as bench view will ask it. Nothing is kept: there is no job. */
export function BenchPreview({ file, step }: { readonly file: SheetFile; readonly step: Step }): ReactElement | null {
  const { data: tools = NO_TOOLS } = useTools();
  const [slot, setSlot] = useState<HTMLElement | null>(null);
  const here = useTrialJob(file, { stage: step.stage, tools });
  if (!here) return null;
  return (
    <JobProvider value={here}>
      <KeysOff value>
        <BenchKeys value={slot}>
          <div className="bench-preview" role="group" aria-label={`Bench view: ${step.title}`} inert>
            <div className="bench-do">
              <StepWords step={step} />
              <Recorder key={step.ref} step={step} />
            </div>
            <div className="bench-keep">
              <div ref={setSlot} className="d-flex flex-grow-1" />
            </div>
          </div>
        </BenchKeys>
      </KeysOff>
    </JobProvider>
  );
}
