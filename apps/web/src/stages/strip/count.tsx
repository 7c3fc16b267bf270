import { countedOff, countsOf, type SealFailure } from '@jubb/book';
import { find, partName } from '@jubb/sheet';
import { useId, type ReactElement } from 'react';
import FormLabel from 'react-bootstrap/FormLabel';
import FormControl from 'react-bootstrap/FormControl';
import Table from 'react-bootstrap/Table';
import { FigureField, readFigure } from '../../kit/figure-field.tsx';
import { useDraft } from '../../kit/prefs.ts';
import { useHere } from '../../job/use-job.ts';
import { Care } from '../../kit/pieces.tsx';
import { FastenerMap } from './fastener-map.tsx';
import { Intent } from './intent.tsx';
import { LastOff } from './ledger.tsx';
import { RecorderLayout, useIsBench, type RecorderProps } from '../../job/recorder/layout.tsx';
import { OldSealShows } from '../../job/recorder/old-seal.tsx';

interface CountDraft {
  /** Which count of the step it is, from 0. */
  readonly at: number;
  readonly count: string;
  readonly tray: string;
  readonly condition: string;
  /** What an old seal shows. */
  readonly why: SealFailure | '';
  /** Places picked on the map of its joint, from 0. */
  readonly places: readonly number[];
  /** It is pulled as far as where it is to be marked. */
  readonly isHalfOff: boolean;
}

const NO_COUNT: CountDraft = { at: -1, count: '', tray: '', condition: '', why: '', places: [], isHalfOff: false };

/** Counts off the parts of a step, one kind at a time; what has one right position is marked first. */
export function CountRecorder({ step }: RecorderProps): ReactElement {
  const { job, sheet, state, keep } = useHere();
  const counts = countsOf(sheet, step);
  const at = counts.findIndex((counted) => countedOff(step, counted, state.ledger) === 0);
  const next = counts[at];
  const [draft, setDraft] = useDraft<CountDraft>(`${job.id}.${step.ref}`, NO_COUNT);
  const current = draft.at === at ? draft : { ...NO_COUNT, at, count: String(next?.count ?? ''), tray: draft.tray };
  const isBench = useIsBench();
  if (!next) return <RecorderLayout say="All counted." />;
  const read = readFigure(current.count, 'count', '', { least: 1, most: 1000 });
  const part = find(sheet.parts, next.part);
  const name = partName(sheet, next.part);
  const joint = sheet.joints.find(({ part }) => part === next.part);
  const { place, size, stack, direction, mark, halfWay = false, twoPeople = false } = next;
  const isPulling = halfWay && !current.isHalfOff;
  // A draft of an older page lacks it.
  const { places, why = '' } = current;
  const isMapped = joint !== undefined && places.length > 0;
  // Picks are never let go without a word.
  const misfit = isMapped && places.length !== read.base;
  // A seal's place takes no new one until the old one is out whole.
  const seals = sheet.seals.filter(({ part }) => part === next.part);
  const off = (whole = true): void => {
    if (read.base === undefined || misfit) return;
    const [tray, condition] = [current.tray.trim(), current.condition.trim()];
    const out = seals.map(({ ref: seal }) => ({
      kind: 'old-seal-out' as const,
      payload: { seal, whole, ...(why === '' ? {} : { why }) },
      step: step.ref,
    }));
    keep(
      {
        kind: 'came-off',
        payload: {
          part: next.part,
          name,
          count: read.base,
          ...Object.fromEntries(Object.entries({ size, place, tray, stack, direction, mark, condition }).filter(([, held]) => held)),
          ...(isMapped ? { joint: joint.ref, places } : {}),
        },
        step: step.ref,
      },
      ...out,
    );
    setDraft(tray ? { ...NO_COUNT, tray } : undefined);
  };
  return (
    <RecorderLayout
      number={{
        figure: String(next.count),
        unit: '×',
        under: (
          <span className="soft">
            <b className="count-name">{name}</b> {next.count} {size ? `of ${size} ` : ''}on the sheet{place ? `, from: ${place}` : ''}
            {direction ? `; sits ${direction}` : ''}
            {part && step.stage === 'strip' ? <Intent part={part} step={step} /> : null}
          </span>
        ),
      }}
      say={
        mark || joint?.hand === 'left' ? (
          <>
            {joint?.hand === 'left' ? <Care>Left-hand thread: it comes undone clockwise.</Care> : null}
            {twoPeople ? <b className="d-block">Two people: one holds, one pulls and marks.</b> : null}
            {isPulling ? (
              <>
                Pull it half-way and stop there; it is marked before it goes on: <b className="brass">{mark}</b>
              </>
            ) : mark ? (
              <>
                {halfWay ? 'Stop. Mark it now: ' : 'Mark it before it is pulled: '}
                <b className="brass">{mark}</b>
              </>
            ) : null}
          </>
        ) : undefined
      }
      primary={
        isPulling
          ? { label: 'Half-way, stop', run: () => setDraft({ ...current, isHalfOff: true }) }
          : {
              label: `${mark ? 'Marked, ' : ''}${read.base ?? '…'} came off${seals.length > 0 ? ', whole' : ''}`,
              run: () => off(),
              disabled: read.base === undefined || misfit,
            }
      }
      others={[
        ...(seals.length > 0
          ? [{ label: 'Not all of it', key: 'x' as const, run: () => off(false), disabled: read.base === undefined || misfit }]
          : []),
        { label: 'One fewer', key: '-', run: () => setDraft({ ...current, count: String(Math.max(1, (read.base ?? 2) - 1)) }) },
        { label: 'One more', key: '+', run: () => setDraft({ ...current, count: String((read.base ?? 0) + 1) }) },
      ]}
      drawing={
        joint && joint.count > 1 ? (
          <FastenerMap
            joint={joint}
            ledger={state.ledger}
            chosen={places}
            onChoose={(picked) => setDraft({ ...current, places: picked })}
          />
        ) : isBench && state.ledger.length > 0 ? (
          <LastOff />
        ) : undefined
      }
    >
      <div className="count-fields">
        <FigureField
          label="Counted"
          quantity="count"
          unit=""
          least={1}
          most={1000}
          text={current.count}
          onText={(count) => setDraft({ ...current, count })}
          onEnter={() => off()}
        />
        <CountField label="Tray" longest={60} text={current.tray} onText={(tray) => setDraft({ ...current, tray })} onEnter={() => off()} />
        <CountField
          label="Looks"
          longest={200}
          text={current.condition}
          onText={(condition) => setDraft({ ...current, condition })}
          onEnter={() => off()}
        />
      </div>
      {seals.length > 0 ? <OldSealShows why={why} onWhy={(shown) => setDraft({ ...current, why: shown })} /> : null}
      {misfit ? (
        <p className="v-out mb-0" aria-live="polite">
          {places.length} places are picked, {read.base ?? '…'} counted. Pick as many, or none.
        </p>
      ) : null}
    </RecorderLayout>
  );
}

interface CountFieldProps {
  readonly label: string;
  readonly longest: number;
  readonly text: string;
  readonly onText: (text: string) => void;
  readonly onEnter: () => void;
}

function CountField({ label, longest, text, onText, onEnter }: CountFieldProps): ReactElement {
  const id = useId();
  return (
    <div>
      <FormLabel htmlFor={id}>{label}</FormLabel>
      <FormControl
        id={id}
        className="num-field"
        maxLength={longest}
        autoComplete="off"
        value={text}
        onChange={(event) => onText(event.target.value)}
        onKeyDown={(event) => {
          if (event.key === 'Enter') onEnter();
        }}
      />
    </div>
  );
}

/** What lies on the bench against what came off, kind by kind. */
export function ReconcileRecorder({ step }: RecorderProps): ReactElement {
  const { job, state, keep } = useHere();
  const [text, setText] = useDraft(`${job.id}.${step.ref}`, '');
  const next = state.reconcile.find((line) => line.counted !== line.expected);
  const list = (
    <Table>
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
    </Table>
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
