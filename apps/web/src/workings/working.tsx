import { looksThroughSeals, shelfFor } from '@jubb/book';
import { workings } from '@jubb/core';
import { useMemo, type ReactElement } from 'react';
import DropdownButton from 'react-bootstrap/DropdownButton';
import DropdownItem from 'react-bootstrap/DropdownItem';
import { useNavigate, useParams } from 'react-router';
import { useToday } from '../link/queries.ts';
import { keepDraft, readDraft } from '../kit/prefs.ts';
import { useSealLines } from '../stores/queries.ts';
import { WorkingForm } from './working-form.tsx';

/** No sheet says here what the seal is to stand. */
const NO_MEDIUM = {};

/** Any working, from its description alone: form, result, way, drawing, sources. */
export function WorkingPage(): ReactElement {
  const { id = '' } = useParams();
  const working = useMemo(() => workings.describe(id), [id]);
  const { data: lines } = useSealLines(looksThroughSeals(id));
  const known = useMemo(() => {
    const shelf = lines ? shelfFor(id, NO_MEDIUM, lines) : [];
    return shelf.length > 0 ? { shelf } : undefined;
  }, [id, lines]);
  if (!working) return <p>There is no such working. The list stands under Workings.</p>;
  return <WorkingForm key={id} working={working} {...(known ? { known } : {})} under={() => <KeepOnJob working={id} />} />;
}

/** Takes what was typed to a job, where the answer is kept with what went in. */
function KeepOnJob({ working }: { readonly working: string }): ReactElement | null {
  const { data: today } = useToday();
  const go = useNavigate();
  const jobs = [...(today?.now ?? []), ...(today?.waiting ?? [])];
  if (jobs.length === 0) return null;
  const take = (jobId: string): void => {
    keepDraft(`${jobId}.${working}`, readDraft(`working.${working}`));
    void go(`/jobs/${jobId}/work/${working}`);
  };
  return (
    <DropdownButton title="Keep it on a job" variant="plain" className="mb-3">
      {jobs.map(({ jobId, number, unit }) => (
        <DropdownItem key={jobId} as="button" onClick={() => take(jobId)}>
          <span className="fig">{number}</span> {unit}
        </DropdownItem>
      ))}
    </DropdownButton>
  );
}
