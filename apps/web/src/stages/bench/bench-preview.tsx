import { jobState, type JobView } from '@jubb/book';
import type { SheetFile, Step } from '@jubb/sheet';
import { useMemo, useState, type ReactElement } from 'react';
import { useSession, useTools } from '../../link/queries.ts';
import { KeysOff } from '../../kit/keys.ts';
import { JobProvider, type JobHere } from '../../job/use-job.ts';
import { BenchKeys } from '../../job/recorder/layout.tsx';
import { Recorder, StepWords } from '../job-page/recorder.tsx';
import './bench.scss';

/** A step as bench view will ask it. Nothing is kept: there is no job. */
export function BenchPreview({ file, step }: { readonly file: SheetFile; readonly step: Step }): ReactElement | null {
  const { data: session } = useSession();
  const { data: tools = [] } = useTools();
  const [slot, setSlot] = useState<HTMLElement | null>(null);
  const here = useMemo((): JobHere | undefined => {
    if (!session) return undefined;
    const nothing = { id: '', name: '', serial: '' };
    const job: JobView = {
      id: `preview-${file.key}`,
      number: 0,
      stage: step.stage,
      complaint: '',
      promise: '',
      estimateMinor: 0,
      hold: null,
      version: 0,
      bookedAt: '',
      closedAt: null,
      scope: null,
      unit: nothing,
      machine: nothing,
      customer: { id: '', name: '', phone: null },
      sheet: { revisionId: '', revision: 0, status: 'draft', file, notOpened: [], newer: null },
      owed: [],
      asLeft: null,
      entries: [],
      people: [session.person],
      tools,
    };
    return {
      job,
      sheet: file,
      state: jobState(file, []),
      person: session.person,
      refused: [],
      tool: (id) => tools.find((tool) => tool.id === id),
      personName: () => session.person.name,
      keep: () => undefined,
    };
  }, [session, tools, file, step.stage]);
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
