import { OVER_THE_COUNTER } from '@jubb/sheet';
import type { CustomerLine } from '@jubb/wire';
import { useDeferredValue, useState, type ReactElement } from 'react';
import FormLabel from 'react-bootstrap/FormLabel';
import FormControl from 'react-bootstrap/FormControl';
import Button from 'react-bootstrap/Button';
import FormSelect from 'react-bootstrap/FormSelect';
import { Wrong } from '../../kit/pieces.tsx';
import { Labelled } from '../../kit/labelled.tsx';
import { useCustomers } from '../../sheets/queries.ts';

export interface Found {
  readonly customer: { readonly id: string; readonly name: string; readonly phone: string };
  readonly machine?: { readonly id: string; readonly name: string; readonly serial: string };
  readonly unit?: { readonly id: string; readonly name: string; readonly serial: string };
}

const MOST_UNITS = 6;

/** Who and what was here before: by a name, a telephone number, or what stands on a tag. */
export function FindKnown({ onFound }: { readonly onFound: (one: Found) => void }): ReactElement {
  const [typed, setTyped] = useState('');
  const wanted = useDeferredValue(typed.trim().toLowerCase());
  const { data: customers = [], isFetching, error } = useCustomers(wanted.length < 2 ? '' : wanted);
  const hits = hitsOf(customers, wanted.length < 2 ? '' : wanted);
  const take = (hit: Found): void => {
    onFound(hit);
    setTyped('');
  };
  return (
    <div className="by-serial">
      <FormLabel htmlFor="by-serial">Customer, or serial or tag of the unit or its machine</FormLabel>
      <FormControl
        id="by-serial"
        type="search"
        autoComplete="off"
        value={typed}
        onChange={(event) => setTyped(event.target.value)}
        onKeyDown={(event) => {
          if (event.key !== 'Enter') return;
          event.preventDefault();
          // The first of what was found for what was typed; nothing typed, nobody meant.
          const [first] = hits;
          if (wanted.length >= 2 && wanted === typed.trim().toLowerCase() && first) take(first);
        }}
      />
      <Wrong error={error} />
      {wanted.length < 2 && hits.length > 0 ? <span className="soft me-2">Here lately:</span> : null}
      {hits.map((hit) => (
        <Button key={hit.unit?.id ?? hit.customer.id} variant="plain" className="me-2 mt-2" onClick={() => take(hit)}>
          {hit.unit ? (
            <>
              {hit.unit.name}, <span className="fig">{hit.unit.serial}</span>
              {hit.machine && hit.machine.name !== OVER_THE_COUNTER ? ` off ${hit.machine.name}` : ''}, {hit.customer.name}
            </>
          ) : (
            hit.customer.name
          )}
        </Button>
      ))}
      {wanted.length >= 2 && hits.length === 0 && !isFetching ? <p className="soft mb-0">Not here before.</p> : null}
    </div>
  );
}

/** Customers whose own name or number was meant, and the units that a serial or a machine's name leads to. */
function hitsOf(customers: readonly CustomerLine[], wanted: string): readonly Found[] {
  const known = customers.map((line) => ({ line, customer: { id: line.id, name: line.name, phone: line.phone ?? '' } }));
  const named = known
    .filter(({ customer }) => `${customer.name} ${customer.phone}`.toLowerCase().includes(wanted))
    .map(({ customer }) => ({ customer }));
  if (wanted === '') return named;
  const units = known.flatMap(({ line, customer }) =>
    line.machines.flatMap(({ units: held, ...machine }) =>
      held
        .filter((unit) => `${unit.serial} ${machine.serial} ${unit.name} ${machine.name}`.toLowerCase().includes(wanted))
        .map((unit) => ({ customer, machine, unit })),
    ),
  );
  return [...units.slice(0, MOST_UNITS), ...named];
}

interface KnownPickProps<T> {
  readonly id: string;
  readonly label: string;
  /** What the choice of none of them says. */
  readonly none: string;
  readonly known: readonly T[];
  readonly words: (one: T) => string;
  readonly chosen: string | undefined;
  readonly onChoose: (one: T | undefined) => void;
}

/** One of those that were here before; nothing is shown when there was none. */
export function KnownPick<T extends { readonly id: string }>({
  id,
  label,
  none,
  known,
  words,
  chosen,
  onChoose,
}: KnownPickProps<T>): ReactElement | null {
  if (known.length === 0) return null;
  return (
    <Labelled id={id} label={label}>
      <FormSelect id={id} value={chosen ?? ''} onChange={(event) => onChoose(known.find((one) => one.id === event.target.value))}>
        <option value="">{none}</option>
        {known.map((one) => (
          <option key={one.id} value={one.id}>
            {words(one)}
          </option>
        ))}
      </FormSelect>
    </Labelled>
  );
}
