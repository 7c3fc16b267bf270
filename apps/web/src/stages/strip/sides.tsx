import { countsBySide } from '@jubb/book';
import type { ReactElement } from 'react';
import Table from 'react-bootstrap/Table';
import { useHere } from '../../job/use-job.ts';

/** What came off each side or wheel, column by column: what differs stands out. */
export function Sides(): ReactElement | null {
  const { job, sheet, state } = useHere();
  const sides = job.scope?.sides ?? [];
  const rows = sides.length > 1 ? countsBySide(sheet, sides, state.ledger) : [];
  if (rows.length === 0) return null;
  return (
    <Table>
      <caption className="caption-top">Side by side</caption>
      <thead>
        <tr>
          <th scope="col">Part</th>
          {sides.map((side) => (
            <th key={side} scope="col">
              {side}
            </th>
          ))}
          <th scope="col">
            <span className="visually-hidden">Whether they are the same</span>
          </th>
        </tr>
      </thead>
      <tbody>
        {rows.map(({ name, counts }) => (
          <tr key={name}>
            <td>{name}</td>
            {counts.map((count, at) => (
              <td key={sides[at]} className="fig fs-5">
                {count || ''}
              </td>
            ))}
            <td className="v-unsure">
              {counts.every((count) => count === 0 || count === counts[0]) || counts.includes(0) ? '' : 'not the same'}
            </td>
          </tr>
        ))}
      </tbody>
    </Table>
  );
}
