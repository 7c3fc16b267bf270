import { partName } from '@jubb/contract/job';
import { useId, type ReactElement } from 'react';
import { FigureField, readFigure } from '../kit/figure-field.tsx';
import { useDraft } from '../kit/prefs.ts';
import { useHere } from '../job/use-job.ts';
import { LastOff } from '../job/ledger.tsx';
import { RecorderLayout, useIsBench, type RecorderProps } from './layout.tsx';

/** Counts off the parts of a step, one kind at a time. */
export function CountRecorder({ step }: RecorderProps): ReactElement {
  const { job, sheet, state, keep } = useHere();
  const counts = step.record.counts ?? [];
  const next = counts.find(({ part }) => !state.ledger.some((line) => line.payload.part === part));
  const [draft, setDraft] = useDraft<{ part: string; count: string; tray: string }>(`${job.id}.${step.ref}`, {
    part: '',
    count: '',
    tray: '',
  });
  const current = draft.part === next?.part ? draft : { part: next?.part ?? '', count: String(next?.count ?? ''), tray: draft.tray };
  const id = useId();
  const isBench = useIsBench();
  if (!next) return <RecorderLayout say="All counted." />;
  const read = readFigure(current.count, 'count', '', { least: 1, most: 1000 });
  const name = partName(sheet, next.part);
  const off = (): void => {
    if (read.base === undefined) return;
    const tray = current.tray.trim();
    keep({
      kind: 'came-off',
      payload: { part: next.part, name, count: read.base, ...(next.place ? { place: next.place } : {}), ...(tray ? { tray } : {}) },
      step: step.ref,
    });
    setDraft(tray ? { part: '', count: '', tray } : undefined);
  };
  return (
    <RecorderLayout
      number={{
        figure: String(next.count),
        unit: `× ${name}`,
        under: (
          <span className="soft">
            {next.count} on the sheet{next.place ? `, from the ${next.place}` : ''}
          </span>
        ),
      }}
      primary={{ label: `${read.base ?? '…'} came off`, run: off, disabled: read.base === undefined }}
      others={[
        { label: 'One fewer', key: '-', run: () => setDraft({ ...current, count: String(Math.max(1, (read.base ?? 2) - 1)) }) },
        { label: 'One more', key: '+', run: () => setDraft({ ...current, count: String((read.base ?? 0) + 1) }) },
      ]}
      drawing={isBench && state.ledger.length > 0 ? <LastOff /> : undefined}
    >
      <div className="d-flex flex-wrap gap-4">
        <FigureField
          label={`Counted: ${name}`}
          quantity="count"
          unit=""
          least={1}
          most={1000}
          text={current.count}
          onText={(count) => setDraft({ ...current, count })}
          onEnter={off}
        />
        <div>
          <label className="form-label" htmlFor={`${id}-tray`}>
            Tray
          </label>
          <input
            id={`${id}-tray`}
            className="form-control num-field"
            maxLength={60}
            value={current.tray}
            onChange={(event) => setDraft({ ...current, tray: event.target.value })}
            onKeyDown={(event) => {
              if (event.key === 'Enter') off();
            }}
          />
        </div>
      </div>
    </RecorderLayout>
  );
}

/** What lies on the bench against what came off, kind by kind. */
export function ReconcileRecorder({ step }: RecorderProps): ReactElement {
  const { job, state, keep } = useHere();
  const [text, setText] = useDraft(`${job.id}.${step.ref}`, '');
  const next = state.reconcile.find((line) => line.counted !== line.expected);
  const list = (
    <table className="table">
      <thead>
        <tr>
          <th scope="col">Part</th>
          <th scope="col">Off</th>
          <th scope="col">Here</th>
        </tr>
      </thead>
      <tbody>
        {state.reconcile.map((line) => (
          <tr key={line.key} className={line.counted === line.expected ? 'soft' : ''}>
            <td>{line.name}</td>
            <td className="fig fs-5">{line.expected}</td>
            <td className={`fig fs-5 ${line.counted !== undefined && line.counted !== line.expected ? 'v-out' : ''}`}>
              {line.counted ?? ''}
            </td>
          </tr>
        ))}
      </tbody>
    </table>
  );
  if (!next)
    return (
      <RecorderLayout say={state.reconcile.length > 0 ? 'It all adds up.' : 'Nothing is in the ledger: strip first.'} drawing={list} />
    );
  const count = text === '' ? next.expected : readFigure(text, 'count', '', { least: 0, most: 1000 }).base;
  const put = (): void => {
    if (count === undefined) return;
    keep({ kind: 'counted', payload: { ...(next.part ? { part: next.part } : {}), name: next.name, count }, step: step.ref });
    setText(undefined);
  };
  return (
    <RecorderLayout
      number={{ figure: String(next.expected), unit: `× ${next.name}`, under: <span className="soft">came off</span> }}
      primary={{ label: `${count ?? '…'} on the bench`, run: put, disabled: count === undefined }}
      others={[
        { label: 'One fewer', key: '-', run: () => setText(String(Math.max(0, (count ?? 1) - 1))) },
        { label: 'One more', key: '+', run: () => setText(String((count ?? 0) + 1)) },
      ]}
      drawing={list}
    >
      <FigureField
        label={`On the bench: ${next.name}`}
        quantity="count"
        unit=""
        least={0}
        most={1000}
        text={text === '' ? String(next.expected) : text}
        onText={setText}
        onEnter={put}
      />
      {next.counted === undefined ? null : (
        <p className="v-out mb-0">
          {next.counted} were counted, {next.expected} came off. Look for it, count again, or strike the line in the ledger that is wrong.
        </p>
      )}
    </RecorderLayout>
  );
}
