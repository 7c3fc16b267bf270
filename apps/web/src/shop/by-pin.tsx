import { useQuery } from '@tanstack/react-query';
import { useState, type ReactElement } from 'react';
import Button from 'react-bootstrap/Button';
import { PinPad, type Person } from './pin-pad.tsx';
import { tabletPeople } from '../link/queries.ts';

/** On a tablet that knows them people log in with their PIN. */
export function ByPin(): ReactElement | null {
  const { data } = useQuery(tabletPeople);
  const [chosen, setChosen] = useState<Person>();
  const people = (data?.people ?? []).filter(({ hasPin }) => hasPin);
  if (people.length === 0) return null;
  return (
    <section className="mt-4" aria-label="With a PIN">
      <h2 className="fs-5">{chosen ? `${chosen.name}: PIN` : 'Or with a PIN, on this tablet'}</h2>
      {chosen ? (
        <>
          <PinPad person={chosen} />
          <Button variant="quiet" className="mt-2" onClick={() => setChosen(undefined)}>
            Somebody else
          </Button>
        </>
      ) : (
        <div className="people-keys">
          {people.map((person) => (
            <Button key={person.id} variant="plain" onClick={() => setChosen(person)}>
              {person.name} <span className="soft">{person.role}</span>
            </Button>
          ))}
        </div>
      )}
    </section>
  );
}
