import type { WorkingDescription } from '@jubb/core';
import { matchSorter } from 'match-sorter';
import { useState, type ReactElement } from 'react';
import Button from 'react-bootstrap/Button';
import FormControl from 'react-bootstrap/FormControl';
import FormGroup from 'react-bootstrap/FormGroup';
import FormLabel from 'react-bootstrap/FormLabel';
import { Link } from 'react-router';
import { useWorkings } from '../link/queries.ts';
import { InHand } from '../drawings/in-hand.tsx';
import { DataTable, type Column } from '../kit/data-table.tsx';
import { Loading, Title, Wrong } from '../kit/pieces.tsx';
import { HANDS, questionsOf, type Hand } from './hands.ts';
import { usedWorkings } from './used.ts';
import './workings.scss';

const MOST_LAST = 4;
/** So many questions of a hand are seen at a glance. */
const MOST_ASKED = 5;

const COLUMNS: readonly Column<WorkingDescription>[] = [
  { id: 'title', head: 'Question', value: ({ title }) => title, cell: ({ id, title }) => <Link to={`/workings/${id}`}>{title}</Link> },
  { id: 'area', head: 'About', value: ({ area }) => area },
  {
    id: 'sources',
    head: 'Rests on',
    className: 'soft',
    value: ({ sources }) => sources.map(({ document }) => document).join('; '),
  },
];

/** Questions a bench asks, by what is in the hand. */
export function Workings(): ReactElement {
  const { data: workings, error } = useWorkings();
  const [find, setFind] = useState('');
  const [used] = useState(usedWorkings);
  if (!workings) return error ? <Wrong error={error} /> : <Loading what="the workings" />;
  const last = used.flatMap((id) => workings.find((one) => one.id === id) ?? []).slice(0, MOST_LAST);
  return (
    <>
      <Title
        sub={
          last.length === 0 ? (
            'Questions a bench asks, with the way to the answer and where it comes from.'
          ) : (
            <>
              Last:{' '}
              {last.map(({ id, title }, index) => (
                <span key={id}>
                  {index > 0 ? ' · ' : ''}
                  <Link to={`/workings/${id}`}>{title}</Link>
                </span>
              ))}
            </>
          )
        }
      >
        What is in your hand?
      </Title>
      <FormGroup controlId="find-working" className="mb-3" style={{ maxWidth: 480 }}>
        <FormLabel>Or say what you want to know</FormLabel>
        <FormControl type="search" autoComplete="off" maxLength={100} value={find} onChange={(event) => setFind(event.target.value)} />
      </FormGroup>
      {find.trim() === '' ? <Hands workings={workings} used={used} /> : <Hits workings={workings} find={find} />}
    </>
  );
}

interface HandsProps {
  readonly workings: readonly WorkingDescription[];
  readonly used: readonly string[];
}

function Hands({ workings, used }: HandsProps): ReactElement {
  return (
    <div className="hands">
      {HANDS.map((hand) => (
        <InOneHand key={hand.id} hand={hand} questions={questionsOf(hand, workings, used)} />
      ))}
    </div>
  );
}

interface InOneHandProps {
  readonly hand: Hand;
  readonly questions: readonly WorkingDescription[];
}

function InOneHand({ hand, questions }: InOneHandProps): ReactElement {
  const [showsAll, setShowsAll] = useState(false);
  const more = questions.length - MOST_ASKED;
  // One that is left over takes no more room than the key that would show it.
  const shown = showsAll || more <= 1 ? questions : questions.slice(0, MOST_ASKED);
  return (
    <section aria-labelledby={`hand-${hand.id}`}>
      <InHand of={hand.id} />
      <h2 id={`hand-${hand.id}`}>{hand.name}</h2>
      <ul className="list-unstyled mb-0">
        {shown.map(({ id, title }) => (
          <li key={id}>
            <Link to={`/workings/${id}`}>{title}</Link>
          </li>
        ))}
        {shown.length < questions.length ? (
          <li>
            <Button variant="quiet" className="p-0" onClick={() => setShowsAll(true)}>
              {more} more<span className="visually-hidden"> about {hand.name.toLowerCase()}</span>
            </Button>
          </li>
        ) : null}
      </ul>
    </section>
  );
}

/** Every word must be somewhere in it; the nearest first. */
function Hits({ workings, find }: { readonly workings: readonly WorkingDescription[]; readonly find: string }): ReactElement {
  const words = find.trim().split(/\s+/u);
  const hits = words.reduceRight<readonly WorkingDescription[]>(
    (left, word) =>
      matchSorter(left, word, {
        keys: ['title', 'id', 'area', (one) => one.sources.map(({ document }) => document), (one) => one.inputs.map(({ label }) => label)],
        threshold: matchSorter.rankings.CONTAINS,
      }),
    workings,
  );
  if (hits.length === 0) return <p>No working holds “{find}”. Thread, torque, gear, play … fewer words find more.</p>;
  return <DataTable name="workings" columns={COLUMNS} rows={hits} rowKey={({ id }) => id} />;
}
