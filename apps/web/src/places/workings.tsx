import type { ReactElement } from 'react';
import { Link } from 'react-router';
import { useWorkings } from '../api/queries.ts';
import { Loading, Title, Wrong } from '../kit/pieces.tsx';

export function Workings(): ReactElement {
  const { data: workings, error } = useWorkings();
  if (!workings) return error ? <Wrong error={error} /> : <Loading what="the workings" />;
  return (
    <>
      <Title sub="Questions a bench asks, with the way to the answer and where it comes from.">Workings</Title>
      <table className="table">
        <thead>
          <tr>
            <th scope="col">Question</th>
            <th scope="col">About</th>
            <th scope="col">Rests on</th>
          </tr>
        </thead>
        <tbody>
          {workings.map((working) => (
            <tr key={working.id}>
              <td>
                <Link to={`/workings/${working.id}`}>{working.title}</Link>
              </td>
              <td>{working.area}</td>
              <td className="soft">{working.sources.map((source) => source.document).join('; ')}</td>
            </tr>
          ))}
        </tbody>
      </table>
    </>
  );
}
