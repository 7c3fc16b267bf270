import type { ReactElement } from 'react';
import { useMoney } from '../../kit/money.ts';
import { lineOf, type TypedLine, type TypedOption } from './quote-draft.ts';
import { lineMinor } from '@jubb/book';
import Table from 'react-bootstrap/Table';
import FormCheckInput from 'react-bootstrap/FormCheckInput';
import FormControl from 'react-bootstrap/FormControl';
import Button from 'react-bootstrap/Button';

/** The lines of one way to go on, as they are typed. */
export function OptionLines({
  option,
  onLines,
}: {
  readonly option: TypedOption;
  readonly onLines: (lines: readonly TypedLine[]) => void;
}): ReactElement {
  const money = useMoney();
  const set = (place: number, change: Partial<TypedLine>): void =>
    onLines(option.lines.map((line, index) => (index === place ? { ...line, ...change } : line)));
  return (
    <>
      <div className="table-wide" role="region" aria-label={`Lines of ${option.name}`} tabIndex={0}>
        <Table className="quote-lines">
          <thead>
            <tr>
              <th scope="col">What</th>
              <th scope="col">How many</th>
              <th scope="col">Each</th>
              <th scope="col">Sum</th>
              <th scope="col">May be left out</th>
              <th scope="col">Safety</th>
              <th scope="col">
                <span className="visually-hidden">Take out</span>
              </th>
            </tr>
          </thead>
          <tbody>
            {option.lines.map((line, place) => {
              const read = lineOf(line);
              return (
                <tr key={place}>
                  <td style={{ minWidth: 180 }}>
                    <FormControl
                      aria-label={`What, line ${place + 1}`}
                      maxLength={300}
                      value={line.what}
                      onChange={(event) => set(place, { what: event.target.value })}
                    />
                  </td>
                  <td style={{ width: 84 }}>
                    <FormControl
                      className={`fig ${read ? '' : 'is-invalid'}`}
                      aria-label={`How many, line ${place + 1}`}
                      maxLength={10}
                      value={line.quantity}
                      onChange={(event) => set(place, { quantity: event.target.value })}
                    />
                  </td>
                  <td style={{ width: 104 }}>
                    <FormControl
                      className={`fig ${read ? '' : 'is-invalid'}`}
                      aria-label={`Each, line ${place + 1}`}
                      maxLength={12}
                      placeholder="not known"
                      value={line.unit}
                      onChange={(event) => set(place, { unit: event.target.value })}
                    />
                  </td>
                  <td className="fig">
                    {read ? (
                      money(lineMinor(read))
                    ) : (
                      <span className="v-out">{line.unit.trim() === '' ? 'price not known' : 'no amount'}</span>
                    )}
                  </td>
                  <td>
                    <FormCheckInput
                      aria-label={`May be left out, line ${place + 1}`}
                      checked={line.optional === true}
                      onChange={(event) => set(place, { optional: event.target.checked })}
                    />
                  </td>
                  <td>
                    <FormCheckInput
                      aria-label={`Safety, line ${place + 1}`}
                      checked={line.safety === true}
                      onChange={(event) => set(place, { safety: event.target.checked })}
                    />
                  </td>
                  <td>
                    <Button
                      variant="quiet"
                      disabled={option.lines.length === 1}
                      onClick={() => onLines(option.lines.filter((_, index) => index !== place))}
                    >
                      Out<span className="visually-hidden"> {line.what}</span>
                    </Button>
                  </td>
                </tr>
              );
            })}
          </tbody>
        </Table>
      </div>
      <Button variant="plain" onClick={() => onLines([...option.lines, { sort: 'other', what: '', quantity: '1', unit: '0' }])}>
        One more line
      </Button>
    </>
  );
}
