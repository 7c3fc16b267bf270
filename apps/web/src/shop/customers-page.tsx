import { ENDPOINTS, type CustomerLine } from '@jubb/wire';
import { useQuery } from '@tanstack/react-query';
import { useState, type ReactElement } from 'react';
import FormControl from 'react-bootstrap/FormControl';
import FormLabel from 'react-bootstrap/FormLabel';
import { Link } from 'react-router';
import { DataTable, type Column } from '../kit/data-table.tsx';
import { Loading, Title, Wrong } from '../kit/pieces.tsx';
import { ask } from '../link/client.ts';
import { useSession } from '../link/queries.ts';

const COLUMNS: readonly Column<CustomerLine>[] = [
  {
    id: 'name',
    head: 'Customer',
    cellClass: 'fs-5',
    value: ({ name }) => name,
    cell: ({ id, name }) => <Link to={`/customers/${id}`}>{name}</Link>,
  },
  { id: 'phone', head: 'Telephone', cellClass: 'fig', value: ({ phone }) => phone ?? '' },
  { id: 'machines', head: 'Machines', value: ({ machines }) => machines.map(({ name }) => name).join(', ') },
  { id: 'units', head: 'Units', cellClass: 'fig', value: ({ machines }) => machines.reduce((sum, { units }) => sum + units.length, 0) },
];

/** Whose units they are: found by a piece of a name, a number or a serial. */
export function CustomersPage(): ReactElement {
  const { data: session } = useSession();
  const [find, setFind] = useState('');
  const text = find.trim();
  const { data: customers, error } = useQuery({
    queryKey: ['customers', 'list', text],
    queryFn: () => ask(ENDPOINTS.customers.list, { find: text }),
    placeholderData: (before: CustomerLine[] | undefined) => before,
  });
  return (
    <>
      <Title
        sub={
          session?.person.role === 'foreman' ? (
            <>
              A new one comes with their first unit: book it in. Or <Link to="/shop/bring?list=customers">bring in a list</Link>.
            </>
          ) : (
            'A new one comes with their first unit: book it in.'
          )
        }
      >
        Customers
      </Title>
      <div className="mb-3" style={{ maxWidth: 480 }}>
        <FormLabel htmlFor="find-customers">Name, telephone, machine, serial</FormLabel>
        <FormControl id="find-customers" type="search" maxLength={100} value={find} onChange={(event) => setFind(event.target.value)} />
      </div>
      <Wrong error={error} />
      {!customers && !error ? <Loading what="the customers" /> : null}
      {customers ? (
        <>
          {customers.length === 0 ? (
            <p>{text === '' ? 'Nobody was here yet.' : `Nobody with “${text}” in them.`}</p>
          ) : (
            <>
              <p className="soft">{text === '' ? 'Those who were here lately, and some of the others' : `With “${text}” in them`}</p>
              <DataTable name="customers" columns={COLUMNS} rows={customers} rowKey={({ id }) => id} isBare />
            </>
          )}
        </>
      ) : null}
    </>
  );
}
