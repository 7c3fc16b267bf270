import { BookInBody, validated } from '@jubb/contract/forms';
import type { JobHead } from '@jubb/contract/job';
import { useEffect, useState, type ReactElement } from 'react';
import { get as fieldError, set as put, useForm, useWatch, type FieldErrors, type FieldPath, type ResolverResult } from 'react-hook-form';
import { useNavigate } from 'react-router';
import { v7 as uuid } from 'uuid';
import { Refusal, call } from '../api/client.ts';
import { queryClient, useCustomers, useSession, useSheets } from '../api/queries.ts';
import { Labelled, localDate } from '../job/beside.tsx';
import { minorOf } from '../kit/money.ts';
import { Title, Wrong } from '../kit/pieces.tsx';
import { readStored, writeStored } from '../kit/prefs.ts';

interface Values {
  id: string;
  customer: { id?: string; name: string; phone?: string };
  machine: { id?: string; name: string; serial: string };
  unit: { id?: string; name: string; serial: string };
  sheetRevisionId: string;
  complaint: string;
  promise: string;
  estimate: string;
}

const DRAFT = 'draft.book-in';
const THREE_DAYS_MS = 3 * 24 * 3600 * 1000;

function fresh(): Values {
  return {
    id: uuid(),
    customer: { name: '', phone: '' },
    machine: { name: '', serial: '' },
    unit: { name: '', serial: '' },
    sheetRevisionId: '',
    complaint: '',
    promise: localDate(new Date(Date.now() + THREE_DAYS_MS).toISOString()),
    estimate: '',
  };
}

/** The body that the server wants, from what the form holds; the same class checks both. */
function toBody(values: Values): object {
  const { estimate, customer, machine, unit, ...rest } = values;
  // A part that is new here has no id yet; an empty one would be refused.
  const named = <T extends { id?: string }>({ id, ...others }: T): object => (id ? { id, ...others } : others);
  const promise = values.promise ? new Date(`${values.promise}T16:00`) : undefined;
  return {
    ...rest,
    customer: named(customer),
    machine: named(machine),
    unit: named(unit),
    promise: promise && !Number.isNaN(promise.getTime()) ? promise.toISOString() : '',
    estimateMinor: minorOf(estimate) ?? Number.NaN,
  };
}

/** Checks the form with the class that the server checks the request with. */
function resolve(values: Values): ResolverResult<Values> {
  const { issues } = validated(BookInBody, toBody(values));
  const errors: FieldErrors<Values> = {};
  for (const { path, message } of issues) put(errors, FIELDS[path] ?? path, { type: 'wrong', message });
  return issues.length > 0 ? { values: {}, errors } : { values, errors: {} };
}

/** Fields of the form that the request knows by another name. */
const FIELDS: Readonly<Record<string, string>> = { estimateMinor: 'estimate' };

export function BookIn(): ReactElement {
  const go = useNavigate();
  const { data: session } = useSession();
  const { data: customers = [] } = useCustomers();
  const { data: sheets = [] } = useSheets();
  const [error, setError] = useState<unknown>();
  const stored = readStored(DRAFT);
  const form = useForm<Values>({
    defaultValues: stored ? (JSON.parse(stored) as Values) : fresh(),
    resolver: resolve,
  });
  const { register, handleSubmit, subscribe, control, setValue, setError: setFieldError, reset, formState } = form;
  const [customerId, machineId, unitId] = useWatch({ control, name: ['customer.id', 'machine.id', 'unit.id'] });
  useEffect(
    () => subscribe({ formState: { values: true }, callback: ({ values }) => writeStored(DRAFT, JSON.stringify(values)) }),
    [subscribe],
  );
  const approved = sheets.filter((sheet) => sheet.status === 'approved');
  const customer = customers.find((one) => one.id === customerId);
  const chosenMachine = customer?.machines.find((one) => one.id === machineId);

  const keep = handleSubmit(async (values) => {
    setError(undefined);
    try {
      const job = await call<JobHead>('POST', '/jobs', toBody(values));
      writeStored(DRAFT, undefined);
      await Promise.all([
        queryClient.invalidateQueries({ queryKey: ['today'] }),
        queryClient.invalidateQueries({ queryKey: ['jobs'] }),
        queryClient.invalidateQueries({ queryKey: ['customers'] }),
      ]);
      void go(`/jobs/${job.id}`);
    } catch (refusal) {
      setError(refusal);
      if (refusal instanceof Refusal)
        for (const { field, allowed } of refusal.fields) setFieldError((FIELDS[field] ?? field) as FieldPath<Values>, { message: allowed });
    }
  });

  const line = (name: FieldPath<Values>, label: string, rest: React.InputHTMLAttributes<HTMLInputElement> = {}): ReactElement => {
    const message = (fieldError(formState.errors, name) as { message?: string } | undefined)?.message;
    const id = name.replace('.', '-');
    return (
      <Labelled id={id} label={label}>
        <input
          id={id}
          className={`form-control ${message ? 'is-invalid' : ''}`}
          autoComplete="off"
          aria-invalid={message !== undefined}
          aria-describedby={`${id}-problem`}
          {...rest}
          {...register(name)}
        />
        <div id={`${id}-problem`} className="v-out">
          {message ? `${label} ${message}` : null}
        </div>
      </Labelled>
    );
  };
  const complaintProblem = formState.errors.complaint?.message;
  const sheetProblem = formState.errors.sheetRevisionId?.message;
  if (session?.person.role === 'apprentice') return <p>An apprentice does not book in. Ask the counter or a mechanic.</p>;
  return (
    <>
      <Title sub="Marks and the end float as found come next, at the machine.">Book in</Title>
      <form noValidate onSubmit={(event) => void keep(event)} style={{ maxWidth: 980 }}>
        <Wrong error={error} />
        <div className="row g-4">
          <fieldset className="col-lg-4">
            <legend className="fs-5 fw-semibold">Customer</legend>
            <KnownPick
              id="known-customer"
              label="Known here"
              none="a new customer"
              known={customers}
              words={(one) => one.name}
              chosen={customerId}
              onChoose={(one) => {
                setValue('customer', one ? { id: one.id, name: one.name, phone: one.phone ?? '' } : fresh().customer);
                setValue('machine', fresh().machine);
                setValue('unit', fresh().unit);
              }}
            />
            {line('customer.name', 'Name', { readOnly: customer !== undefined })}
            {line('customer.phone', 'Telephone', { readOnly: customer !== undefined, type: 'tel' })}
          </fieldset>
          <fieldset className="col-lg-4">
            <legend className="fs-5 fw-semibold">Machine</legend>
            <KnownPick
              id="known-machine"
              label="Was here before"
              none="another machine"
              known={customer?.machines ?? []}
              words={(one) => `${one.name}, ${one.serial}`}
              chosen={machineId}
              onChoose={(one) => {
                setValue('machine', one ? { id: one.id, name: one.name, serial: one.serial } : fresh().machine);
                setValue('unit', fresh().unit);
              }}
            />
            {line('machine.name', 'Machine', { readOnly: chosenMachine !== undefined })}
            {line('machine.serial', 'Serial', { readOnly: chosenMachine !== undefined })}
          </fieldset>
          <fieldset className="col-lg-4">
            <legend className="fs-5 fw-semibold">Unit</legend>
            <KnownPick
              id="known-unit"
              label="Was here before"
              none="another unit"
              known={chosenMachine?.units ?? []}
              words={(one) => `${one.name}, ${one.serial}`}
              chosen={unitId}
              onChoose={(one) => setValue('unit', one ? { id: one.id, name: one.name, serial: one.serial } : fresh().unit)}
            />
            {line('unit.name', 'Unit and side')}
            {line('unit.serial', 'Serial or tag')}
            <Labelled id="sheet" label="Sheet">
              <select
                id="sheet"
                className={`form-select ${sheetProblem ? 'is-invalid' : ''}`}
                aria-describedby="sheet-problem"
                {...register('sheetRevisionId')}
              >
                <option value="">which model is it?</option>
                {approved.map((sheet) => (
                  <option key={sheet.revisionId} value={sheet.revisionId}>
                    {sheet.title}
                  </option>
                ))}
              </select>
              <div id="sheet-problem" className="v-out">
                {sheetProblem ? `Sheet ${sheetProblem}` : null}
              </div>
            </Labelled>
          </fieldset>
        </div>
        <Labelled id="complaint" label="What the customer says">
          <textarea
            id="complaint"
            className={`form-control ${complaintProblem ? 'is-invalid' : ''}`}
            rows={2}
            aria-describedby="complaint-problem"
            {...register('complaint')}
          />
          <div id="complaint-problem" className="v-out">
            {complaintProblem ? `Complaint ${complaintProblem}` : null}
          </div>
        </Labelled>
        <div className="row g-4">
          <div className="col-sm-4">{line('promise', 'Promise', { type: 'date' })}</div>
          <div className="col-sm-4">{line('estimate', `Estimate, ${session?.shop.currency ?? ''}`, { inputMode: 'decimal' })}</div>
        </div>
        <div className="keys">
          <button type="submit" className="btn btn-primary" disabled={formState.isSubmitting}>
            Book in
          </button>
          <button
            type="button"
            className="btn btn-plain"
            onClick={() => {
              writeStored(DRAFT, undefined);
              reset(fresh());
            }}
          >
            Clear
          </button>
        </div>
      </form>
    </>
  );
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
function KnownPick<T extends { readonly id: string }>({
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
      <select
        id={id}
        className="form-select"
        value={chosen ?? ''}
        onChange={(event) => onChoose(known.find((one) => one.id === event.target.value))}
      >
        <option value="">{none}</option>
        {known.map((one) => (
          <option key={one.id} value={one.id}>
            {words(one)}
          </option>
        ))}
      </select>
    </Labelled>
  );
}
