import { STAGE_NAMES } from '@jubb/sheet';
import { useMemo, useState, type ReactElement } from 'react';
import { Link } from 'react-router';
import FormLabel from 'react-bootstrap/FormLabel';
import FormControl from 'react-bootstrap/FormControl';
import type { JobHead } from '@jubb/book';
import { DataTable, type Column } from '../kit/data-table.tsx';
import Button from 'react-bootstrap/Button';
import { useJobPages } from '../link/queries.ts';
import { Loading, Title, Wrong } from '../kit/pieces.tsx';
import { dayWords, promiseWords } from '../kit/days.ts';

const stageOf = (job: JobHead): string =>
  job.closedAt ? `Handed over ${dayWords(job.closedAt)}` : job.hold ? `Hold: ${job.hold.words}` : STAGE_NAMES[job.stage];

const COLUMNS: readonly Column<JobHead>[] = [
  {
    id: 'number',
    head: 'Job',
    cellClass: 'fig fs-4',
    value: ({ number }) => number,
    cell: ({ id, number }) => <Link to={`/jobs/${id}`}>{number}</Link>,
  },
  {
    id: 'unit',
    head: 'Unit',
    value: ({ unit }) => `${unit.name} ${unit.serial}`,
    cell: ({ unit }) => (
      <>
        {unit.name} <span className="soft">{unit.serial}</span>
      </>
    ),
  },
  { id: 'machine', head: 'Machine', value: ({ machine }) => machine.name },
  {
    id: 'customer',
    head: 'Customer',
    value: ({ customer }) => customer.name,
    cell: ({ customer }) => <Link to={`/customers/${customer.id}`}>{customer.name}</Link>,
  },
  { id: 'stage', head: 'Stage', value: stageOf },
  {
    id: 'promise',
    head: 'Promise',
    className: 'text-nowrap',
    value: ({ promise, closedAt }) => (closedAt ? '' : promise),
    cell: ({ promise, closedAt }) => (closedAt ? '' : promiseWords(promise)),
  },
];

export function Jobs(): ReactElement {
  const [find, setFind] = useState('');
  const { data, error, hasNextPage, fetchNextPage, isFetchingNextPage } = useJobPages(find.trim());
  const jobs = useMemo(() => data?.pages.flat(), [data]);
  return (
    <>
      <Title>Jobs</Title>
      <div className="d-flex gap-3 align-items-end mb-3">
        <div className="flex-grow-1" style={{ maxWidth: 480 }}>
          <FormLabel htmlFor="find-jobs">Number, unit, machine, customer, complaint</FormLabel>
          <FormControl id="find-jobs" type="search" maxLength={100} value={find} onChange={(event) => setFind(event.target.value)} />
        </div>
        <Link className="btn btn-primary text-nowrap" to="/jobs/new">
          Book in
        </Link>
        <Link className="btn btn-plain text-nowrap" to="/customers">
          Customers
        </Link>
      </div>
      <Wrong error={error} />
      {!jobs && !error ? <Loading what="the jobs" /> : null}
      {jobs?.length === 0 ? <p>{find ? `No job has "${find}" in it.` : 'No jobs yet. Book in the first unit.'}</p> : null}
      {jobs && jobs.length > 0 ? <DataTable name="jobs" columns={COLUMNS} rows={jobs} rowKey={({ id }) => id} /> : null}
      {hasNextPage ? (
        <Button variant="plain" className="mt-3" disabled={isFetchingNextPage} onClick={() => void fetchNextPage()}>
          Show older
        </Button>
      ) : null}
    </>
  );
}
