import type { CompletePart } from '@jubb/sheet';
import type { ReactElement } from 'react';

const SEGMENT = 22;
const HIGH = 12;

/** What a sheet has of what it should have: one graduation for each named part, never a bare number. */
export function Completeness({ parts, long = false }: { readonly parts: readonly CompletePart[]; readonly long?: boolean }): ReactElement {
  const short = parts.filter(({ have, of }) => have < of);
  const words =
    parts.length === 0
      ? 'cannot be read as a sheet yet'
      : short.length === 0
        ? 'nothing short'
        : `short: ${short.map(({ name, have, of }) => `${name} ${have} of ${of}`).join(', ')}`;
  const width = parts.length * SEGMENT;
  return (
    <div className="complete">
      <svg viewBox={`0 0 ${width} ${HIGH}`} width={width} height={HIGH} role="img" aria-label={words}>
        {parts.map(({ name, have, of }, index) => (
          <g key={name} transform={`translate(${index * SEGMENT} 0)`}>
            <rect x="0.5" y="0.5" width={SEGMENT - 3} height={HIGH - 1} fill="none" stroke="var(--rule)" />
            <rect x="0.5" y="0.5" width={(SEGMENT - 3) * (have / of)} height={HIGH - 1} fill={have < of ? 'var(--soft)' : 'var(--ink)'} />
          </g>
        ))}
      </svg>
      {long ? (
        <ul className="list-unstyled mb-0">
          {parts.map(({ name, have, of }) => (
            <li key={name}>
              <b className={`fig ${have < of ? 'brass' : ''}`}>
                {have} of {of}
              </b>{' '}
              {name}
            </li>
          ))}
        </ul>
      ) : (
        <span className="soft small-line">{words}</span>
      )}
    </div>
  );
}
