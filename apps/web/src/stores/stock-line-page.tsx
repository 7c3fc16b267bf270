import { inDate } from '@jubb/book';
import { shelfLife } from '@jubb/core';
import { MOVES, type Move } from '@jubb/sheet';
import { ENDPOINTS, MoveBody, type StockView } from '@jubb/wire';
import { useState, type ReactElement } from 'react';
import { Link, useParams } from 'react-router';
import { v7 as uuid } from 'uuid';
import Button from 'react-bootstrap/Button';
import Table from 'react-bootstrap/Table';
import { addressOf, ask, nowIso } from '../link/client.ts';
import { useJobs, useSession } from '../link/queries.ts';
import { Care, Loading, Title, Wrong } from '../kit/pieces.tsx';
import { useSend } from '../kit/use-send.ts';
import { dayWords, shopToday } from '../kit/days.ts';
import { StockForm } from './stock-form.tsx';
import { pieces } from './pieces.ts';
import { offerUndo } from '../kit/undo.ts';
import { takenBack } from './undo-move.ts';
import { OrderIt } from './order-it.tsx';
import { refreshStores, useStockLine } from './queries.ts';
import { useWatch } from 'react-hook-form';
import { useAskForm } from '../kit/ask-form.ts';
import { Asking } from '../kit/asking.tsx';
import { Field } from '../kit/field.tsx';
import { useSameId } from '../kit/same-id.ts';

const MOVE_WORDS: Readonly<Record<Move, string>> = {
  receive: 'Came in',
  reserve: 'Keep for a job',
  release: 'Let go for a job',
  issue: 'Take out',
  return: 'Put back',
  count: 'Counted',
};

export function StockLinePage(): ReactElement {
  const { id = '' } = useParams();
  const { data: line, error } = useStockLine(id);
  const [changing, setChanging] = useState(false);
  if (!line) return error ? <Wrong error={error} /> : <Loading what="the line" />;
  const { past, good } = inDate(line, shopToday());
  return (
    <>
      <Title sub={[line.name, line.size, line.designation].filter(Boolean).join(', ')}>{line.number}</Title>
      <div className="two form-first">
        <section className="work">
          <dl className="facts">
            <dt>Shelf</dt>
            <dd className="fig fs-4">{line.location || 'none yet'}</dd>
            <dt>There</dt>
            <dd className="fig fs-4">{pieces(line.onHand, line)}</dd>
            <dt>Free</dt>
            <dd className="fig fs-4">{pieces(line.onHand - line.reserved, line)}</dd>
            {past > 0 ? (
              <>
                <dt>In date</dt>
                <dd className="fig fs-4">{pieces(good, line)}</dd>
              </>
            ) : null}
            {line.material === null ? null : (
              <>
                <dt>Made of</dt>
                <dd className="fig">{[line.material, line.shore === null ? '' : `${line.shore} Shore A`].filter(Boolean).join(', ')}</dd>
              </>
            )}
            <dt>Minimum</dt>
            <dd className="fig">{pieces(line.minimum, line)}</dd>
          </dl>
          <Counts line={line} />
          <MoveForm key={line.id} line={line} />
          <Button variant="quiet" aria-expanded={changing} onClick={() => setChanging(!changing)}>
            Change what it is, shelf, minimum or price
          </Button>
          <a className="btn btn-quiet" href={addressOf(ENDPOINTS.stock.label, { id: line.id })} target="_blank" rel="noreferrer">
            Shelf label
          </a>
          {line.unit === 'piece' ? (
            <OrderIt number={line.number} name={line.name} pieces={Math.max(1, line.minimum - line.onHand + line.reserved)} />
          ) : null}
          {changing ? <StockForm line={line} onDone={() => setChanging(false)} /> : null}
        </section>
        <div>
          {line.reservations.length > 0 ? (
            <>
              <h2>Kept for</h2>
              <ul>
                {line.reservations.map(({ jobId, jobNumber, quantity }) => (
                  <li key={jobId}>
                    <span className="fig">{pieces(quantity, line)}</span> for job <Link to={`/jobs/${jobId}/parts`}>{jobNumber}</Link>
                  </li>
                ))}
              </ul>
            </>
          ) : null}
          {line.batches.length > 0 ? <Batches line={line} /> : null}
          <Movements line={line} />
        </div>
      </div>
    </>
  );
}

/** What an apprentice counted, for somebody to sign. */
function Counts({ line }: { readonly line: StockView }): ReactElement | null {
  const { data: session } = useSession();
  const { busy, error, send } = useSend();
  if (line.counts.length === 0) return null;
  const maySign = session !== null && session !== undefined && session.person.role !== 'apprentice';
  const settle = (id: string, take: boolean): void =>
    void send(() => ask(ENDPOINTS.stock.settleCount, { id, body: { take } })).then(refreshStores);
  return (
    <section className="mt-3 mb-3" aria-label="Counted, to be signed">
      {line.counts.map(({ id, quantity, person, words, takenAt }) => (
        <Care key={id} title={`${person} counted ${pieces(quantity, line)}`}>
          {dayWords(takenAt)}
          {words === null ? '' : `: ${words}`}. {maySign ? '' : 'It waits for a signature.'}
          {maySign ? (
            <span className="keys">
              <Button variant="primary" disabled={busy} onClick={() => settle(id, true)}>
                Sign it: that is what is there
              </Button>
              <Button variant="plain" disabled={busy} onClick={() => settle(id, false)}>
                Leave it
              </Button>
            </span>
          ) : null}
        </Care>
      ))}
      <Wrong error={error} />
    </section>
  );
}

function Batches({ line }: { readonly line: StockView }): ReactElement {
  const today = shopToday();
  return (
    <>
      <h2>Batches</h2>
      <ul>
        {line.batches.map(({ batch, expires, onHand }) => (
          <li key={batch}>
            <span className="fig">{batch}</span>: {pieces(onHand, line)}
            {expires === null ? '' : `, good until ${dayWords(expires)}`}{' '}
            {expires !== null && expires < today ? <span className="v-out">past its day</span> : null}
          </li>
        ))}
      </ul>
    </>
  );
}

function Movements({ line }: { readonly line: StockView }): ReactElement {
  const head = <h2>What happened</h2>;
  if (line.movements.length === 0)
    return (
      <>
        {head}
        <p className="soft">Nothing yet.</p>
      </>
    );
  return (
    <>
      {head}
      <Table>
        <thead>
          <tr>
            <th scope="col">When</th>
            <th scope="col">What</th>
            <th scope="col">Left</th>
            <th scope="col">Who</th>
          </tr>
        </thead>
        <tbody>
          {line.movements.map((move) => (
            <tr key={move.id}>
              <td className="text-nowrap">{dayWords(move.takenAt)}</td>
              <td>
                {MOVE_WORDS[move.kind]} <span className="fig">{pieces(move.quantity, line)}</span>
                {move.jobNumber === null ? '' : `, job ${move.jobNumber}`}
                {move.batch === null ? '' : `, batch ${move.batch}`}
                {move.words === null ? '' : `: ${move.words}`}
              </td>
              <td className="fig">{pieces(move.onHandAfter, line)}</td>
              <td>{move.person}</td>
            </tr>
          ))}
        </tbody>
      </Table>
    </>
  );
}

interface Typed {
  kind: Move;
  quantity: string;
  jobId: string;
  batch: string;
  expires: string;
  cured: string;
  words: string;
}

const NOTHING: Typed = { kind: 'receive', quantity: '', jobId: '', batch: '', expires: '', cured: '', words: '' };
const FOR_JOB: readonly Move[] = ['reserve', 'release', 'issue', 'return'];

/** What is asked for by the kind of movement; the rest stays at home. */
function movement({ kind, quantity, jobId, batch, expires, cured, words }: Typed): Omit<MoveBody, 'id' | 'takenAt'> {
  const typed = quantity.trim();
  return {
    kind,
    quantity: typed === '' ? Number.NaN : Number(typed.replace(',', '.')),
    ...(FOR_JOB.includes(kind) && jobId ? { jobId } : {}),
    ...(batch.trim() && (kind === 'receive' || kind === 'issue') ? { batch: batch.trim() } : {}),
    ...(expires && kind === 'receive' ? { expires } : {}),
    ...(cured && kind === 'receive' ? { cured } : {}),
    ...(words.trim() ? { words: words.trim() } : {}),
  };
}

function MoveForm({ line }: { readonly line: StockView }): ReactElement {
  const { data: jobs = [] } = useJobs('');
  const { idOf, isDone } = useSameId();
  const form = useAskForm<Typed, MoveBody>({
    type: MoveBody,
    draft: `move.${line.id}`,
    initial: NOTHING,
    toBody: (typed) => ({ ...movement(typed), id: idOf(typed), takenAt: nowIso() }),
    onSend: async (body) => {
      const after = await ask(ENDPOINTS.stock.move, { id: line.id, body });
      isDone();
      form.begin(NOTHING);
      const back = takenBack(body, line, after);
      if (back)
        offerUndo(`${MOVE_WORDS[body.kind]}: ${pieces(body.quantity, line)} of ${line.number}`, async () => {
          await ask(ENDPOINTS.stock.move, { id: line.id, body: { ...back, id: uuid(), takenAt: nowIso() } });
          await refreshStores();
        });
      await refreshStores();
    },
  });
  const kind = useWatch({ control: form.form.control, name: 'kind' });
  const life = shelfLife(line.material ?? '');
  const hasBatches = line.unit !== 'piece' || line.batches.length > 0 || life !== undefined;
  const open = jobs.filter(({ closedAt }) => closedAt === null);
  return (
    <Asking of={form} className="mb-3" act={MOVE_WORDS[kind]}>
      <div className="d-flex flex-wrap gap-2 mt-2 mb-3" role="group" aria-label="What happens">
        {MOVES.map((one) => (
          <Button
            key={one}
            variant="plain"
            className={kind === one ? 'on' : ''}
            aria-pressed={kind === one}
            onClick={() => form.form.setValue('kind', one)}
          >
            {MOVE_WORDS[one]}
          </Button>
        ))}
      </div>
      <div className="row">
        <Field
          of="move"
          name="quantity"
          label={kind === 'count' ? 'How many are there' : 'How many'}
          unit={line.unit === 'piece' ? undefined : line.unit}
          wrap="col-6 mb-2"
          className="fig fs-4"
          inputMode="decimal"
        />
        {FOR_JOB.includes(kind) ? (
          <Field
            of="move"
            name="jobId"
            label="Job"
            wrap="col-6 mb-2"
            options={[['', 'none'], ...open.map((job) => [job.id, `${job.number} ${job.unit.name}`] as const)]}
          />
        ) : null}
        {hasBatches && (kind === 'receive' || kind === 'issue') ? (
          <Field of="move" name="batch" label="Batch" wrap="col-6 mb-2" className="fig" maxLength={60} />
        ) : null}
        {life && kind === 'receive' ? (
          <Field
            of="move"
            name="cured"
            label="Cured"
            hint={`As on the bag; ${line.material!} lies well for ${life.first} years (ISO 2230)`}
            wrap="col-6 mb-2"
            type="date"
          />
        ) : null}
        {hasBatches && kind === 'receive' ? <Field of="move" name="expires" label="Good until" wrap="col-6 mb-2" type="date" /> : null}
        <Field of="move" name="words" label="Why" hint="may stay empty" wrap="col-12 mb-2" maxLength={300} />
      </div>
    </Asking>
  );
}
