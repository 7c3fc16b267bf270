import type { ReactElement } from 'react';
import Table from 'react-bootstrap/Table';
import { Link } from 'react-router';
import { Loading, Title, Wrong } from '../kit/pieces.tsx';
import { useSights } from '../link/queries.ts';

/** What the demo has to show, a line each that opens its place. */
export function SightsPage(): ReactElement {
  const { data, error } = useSights();
  if (!data) return error ? <Wrong error={error} /> : <Loading what="what there is to see" />;
  return (
    <>
      <Title>What to look at</Title>
      {data.length === 0 ? (
        <p>
          This shop is your own: there is nothing to show in it but its work. <Link to="/">Today</Link>
        </p>
      ) : (
        <Table>
          <tbody>
            {data.map(({ words, path }, at) => (
              <tr key={path}>
                <td className="fig fs-4" style={{ width: 48 }}>
                  {at + 1}
                </td>
                <td className="fs-5">
                  <Link to={path}>{words}</Link>
                </td>
              </tr>
            ))}
          </tbody>
        </Table>
      )}
    </>
  );
}
