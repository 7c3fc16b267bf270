import { careDue, licencesDue } from '@jubb/book';
import type { ReactElement } from 'react';
import { useNow } from '../clocks/use-clocks.ts';
import { shopToday } from '../kit/days.ts';
import { useCare, usePeople } from '../link/queries.ts';

/** What nobody saw to of backups and certificates, for the one who answers for it. */
export function ForForeman(): ReactElement | null {
  const { data: care } = useCare();
  const { data: people = [] } = usePeople();
  const now = useNow(3_600_000);
  const due = [...(care ? careDue(care, now) : []), ...licencesDue(people, shopToday())];
  if (due.length === 0) return null;
  return (
    <section>
      <h2>To see to</h2>
      {due.map((words) => (
        <p key={words} className="brass mb-1">
          {words}
        </p>
      ))}
    </section>
  );
}
