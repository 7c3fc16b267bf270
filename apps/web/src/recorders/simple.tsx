import { baseOf, find, limitQuantity, limitWindow, partName, windowOf, type Fluid, type Step } from '@jubb/contract/job';
import { useId, useState, type ReactElement } from 'react';
import { LookSketch, SealSketch } from '../drawings/look.tsx';
import { FigureField, readFigure } from '../kit/figure-field.tsx';
import { useDraft } from '../kit/prefs.ts';
import { Trust } from '../kit/pieces.tsx';
import { pickTool } from '../kit/tool-pick.tsx';
import { useHere } from '../job/use-job.ts';
import { LastOff } from '../job/ledger.tsx';
import { RecorderLayout, useIsBench } from './layout.tsx';
import { Measure } from './measure.tsx';

interface RecorderProps {
  readonly step: Step;
}

export function TickRecorder({ step }: RecorderProps): ReactElement {
  const { keep } = useHere();
  return <RecorderLayout primary={{ label: 'Done', run: () => keep({ kind: 'tick', payload: {}, step: step.ref }) }} say={step.expect} />;
}

export function ArrivalRecorder({ step }: RecorderProps): ReactElement {
  const { job, keep } = useHere();
  const [draft, setDraft] = useDraft(`${job.id}.${step.ref}`, { text: '', place: '' });
  const id = useId();
  const note = (): void => {
    if (draft.text.trim() === '') return;
    keep({
      kind: 'finding',
      payload: { text: draft.text.trim(), ...(draft.place.trim() ? { place: draft.place.trim() } : {}) },
      step: step.ref,
    });
    setDraft(undefined);
  };
  const onEnter = (event: React.KeyboardEvent): void => {
    if (event.key !== 'Enter') return;
    event.preventDefault();
    note();
  };
  return (
    <RecorderLayout
      primary={{ label: 'Note it', run: note, disabled: draft.text.trim() === '' }}
      others={[
        {
          label: 'Nothing to note',
          key: 'x',
          run: () => keep({ kind: 'finding', payload: { text: 'nothing to note', nothing: true }, step: step.ref }),
        },
      ]}
    >
      <label className="form-label" htmlFor={`${id}-text`}>
        What is seen
      </label>
      <input
        id={`${id}-text`}
        className="form-control"
        autoFocus
        maxLength={2000}
        value={draft.text}
        onKeyDown={onEnter}
        onChange={(event) => setDraft({ ...draft, text: event.target.value })}
      />
      <label className="form-label mt-2" htmlFor={`${id}-place`}>
        Where
      </label>
      <input
        id={`${id}-place`}
        className="form-control"
        maxLength={200}
        value={draft.place}
        onKeyDown={onEnter}
        onChange={(event) => setDraft({ ...draft, place: event.target.value })}
      />
    </RecorderLayout>
  );
}

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

export function ReadingRecorder({ step }: RecorderProps): ReactElement | null {
  const { sheet, keep } = useHere();
  const limit = find(sheet.limits, step.record.limit);
  if (!limit) return null;
  const window = limitWindow(limit);
  const furthest = Math.max(window.from ?? 0, window.to ?? 0);
  return (
    <Measure
      draftKey={step.ref}
      name={limit.name}
      quantity={limitQuantity(limit)}
      window={window}
      toolKind={limit.tool}
      repeats={limit.repeats ?? 1}
      // A slip of the decimal sign or the unit is further off than any wear.
      least={limit.kind === 'size' ? (furthest > 5 ? furthest * 0.5 : 0) : -20000}
      most={limit.kind === 'size' ? (furthest > 5 ? furthest * 1.5 : 5) : 300000}
      kind="reading"
      payload={(readings, unit) => ({ limit: limit.ref, readings, unit })}
      onKeep={(payload, tool) => keep({ kind: 'reading', payload, step: step.ref, ...(tool ? { toolId: tool.id } : {}) })}
      source={
        <>
          {limit.service ? <Trust of={limit.service} documents={sheet.documents} /> : null}
          <p className="soft mb-0">When out: {limit.whenOut}</p>
        </>
      }
    />
  );
}

export function LookRecorder({ step }: RecorderProps): ReactElement | null {
  const { sheet, keep } = useHere();
  const limit = find(sheet.limits, step.record.limit);
  if (!limit) return null;
  return (
    <RecorderLayout
      say="What does it look like?"
      others={(limit.looks ?? []).map((look, index) => ({
        label: (
          <>
            {look.picture ? <LookSketch picture={look.picture} /> : null}
            {look.words} <span className={`fig v-${look.verdict}`}>{look.verdict}</span>
          </>
        ),
        key: String(index + 1),
        run: () => keep({ kind: 'look', payload: { limit: limit.ref, look: look.ref }, step: step.ref }),
      }))}
    >
      <p className="soft mb-0">When out: {limit.whenOut}</p>
    </RecorderLayout>
  );
}

export function FluidRecorder({ step }: RecorderProps): ReactElement | null {
  const { job, sheet, keep } = useHere();
  const fluid = find(sheet.fluids, step.record.fluid);
  const [text, setText] = useDraft(`${job.id}.${step.ref}`, '');
  const [tried, setTried] = useState(false);
  if (!fluid) return null;
  if (!fluid.amount)
    return (
      <FilledUntil
        fluid={fluid}
        onFull={() => keep({ kind: 'fluid', payload: { fluid: fluid.ref, amount: 0, unit: 'L' }, step: step.ref })}
      />
    );
  const isMass = /g$/u.test(fluid.amount.figure.trim());
  const quantity = isMass ? 'mass' : 'volume';
  const unit = isMass ? 'g' : 'L';
  const wanted = baseOf(fluid.amount.figure, quantity);
  const read = readFigure(text, quantity, unit, { least: 1e-4, most: wanted * 20 });
  const tool = pickTool(job.tools, 'scale', undefined, undefined);
  const share = baseOf(fluid.tolerance ?? '10 %', 'ratio');
  const off = read.base !== undefined && Math.abs(read.base - wanted) > wanted * share;
  const fill = (): void => {
    setTried(true);
    if (read.base === undefined) return;
    keep({
      kind: 'fluid',
      payload: { fluid: fluid.ref, amount: read.base, unit },
      step: step.ref,
      ...(isMass && tool ? { toolId: tool.id } : {}),
    });
    setText(undefined);
  };
  const [figure = '', symbol = ''] = fluid.amount.figure.split(' ');
  return (
    <RecorderLayout
      number={{ figure, unit: symbol, under: <Trust of={fluid.amount} documents={sheet.documents} /> }}
      say={
        <>
          {fluid.name}, {fluid.grade}. {fluid.rule}
        </>
      }
      primary={{ label: off ? 'Keep it all the same' : 'It is in', run: fill, disabled: text.trim() === '' }}
    >
      <FigureField
        label={`Weighed in${tool ? `, ${tool.tag}` : ''}`}
        quantity={quantity}
        unit={unit}
        text={text}
        onText={setText}
        onEnter={fill}
        least={1e-4}
        most={wanted * 20}
        tried={tried}
        focus
      />
      {off ? (
        <p className="v-unsure mb-0">More than {fluid.tolerance ?? '10 %'} off the sheet. It can be kept, and shows in the report.</p>
      ) : null}
    </RecorderLayout>
  );
}

/** A fluid that has no amount: it is filled until it shows. */
function FilledUntil({ fluid, onFull }: { readonly fluid: Fluid; readonly onFull: () => void }): ReactElement {
  return (
    <RecorderLayout
      say={
        <>
          {fluid.name}, {fluid.grade}, {fluid.fill}. {fluid.rule}
        </>
      }
      primary={{ label: 'It shows, it is full', run: onFull }}
    />
  );
}

/** Direction, then lubricant, then depth: one thing asked at a time. */
export function SealRecorder({ step }: RecorderProps): ReactElement | null {
  const { job, sheet, keep } = useHere();
  const seal = find(sheet.seals, step.record.seal);
  const [seen, setSeen] = useDraft(`${job.id}.${step.ref}.seen`, 0);
  if (!seal) return null;
  const protect = seal.protect.length > 0 ? <p className="soft mb-0">{seal.protect.join('. ')}.</p> : null;
  if (seen === 0) {
    return (
      <RecorderLayout say={seal.direction} primary={{ label: 'It lies that way', run: () => setSeen(1) }}>
        <p className="mb-1">
          {partName(sheet, seal.part)}, {seal.material}
        </p>
        {seal.picture ? <SealSketch picture={seal.picture} /> : null}
        {protect}
      </RecorderLayout>
    );
  }
  if (seen === 1)
    return (
      <RecorderLayout
        say={seal.lubricant}
        primary={{
          label: 'Greased, in and square',
          run: () => {
            if (seal.depth) return setSeen(2);
            keep({
              kind: 'seal-fitted',
              payload: { seal: seal.ref, directionSeen: true, lubricated: true, depths: [], unit: 'mm' },
              step: step.ref,
            });
            setSeen(undefined);
          },
        }}
      >
        {protect}
      </RecorderLayout>
    );
  if (!seal.depth) return null;
  return (
    <Measure
      draftKey={`${step.ref}.depth`}
      name="Depth below the face"
      quantity="length"
      window={windowOf(seal.depth, 'length')}
      toolKind={seal.tool}
      repeats={3}
      least={-5}
      most={50}
      kind="seal-fitted"
      payload={(depths, unit) => ({ seal: seal.ref, directionSeen: true, lubricated: true, depths, unit })}
      onKeep={(payload, tool) => {
        keep({ kind: 'seal-fitted', payload, step: step.ref, ...(tool ? { toolId: tool.id } : {}) });
        setSeen(undefined);
      }}
      intro={<p>Depth below the hub face, at three places round the rim.</p>}
      source={<Trust of={seal.depth} documents={sheet.documents} />}
    />
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
