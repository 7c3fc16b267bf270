import { formatQuantity } from '@jubb/core';
import { useState, type ReactElement } from 'react';
import { Link } from 'react-router';
import Table from 'react-bootstrap/Table';
import { FigureField, readFigure } from '../kit/figure-field.tsx';
import { Loading, Title, Wrong } from '../kit/pieces.tsx';
import { useUnits } from '../kit/units.ts';
import { pieces } from './pieces.ts';
import { useShims } from './queries.ts';

const THICKEST_MM = 50;
const NEAREST = 12;

/** Shims as they are looked for: by thickness, the nearest first where one was typed or measured. */
export function ShimsPage(): ReactElement {
  const { data: shims, error } = useShims();
  const units = useUnits();
  const [text, setText] = useState('');
  const { base: wanted } = readFigure(text, 'length', units.symbol('length'), { least: 0, most: THICKEST_MM });
  const shown =
    wanted === undefined
      ? shims
      : shims?.toSorted((one, other) => Math.abs(one.thicknessMm - wanted) - Math.abs(other.thicknessMm - wanted)).slice(0, NEAREST);
  return (
    <>
      <Title sub="Type a thickness, or send one from the micrometer: the nearest come first.">Shims by thickness</Title>
      <div className="mb-3">
        <FigureField label="About so thick" quantity="length" text={text} onText={setText} least={0} most={THICKEST_MM} focus />
      </div>
      <Wrong error={error} />
      {!shims && !error ? <Loading what="the shims" /> : null}
      {shims?.length === 0 ? <p>No shims are on the shelves. Make a line of the kind “shim”, with its thickness as its size.</p> : null}
      {shown && shown.length > 0 ? (
        <Table>
          <thead>
            <tr>
              <th scope="col">Thickness</th>
              {wanted === undefined ? null : <th scope="col">Off by</th>}
              <th scope="col">Number</th>
              <th scope="col">What</th>
              <th scope="col">Shelf</th>
              <th scope="col">Free</th>
            </tr>
          </thead>
          <tbody>
            {shown.map((line) => (
              <tr key={line.id}>
                <td className="fig fs-4">{units.reading(line.thicknessMm, 'length')}</td>
                {wanted === undefined ? null : <td className="fig">{formatQuantity(line.thicknessMm - wanted, 'length')}</td>}
                <td className="fig">
                  <Link to={`/stores/${line.id}`}>{line.number}</Link>
                </td>
                <td>{line.name}</td>
                <td className="fig">{line.location}</td>
                <td className="fig">{pieces(line.onHand - line.reserved, line)}</td>
              </tr>
            ))}
          </tbody>
        </Table>
      ) : null}
    </>
  );
}
