import { whoWords, type Bench } from '@jubb/book';
import { BENCH_KINDS, type BenchKind } from '@jubb/sheet';
import { BenchBody, ENDPOINTS, type ClosedDayBody, type PersonLine, type WeekdayBody } from '@jubb/wire';
import { useMemo, useState, type ReactElement } from 'react';
import Button from 'react-bootstrap/Button';
import { useFormContext, useWatch } from 'react-hook-form';
import { Link } from 'react-router';
import { useAskForm } from '../kit/ask-form.ts';
import { Asking } from '../kit/asking.tsx';
import { DataTable, type Column } from '../kit/data-table.tsx';
import { openWords } from '../kit/open-words.ts';
import { Field } from '../kit/field.tsx';
import { Loading, Title, Wrong } from '../kit/pieces.tsx';
import { Tick } from '../kit/tick.tsx';
import { offerUndo } from '../kit/undo.ts';
import { useSend } from '../kit/use-send.ts';
import { ask, meanwhile } from '../link/client.ts';
import { refresh, useBenches, usePeople, useSession } from '../link/queries.ts';
import { HoursFields, weekOf } from './hours-fields.tsx';
import { ShopPlaces } from './shop-places.tsx';

const again = (): Promise<unknown> => refresh({ queryKey: ['benches'] });

const KIND_OPTIONS = BENCH_KINDS.map((kind) => [kind, kind] as const);

const nowWords = (bench: Bench): string => (bench.out === null ? (openWords(bench)?.words ?? 'can be used') : `out of use: ${bench.out}`);

/** Benches, and the machines that steps need: what stands there, whether they can be used now, and by whom. */
export function BenchesPage(): ReactElement {
  const { data: session } = useSession();
  const { data: benches, error } = useBenches();
  const [open, setOpen] = useState<string>();
  const columns = useMemo(
    (): readonly Column<Bench>[] => [
      {
        id: 'name',
        head: 'Name',
        value: ({ name }) => name,
        cell: ({ id, name }) => (
          <Button
            variant="link"
            className="p-0 text-start"
            aria-expanded={open === id}
            onClick={() => setOpen(open === id ? undefined : id)}
          >
            {name}
          </Button>
        ),
      },
      { id: 'kind', head: 'Kind', value: ({ kind }) => kind },
      {
        id: 'now',
        head: 'Now',
        value: nowWords,
        cell: (bench) => (
          <span className={bench.out === null && openWords(bench)?.isOpen !== false ? 'v-in' : 'brass'}>{nowWords(bench)}</span>
        ),
      },
      { id: 'who', head: 'Used by', value: whoWords },
      {
        id: 'jobs',
        head: 'Stands there',
        value: ({ jobs }) => jobs.map(({ number, unit }) => `${number} ${unit}`).join(', '),
        cell: ({ jobs }) =>
          jobs.map(({ id, number, unit }) => (
            <div key={id}>
              <Link to={`/jobs/${id}`}>
                <span className="fig">{number}</span> {unit}
              </Link>
            </div>
          )),
      },
    ],
    [open],
  );
  if (!benches) return error ? <Wrong error={error} /> : <Loading what="the benches" />;
  const mayChange = session?.person.role === 'foreman';
  const chosen = benches.find(({ id }) => id === open);
  return (
    <>
      <Title
        sub={
          <>
            Where units stand, and the press, the lift, the oven and the test stand that steps need.
            {mayChange ? (
              <>
                {' '}
                <Link to="/shop/bring?list=benches">Bring in a list</Link>
              </>
            ) : (
              ' The foreman changes this.'
            )}
          </>
        }
      >
        Benches and machines
      </Title>
      <ShopPlaces />
      {benches.length === 0 ? (
        <p>None is named yet. Once there is one, a step says where it is done, and each job where its unit stands.</p>
      ) : (
        <DataTable name="benches" columns={columns} rows={benches} rowKey={({ id }) => id} isBare />
      )}
      {chosen ? <OneBench key={chosen.id} bench={chosen} mayChange={mayChange} onGone={() => setOpen(undefined)} /> : null}
      {mayChange && !chosen ? <NewBench /> : null}
    </>
  );
}

interface Typed {
  name: string;
  kind: BenchKind;
  who: string[];
  /** Has hours of its own. */
  own: 'shop' | 'own';
  week: WeekdayBody[];
  closed: ClosedDayBody[];
  out: string;
}

const NEW: Typed = { name: '', kind: 'bench', who: [], own: 'shop', week: weekOf(null), closed: [], out: '' };

function typedOf({ name, kind, who, hours, out }: Bench): Typed {
  return {
    ...{ name, kind, who: who.map(({ id }) => id), own: hours ? 'own' : 'shop', out: out ?? '' },
    ...{ week: weekOf(hours), closed: (hours?.closed ?? []).map((one) => ({ ...one })) },
  };
}

function bodyOf({ name, kind, who, own, week, closed, out }: Typed): BenchBody {
  const hours = own === 'own' ? { week, closed } : { week: [], closed: [] };
  return { name, kind, who, ...hours, ...(out.trim() === '' ? {} : { out }) };
}

function NewBench(): ReactElement {
  const form = useAskForm<Typed, BenchBody>({
    type: BenchBody,
    draft: 'bench.new',
    initial: NEW,
    toBody: bodyOf,
    onSend: async (body) => {
      const { id, name } = await ask(ENDPOINTS.benches.add, { body });
      await again();
      form.begin(NEW);
      offerUndo(`${name} is there`, async () => {
        await ask(ENDPOINTS.benches.drop, { id });
        await again();
      });
    },
  });
  return (
    <section className="mt-4" aria-label="One more">
      <h2>One more</h2>
      <Asking of={form} act="Put it in">
        <BenchFields of="bench-new" mayChange />
      </Asking>
    </section>
  );
}

/** Below a long list what was asked for is brought into sight. */
function intoSight(section: HTMLElement | null): void {
  section?.scrollIntoView({ block: 'nearest' });
}

interface OneBenchProps {
  readonly bench: Bench;
  readonly mayChange: boolean;
  readonly onGone: () => void;
}

function OneBench({ bench, mayChange, onGone }: OneBenchProps): ReactElement {
  const { id, name } = bench;
  // As it was when this was opened: what somebody else changes meanwhile is told, not written over.
  const [version, setVersion] = useState(bench.version);
  const { busy, error, send } = useSend();
  const before = bodyOf(typedOf(bench));
  const form = useAskForm<Typed, BenchBody>({
    type: BenchBody,
    initial: typedOf(bench),
    toBody: bodyOf,
    onSend: async (body) => {
      const kept = await ask(ENDPOINTS.benches.change, { id, body: { ...body, version: current?.version ?? version } });
      setVersion(kept.version);
      await again();
      offerUndo(`${kept.name} is changed`, async () => {
        const back = await ask(ENDPOINTS.benches.change, { id, body: { ...before, version: kept.version } });
        setVersion(back.version);
        form.begin(typedOf(back));
        await again();
      });
    },
  });
  const current = meanwhile<Bench>(form.error);
  const drop = (): void =>
    void send(async () => {
      await ask(ENDPOINTS.benches.drop, { id });
      await again();
      onGone();
      offerUndo(`${name} is off the list`, async () => {
        await ask(ENDPOINTS.benches.add, { body: before });
        await again();
      });
    });
  return (
    <section ref={intoSight} className="mt-4" aria-label={name}>
      <h2>{name}</h2>
      <Asking
        of={form}
        keys={
          mayChange ? (
            <div className="keys">
              <Button type="submit" variant="primary" disabled={form.busy}>
                {current ? 'Keep mine' : 'Keep it'}
              </Button>
              <Button variant="plain" disabled={busy} onClick={drop}>
                It is gone: off the list
              </Button>
            </div>
          ) : null
        }
      >
        <BenchFields of="bench" mayChange={mayChange} />
        {current ? (
          <p>
            It now says: {current.name}, {current.kind}, used by {whoWords(current)}. What you typed is still here; keep it to put it in its
            place.
          </p>
        ) : null}
        <Wrong error={error} />
      </Asking>
    </section>
  );
}

/** What it is, who may use it and when; `of` tells the two forms of the page apart. */
function BenchFields({ of, mayChange }: { readonly of: string; readonly mayChange: boolean }): ReactElement {
  const own = useWatch<Typed, 'own'>({ name: 'own' });
  return (
    <>
      <div className="two form-first">
        <div>
          <Field of={of} name="name" label="Name" maxLength={60} disabled={!mayChange} hint="As it is called in the shop: “Press, 20 t”." />
          <Field of={of} name="kind" label="It is a" options={KIND_OPTIONS} disabled={!mayChange} />
          <Field
            of={of}
            name="out"
            label="Out of use because"
            maxLength={200}
            disabled={!mayChange}
            hint="Empty: it can be used. While it is out, steps that need it wait."
          />
          <Field
            of={of}
            name="own"
            label="Can be used"
            disabled={!mayChange}
            options={[
              ['shop', 'whenever the shop is open'],
              ['own', 'at hours of its own'],
            ]}
          />
        </div>
        {mayChange ? <WhoMay /> : null}
      </div>
      {own === 'own' ? <HoursFields of={of} mayChange={mayChange} /> : null}
    </>
  );
}

/** People to tick; whoever left is not offered. */
function WhoMay(): ReactElement {
  const { data: people = [] } = usePeople();
  const { setValue } = useFormContext<Typed>();
  const who = useWatch<Typed, 'who'>({ name: 'who' });
  const here = people.filter(({ id, leftAt }) => leftAt === null || who.includes(id));
  const pick = ({ id }: PersonLine, isOn: boolean): void =>
    setValue('who', isOn ? [...who, id] : who.filter((one) => one !== id), { shouldDirty: true });
  return (
    <fieldset>
      <legend className="fs-5">Used by</legend>
      <p className="soft mb-1">
        {who.length === 0 ? 'Everybody. Tick people to leave it to them alone.' : 'Those that are ticked, and nobody else.'}
      </p>
      {here.map((person) => (
        <Tick key={person.id} checked={who.includes(person.id)} onChange={({ target }) => pick(person, target.checked)}>
          {person.name} <span className="soft">{person.role}</span>
        </Tick>
      ))}
    </fieldset>
  );
}
