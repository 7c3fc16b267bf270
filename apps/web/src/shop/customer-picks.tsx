import { ENDPOINTS, type CustomerLine } from '@jubb/wire';
import { useQuery } from '@tanstack/react-query';
import { useId, useState, type ReactElement } from 'react';
import Button from 'react-bootstrap/Button';
import FormControl from 'react-bootstrap/FormControl';
import FormLabel from 'react-bootstrap/FormLabel';
import { ask } from '../link/client.ts';

function useFound(text: string): readonly CustomerLine[] {
  const { data = [] } = useQuery({
    queryKey: ['customers', 'list', text],
    enabled: text.length > 1,
    queryFn: () => ask(ENDPOINTS.customers.list, { find: text }),
    placeholderData: (before: CustomerLine[] | undefined) => before,
  });
  return text.length > 1 ? data : [];
}

interface PickProps<T> {
  readonly label: string;
  readonly hint: string;
  /** What can be picked of the customers that were found. */
  readonly of: (found: readonly CustomerLine[]) => readonly T[];
  readonly not: string;
  readonly words: (one: T) => ReactElement;
  readonly busy: boolean;
  readonly onPick: (one: T) => void;
}

const MOST_FOUND = 6;

/** Somebody, or something of theirs, by a piece of what it is called. */
function Pick<T extends { readonly id: string }>({ label, hint, of, not, words, busy, onPick }: PickProps<T>): ReactElement {
  const id = useId();
  const [text, setText] = useState('');
  const found = of(useFound(text.trim())).filter((one) => one.id !== not);
  return (
    <div className="mt-2 mb-2" style={{ maxWidth: 420 }}>
      <FormLabel htmlFor={id}>{label}</FormLabel>
      <FormControl id={id} autoFocus autoComplete="off" placeholder={hint} value={text} onChange={(event) => setText(event.target.value)} />
      <div className="d-grid gap-1 mt-1">
        {found.slice(0, MOST_FOUND).map((one) => (
          <Button key={one.id} variant="plain" className="text-start" disabled={busy} onClick={() => onPick(one)}>
            {words(one)}
          </Button>
        ))}
      </div>
    </div>
  );
}

type PickCustomerProps = Omit<PickProps<CustomerLine>, 'hint' | 'of' | 'words'>;

/** Another customer, by name or telephone. */
export function PickCustomer(props: PickCustomerProps): ReactElement {
  return (
    <Pick
      {...props}
      hint="Name or telephone"
      of={(found) => found}
      words={({ name, phone }) => (
        <>
          {name} <span className="soft">{phone}</span>
        </>
      )}
    />
  );
}

interface PickMachineProps {
  readonly not: string;
  readonly busy: boolean;
  readonly onPick: (machine: string) => void;
}

/** A machine of whomever, by its name, its serial or theirs. */
export function PickMachine({ not, busy, onPick }: PickMachineProps): ReactElement {
  return (
    <Pick
      label="Which machine is it in now"
      hint="Machine, serial or customer"
      of={(found) => found.flatMap(({ name: owner, machines }) => machines.map((machine) => ({ ...machine, owner })))}
      not={not}
      busy={busy}
      words={({ name, serial, owner }) => (
        <>
          {name} <span className="fig soft">{serial}</span> <span className="soft">{owner}</span>
        </>
      )}
      onPick={({ id }) => onPick(id)}
    />
  );
}
