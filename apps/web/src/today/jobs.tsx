import { STAGE_NAMES } from '@jubb/sheet';
import { useState, type ReactElement } from 'react';
import { Link } from 'react-router';
import { useJobPages } from '../link/queries.ts';
import { Loading, Title, Wrong } from '../kit/pieces.tsx';
import { dayWords, promiseWords } from '../kit/days.ts';

export function Jobs(): ReactElement {
  const [find, setFind] = useState('');
  const { data, error, hasNextPage, fetchNextPage, isFetchingNextPage } = useJobPages(find.trim());
  const jobs = data?.pages.flat();
  return (
    <>
      <Title>Jobs</Title>
      <div className="d-flex gap-3 align-items-end mb-3">
        <div className="flex-grow-1" style={{ maxWidth: 480 }}>
          <label className="form-label" htmlFor="find-jobs">
            Number, unit, machine, customer, complaint
          </label>
          <input
            id="find-jobs"
            className="form-control"
            type="search"
            maxLength={100}
            value={find}
            onChange={(event) => setFind(event.target.value)}
          />
        </div>
        <Link className="btn btn-primary" to="/jobs/new">
          Book in
        </Link>
      </div>
      <Wrong error={error} />
      {!jobs && !error ? <Loading what="the jobs" /> : null}
      {jobs?.length === 0 ? <p>{find ? `No job has "${find}" in it.` : 'No jobs yet. Book in the first unit.'}</p> : null}
      {jobs && jobs.length > 0 ? (
        <table className="table">
          <thead>
            <tr>
              <th scope="col">Job</th>
              <th scope="col">Unit</th>
              <th scope="col">Machine</th>
              <th scope="col">Customer</th>
              <th scope="col">Stage</th>
              <th scope="col">Promise</th>
            </tr>
          </thead>
          <tbody>
            {jobs.map((job) => (
              <tr key={job.id}>
                <td className="fig fs-4">
                  <Link to={`/jobs/${job.id}`}>{job.number}</Link>
                </td>
                <td>
                  {job.unit.name} <span className="soft">{job.unit.serial}</span>
                </td>
                <td>{job.machine.name}</td>
                <td>{job.customer.name}</td>
                <td>
                  {job.closedAt ? `Handed over ${dayWords(job.closedAt)}` : job.hold ? `Hold: ${job.hold.words}` : STAGE_NAMES[job.stage]}
                </td>
                <td>{job.closedAt ? '' : promiseWords(job.promise)}</td>
              </tr>
            ))}
          </tbody>
        </table>
      ) : null}
      {hasNextPage ? (
        <button type="button" className="btn btn-plain mt-3" disabled={isFetchingNextPage} onClick={() => void fetchNextPage()}>
          Show older
        </button>
      ) : null}
    </>
  );
}
