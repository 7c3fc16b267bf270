import { OVER_THE_COUNTER, withSerial, type JobScope, type SheetFile } from '@jubb/sheet';
import { ENDPOINTS, type AskedWith, BookInBody } from '@jubb/wire';
import { openInDays, promiseOn } from '../../kit/days.ts';
import { PromiseField } from '../../kit/promise-field.tsx';
import { useEffect, useRef, type ReactElement } from 'react';
import { useWatch } from 'react-hook-form';
import { useNavigate, useSearchParams } from 'react-router';
import { v7 as uuid } from 'uuid';
import { ask } from '../../link/client.ts';
import { queryClient, useSession, useSheet, useSheets } from '../../link/queries.ts';
import { useCustomer, useUnitHistory } from '../../sheets/queries.ts';
import { minorOf } from '../../kit/money.ts';
import { Title } from '../../kit/pieces.tsx';
import { offerUndo } from '../../kit/undo.ts';
import { Identified, LastTime, OwedBefore, Receiving } from './before-it.tsx';
import { CauseList } from '../../job/causes.tsx';
import { FindKnown, KnownPick } from './known.tsx';
import { PartsFirst, ScopePick, firstEstimate } from './scope.tsx';
import { WhichUnit, type Answers } from './which-unit.tsx';
import { Tick } from '../../kit/tick.tsx';
import '../../sheets/sheets.scss';
import { partsFirst } from '@jubb/book';
import Button from 'react-bootstrap/Button';
import { useAskForm } from '../../kit/ask-form.ts';
import { Asking } from '../../kit/asking.tsx';
import { Field } from '../../kit/field.tsx';

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

const DRAFT = 'book-in';

function fresh(): Values {
  return {
    id: uuid(),
    customer: { name: '', phone: '' },
    machine: { name: '', serial: '' },
    unit: { name: '', serial: '' },
    isLoose: false,
    sheetRevisionId: '',
    complaint: '',
    promise: openInDays(3),
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

/** Fields of the form that the request knows by another name. */
const NAMES = { estimateMinor: 'estimate' } as const;

export function BookIn(): ReactElement {
  const go = useNavigate();
  const { data: session } = useSession();
  const { data: sheets = [] } = useSheets();
  const asking = useAskForm({
    type: BookInBody,
    draft: DRAFT,
    initial: fresh(),
    toBody,
    names: NAMES,
    onSend: async (_, values) => {
      const isWorkedOut = proposal !== undefined && values.estimate === worked;
      const scoped = isWorkedOut ? { ...full, estimateFrom: proposal.from } : values.scope;
      const job = await ask(ENDPOINTS.jobs.bookIn, { body: toBody({ ...values, scope: scoped }) });
      await Promise.all(['today', 'jobs', 'customers'].map((key) => queryClient.invalidateQueries({ queryKey: [key] })));
      void go(`/jobs/${job.id}`);
    },
  });
  const { control, setValue, getValues, formState } = asking.form;
  const clear = (): void => {
    const typed = getValues();
    asking.begin(fresh());
    offerUndo('What was typed is cleared', async () => asking.form.reset(typed));
  };
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

  if (session?.person.role === 'apprentice') return <p>An apprentice does not book in. Ask the counter or a mechanic.</p>;
  return (
    <>
      <Title sub="Marks, damage and what is read as it came are next, at the machine.">Book in</Title>
      <Asking
        of={asking}
        style={{ maxWidth: 980 }}
        keys={
          <div className="keys">
            <Button type="submit" variant="primary" disabled={asking.busy}>
              Book in
            </Button>
            <Button variant="plain" onClick={clear}>
              Clear
            </Button>
          </div>
        }
      >
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
              <Button
                variant="quiet"
                className="p-0 mb-1"
                onClick={() => {
                  setValue('customer', fresh().customer);
                  setValue('machine', fresh().machine);
                  setValue('unit', fresh().unit);
                }}
              >
                A new customer
              </Button>
            )}
            <Field name="customer.name" label="Name" readOnly={customerId !== undefined} />
            <Field name="customer.phone" label="Telephone" readOnly={customerId !== undefined} type="tel" />
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
            <Tick className="pick mb-2" checked={isLoose} onChange={({ target }) => takeLoose(target.checked)}>
              {OVER_THE_COUNTER}, no machine
            </Tick>
            {isLoose ? null : (
              <>
                <Field name="machine.name" label="Machine" readOnly={chosenMachine !== undefined} />
                <Field name="machine.serial" label="Serial" readOnly={chosenMachine !== undefined} placeholder="where it has one" />
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
            <Field name="unit.name" label="Unit and side" />
            <Field name="unit.serial" label="Serial or tag" placeholder="none: the number of this job" />
            <Field
              name="sheetRevisionId"
              label="Sheet"
              register={{ onChange: (event: { target: { value: string } }) => takeSheet(event.target.value) }}
              options={[['', 'which model is it?'], ...offered.map((sheet) => [sheet.revisionId, sheet.title] as const)]}
            />
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
        <Field name="complaint" label="What the customer says" as="textarea" rows={2} />
        {file?.complaints?.length ? (
          <fieldset className="section">
            <legend className="fs-5 fw-semibold">It is about</legend>
            <div className="picks">
              {file.complaints.map((complaint) => (
                <Tick
                  key={complaint.ref}
                  className="pick"
                  checked={scope.picks.includes(complaint.ref)}
                  onChange={({ target }) =>
                    setScope({
                      ...full,
                      picks: target.checked ? [...scope.picks, complaint.ref] : scope.picks.filter((ref) => ref !== complaint.ref),
                    })
                  }
                >
                  {complaint.name}
                </Tick>
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
          <div className="col-sm-4">
            <PromiseField />
          </div>
          <div className="col-sm-4">
            <Field name="estimate" label={`Estimate, ${session?.shop.currency ?? ''}`} inputMode="decimal" />
          </div>
          {proposal ? (
            <div className="col-sm-4 align-self-center">
              <p className="soft mb-0">{proposal.from}.</p>
            </div>
          ) : null}
        </div>
      </Asking>
    </>
  );
}

/** The scope with the whole unit picked, as long as nothing is. */
function withWhole(file: SheetFile, scope: JobScope): JobScope {
  if (scope.tasks.length > 0) return scope;
  return { ...scope, tasks: (file.tasks ?? []).filter(({ whole }) => whole).map(({ ref }) => ref) };
}
