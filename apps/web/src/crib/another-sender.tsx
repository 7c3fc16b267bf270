import { ENDPOINTS, InstrumentBody, type InstrumentView } from '@jubb/wire';
import { useQuery } from '@tanstack/react-query';
import type { ReactElement } from 'react';
import { Link } from 'react-router';
import { useAskForm } from '../kit/ask-form.ts';
import { Asking } from '../kit/asking.tsx';
import { Field } from '../kit/field.tsx';
import { ask } from '../link/client.ts';
import { refresh } from '../link/queries.ts';

interface Typed {
  readonly toolId: string;
  readonly clicks: 'no' | 'yes';
}

const SENDS = [
  ['no', 'what it reads'],
  ['yes', 'that it clicked: a wrench without a figure'],
] as const;

/** The foreman says of a tool of the crib that it sends by itself. */
export function AnotherSender({ instruments }: { readonly instruments: readonly InstrumentView[] }): ReactElement {
  const { data: tools } = useQuery({ queryKey: ['tools'], queryFn: () => ask(ENDPOINTS.tools.list) });
  const known = new Set(instruments.map(({ tool }) => tool.id));
  const free = (tools ?? []).filter(({ id, retired }) => !known.has(id) && !retired);
  const form = useAskForm<Typed, InstrumentBody>({
    type: InstrumentBody,
    initial: { toolId: '', clicks: 'no' },
    toBody: ({ toolId, clicks }) => ({ toolId, clicks: clicks === 'yes' }),
    onSend: async (body) => {
      await ask(ENDPOINTS.instruments.begin, { body });
      await refresh({ queryKey: ['instruments'] });
    },
  });
  if (tools && free.length === 0)
    return (
      <p>
        What sends is a tool first: <Link to="/crib/new">put it into the crib</Link>, then say here that it does.
      </p>
    );
  return (
    <section className="mt-4" style={{ maxWidth: 480 }} aria-label="Another tool sends by itself">
      <h2>Another tool sends by itself</h2>
      <Asking of={form} act="It sends">
        <Field
          of="sender"
          name="toolId"
          label="Which tool of the crib"
          options={[['', 'Choose it'], ...free.map(({ id, tag, name }) => [id, `${tag} ${name}`] as const)]}
        />
        <Field of="sender" name="clicks" label="What it sends" options={SENDS} />
      </Asking>
    </section>
  );
}
