import { MOVED_WORDS, UPSETS, UPSET_READ_AS, UPSET_WORDS, USUALLY_READ_AS, WRITERS, type Upset, type WayInLine } from '@jubb/book';
import { MOVED_HOW, type MovedHow } from '@jubb/sheet';
import { formatQuantity, type Quantity } from '@jubb/core';
import { ENDPOINTS, WayInBody, type WayInView } from '@jubb/wire';
import { useQuery } from '@tanstack/react-query';
import { useState, type ReactElement } from 'react';
import Button from 'react-bootstrap/Button';
import { useFieldArray } from 'react-hook-form';
import { useParams } from 'react-router';
import { useAskForm } from '../../kit/ask-form.ts';
import { Asking } from '../../kit/asking.tsx';
import { dayWords } from '../../kit/days.ts';
import { Field } from '../../kit/field.tsx';
import { readFigure } from '../../kit/figure-field.tsx';
import { Loading, Title, Wrong } from '../../kit/pieces.tsx';
import { useUnits, type Units } from '../../kit/units.ts';
import { ask, meanwhile } from '../../link/client.ts';
import { queryClient, useSession } from '../../link/queries.ts';
import { wayInKey } from './use-way-in.ts';

/** The short sheet of a machine, all of it at once. */
export function WayInPage(): ReactElement {
  const { id = '' } = useParams();
  const { data: session } = useSession();
  const { data, error } = useQuery({ queryKey: wayInKey(id), queryFn: () => ask(ENDPOINTS.machines.wayIn, { id }) });
  if (error && !data) return <Wrong error={error} />;
  if (!data || !session) return <Loading what="the way in" />;
  const { machine, editedBy, editedAt } = data;
  const mayChange = WRITERS.includes(session.person.role);
  return (
    <>
      <Title
        sub={
          editedBy && editedAt
            ? `Kept by ${editedBy}, ${dayWords(editedAt)}. It serves every unit of this machine.`
            : 'Nobody kept one yet. It serves every unit of this machine.'
        }
      >
        Way in: {machine.name} <span className="fig">{machine.serial}</span>
      </Title>
      <WayInForm key={machine.id} of={data} mayChange={mayChange} />
    </>
  );
}

/** A line as it is typed: figures with their units. */
interface TypedLine {
  what: string;
  how: MovedHow;
  screws: string;
  size: string;
  torque: string;
  routing: string;
  plug: string;
  minutes: string;
  unit: string;
  upsets: Upset | '';
  reads: string;
  readAs: (typeof UPSET_READ_AS)[number];
  from: string;
  to: string;
}

interface Typed {
  version: number;
  lines: TypedLine[];
}

const EMPTY: TypedLine = {
  ...{ what: '', how: 'off', screws: '', size: '', torque: '', routing: '', plug: '', minutes: '', unit: '' },
  ...{ upsets: '', reads: '', readAs: 'length', from: '', to: '' },
};

function typedLine(line: WayInLine, units: Units): TypedLine {
  const shown = (base: number | undefined, quantity: Quantity): string =>
    base === undefined ? '' : formatQuantity(base, quantity, units.symbol(quantity));
  const { makes } = line;
  return {
    what: line.what,
    how: line.how,
    screws: String(line.screws ?? ''),
    size: line.size ?? '',
    torque: shown(line.torque, 'torque'),
    routing: line.routing ?? '',
    plug: line.plug ?? '',
    minutes: String(line.minutes ?? ''),
    unit: line.unit ?? '',
    upsets: makes?.upsets ?? '',
    reads: makes?.what ?? '',
    readAs: makes?.readAs ?? 'length',
    from: makes ? shown(makes.from, makes.readAs) : '',
    to: makes ? shown(makes.to, makes.readAs) : '',
  };
}

function lineOf(typed: TypedLine, units: Units): WayInLine {
  const figure = (text: string, quantity: Quantity): number => readFigure(text, quantity, units.symbol(quantity)).base ?? Number.NaN;
  const said = (name: 'size' | 'routing' | 'plug'): object => (typed[name].trim() === '' ? {} : { [name]: typed[name].trim() });
  const whole = (name: 'screws' | 'minutes'): object => (typed[name].trim() === '' ? {} : { [name]: Number(typed[name]) });
  const { upsets, reads, readAs, from, to } = typed;
  return {
    what: typed.what.trim(),
    how: typed.how,
    ...whole('screws'),
    ...said('size'),
    ...(typed.torque.trim() === '' ? {} : { torque: figure(typed.torque, 'torque') }),
    ...said('routing'),
    ...said('plug'),
    ...whole('minutes'),
    ...(typed.unit === '' ? {} : { unit: typed.unit }),
    ...(upsets === ''
      ? {}
      : {
          makes: {
            upsets,
            what: reads.trim(),
            readAs,
            ...(from.trim() === '' ? {} : { from: figure(from, readAs) }),
            ...(to.trim() === '' ? {} : { to: figure(to, readAs) }),
          },
        }),
  };
}

/** Where the request names a field otherwise than the form. */
const NAMES = Object.fromEntries(
  Array.from({ length: 60 }, (_, at) => [
    [`lines[${at}].makes.what`, `lines.${at}.reads`],
    ...['from', 'to', 'readAs', 'upsets'].map((name) => [`lines[${at}].makes.${name}`, `lines.${at}.${name}`]),
  ]).flat(),
) as Readonly<Record<string, `lines.${number}.what`>>;

function WayInForm({ of: view, mayChange }: { readonly of: WayInView; readonly mayChange: boolean }): ReactElement {
  const units = useUnits();
  const { machine } = view;
  const [kept, setKept] = useState(false);
  const begun = (one: WayInView): Typed => ({
    version: one.version,
    // Of another machine of that name, where this one has none: to be looked through and kept.
    lines: (one.version > 0 ? one.lines : (one.like?.lines ?? [])).map((line) => typedLine(line, units)),
  });
  const form = useAskForm<Typed, WayInBody>({
    type: WayInBody,
    draft: `way-in.${machine.id}`,
    initial: begun(view),
    toBody: ({ version, lines }) => ({ version, lines: lines.map((line) => lineOf(line, units)) }),
    names: NAMES,
    onSend: async (body) => {
      const answer = await ask(ENDPOINTS.machines.keepWayIn, {
        id: machine.id,
        body: { ...body, version: current?.version ?? body.version },
      });
      queryClient.setQueryData(wayInKey(machine.id), answer);
      form.begin(begun(answer));
      setKept(true);
    },
  });
  const current = meanwhile<WayInView>(form.error);
  const { fields, append, remove, swap } = useFieldArray({ control: form.form.control, name: 'lines' });
  const upsets = form.form.watch('lines').map((line) => line.upsets);
  const off = { disabled: !mayChange };
  // One that was of a unit with another name stays what it is.
  const unitsOf = (own = ''): readonly (readonly [string, string])[] =>
    [...new Set(['', own, ...view.units])].map((unit) => [unit, unit === '' ? 'every unit' : unit]);
  return (
    <Asking
      of={form}
      keys={
        mayChange ? (
          <p className="mt-3">
            <Button type="submit" variant="primary" disabled={form.busy}>
              Keep it
            </Button>{' '}
            <Button variant="plain" onClick={() => append(EMPTY)}>
              One more line
            </Button>{' '}
            <span className="v-in" role="status">
              {kept && !form.form.formState.isDirty ? 'Kept.' : ''}
            </span>
          </p>
        ) : (
          <p className="soft">A mechanic or the foreman changes it.</p>
        )
      }
    >
      {view.version === 0 && view.like ? (
        <p className="soft">
          As it is on {machine.name} <span className="fig">{view.like.serial}</span>: look it through, and keep it for this one.
        </p>
      ) : null}
      {fields.length === 0 ? <p className="soft">Nothing is in the way, as far as anybody wrote down.</p> : null}
      <ol className="list-unstyled way-in">
        {fields.map(({ id }, at) => {
          const name = <N extends string>(field: N): `lines.${number}.${N}` => `lines.${at}.${field}`;
          return (
            <li key={id} className="mb-3 pb-2 border-bottom" aria-label={`Line ${at + 1}`}>
              <div className="row g-2 align-items-start">
                <Field {...off} name={name('what')} label={`${at + 1}. What is in the way`} wrap="col-12 col-md-4" maxLength={200} />
                <Field
                  {...off}
                  name={name('how')}
                  label="How"
                  wrap="col-6 col-md-2"
                  options={MOVED_HOW.map((how) => [how, MOVED_WORDS[how]])}
                />
                <Field {...off} name={name('screws')} label="Screws" wrap="col-3 col-md-1" inputMode="numeric" maxLength={4} />
                <Field {...off} name={name('size')} label="Size" wrap="col-3 col-md-2" maxLength={60} />
                <Field {...off} name={name('torque')} label="Torque" wrap="col-6 col-md-2" inputMode="decimal" maxLength={20} />
                <Field {...off} name={name('minutes')} label="Minutes" wrap="col-3 col-md-1" inputMode="numeric" maxLength={3} />
                <Field {...off} name={name('routing')} label="How it runs" wrap="col-12 col-md-4" maxLength={300} />
                <Field {...off} name={name('plug')} label="Closed meanwhile with" wrap="col-12 col-md-3" maxLength={100} />
                <Field {...off} name={name('unit')} label="In the way of" wrap="col-6 col-md-3" options={unitsOf(fields[at]?.unit)} />
                <Field
                  {...off}
                  name={name('upsets')}
                  label="It upsets"
                  wrap="col-6 col-md-2"
                  options={[['', 'nothing'], ...UPSETS.map((upset) => [upset, UPSET_WORDS[upset]] as const)]}
                  register={{
                    onChange: ({ target }: { target: { value: Upset | '' } }) => {
                      if (target.value !== '') form.form.setValue(name('readAs'), USUALLY_READ_AS[target.value]);
                    },
                  }}
                />
                {upsets[at] ? (
                  <>
                    <Field {...off} name={name('reads')} label="What is read once it is back" wrap="col-12 col-md-5" maxLength={200} />
                    <Field
                      {...off}
                      name={name('readAs')}
                      label="As"
                      wrap="col-4 col-md-2"
                      options={UPSET_READ_AS.map((one) => [one, one])}
                    />
                    <Field {...off} name={name('from')} label="Right from" wrap="col-4 col-md-2" inputMode="decimal" maxLength={20} />
                    <Field {...off} name={name('to')} label="to" wrap="col-4 col-md-2" inputMode="decimal" maxLength={20} />
                  </>
                ) : null}
              </div>
              {mayChange ? (
                <div className="keys">
                  {at > 0 ? (
                    <Button variant="quiet" onClick={() => swap(at, at - 1)}>
                      Earlier<span className="visually-hidden">, line {at + 1}</span>
                    </Button>
                  ) : null}
                  {at < fields.length - 1 ? (
                    <Button variant="quiet" onClick={() => swap(at, at + 1)}>
                      Later<span className="visually-hidden">, line {at + 1}</span>
                    </Button>
                  ) : null}
                  <Button variant="quiet" onClick={() => remove(at)}>
                    Out<span className="visually-hidden">, line {at + 1}</span>
                  </Button>
                </div>
              ) : null}
            </li>
          );
        })}
      </ol>
      {current ? (
        <p>
          {current.editedBy} kept another one meanwhile: {current.lines.map(({ what }) => what).join(', ') || 'nothing in the way'}. What
          you typed is still here; keep it to put it in its place.
        </p>
      ) : null}
    </Asking>
  );
}
