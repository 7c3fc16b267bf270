import type { Risen } from '@jubb/book';
import type { ReactElement, ReactNode } from 'react';
import { useMoney } from '../../kit/money.ts';
import { Care } from '../../kit/pieces.tsx';

/** What became dearer after the customer's yes. */
export function RisenPrices({ risen, children }: { readonly risen: readonly Risen[]; readonly children?: ReactNode }): ReactElement {
  const money = useMoney();
  return (
    <Care title="Dearer since the yes">
      <ul className="mb-1">
        {risen.map(({ number, what, wasMinor, nowMinor }) => (
          <li key={number}>
            {what}: <span className="fig">{money(wasMinor)}</span> was agreed, <span className="fig fs-5">{money(nowMinor)}</span> it is now
          </li>
        ))}
      </ul>
      <p className="mb-1">The customer said yes to the old price. Ask again before it is ordered.</p>
      {children}
    </Care>
  );
}
