import { OVER_THE_COUNTER, withSerial, type JobScope, type SheetFile } from '@jubb/sheet';
import { validated } from '@jubb/sheet/given';
import { ENDPOINTS, type AskedWith, BookInBody } from '@jubb/wire';
import { inDays, promiseOn } from '../../kit/days.ts';
import { useEffect, useRef, useState, type ReactElement } from 'react';
import { get as fieldError, set as put, useForm, useWatch, type FieldErrors, type FieldPath, type ResolverResult } from 'react-hook-form';
import { useNavigate, useSearchParams } from 'react-router';
import { v7 as uuid } from 'uuid';
import { Refusal, ask } from '../../link/client.ts';
import { queryClient, useSession, useSheet, useSheets } from '../../link/queries.ts';
import { useCustomer, useUnitHistory } from '../../sheets/queries.ts';
import { Labelled } from '../../kit/labelled.tsx';
import { minorOf } from '../../kit/money.ts';
import { Title, Wrong } from '../../kit/pieces.tsx';
import { readStored, writeStored } from '../../kit/prefs.ts';
import { Identified, LastTime, OwedBefore, Receiving } from './before-it.tsx';
import { CauseList } from '../../job/causes.tsx';
import { FindKnown, KnownPick } from './known.tsx';
import { PartsFirst, ScopePick, firstEstimate } from './scope.tsx';
import { WhichUnit, type Answers } from './which-unit.tsx';
import '../../sheets/sheets.scss';
import { partsFirst } from '@jubb/book';

interface Values {
  id: string;
  customer: { id?: string; name: string; phone?: string };
  machine: { id?: string; name: string; serial: string };
  unit: { id?: string; name: string; serial: string };
  /** It came over the counter, without its machine. */
  isLoose: boolean;
  sheetRevisionId: string;
  complaint: string;
  promise: string;
  estimate: string;
  scope: JobScope;
  family: string;
  answers: Answers;
}

const NO_SCOPE: JobScope = { tasks: [], sides: [], place: 'on the bench', picks: [], identified: [], partsFirst: [] };

const DRAFT = 'draft.book-in';

function fresh(): Values {
  return {
    id: uuid(),
    customer: { name: '', phone: '' },
    machine: { name: '', serial: '' },
    unit: { name: '', serial: '' },
    isLoose: false,
    sheetRevisionId: '',
    complaint: '',
    promise: inDays(3),
    estimate: '',
    scope: NO_SCOPE,
    family: '',
    answers: {},
  };
}

/** The body that the server wants, from what the form holds; the same class checks both. */
function toBody(values: Values): AskedWith<typeof ENDPOINTS.jobs.bookIn>['body'] {
  const { estimate, customer, machine, unit, isLoose, family: _family, answers, ...rest } = values;
  // A part that is new here has no id yet; an empty one would be refused.
  const named = <T extends { id?: string }>({ id, ...others }: T): Omit<T, 'id'> & { id?: string } => (id ? { id, ...others } : others);
  return {
    ...rest,
    customer: named(customer),
    ...(isLoose && !machine.id ? {} : { machine: named(machine) }),
    unit: named(unit),
    promise: /^\d{4}-\d{2}-\d{2}$/u.test(values.promise) ? promiseOn(values.promise) : '',
    estimateMinor: minorOf(estimate) ?? Number.NaN,
    scope: { ...values.scope, identified: Object.entries(answers).map(([feature, found]) => ({ feature, found })) },
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
  const { data: sheets = [] } = useSheets();
  const [error, setError] = useState<unknown>();
  const stored = readStored(DRAFT);
  const form = useForm<Values>({
    // A draft of an older form lacks what came since.
    defaultValues: stored ? { ...fresh(), ...(JSON.parse(stored) as Values) } : fresh(),
    resolver: resolve,
  });
  const { register, handleSubmit, subscribe, control, setValue, getValues, setError: setFieldError, reset, formState } = form;
  const [customerId, machineId, unitId, isLoose, revisionId, scope, family, answers] = useWatch({
    control,
    name: ['customer.id', 'machine.id', 'unit.id', 'isLoose', 'sheetRevisionId', 'scope', 'family', 'answers'],
  });
  const { data: chosenSheet } = useSheet(revisionId);
  const file = revisionId === '' ? undefined : chosenSheet?.file;
  const { data: history } = useUnitHistory(unitId);
  const { data: customer } = useCustomer(customerId);
  const [params] = useSearchParams();
  const begun = params.get('sheet');
  useEffect(() => {
    if (begun) setValue('sheetRevisionId', begun);
  }, [begun, setValue]);
  useEffect(
    () => subscribe({ formState: { values: true }, callback: ({ values }) => writeStored(DRAFT, JSON.stringify(values)) }),
    [subscribe],
  );
  const offered = sheets.filter((sheet) => sheet.status === 'approved' || sheet.revisionId === revisionId);
  const money = new Intl.NumberFormat('en-GB', { style: 'currency', currency: session?.shop.currency ?? 'EUR' });
  /** A sheet was picked: the whole unit, until something narrower is. */
  const takeSheet = (id: string, variant?: string): void => {
    setValue('sheetRevisionId', id, { shouldValidate: formState.isSubmitted });
    setValue('scope', { ...NO_SCOPE, ...(variant === undefined ? {} : { variant }) });
  };
  /** Off no machine: what the customer brought so before is known. */
  const takeLoose = (loose: boolean): void => {
    const before = loose ? customer?.machines.find(({ name }) => name === OVER_THE_COUNTER) : undefined;
    setValue('isLoose', loose);
    const { machine, unit } = getValues();
    // What was typed stays; what is known belongs to the machine that it was known with.
    const own = machine.id === undefined ? machine : fresh().machine;
    setValue('machine', before ? { id: before.id, name: before.name, serial: before.serial } : own);
    if (unit.id !== undefined) setValue('unit', fresh().unit);
  };
  const setScope = (next: JobScope): void => setValue('scope', next);
  const full = file ? withWhole(file, scope) : scope;
  const proposal = file && firstEstimate(file, full, session?.shop.hourlyMinor ?? 0, (minor) => money.format(minor / 100));
  const worked = proposal && proposal.minor > 0 ? (proposal.minor / 100).toFixed(2) : '';
  // What was worked out stands in the field until somebody types another.
  const before = useRef('');
  useEffect(() => {
    const typed = getValues('estimate');
    if (typed === '' || typed === before.current) setValue('estimate', worked);
    before.current = worked;
  }, [worked, getValues, setValue]);
  const last = history?.jobs[0];
  const chosenMachine = customer?.machines.find((one) => one.id === machineId);

  const keep = handleSubmit(async (values) => {
    setError(undefined);
    try {
      const isWorkedOut = proposal !== undefined && values.estimate === worked;
      const scope = isWorkedOut ? { ...full, estimateFrom: proposal.from } : values.scope;
      const job = await ask(ENDPOINTS.jobs.bookIn, { body: toBody({ ...values, scope }) });
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
      <Title sub="Marks, damage and what is read as it came are next, at the machine.">Book in</Title>
      <form noValidate onSubmit={(event) => void keep(event)} style={{ maxWidth: 980 }}>
        <Wrong error={error} />
        <FindKnown
          onFound={(one) => {
            setValue('customer', one.customer);
            setValue('machine', one.machine ?? fresh().machine);
            setValue('isLoose', one.machine?.name === OVER_THE_COUNTER);
            setValue('unit', one.unit ?? fresh().unit);
          }}
        />
        <OwedBefore
          lines={customer?.owed ?? []}
          machineId={machineId}
          onDo={(what) => setValue('complaint', [getValues('complaint').trim(), `Owed: ${what}.`].filter(Boolean).join(' '))}
        />
        <div className="row g-4">
          <fieldset className="col-lg-4">
            <legend className="fs-5 fw-semibold">Customer</legend>
            {customerId === undefined ? null : (
              <button
                type="button"
                className="btn btn-quiet p-0 mb-1"
                onClick={() => {
                  setValue('customer', fresh().customer);
                  setValue('machine', fresh().machine);
                  setValue('unit', fresh().unit);
                }}
              >
                A new customer
              </button>
            )}
            {line('customer.name', 'Name', { readOnly: customerId !== undefined })}
            {line('customer.phone', 'Telephone', { readOnly: customerId !== undefined, type: 'tel' })}
          </fieldset>
          <fieldset className="col-lg-4">
            <legend className="fs-5 fw-semibold">Machine</legend>
            <KnownPick
              id="known-machine"
              label="Was here before"
              none="another machine"
              known={customer?.machines ?? []}
              words={withSerial}
              chosen={machineId}
              onChoose={(one) => {
                setValue('machine', one ? { id: one.id, name: one.name, serial: one.serial } : fresh().machine);
                setValue('isLoose', one?.name === OVER_THE_COUNTER);
                setValue('unit', fresh().unit);
              }}
            />
            <label className="pick mb-2">
              <input type="checkbox" checked={isLoose} onChange={({ target }) => takeLoose(target.checked)} />
              {OVER_THE_COUNTER}, no machine
            </label>
            {isLoose ? null : (
              <>
                {line('machine.name', 'Machine', { readOnly: chosenMachine !== undefined })}
                {line('machine.serial', 'Serial', { readOnly: chosenMachine !== undefined, placeholder: 'where it has one' })}
              </>
            )}
          </fieldset>
          <fieldset className="col-lg-4">
            <legend className="fs-5 fw-semibold">Unit</legend>
            <KnownPick
              id="known-unit"
              label="Was here before"
              none="another unit"
              known={chosenMachine?.units ?? []}
              words={withSerial}
              chosen={unitId}
              onChoose={(one) => setValue('unit', one ? { id: one.id, name: one.name, serial: one.serial } : fresh().unit)}
            />
            {last ? (
              <LastTime
                jobs={history.jobs}
                onSame={(key, variant) => takeSheet(offered.find((sheet) => sheet.key === key)?.revisionId ?? '', variant)}
              />
            ) : null}
            {line('unit.name', 'Unit and side')}
            {line('unit.serial', 'Serial or tag', { placeholder: 'none: the number of this job' })}
            <Labelled id="sheet" label="Sheet">
              <select
                id="sheet"
                className={`form-select ${sheetProblem ? 'is-invalid' : ''}`}
                aria-describedby="sheet-problem"
                {...register('sheetRevisionId', { onChange: (event: { target: { value: string } }) => takeSheet(event.target.value) })}
              >
                <option value="">which model is it?</option>
                {offered.map((sheet) => (
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
        {revisionId === '' ? (
          <details className="section" open>
            <summary>Which unit is this?</summary>
            <WhichUnit
              family={family}
              answers={answers}
              onFamily={(next) => setValue('family', next)}
              onAnswers={(next) => setValue('answers', next)}
              onTake={(candidate, id) => takeSheet(id, candidate.variant?.ref)}
            />
          </details>
        ) : null}
        {file ? <Identified file={file} variant={scope.variant} answers={answers} onBack={() => takeSheet('')} /> : null}
        {file ? <Receiving file={file} /> : null}
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
        {file?.complaints?.length ? (
          <fieldset className="section">
            <legend className="fs-5 fw-semibold">It is about</legend>
            <div className="picks">
              {file.complaints.map((complaint) => (
                <label key={complaint.ref} className="pick">
                  <input
                    type="checkbox"
                    checked={scope.picks.includes(complaint.ref)}
                    onChange={({ target }) =>
                      setScope({
                        ...full,
                        picks: target.checked ? [...scope.picks, complaint.ref] : scope.picks.filter((ref) => ref !== complaint.ref),
                      })
                    }
                  />
                  {complaint.name}
                </label>
              ))}
            </div>
            {scope.picks.length > 0 ? <CauseList file={file} picks={scope.picks} entries={[]} /> : null}
          </fieldset>
        ) : null}
        {file?.tasks?.length ? (
          <fieldset className="section">
            <legend className="fs-5 fw-semibold">What is to be done</legend>
            <ScopePick file={file} scope={full} onScope={setScope} />
          </fieldset>
        ) : null}
        {file ? (
          <details className="section">
            <summary>Parts before the first screw</summary>
            <PartsFirst
              lines={partsFirst(file, full)}
              chosen={scope.partsFirst}
              onChoose={(next) => setScope({ ...full, partsFirst: next })}
            />
          </details>
        ) : null}
        <div className="row g-4">
          <div className="col-sm-4">{line('promise', 'Promise', { type: 'date' })}</div>
          <div className="col-sm-4">{line('estimate', `Estimate, ${session?.shop.currency ?? ''}`, { inputMode: 'decimal' })}</div>
          {proposal ? (
            <div className="col-sm-4 align-self-center">
              <p className="soft mb-0">{proposal.from}.</p>
            </div>
          ) : null}
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

/** The scope with the whole unit picked, as long as nothing is. */
function withWhole(file: SheetFile, scope: JobScope): JobScope {
  if (scope.tasks.length > 0) return scope;
  return { ...scope, tasks: (file.tasks ?? []).filter(({ whole }) => whole).map(({ ref }) => ref) };
}
