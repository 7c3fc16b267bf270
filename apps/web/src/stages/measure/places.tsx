import type { Limit } from '@jubb/sheet';
import type { ReactElement } from 'react';

/** "1 of 3 along, 2nd way": where the next reading of a grid is taken. */
export function placeWords({ grid }: Limit, index: number): string {
  if (!grid) return '';
  const [row, column] = [Math.floor(index / grid.columns), index % grid.columns];
  const along = grid.rows > 1 ? `${ordinal(row)} of ${grid.rows} along` : '';
  const round =
    grid.columns === 1
      ? ''
      : grid.columns === 2
        ? ['one way', 'square to it'][column]!
        : grid.columns % 4 === 0 || grid.columns > 4
          ? `at ${Math.round((360 * column) / grid.columns)}°`
          : `place ${column + 1} of ${grid.columns}`;
  return [along, round].filter(Boolean).join(', ');
}

function ordinal(row: number): string {
  return `${row + 1}${['st', 'nd', 'rd'][row] ?? 'th'}`;
}

interface PlacesProps {
  readonly limit: Limit;
  readonly readings: readonly number[];
  readonly write: (reading: number) => string;
}

/** The part with its places: bores in section with rows along and two ways across, else dials round it. The next one is ringed. */
export function Places({ limit, readings, write }: PlacesProps): ReactElement | null {
  const { grid } = limit;
  if (!grid) return null;
  const words = readings.map((reading, index) => `${placeWords(limit, index)}: ${write(reading)}`).join('; ');
  return (
    <svg viewBox="0 0 400 210" role="img" aria-label={`Places of ${limit.name}. ${words || 'none read yet'}`} style={{ maxWidth: 420 }}>
      {grid.columns > 3 && grid.rows === 1 ? (
        <Ring columns={grid.columns} readings={readings} write={write} />
      ) : (
        <Rows grid={grid} readings={readings} write={write} />
      )}
    </svg>
  );
}

function Ring({
  columns,
  readings,
  write,
}: {
  readonly columns: number;
  readonly readings: readonly number[];
  readonly write: (reading: number) => string;
}): ReactElement {
  const at = (index: number, radius: number): { x: number; y: number } => {
    const angle = (2 * Math.PI * index) / columns;
    return { x: 200 + radius * Math.sin(angle), y: 105 - radius * 0.92 * Math.cos(angle) };
  };
  return (
    <>
      <ellipse cx="200" cy="105" rx="62" ry="57" fill="var(--steel-2)" stroke="var(--ink)" strokeWidth="2" />
      <ellipse cx="200" cy="105" rx="22" ry="20" fill="var(--ground)" stroke="var(--ink)" strokeWidth="2" />
      {Array.from({ length: columns }, (_, index) => {
        const dot = at(index, 62);
        const text = at(index, 92);
        return (
          <g key={index}>
            <Dot {...dot} state={index < readings.length ? 'read' : index === readings.length ? 'next' : 'open'} />
            <text x={text.x} y={text.y + 5} textAnchor="middle" fontSize="13">
              {readings[index] === undefined ? '' : write(readings[index])}
            </text>
          </g>
        );
      })}
    </>
  );
}

interface RowsProps {
  readonly grid: { readonly rows: number; readonly columns: number };
  readonly readings: readonly number[];
  readonly write: (reading: number) => string;
}

function Rows({ grid, readings, write }: RowsProps): ReactElement {
  const x = (row: number): number => 70 + (260 * (row + 0.5)) / grid.rows;
  const y = (column: number): number => (grid.columns === 1 ? 105 : 62 + (86 * column) / (grid.columns - 1));
  return (
    <>
      <path d="M50,30H350V180H50Z" fill="var(--steel-2)" stroke="var(--ink)" strokeWidth="2" />
      <path d="M30,105H370" stroke="var(--soft)" strokeDasharray="10 4 2 4" />
      {Array.from({ length: grid.rows * grid.columns }, (_, index) => {
        const [row, column] = [Math.floor(index / grid.columns), index % grid.columns];
        return (
          <g key={index}>
            <Dot x={x(row)} y={y(column)} state={index < readings.length ? 'read' : index === readings.length ? 'next' : 'open'} />
            <text x={x(row)} y={y(column) - 13} textAnchor="middle" fontSize="14">
              {readings[index] === undefined ? '' : write(readings[index])}
            </text>
          </g>
        );
      })}
    </>
  );
}

function Dot({ x, y, state }: { readonly x: number; readonly y: number; readonly state: 'read' | 'next' | 'open' }): ReactElement {
  return (
    <>
      {state === 'next' ? <circle cx={x} cy={y} r="12" fill="none" stroke="var(--steel)" strokeWidth="2.5" /> : null}
      <circle
        cx={x}
        cy={y}
        r="6"
        fill={state === 'read' ? 'var(--ink)' : state === 'next' ? 'var(--steel)' : 'var(--sheet)'}
        stroke="var(--ink)"
        strokeWidth="1.6"
      />
    </>
  );
}
