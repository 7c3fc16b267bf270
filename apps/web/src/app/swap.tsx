import { useQuery } from '@tanstack/react-query';
import { Suspense, lazy, useId, useState, type ReactElement } from 'react';
import Button from 'react-bootstrap/Button';
import { tabletPeople, useSession } from '../link/queries.ts';
import { Dialog } from '../kit/dialog.ts';
import { Loading, Wrong } from '../kit/pieces.tsx';
import { PinPad, useDigits, type Person } from '../shop/pin-pad.tsx';

// Asked for once by a person, once by a tablet.
const NameIt = lazy(async () => ({ default: (await import('./swap-forms.tsx')).NameIt }));
const SecondFactor = lazy(async () => ({ default: (await import('./swap-forms.tsx')).SecondFactor }));
const SetPin = lazy(async () => ({ default: (await import('./swap-forms.tsx')).SetPin }));

/** Somebody else takes over this tablet: pick who, four digits, done. */
export function Swap({ onClose }: { readonly onClose: () => void }): ReactElement {
  const { data: session } = useSession();
  const { data, error } = useQuery(tabletPeople);
  const [chosen, setChosen] = useState<Person>();
  const [setting, setSetting] = useState<'PIN' | 'second factor'>();
  const id = useId();
  const others = (data?.people ?? []).filter(({ id: other }) => other !== session?.person.id);
  return (
    <Dialog show centered animation={false} onHide={onClose} aria-labelledby={`${id}-title`} restoreFocus>
      <Dialog.Header closeButton>
        <Dialog.Title as="h2" id={`${id}-title`}>
          {chosen ? `${chosen.name}: PIN` : setting ? `My ${setting}` : 'Who takes over?'}
        </Dialog.Title>
      </Dialog.Header>
      <Dialog.Body>
        <Suspense fallback={<Loading what="the form" />}>
          {!data ? error ? <Wrong error={error} /> : <Loading what="who works here" /> : null}
          {chosen ? (
            <PinPad person={chosen} onDone={onClose} />
          ) : setting === 'second factor' ? (
            <SecondFactor onDone={onClose} />
          ) : setting ? (
            <SetPin digits={data?.pinDigits ?? 4} onDone={onClose} />
          ) : (
            <People people={others} onChoose={setChosen} onSet={setSetting} />
          )}
          {data?.tablet && !chosen && !setting ? <TabletName name={data.tablet.name} /> : null}
        </Suspense>
      </Dialog.Body>
    </Dialog>
  );
}

interface PeopleProps {
  readonly people: readonly Person[];
  readonly onChoose: (person: Person) => void;
  readonly onSet: (what: 'PIN' | 'second factor') => void;
}

function People({ people, onChoose, onSet }: PeopleProps): ReactElement {
  useDigits((key) => {
    const person = people[Number(key) - 1];
    if (person?.hasPin) onChoose(person);
  });
  return (
    <div className="people-keys">
      {people.map((person, index) => (
        <Button key={person.id} variant="plain" onClick={() => onChoose(person)} disabled={!person.hasPin}>
          <kbd>{index + 1}</kbd> {person.name}
          <span className="soft"> {person.hasPin ? person.role : 'no PIN yet'}</span>
        </Button>
      ))}
      <p className="soft mb-0">Somebody else logs in with their password first: log out, then in. From then on their PIN will do here.</p>
      <div>
        <Button variant="quiet" onClick={() => onSet('PIN')}>
          Set my own PIN
        </Button>
        <Button variant="quiet" onClick={() => onSet('second factor')}>
          My second factor
        </Button>
      </div>
    </div>
  );
}

/** What this tablet is called where instruments are paired. */
function TabletName({ name }: { readonly name: string }): ReactElement {
  const [open, setOpen] = useState(false);
  if (open) return <NameIt name={name} onDone={() => setOpen(false)} />;
  return (
    <p className="soft mb-0 mt-2">
      This is {name}.
      <Button variant="quiet" onClick={() => setOpen(true)}>
        Call it otherwise
      </Button>
    </p>
  );
}
