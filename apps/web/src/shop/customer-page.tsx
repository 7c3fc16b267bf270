import { quoteTotal } from '@jubb/book';
import { STAGE_NAMES, OVER_THE_COUNTER } from '@jubb/sheet';
import { CustomerBody, ENDPOINTS, type CustomerJob, type CustomerLine, type CustomerQuote, type CustomerView } from '@jubb/wire';
import { useQuery } from '@tanstack/react-query';
import { useState, type ReactElement } from 'react';
import Button from 'react-bootstrap/Button';
import Table from 'react-bootstrap/Table';
import { Link, useNavigate, useParams } from 'react-router';
import { useAskForm } from '../kit/ask-form.ts';
import { Asking } from '../kit/asking.tsx';
import { DataTable, type Column } from '../kit/data-table.tsx';
import { dayWords } from '../kit/days.ts';
import { download } from '../kit/download.ts';
import { Field } from '../kit/field.tsx';
import { PageTabs, type PageTab } from '../kit/page-tabs.tsx';
import { Care, Loading, Title, Wrong } from '../kit/pieces.tsx';
import { useMoney } from '../kit/money.ts';
import { QUOTE_CLASS, QUOTE_WORDS } from '../kit/quote-words.ts';
import { offerUndo } from '../kit/undo.ts';
import { useSend } from '../kit/use-send.ts';
import { ask, meanwhile } from '../link/client.ts';
import { refresh, useSession } from '../link/queries.ts';
import { PickCustomer, PickMachine } from './customer-picks.tsx';

const again = (): Promise<unknown> => refresh({ queryKey: ['customers'] });

const JOBS: readonly Column<CustomerJob>[] = [
  {
    id: 'number',
    head: 'Job',
    cellClass: 'fig fs-5',
    value: ({ number }) => number,
    cell: ({ id, number }) => <Link to={`/jobs/${id}`}>{number}</Link>,
  },
  { id: 'unit', head: 'Unit', value: ({ unit, machine }) => `${unit.name}, ${machine.name}` },
  { id: 'complaint', head: 'Said', value: ({ complaint }) => complaint },
  { id: 'came', head: 'Came', className: 'text-nowrap', value: ({ bookedAt }) => bookedAt, cell: ({ bookedAt }) => dayWords(bookedAt) },
  {
    id: 'went',
    head: 'Went',
    className: 'text-nowrap',
    value: ({ closedAt, stage }) => closedAt ?? STAGE_NAMES[stage],
    cell: ({ closedAt, stage }) => (closedAt === null ? <b>{STAGE_NAMES[stage]}</b> : dayWords(closedAt)),
  },
];

/** What they took, or else the first that was offered, and what it comes to. */
function offered({ body: { options, taxShare }, answer }: CustomerQuote): { readonly name: string; readonly gross: number } {
  const option = options[answer?.option ?? 0]!;
  return { name: option.name, gross: quoteTotal(option, taxShare, answer?.without).gross };
}

const quotesIn = (money: (minor: number) => string): readonly Column<CustomerQuote>[] => [
  { id: 'number', head: 'Quote', cellClass: 'fig fs-5', value: ({ number }) => number },
  {
    id: 'what',
    head: 'Offered',
    value: (quote) => offered(quote).gross,
    cell: (quote) => (
      <>
        {offered(quote).name} <span className="fig">{money(offered(quote).gross)}</span>
      </>
    ),
  },
  {
    id: 'job',
    head: 'Job',
    cellClass: 'fig',
    value: ({ jobNumber }) => jobNumber,
    cell: ({ jobId, jobNumber }) => <Link to={`/jobs/${jobId}/quote`}>{jobNumber}</Link>,
  },
  { id: 'sent', head: 'Sent', className: 'text-nowrap', value: ({ sentAt }) => sentAt, cell: ({ sentAt }) => dayWords(sentAt) },
  {
    id: 'state',
    head: 'They say',
    value: ({ state, answer }) => `${QUOTE_WORDS[state]} ${answer?.words ?? ''}`.trim(),
    cell: ({ state, answer }) => (
      <>
        <b className={QUOTE_CLASS[state]}>{QUOTE_WORDS[state]}</b> {answer?.words ? `“${answer.words}”` : ''}
      </>
    ),
  },
  { id: 'letter', head: 'Its letter', value: ({ body: { words } }) => words ?? '' },
];

/** What they were offered, with the letter it went out with, and what they said. */
function Quotes({ quotes }: { readonly quotes: CustomerView['quotes'] }): ReactElement {
  const money = useMoney();
  return <DataTable name="customer-quotes" columns={quotesIn(money)} rows={quotes} rowKey={({ id }) => id} isBare />;
}

/** What was done, what was offered, and what they have: the first is what one comes for. */
function tabsOf(customer: CustomerView, mayChange: boolean): readonly PageTab[] {
  const { jobs, quotes, machines } = customer;
  return [
    {
      key: 'jobs',
      name: 'Jobs',
      count: String(jobs.length),
      body: () =>
        jobs.length === 0 ? (
          <p className="soft">Nothing was done for them yet.</p>
        ) : (
          <DataTable name="customer-jobs" columns={JOBS} rows={jobs} rowKey={({ id: job }) => job} isBare />
        ),
    },
    {
      key: 'quotes',
      name: 'Quotes and letters',
      count: String(quotes.length),
      body: () => (quotes.length === 0 ? <p className="soft">Nothing was offered to them yet.</p> : <Quotes quotes={quotes} />),
    },
    {
      key: 'machines',
      name: 'Machines',
      count: String(machines.length),
      body: () => <Machines customer={customer} mayChange={mayChange} />,
    },
  ];
}

/** A customer: what they are reached by, their machines and units, what was done, what is owed. */
export function CustomerPage(): ReactElement {
  const { id = '' } = useParams();
  const { data: session } = useSession();
  const { data: customer, error } = useQuery({ queryKey: ['customers', id], queryFn: () => ask(ENDPOINTS.customers.one, { id }) });
  if (!customer) return error ? <Wrong error={error} /> : <Loading what="the customer" />;
  const role = session?.person.role;
  const mayChange = role === 'foreman' || role === 'counter' || role === 'mechanic';
  return (
    <>
      <Title sub={[customer.phone, customer.email].filter(Boolean).join(', ')}>{customer.name}</Title>
      <div className="two">
        <div>
          <PageTabs id="customer-tab" tabs={tabsOf(customer, mayChange)} label={(name) => name} />
        </div>
        <aside className="beside" aria-label="Reached by, and owed">
          {customer.owed.length > 0 ? <Owed customer={customer} /> : null}
          {mayChange ? <Contact key={customer.version} customer={customer} /> : null}
          {role === 'foreman' ? <Foremans customer={customer} /> : null}
        </aside>
      </div>
    </>
  );
}

function Owed({ customer }: { readonly customer: CustomerView }): ReactElement {
  return (
    <section>
      <h2>Owed</h2>
      <Table>
        <tbody>
          {customer.owed.map((line) => (
            <tr key={line.entryId}>
              <td className="fig fs-5">
                <Link to={`/jobs/${line.jobId}`}>{line.jobNumber}</Link>
              </td>
              <td>
                {line.what}. <span className="soft">{line.machine}</span>
              </td>
              <td className="fig text-nowrap">{line.due === null ? '' : dayWords(line.due)}</td>
            </tr>
          ))}
        </tbody>
      </Table>
    </section>
  );
}

type Typed = Readonly<Record<'name' | 'phone' | 'email' | 'address', string>>;

function Contact({ customer }: { readonly customer: CustomerView }): ReactElement {
  const form = useAskForm<Typed, CustomerBody>({
    type: CustomerBody,
    draft: `customer.${customer.id}`,
    initial: { name: customer.name, phone: customer.phone ?? '', email: customer.email ?? '', address: customer.address ?? '' },
    toBody: ({ email, ...rest }) => ({ ...rest, version: customer.version, ...(email.trim() === '' ? {} : { email: email.trim() }) }),
    onSend: async (body) => {
      const version = current?.version ?? customer.version;
      await ask(ENDPOINTS.customers.change, { id: customer.id, body: { ...body, version } });
      await again();
    },
  });
  const current = meanwhile<CustomerView>(form.error);
  return (
    <section>
      <h2>Reached by</h2>
      <Asking of={form} act="Keep it">
        <Field of="customer" name="name" label="Name" maxLength={80} />
        <Field of="customer" name="phone" label="Telephone" maxLength={40} />
        <Field of="customer" name="email" label="E-mail" maxLength={120} type="email" />
        <Field of="customer" name="address" label="Address" as="textarea" rows={3} maxLength={300} />
        {current ? <p>Somebody changed it: it is now {current.name}. Keep it to put yours in its place.</p> : null}
      </Asking>
    </section>
  );
}

function Machines({ customer, mayChange }: { readonly customer: CustomerView; readonly mayChange: boolean }): ReactElement {
  const [moving, setMoving] = useState<string>();
  const { busy, error, send } = useSend();
  const machineTo = (machine: string, name: string, to: string): void =>
    void send(() => ask(ENDPOINTS.customers.owner, { id: machine, body: { customerId: to } })).then(async (ok) => {
      if (!ok) return;
      setMoving(undefined);
      offerUndo(`${name} has another owner`, async () => {
        await ask(ENDPOINTS.customers.owner, { id: machine, body: { customerId: customer.id } });
        await again();
      });
      await again();
    });
  const unitTo = (unit: string, name: string, from: string, to: string): void =>
    void send(() => ask(ENDPOINTS.customers.placed, { id: unit, body: { machineId: to } })).then(async (ok) => {
      if (!ok) return;
      setMoving(undefined);
      offerUndo(`${name} is in another machine`, async () => {
        await ask(ENDPOINTS.customers.placed, { id: unit, body: { machineId: from } });
        await again();
      });
      await again();
    });
  if (customer.machines.length === 0) return <p className="soft">None: a machine comes with its first unit.</p>;
  return (
    <>
      <Wrong error={error} />
      {customer.machines.map((machine) => (
        <section key={machine.id} className="mb-3" aria-label={machine.name}>
          <div className="d-flex flex-wrap gap-3 align-items-baseline">
            <b className="fs-5">{machine.name}</b> <span className="fig soft">{machine.serial}</span>
            {mayChange && machine.name !== OVER_THE_COUNTER ? (
              <Button
                variant="quiet"
                className="p-0"
                aria-label={`Sold: ${machine.name}`}
                onClick={() => setMoving(moving === machine.id ? undefined : machine.id)}
              >
                Sold
              </Button>
            ) : null}
          </div>
          {moving === machine.id ? (
            <PickCustomer
              label={`Who has ${machine.name} now`}
              not={customer.id}
              busy={busy}
              onPick={(to) => machineTo(machine.id, machine.name, to.id)}
            />
          ) : null}
          <ul className="mb-0">
            {machine.units.map((unit) => (
              <li key={unit.id}>
                {unit.name} <span className="fig soft">{unit.serial}</span>{' '}
                {mayChange ? (
                  <Button
                    variant="quiet"
                    className="p-0"
                    aria-label={`In another machine: ${unit.name} ${unit.serial}`}
                    onClick={() => setMoving(moving === unit.id ? undefined : unit.id)}
                  >
                    In another machine
                  </Button>
                ) : null}
                {moving === unit.id ? (
                  <PickMachine not={machine.id} busy={busy} onPick={(to) => unitTo(unit.id, unit.name, machine.id, to)} />
                ) : null}
              </li>
            ))}
          </ul>
        </section>
      ))}
    </>
  );
}

/** What only a foreman does: two that are one, what is kept shown and taken away. */
function Foremans({ customer }: { readonly customer: CustomerView }): ReactElement {
  const go = useNavigate();
  const { busy, error, send } = useSend();
  const [open, setOpen] = useState<'merge' | 'nameless'>();
  const [same, setSame] = useState<CustomerLine>();
  const merge = (into: CustomerLine): void =>
    void send(() => ask(ENDPOINTS.customers.merge, { id: customer.id, body: { into: into.id } })).then(async (ok) => {
      if (!ok) return;
      await again();
      await go(`/customers/${into.id}`);
    });
  const nameless = (): void =>
    void send(() => ask(ENDPOINTS.customers.nameless, { id: customer.id })).then(async (ok) => {
      if (!ok) return;
      setOpen(undefined);
      await again();
    });
  return (
    <section>
      <h2>Kept about them</h2>
      <p className="d-flex flex-wrap gap-2">
        <Button
          variant="plain"
          onClick={() => download(`customer-${customer.id.slice(0, 8)}.json`, JSON.stringify(customer, null, 2), 'application/json')}
        >
          All of it as a file
        </Button>
        <Button variant="plain" onClick={() => setOpen(open === 'merge' ? undefined : 'merge')}>
          Is the same as …
        </Button>
        <Button variant="plain" onClick={() => setOpen(open === 'nameless' ? undefined : 'nameless')}>
          Make nameless
        </Button>
      </p>
      <Wrong error={error} />
      {open === 'merge' && !same ? <PickCustomer label="Which of them stays" not={customer.id} busy={busy} onPick={setSame} /> : null}
      {open === 'merge' && same ? (
        <Care title={`${customer.name} is ${same.name}`}>
          Their machines, units and jobs go there, and {customer.name} is no customer any more. It cannot be taken apart again.
          <span className="keys">
            <Button variant="primary" disabled={busy} onClick={() => merge(same)}>
              They are one
            </Button>
            <Button variant="plain" onClick={() => setSame(undefined)}>
              Leave it
            </Button>
          </span>
        </Care>
      ) : null}
      {open === 'nameless' ? (
        <Care title="On their request">
          Name, telephone, e-mail and address are taken away for good, and the letters to them and what they wrote. What was done on their
          units, and what they said yes or no to, stays, and is nobody’s.
          <span className="keys">
            <Button variant="primary" disabled={busy} onClick={nameless}>
              Take them away
            </Button>
            <Button variant="plain" onClick={() => setOpen(undefined)}>
              Leave it
            </Button>
          </span>
        </Care>
      ) : null}
    </section>
  );
}
