import { ENDPOINTS } from '@jubb/wire';
import { addressOf } from '../../link/client.ts';
import { timesIn, jobReport, type ReportRow, type ReportSection } from '@jubb/book';
import { Fragment, type ReactElement } from 'react';
import { Link, useParams } from 'react-router';
import Button from 'react-bootstrap/Button';
import Table from 'react-bootstrap/Table';
import { files } from '../../link/files.ts';
import { useSession } from '../../link/queries.ts';
import { Care, Loading, Title, Wrong } from '../../kit/pieces.tsx';
import { useJob } from '../../job/use-job.ts';
import '../../job/job.scss';
import './report.scss';

/** The customer's report: a page, print, and PDF from the server. */
export function ReportPage(): ReactElement {
  const { id = '' } = useParams();
  const { here, error } = useJob(id);
  const { data: session } = useSession();
  if (!here || !session) return error ? <Wrong error={error} /> : <Loading what="the report" />;
  const report = jobReport(here.job, timesIn(session.shop.zone));
  return (
    <>
      <div className="keys no-print mt-0 mb-3">
        <Button variant="primary" onClick={() => window.print()}>
          Print
        </Button>
        <a className="btn btn-plain" href={addressOf(ENDPOINTS.reports.pdf, { id })} target="_blank" rel="noreferrer">
          PDF
        </a>
        <a className="btn btn-plain" href={addressOf(ENDPOINTS.reports.torqueLog, { id })}>
          Torque log (CSV)
        </a>
        <Link className="btn btn-plain" to={`/jobs/${id}`}>
          Back to the job
        </Link>
      </div>
      <article className="report">
        {session.shop.logo === null ? null : <img className="report-logo" src={files.url(session.shop.logo)} alt="" height={56} />}
        <p className="soft mb-0">{session.shop.name}</p>
        <Title>{report.title}</Title>
        <dl className="facts">
          {report.facts.map(([label, text]) => (
            <Fragment key={label}>
              <dt>{label}</dt>
              <dd>{text}</dd>
            </Fragment>
          ))}
        </dl>
        {report.sections.map((section) => (
          <Section key={section.title} section={section} />
        ))}
        <section>
          <h2>Chain</h2>
          <p className="hash fig mb-0">{report.hash}</p>
          <p className="soft">
            Every entry is chained to the one before it; this is the last one&apos;s mark. A changed entry would change it.
          </p>
        </section>
      </article>
    </>
  );
}

function Section({ section }: { readonly section: ReportSection }): ReactElement {
  const text = (section.text ?? []).map((line) => (
    <p key={line} className="mb-1">
      {line}
    </p>
  ));
  return (
    <section>
      <h2>{section.title}</h2>
      {section.care ? <Care>{text}</Care> : text}
      {section.table ? (
        <div className="table-wide" role="region" aria-label={section.title} tabIndex={0}>
          <Table>
            <thead>
              <tr>
                {section.table.head.map((cell) => (
                  <th key={cell} scope="col">
                    {cell}
                  </th>
                ))}
              </tr>
            </thead>
            <tbody>
              {section.table.rows.map((row, index) => (
                <Row key={index} row={row} />
              ))}
            </tbody>
          </Table>
        </div>
      ) : null}
    </section>
  );
}

function Row({ row }: { readonly row: ReportRow }): ReactElement {
  return (
    <>
      <tr>
        {row.cells.map((cell, index) => (
          <td key={index} className={row.struck ? 'struck' : ''}>
            {cell}
          </td>
        ))}
      </tr>
      {row.struck ? (
        <tr>
          <td colSpan={row.cells.length} className="soft">
            {row.struck}
          </td>
        </tr>
      ) : null}
    </>
  );
}
