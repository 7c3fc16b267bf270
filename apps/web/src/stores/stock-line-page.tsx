import { MOVES, type Move } from '@jubb/sheet';
import { ENDPOINTS, type MoveBody, type StockView } from '@jubb/wire';
import { useState, type FormEvent, type ReactElement } from 'react';
import { Link, useParams } from 'react-router';
import { v7 as uuid } from 'uuid';
import { Refusal, addressOf, ask, nowIso } from '../link/client.ts';
import { useJobs, useSession } from '../link/queries.ts';
import { Care, Loading, Title, Wrong } from '../kit/pieces.tsx';
import { useDraft } from '../kit/prefs.ts';
import { useSend } from '../kit/use-send.ts';
import { dayWords, shopToday } from '../kit/days.ts';
import { StockForm } from './stock-form.tsx';
import { pieces } from './pieces.ts';
import { refreshStores, useStockLine } from './queries.ts';

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
            <dt>Minimum</dt>
            <dd className="fig">{pieces(line.minimum, line)}</dd>
          </dl>
          <Counts line={line} />
          <MoveForm key={line.id} line={line} />
          <button type="button" className="btn btn-quiet" aria-expanded={changing} onClick={() => setChanging(!changing)}>
            Change name, shelf, minimum or price
          </button>
          <a className="btn btn-quiet" href={addressOf(ENDPOINTS.stock.label, { id: line.id })} target="_blank" rel="noreferrer">
            Shelf label
          </a>
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
              <button type="button" className="btn btn-primary" disabled={busy} onClick={() => settle(id, true)}>
                Sign it: that is what is there
              </button>
              <button type="button" className="btn btn-plain" disabled={busy} onClick={() => settle(id, false)}>
                Leave it
              </button>
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
  return (
    <>
      <h2>What happened</h2>
      {line.movements.length === 0 ? <p className="soft">Nothing yet.</p> : null}
      <table className="table">
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
      </table>
    </>
  );
}

interface Typed {
  readonly kind: Move;
  readonly quantity: string;
  readonly jobId: string;
  readonly batch: string;
  readonly expires: string;
  readonly words: string;
}

const NOTHING: Typed = { kind: 'receive', quantity: '', jobId: '', batch: '', expires: '', words: '' };

function MoveForm({ line }: { readonly line: StockView }): ReactElement {
  const [typed, setTyped] = useDraft<Typed>(`move.${line.id}`, NOTHING);
  // One id for as long as it is the same movement: a lost answer does not move it twice.
  const [id, setId] = useState(() => uuid());
  const { busy, error, send } = useSend();
  const { data: jobs = [] } = useJobs('');
  const set = (change: Partial<Typed>): void => {
    setTyped({ ...typed, ...change });
    setId(uuid());
  };
  const quantity = Number(typed.quantity.trim().replace(',', '.'));
  const forJob = typed.kind === 'reserve' || typed.kind === 'release' || typed.kind === 'issue' || typed.kind === 'return';
  const isFluid = line.unit !== 'piece' || line.batches.length > 0;
  const keep = async (event: FormEvent): Promise<void> => {
    event.preventDefault();
    const body: MoveBody = {
      id,
      kind: typed.kind,
      quantity: typed.quantity.trim() === '' ? Number.NaN : quantity,
      takenAt: nowIso(),
      ...(forJob && typed.jobId ? { jobId: typed.jobId } : {}),
      ...(typed.batch.trim() && (typed.kind === 'receive' || typed.kind === 'issue') ? { batch: typed.batch.trim() } : {}),
      ...(typed.expires && typed.kind === 'receive' ? { expires: typed.expires } : {}),
      ...(typed.words.trim() ? { words: typed.words.trim() } : {}),
    };
    const kept = await send(() => ask(ENDPOINTS.stock.move, { id: line.id, body }));
    if (!kept) return;
    setTyped(undefined);
    setId(uuid());
    await refreshStores();
  };
  const fieldError = error instanceof Refusal ? error.fields.find(({ field }) => field === 'quantity') : undefined;
  return (
    <form className="mb-3" noValidate onSubmit={(event) => void keep(event)}>
      <div className="d-flex flex-wrap gap-2 mt-2 mb-3" role="group" aria-label="What happens">
        {MOVES.map((kind) => (
          <button
            key={kind}
            type="button"
            className={`btn btn-plain ${typed.kind === kind ? 'on' : ''}`}
            aria-pressed={typed.kind === kind}
            onClick={() => set({ kind })}
          >
            {MOVE_WORDS[kind]}
          </button>
        ))}
      </div>
      <div className="row">
        <div className="col-6 mb-2">
          <label className="form-label" htmlFor="move-quantity">
            {typed.kind === 'count' ? 'How many are there' : 'How many'} {line.unit === 'piece' ? '' : `(${line.unit})`}
          </label>
          <input
            id="move-quantity"
            className={`form-control fig fs-4 ${fieldError ? 'is-invalid' : ''}`}
            inputMode="decimal"
            autoComplete="off"
            value={typed.quantity}
            onChange={(event) => set({ quantity: event.target.value })}
          />
          {fieldError ? <div className="v-out">{fieldError.allowed}</div> : null}
        </div>
        {forJob ? (
          <div className="col-6 mb-2">
            <label className="form-label" htmlFor="move-job">
              Job
            </label>
            <select id="move-job" className="form-select" value={typed.jobId} onChange={(event) => set({ jobId: event.target.value })}>
              <option value="">none</option>
              {jobs
                .filter(({ closedAt }) => closedAt === null)
                .map((job) => (
                  <option key={job.id} value={job.id}>
                    {job.number} {job.unit.name}
                  </option>
                ))}
            </select>
          </div>
        ) : null}
        {isFluid && (typed.kind === 'receive' || typed.kind === 'issue') ? (
          <div className="col-6 mb-2">
            <label className="form-label" htmlFor="move-batch">
              Batch
            </label>
            <input
              id="move-batch"
              className="form-control fig"
              maxLength={60}
              value={typed.batch}
              onChange={(event) => set({ batch: event.target.value })}
            />
          </div>
        ) : null}
        {isFluid && typed.kind === 'receive' ? (
          <div className="col-6 mb-2">
            <label className="form-label" htmlFor="move-expires">
              Good until
            </label>
            <input
              id="move-expires"
              type="date"
              className="form-control"
              value={typed.expires}
              onChange={(event) => set({ expires: event.target.value })}
            />
          </div>
        ) : null}
        <div className="col-12 mb-2">
          <label className="form-label" htmlFor="move-words">
            Why <span className="soft fw-normal">may stay empty</span>
          </label>
          <input
            id="move-words"
            className="form-control"
            maxLength={300}
            value={typed.words}
            onChange={(event) => set({ words: event.target.value })}
          />
        </div>
      </div>
      <Wrong error={error} hide={['quantity']} />
      <button type="submit" className="btn btn-primary" disabled={busy}>
        {MOVE_WORDS[typed.kind]}
      </button>
    </form>
  );
}
