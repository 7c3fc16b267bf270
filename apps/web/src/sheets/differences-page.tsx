import type { ReactElement } from 'react';
import { Link, useParams } from 'react-router';
import { useSheet } from '../link/queries.ts';
import { useDifferences } from './queries.ts';
import { Loading, Title, Wrong } from '../kit/pieces.tsx';
import { DifferenceList } from './difference-list.tsx';
import './sheets.scss';

/** What one revision says otherwise than another. */
export function DifferencesPage(): ReactElement {
  const { id = '', against = '' } = useParams();
  const { data: after, error } = useSheet(id);
  const { data: before } = useSheet(against);
  const { data: differences, error: refusal } = useDifferences(id, against);
  if (!after || !before || !differences) return error || refusal ? <Wrong error={error ?? refusal} /> : <Loading what="both revisions" />;
  return (
    <>
      <Title
        sub={
          <>
            What <Link to={`/sheets/${id}`}>revision {after.revision}</Link> ({after.status}) says otherwise than{' '}
            <Link to={`/sheets/${against}`}>revision {before.revision}</Link> ({before.status}).
          </>
        }
      >
        {after.title}
      </Title>
      <DifferenceList differences={differences} />
      {after.status === 'draft' ? (
        <Link className="btn btn-plain" to={`/sheets/${id}/edit`}>
          Back to the draft
        </Link>
      ) : null}
    </>
  );
}
