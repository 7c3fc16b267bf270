import { looksThroughSeals, partAbout, presetForSeal, workOut, type SealLine } from '@jubb/book';
import { STAGE_NAMES, find } from '@jubb/sheet';
import { workings, type WorkingRun } from '@jubb/core';
import { useMemo, useState, type ReactElement } from 'react';
import { Link, useNavigate, useParams, useSearchParams } from 'react-router';
import FormLabel from 'react-bootstrap/FormLabel';
import FormSelect from 'react-bootstrap/FormSelect';
import Button from 'react-bootstrap/Button';
import { JobFrame } from '../../job/job-frame.tsx';
import { useHere } from '../../job/use-job.ts';
import { useSealLines } from '../../stores/queries.ts';
import { WorkingForm } from '../../workings/working-form.tsx';
import { DiodeReader } from './diode-reader.tsx';
import { IntoSheet, type FoundDraft } from './into-sheet.tsx';

/** A working used on a job: its result is kept with what went in, and speaks for or against a part. */
export function WorkPage(): ReactElement {
  return (
    <JobFrame>
      <Work />
    </JobFrame>
  );
}

/** A job's own figures only: what the example has is nobody's reading. */
const NOTHING_KNOWN = {};
const NO_LINES: readonly SealLine[] = [];

function Work(): ReactElement {
  const { working: id = '' } = useParams();
  const { job, sheet, state, keep } = useHere();
  const go = useNavigate();
  const working = workings.describe(id);
  const [search] = useSearchParams();
  const seal = find(sheet.seals, search.get('seal') ?? '');
  const [part, setPart] = useState(() => seal?.part ?? partAbout(id, sheet.parts)?.ref ?? '');
  const { data: lines = NO_LINES } = useSealLines(seal !== undefined && looksThroughSeals(id));
  const preset = useMemo(() => (seal ? presetForSeal(id, seal, lines) : NOTHING_KNOWN), [id, seal, lines]);
  if (!working) return <p>There is no such working.</p>;
  const put = (run: WorkingRun, found?: FoundDraft): void => {
    const worked = workOut(id, run.input);
    if (!('used' in worked)) return;
    keep({ kind: 'worked', payload: { working: id, input: run.input, ...(part ? { part } : {}) } }, ...(found ? [found] : []));
    void go(`/jobs/${job.id}/${state.stage}`);
  };
  const keepKey = (run: WorkingRun): ReactElement | null =>
    state.handedOver ? null : (
      <div className="d-flex flex-wrap gap-3 align-items-end mb-3">
        <div>
          <FormLabel htmlFor="about-part">It is about</FormLabel>
          <FormSelect id="about-part" value={part} onChange={(event) => setPart(event.target.value)}>
            <option value="">the unit as a whole</option>
            {sheet.parts.map(({ ref, name }) => (
              <option key={ref} value={ref}>
                {name}
              </option>
            ))}
          </FormSelect>
        </div>
        <Button variant="primary" onClick={() => put(run)}>
          Keep it on the job
        </Button>
        <IntoSheet working={id} run={run} onPut={(found) => put(run, found)} />
      </div>
    );
  return (
    <>
      <p className="soft mb-2">
        {part ? `A verdict of "out" proposes to renew: ${find(sheet.parts, part)?.name ?? part}. ` : ''}
        <Link to={`/jobs/${job.id}/${state.stage}`}>Back to {STAGE_NAMES[state.stage]}</Link>
      </p>
      {id === 'alternator.diodes' ? (
        <DiodeReader under={keepKey} />
      ) : (
        <WorkingForm key={id} working={working} draftKey={`${job.id}.${id}${seal ? `.${seal.ref}` : ''}`} preset={preset} under={keepKey} />
      )}
    </>
  );
}
