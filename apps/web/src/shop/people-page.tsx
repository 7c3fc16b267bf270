import { ROLES, type Role } from '@jubb/sheet';
import { ENDPOINTS, NewPersonBody, PasswordBody, PersonBody, type PersonLine } from '@jubb/wire';
import { useState, type ReactElement } from 'react';
import Button from 'react-bootstrap/Button';
import { useAskForm } from '../kit/ask-form.ts';
import { Asking } from '../kit/asking.tsx';
import { DataTable, type Column } from '../kit/data-table.tsx';
import { dayWords } from '../kit/days.ts';
import { Field } from '../kit/field.tsx';
import { Loading, Title, Wrong } from '../kit/pieces.tsx';
import { offerUndo } from '../kit/undo.ts';
import { useSend } from '../kit/use-send.ts';
import { ask, meanwhile } from '../link/client.ts';
import { refresh, usePeople, useSession } from '../link/queries.ts';
import { Certificates } from './certificates.tsx';
import { ShopPlaces } from './shop-places.tsx';

const ROLE_OPTIONS = ROLES.map((role) => [role, role] as const);

const again = (): Promise<unknown> => refresh({ queryKey: ['people'] });

/** Who works here: the foreman adds people, changes what they do, gives new passwords, and lets them go. */
export function PeoplePage(): ReactElement {
  const { data: session } = useSession();
  const { data: people, error } = usePeople();
  const [open, setOpen] = useState<string>();
  if (session && session.person.role !== 'foreman')
    return (
      <>
        <Title sub="The foreman sees to it.">People</Title>
        <ShopPlaces />
      </>
    );
  if (!people) return error ? <Wrong error={error} /> : <Loading what="the people" />;
  const columns: readonly Column<PersonLine>[] = [
    {
      id: 'name',
      head: 'Name',
      value: ({ name }) => name,
      cell: ({ id, name }) => (
        <Button variant="link" className="p-0 fs-5" aria-expanded={open === id} onClick={() => setOpen(open === id ? undefined : id)}>
          {name}
        </Button>
      ),
    },
    { id: 'login', head: 'Log-in', value: ({ login }) => login },
    { id: 'role', head: 'Works as', value: ({ role }) => role },
    {
      id: 'licences',
      head: 'Certificates',
      value: ({ licences }) => (licences ?? []).map(({ covers }) => covers).join(', '),
    },
    {
      id: 'tablets',
      head: 'Tablets',
      cellClass: 'fig',
      value: ({ tablets }) => tablets,
    },
    {
      id: 'here',
      head: 'Here',
      value: ({ leftAt }) => leftAt ?? '',
      cell: ({ leftAt }) => (leftAt === null ? <span className="v-in">works here</span> : `left ${dayWords(leftAt)}`),
    },
  ];
  const chosen = people.find(({ id }) => id === open);
  return (
    <>
      <Title sub="Nobody is ever deleted: what they kept stays theirs. A PIN is set by everyone at their own tablet.">People</Title>
      <ShopPlaces />
      <DataTable name="people" columns={columns} rows={people} rowKey={({ id }) => id} isBare />
      <div className="two mt-4">
        {chosen ? <OnePerson key={`${chosen.id}.${chosen.version}`} person={chosen} /> : null}
        <NewPerson />
      </div>
    </>
  );
}

/** Letters and digits that are told apart when read out. */
const LETTERS = 'abcdefghjkmnpqrstuvwxyz23456789';

/** A password to be told and changed: four groups of four. */
function madeUp(): string {
  const random = crypto.getRandomValues(new Uint32Array(16));
  return [...random].map((one, at) => `${at > 0 && at % 4 === 0 ? '-' : ''}${LETTERS[one % LETTERS.length] ?? ''}`).join('');
}

function NewPerson(): ReactElement {
  const [added, setAdded] = useState<{ readonly name: string; readonly login: string; readonly password: string }>();
  const [fresh] = useState(() => ({ name: '', login: '', role: 'mechanic' as Role, password: madeUp() }));
  const form = useAskForm({
    type: NewPersonBody,
    initial: fresh,
    onSend: async (body) => {
      await ask(ENDPOINTS.people.add, { body });
      await again();
      setAdded(body);
      form.begin({ ...fresh, password: madeUp() });
    },
  });
  return (
    <section className="work" aria-label="Somebody new">
      <h2>Somebody new</h2>
      <p className="soft">
        Mechanics work and write sheets; an apprentice’s work is signed by the foreman; the counter books in, quotes and orders; the foreman
        does all of it.
      </p>
      {added ? (
        <p className="v-in" role="status">
          {added.name} can log in: <span className="fig">{added.login}</span>, <span className="fig">{added.password}</span>. It is shown
          this once.
        </p>
      ) : null}
      <Asking of={form} act="Add them">
        <Field of="new" name="name" label="Full name" maxLength={80} />
        <Field of="new" name="login" label="Log-in name" maxLength={60} hint="Small letters and digits; it stays theirs." />
        <Field of="new" name="role" label="Works as" options={ROLE_OPTIONS} />
        <Field of="new" name="password" label="Password to begin with" maxLength={200} className="fig" />
      </Asking>
    </section>
  );
}

function OnePerson({ person }: { readonly person: PersonLine }): ReactElement {
  const { name, role, version, leftAt } = person;
  const form = useAskForm({
    type: PersonBody,
    initial: { name, role, version, hasLeft: leftAt === null ? 'here' : 'left' },
    toBody: (typed): PersonBody => ({ ...typed, hasLeft: typed.hasLeft === 'left' }),
    onSend: async (body) => {
      const kept = await ask(ENDPOINTS.people.change, { id: person.id, body });
      await again();
      offerUndo(`${person.name} is changed`, async () => {
        const before = { name, role, hasLeft: leftAt !== null, version: kept.version };
        await ask(ENDPOINTS.people.change, { id: person.id, body: before });
        await again();
      });
    },
  });
  const current = meanwhile<PersonLine>(form.error);
  return (
    <section className="work" aria-label={name}>
      <h2>{name}</h2>
      <Asking of={form} act="Keep it">
        <Field of="person" name="name" label="Full name" maxLength={80} />
        <Field
          of="person"
          name="role"
          label="Works as"
          options={ROLE_OPTIONS}
          hint="Another role logs them out, so that it holds at once."
        />
        <Field
          of="person"
          name="hasLeft"
          label="Here"
          options={[
            ['here', 'works here'],
            ['left', 'left: no way in any more'],
          ]}
        />
        {current ? (
          <p>
            It now says: {current.name}, {current.role}. Open it again to change that.
          </p>
        ) : null}
      </Asking>
      <Certificates person={person} />
      {person.hasSecond ? <SecondOf person={person} /> : null}
      {leftAt === null ? <FreshPassword person={person} /> : null}
    </section>
  );
}

/** Whose telephone is lost gets in again without its codes. */
function SecondOf({ person }: { readonly person: PersonLine }): ReactElement {
  const { busy, error, send } = useSend();
  const off = (): void =>
    void send(async () => {
      await ask(ENDPOINTS.people.dropSecond, { id: person.id });
      await refresh({ queryKey: ['people'] });
    });
  return (
    <div className="mt-3">
      <p className="mb-1">Their password wants a code of their telephone beside it.</p>
      <Wrong error={error} />
      <Button variant="plain" disabled={busy} onClick={off}>
        The telephone is lost: without a code
      </Button>
    </div>
  );
}

function FreshPassword({ person }: { readonly person: PersonLine }): ReactElement {
  const [given, setGiven] = useState<string>();
  const [isAsked, setAsked] = useState(false);
  const form = useAskForm({
    type: PasswordBody,
    initial: { password: '' },
    onSend: async (body) => {
      await ask(ENDPOINTS.people.newPassword, { id: person.id, body });
      setGiven(body.password);
    },
  });
  if (given !== undefined)
    return (
      <p className="v-in mt-3" role="status">
        Their password is now <span className="fig">{given}</span>. It is shown this once; they are logged out everywhere.
      </p>
    );
  if (!isAsked)
    return (
      <Button
        variant="plain"
        className="mt-3"
        onClick={() => {
          form.begin({ password: madeUp() });
          setAsked(true);
        }}
      >
        They forgot their password
      </Button>
    );
  return (
    <div className="mt-3">
      <Asking of={form} act="Give it to them">
        <Field of="fresh" name="password" label="New password" maxLength={200} className="fig" />
      </Asking>
    </div>
  );
}
