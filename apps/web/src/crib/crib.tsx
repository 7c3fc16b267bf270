import { formatQuantity } from '@jubb/core';
import type { ReactElement } from 'react';
import { Link } from 'react-router';
import { useTools } from '../link/queries.ts';
import { Loading, Title, Wrong } from '../kit/pieces.tsx';
import { dayWords, shopToday } from '../kit/days.ts';

export function Crib(): ReactElement {
  const { data: tools, error } = useTools();
  const today = shopToday();
  if (!tools) return error ? <Wrong error={error} /> : <Loading what="the crib" />;
  return (
    <>
      <Title
        sub={
          <>
            Ranges, and how far each can be trusted. What is past its check is not offered at the bench.{' '}
            <Link to="/crib/instruments">Instruments that send by themselves</Link>
          </>
        }
      >
        Crib
      </Title>
      <table className="table">
        <thead>
          <tr>
            <th scope="col">Tag</th>
            <th scope="col">Tool</th>
            <th scope="col">From</th>
            <th scope="col">To</th>
            <th scope="col">Reads to</th>
            <th scope="col">Uncertainty u</th>
            <th scope="col">Length</th>
            <th scope="col">Check due</th>
          </tr>
        </thead>
        <tbody>
          {tools.map((tool) => {
            const figure = (size: number): string => formatQuantity(size, tool.quantity, tool.unit);
            const ranged = tool.high > tool.low;
            return (
              <tr key={tool.id}>
                <td className="fig fs-5">
                  <Link to={`/crib/tools/${tool.id}`}>{tool.tag}</Link>
                </td>
                <td>{tool.name}</td>
                <td className="fig">{ranged ? figure(tool.low) : ''}</td>
                <td className="fig">{ranged ? figure(tool.high) : ''}</td>
                <td className="fig">{ranged ? figure(tool.resolution) : ''}</td>
                <td className="fig">
                  {ranged ? (tool.quantity === 'length' ? formatQuantity(tool.u, 'length', 'µm') : figure(tool.u)) : ''}
                </td>
                <td className="fig">{tool.length === null ? '' : formatQuantity(tool.length, 'length')}</td>
                <td>
                  {tool.calibrationDue === null ? 'not needed' : dayWords(tool.calibrationDue)}{' '}
                  {tool.calibrationDue !== null && tool.calibrationDue < today ? <span className="tag-box v-out">out</span> : null}
                </td>
              </tr>
            );
          })}
        </tbody>
      </table>
    </>
  );
}
