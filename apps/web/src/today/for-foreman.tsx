import { careDue, licencesDue } from '@jubb/book';
import type { ReactElement } from 'react';
import { Link } from 'react-router';
import { useNow } from '../clocks/use-clocks.ts';
import { shopToday } from '../kit/days.ts';
import { useCare, usePeople, useSession } from '../link/queries.ts';
import { beginSteps } from '../shop/begin-steps.ts';
import { useBegun } from '../shop/use-begun.ts';

/** What nobody saw to of backups and certificates, for the one who answers for it. */
export function ForForeman(): ReactElement | null {
  const { data: session } = useSession();
  const { data: care } = useCare();
  const { data: people = [] } = usePeople();
  const now = useNow(3_600_000);
  const due = [...(care && session ? careDue(care, now, session.command) : []), ...licencesDue(people, shopToday())];
  const { data: begun } = useBegun();
  const steps = begun && !begun.isDemo && session ? beginSteps(begun, session.command) : [];
  const left = steps.filter(({ isDone }) => !isDone).length;
  if (due.length === 0 && left === 0) return null;
  return (
    <section>
      <h2>To see to</h2>
      {left > 0 ? (
        <p className="mb-1">
          <Link to="/shop/begin">Setting up</Link>: {steps.length - left} of {steps.length} are there.
        </p>
      ) : null}
      {due.map((words) => (
        <p key={words} className="brass mb-1">
          {words}
        </p>
      ))}
    </section>
  );
}
