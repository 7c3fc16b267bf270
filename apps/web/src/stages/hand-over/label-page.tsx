import { ENDPOINTS } from '@jubb/wire';
import { addressOf } from '../../link/client.ts';
import type { ReactElement } from 'react';
import { Link, useParams } from 'react-router';
import Button from 'react-bootstrap/Button';
import { useJobView } from '../../link/queries.ts';
import { Loading, Title, Wrong } from '../../kit/pieces.tsx';
import '../../sheets/sheets.scss';

/** The tag to print and hang on the unit; its code opens the job. */
export function LabelPage(): ReactElement {
  const { id = '' } = useParams();
  const { data: job, error } = useJobView(id);
  if (!job) return error ? <Wrong error={error} /> : <Loading what="the job" />;
  const source = addressOf(ENDPOINTS.reports.label, { id });
  return (
    <>
      <Title sub="Prints at 90 × 50 mm. The code opens the job on any device in the shop’s network.">{`Tag of job ${job.number}`}</Title>
      <img className="label" src={source} alt={`Tag: job ${job.number}, ${job.unit.name}, ${job.unit.serial}, ${job.customer.name}`} />
      <div className="keys no-print">
        <Button variant="primary" onClick={() => window.print()}>
          Print it
        </Button>
        <a className="btn btn-plain" href={source} download={`job-${job.number}.svg`}>
          SVG
        </a>
        <Link className="btn btn-plain" to={`/jobs/${id}`}>
          To the job
        </Link>
      </div>
    </>
  );
}
