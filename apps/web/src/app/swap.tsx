import { ENDPOINTS, type TabletPeople } from '@jubb/wire';
import { useQuery } from '@tanstack/react-query';
import { useEffect, useId, useLayoutEffect, useRef, useState, type FormEvent, type ReactElement } from 'react';
import { Refusal, ask } from '../link/client.ts';
import { refresh, switchSession, useSession } from '../link/queries.ts';
import { Dialog } from '../kit/dialog.ts';
import { Loading, Wrong } from '../kit/pieces.tsx';
import './swap.scss';

const PAD = ['1', '2', '3', '4', '5', '6', '7', '8', '9', 'wipe', '0'] as const;

/** Somebody else takes over this tablet: pick who, four digits, done. */
export function Swap({ onClose }: { readonly onClose: () => void }): ReactElement {
  const { data: session } = useSession();
  const { data, error } = useQuery({ queryKey: ['tablet'], queryFn: () => ask(ENDPOINTS.tablet.people) });
  const [chosen, setChosen] = useState<Person>();
  const [setting, setSetting] = useState(false);
  const id = useId();
  const others = (data?.people ?? []).filter(({ id: other }) => other !== session?.person.id);
  return (
    <Dialog show centered animation={false} onHide={onClose} aria-labelledby={`${id}-title`} restoreFocus>
      <Dialog.Header closeButton>
        <Dialog.Title as="h2" id={`${id}-title`}>
          {chosen ? `${chosen.name}: PIN` : setting ? 'My PIN' : 'Who takes over?'}
        </Dialog.Title>
      </Dialog.Header>
      <Dialog.Body>
        {!data ? error ? <Wrong error={error} /> : <Loading what="who works here" /> : null}
        {chosen ? (
          <PinPad person={chosen} onDone={onClose} />
        ) : setting ? (
          <SetPin digits={data?.pinDigits ?? 4} onDone={onClose} />
        ) : (
          <People people={others} onChoose={setChosen} onSet={() => setSetting(true)} />
        )}
        {data?.tablet && !chosen && !setting ? <TabletName name={data.tablet.name} /> : null}
      </Dialog.Body>
    </Dialog>
  );
}

/** Digits and the key that wipes them, wherever in the dialog the focus is. */
function useDigits(onDigit: (key: string) => void): void {
  const latest = useRef(onDigit);
  useLayoutEffect(() => {
    latest.current = onDigit;
  });
  useEffect(() => {
    const onKey = (event: KeyboardEvent): void => {
      // What is typed into a field is the field's.
      if (event.target instanceof HTMLInputElement) return;
      if (/^(?:\d|Backspace)$/u.test(event.key)) latest.current(event.key);
    };
    window.addEventListener('keydown', onKey);
    return () => window.removeEventListener('keydown', onKey);
  }, []);
}

type Person = TabletPeople['people'][number];

interface PeopleProps {
  readonly people: readonly Person[];
  readonly onChoose: (person: Person) => void;
  readonly onSet: () => void;
}

function People({ people, onChoose, onSet }: PeopleProps): ReactElement {
  useDigits((key) => {
    const person = people[Number(key) - 1];
    if (person?.hasPin) onChoose(person);
  });
  return (
    <div className="people-keys">
      {people.map((person, index) => (
        <button key={person.id} type="button" className="btn btn-plain" onClick={() => onChoose(person)} disabled={!person.hasPin}>
          <kbd>{index + 1}</kbd> {person.name}
          <span className="soft"> {person.hasPin ? person.role : 'no PIN yet'}</span>
        </button>
      ))}
      <p className="soft mb-0">Somebody else logs in with their password first: log out, then in. From then on their PIN will do here.</p>
      <button type="button" className="btn btn-quiet" onClick={onSet}>
        Set my own PIN
      </button>
    </div>
  );
}

/** What this tablet is called where instruments are paired. */
function TabletName({ name }: { readonly name: string }): ReactElement {
  const [typed, setTyped] = useState<string>();
  const [error, setError] = useState<unknown>();
  const id = useId();
  const keep = async (event: FormEvent): Promise<void> => {
    event.preventDefault();
    try {
      await ask(ENDPOINTS.tablet.name, { body: { name: typed ?? name } });
      setTyped(undefined);
      setError(undefined);
      await Promise.all([refresh({ queryKey: ['tablet'] }), refresh({ queryKey: ['session'] })]);
    } catch (refusal) {
      setError(refusal);
    }
  };
  if (typed === undefined)
    return (
      <p className="soft mb-0 mt-2">
        This is {name}.
        <button type="button" className="btn btn-quiet" onClick={() => setTyped(name)}>
          Call it otherwise
        </button>
      </p>
    );
  return (
    <form className="mt-2" onSubmit={(event) => void keep(event)} noValidate>
      <label className="form-label" htmlFor={id}>
        This tablet is called
      </label>
      <div className="d-flex gap-2">
        <input id={id} className="form-control" maxLength={60} autoFocus value={typed} onChange={(event) => setTyped(event.target.value)} />
        <button type="submit" className="btn btn-plain">
          Keep it
        </button>
      </div>
      <Wrong error={error} />
    </form>
  );
}

function PinPad({ person, onDone }: { readonly person: Person; readonly onDone: () => void }): ReactElement {
  const length = person.pinDigits;
  const [pin, setPin] = useState('');
  const [error, setError] = useState<unknown>();
  const busy = useRef(false);
  const swap = async (whole: string): Promise<void> => {
    if (busy.current) return;
    busy.current = true;
    try {
      const session = await ask(ENDPOINTS.session.swap, { body: { personId: person.id, pin: whole } });
      onDone();
      switchSession(session);
    } catch (refusal) {
      setError(refusal);
      setPin('');
    } finally {
      busy.current = false;
    }
  };
  const press = (digit: string): void => {
    setError(undefined);
    const next = digit === 'wipe' ? '' : `${pin}${digit}`.slice(0, length);
    setPin(next);
    if (next.length === length) void swap(next);
  };
  useDigits((key) => press(key === 'Backspace' ? 'wipe' : key));
  return (
    <>
      <div className="pin-dots" role="status" aria-label={`${pin.length} of ${length} digits`}>
        {Array.from({ length }, (_, at) => (
          <span key={at} className={at < pin.length ? 'on' : ''} />
        ))}
      </div>
      <Wrong error={error} />
      <div className="pin-pad">
        {PAD.map((digit) => (
          <button key={digit} type="button" className="btn btn-plain" onClick={() => press(digit)}>
            {digit === 'wipe' ? 'Wipe' : digit}
          </button>
        ))}
      </div>
    </>
  );
}

function SetPin({ digits, onDone }: { readonly digits: number; readonly onDone: () => void }): ReactElement {
  const [pin, setPin] = useState('');
  const [password, setPassword] = useState('');
  const [error, setError] = useState<unknown>();
  const id = useId();
  const keep = async (event: FormEvent): Promise<void> => {
    event.preventDefault();
    try {
      await ask(ENDPOINTS.session.setPin, { body: { pin, password } });
      onDone();
    } catch (refusal) {
      setError(refusal);
    }
  };
  const problem = error instanceof Refusal ? error.fields.find(({ field }) => field === 'pin')?.allowed : undefined;
  return (
    <form onSubmit={(event) => void keep(event)} noValidate>
      <label className="form-label" htmlFor={`${id}-pin`}>
        {digits === 6 ? 'Six digits' : 'Four digits, or six'}
      </label>
      <input
        id={`${id}-pin`}
        className={`form-control num-field mb-2 ${problem ? 'is-invalid' : ''}`}
        inputMode="numeric"
        autoComplete="off"
        type="password"
        maxLength={6}
        autoFocus
        value={pin}
        onChange={(event) => setPin(event.target.value)}
      />
      <label className="form-label" htmlFor={`${id}-password`}>
        Your password
      </label>
      <input
        id={`${id}-password`}
        className="form-control mb-2"
        type="password"
        autoComplete="current-password"
        value={password}
        onChange={(event) => setPassword(event.target.value)}
      />
      <Wrong error={error} />
      <button type="submit" className="btn btn-primary">
        Keep it
      </button>
    </form>
  );
}
