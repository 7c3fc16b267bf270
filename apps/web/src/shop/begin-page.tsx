import { ENDPOINTS, type ExampleLine } from '@jubb/wire';
import { useQuery } from '@tanstack/react-query';
import { Check } from 'lucide-react';
import { useEffect, useRef, useState, type ReactElement } from 'react';
import Button from 'react-bootstrap/Button';
import { Link } from 'react-router';
import { Lacking } from '../crib/lacking.tsx';
import { DataTable, type Column } from '../kit/data-table.tsx';
import { Loading, Title, Wrong } from '../kit/pieces.tsx';
import { ask } from '../link/client.ts';
import { useSession } from '../link/queries.ts';
import { beginSteps, type BeginStep } from './begin-steps.ts';
import { ShopPlaces } from './shop-places.tsx';
import { useBegun } from './use-begun.ts';

const EXAMPLES: readonly Column<ExampleLine>[] = [
  { id: 'family', head: 'Kind of unit', value: ({ family }) => family },
  { id: 'tasks', head: 'Work', value: ({ tasks }) => tasks.join(', ') },
  { id: 'steps', head: 'Steps', cellClass: 'fig', value: ({ steps }) => steps },
  {
    id: 'take',
    head: 'For a model of yours',
    value: () => '',
    cell: ({ family }) => (
      <Link className="btn btn-plain" to={`/sheets/new?family=${encodeURIComponent(family)}`}>
        Take it over<span className="visually-hidden"> {family}</span>
      </Link>
    ),
  },
];

/** From an empty shop to its first job: what there is, what is next, and where. It can be left and taken up at any time. */
export function BeginPage(): ReactElement {
  const { data: session } = useSession();
  const { data: view, error } = useBegun();
  const [showsExamples, setShowsExamples] = useState(false);
  const { data: examples, error: none } = useQuery({
    queryKey: ['examples'],
    queryFn: () => ask(ENDPOINTS.firstRun.examples),
    enabled: showsExamples,
  });
  const list = useRef<HTMLElement>(null);
  // It is below what is there: whoever asked for it sees it.
  useEffect(() => void list.current?.scrollIntoView({ block: 'start' }), [examples]);
  if (session && session.person.role !== 'foreman')
    return (
      <>
        <Title sub="The foreman sees to it.">Setting up</Title>
        <ShopPlaces />
      </>
    );
  if (!view) return error ? <Wrong error={error} /> : <Loading what="how far the shop is" />;
  const steps = beginSteps(view, session?.command ?? '');
  const next = steps.find(({ isDone }) => !isDone);
  const done = steps.filter(({ isDone }) => isDone).length;
  return (
    <>
      <Title
        sub={
          next
            ? `${done} of ${steps.length} are there. In any order; leave it and come back whenever you like.`
            : 'All of it is there. This page stays, for what is lacking later.'
        }
      >
        Setting up
      </Title>
      <ShopPlaces />
      <ol className="begin list-unstyled">
        {steps.map((step, place) => (
          <OneStep key={step.title} step={step} place={place + 1} isNext={step === next} onExamples={() => setShowsExamples(true)} />
        ))}
      </ol>
      {showsExamples ? (
        <section className="mt-4" aria-label="Sheets to begin from" ref={list}>
          <h2>Sheets to begin from</h2>
          <p className="soft">
            Invented models, worked through by Jubb’s own checks. What you take over has their steps, joints and limits; no part number, and
            no figure that counts until you found it for your model.
          </p>
          <Wrong error={none} />
          {examples ? (
            <DataTable name="examples" columns={EXAMPLES} rows={examples} rowKey={({ family }) => family} isBare />
          ) : none ? null : (
            <Loading what="the examples" />
          )}
        </section>
      ) : null}
      {view.sheets + view.drafts > 0 ? <Lacking /> : null}
    </>
  );
}

interface OneStepProps {
  readonly step: BeginStep;
  readonly place: number;
  readonly isNext: boolean;
  readonly onExamples: () => void;
}

function OneStep({ step: { title, why, state, isDone, go, also }, place, isNext, onExamples }: OneStepProps): ReactElement {
  const variant = isNext ? 'primary' : 'plain';
  return (
    <li className={isNext ? 'next' : ''} aria-current={isNext ? 'step' : undefined}>
      <span className="begin-mark" aria-hidden="true">
        {isDone ? <Check size={24} /> : place}
      </span>
      <div>
        <b>{title}</b> <span className={isDone ? 'v-in' : 'brass'}>{state}</span>
        <div className="soft">{why}</div>
      </div>
      <div className="keys">
        {go === undefined ? null : go.to.startsWith('#') ? (
          <Button variant={variant} onClick={onExamples}>
            {go.act}
          </Button>
        ) : (
          <Link className={`btn btn-${variant}`} to={go.to}>
            {go.act}
          </Link>
        )}
        {also ? (
          <Link className="btn btn-quiet" to={also.to}>
            {also.act}
          </Link>
        ) : null}
      </div>
    </li>
  );
}
