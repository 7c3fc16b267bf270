import { gearMovedWords, patternMove, patternRead, spotWords, workingFor, type PatternMove, type PatternRun } from '@jubb/book';
import type { Step } from '@jubb/sheet';
import { contactPicture, gearContact } from '@jubb/core';
import { useRef, useState, type ReactElement } from 'react';
import { useNavigate } from 'react-router';
import Button from 'react-bootstrap/Button';
import Table from 'react-bootstrap/Table';
import { Contact } from '../../drawings/contact.tsx';
import { useHere } from '../../job/use-job.ts';
import { AskLine } from '../../kit/ask-line.tsx';
import { FigureField, readFigure } from '../../kit/figure-field.tsx';
import { Care } from '../../kit/pieces.tsx';
import { useDraft } from '../../kit/prefs.ts';
import { useUnits } from '../../kit/units.ts';
import { RecorderLayout, type Act, type RecorderProps } from '../../job/recorder/layout.tsx';
import { ToothPick, type Spot } from './tooth-pick.tsx';

/** A gear is moved by a shim: less than this is none, more is another gear. */
const LEAST_MM = 0.005;
const MOST_MM = 2;

/** Marked, read, answered by a move, set anew and marked again, until the pattern is good. */
export function PatternRecorder({ step }: RecorderProps): ReactElement | null {
  const { state } = useHere();
  const [again, setAgain] = useState(false);
  const run = state.patterns.find(({ setting }) => setting.ref === step.record.setting);
  if (!run) return null;
  const markAgain = (): void => setAgain(true);
  switch (again && run.phase !== 'set-first' ? 'read' : run.phase) {
    case 'set-first':
      return <SetFirst run={run} />;
    case 'read':
      return <ReadPattern key={run.tries.length} run={run} step={step} onKept={() => setAgain(false)} />;
    case 'move':
      return <Move key={run.tries.length} run={run} step={step} onAgain={markAgain} />;
    case 'good':
      return (
        <RecorderLayout
          say={leftWords(run) ?? 'Good: it carries where it was made to.'}
          others={state.handedOver ? [] : [{ label: 'Mark it again', key: 'a', run: markAgain }]}
          wide={<Tries run={run} />}
        />
      );
  }
}

/** On whose word the last pattern stays so. */
function leftWords({ tries }: PatternRun): string | undefined {
  const left = tries.at(-1)?.entry.payload.left;
  return left === undefined ? undefined : `Left as it is. ${left}`;
}

interface PatternProps {
  readonly run: PatternRun;
  readonly step: Step;
}

/** What a move undid is set and pulled anew before the teeth tell anything. */
function SetFirst({ run }: { readonly run: PatternRun }): ReactElement {
  const { job } = useHere();
  const navigate = useNavigate();
  const [next, ...then] = run.first;
  return (
    <RecorderLayout
      say={
        <>
          <Since run={run} />
          Before it is marked: {next?.title}
          {then.length > 0 ? `, then ${then.map(({ title }) => title).join(', ')}` : ''}.
        </>
      }
      primary={next && { label: `Go to: ${next.title}`, run: () => void navigate(`/jobs/${job.id}/${next.stage}?step=${next.ref}`) }}
      wide={run.tries.length > 0 ? <Tries run={run} /> : undefined}
    />
  );
}

/** What was done since the last pattern. */
function Since({ run: { tries, before } }: { readonly run: PatternRun }): ReactElement | null {
  return tries.length > 0 ? <b className="d-block">Since the last pattern: {before}.</b> : null;
}

function ReadPattern({ run, step, onKept }: PatternProps & { readonly onKept: () => void }): ReactElement {
  const { job, sheet, keep } = useHere();
  const [seen, setSeen] = useDraft<{ readonly drive?: Spot; readonly coast?: Spot }>(`${job.id}.${step.ref}.pattern`, {});
  const other = useRef<HTMLButtonElement>(null);
  const { drive, coast } = seen;
  const read =
    drive && coast
      ? patternRead(run, { driveAlong: drive.along, driveUp: drive.up, coastAlong: coast.along, coastUp: coast.up })
      : undefined;
  const answer = read && workingFor('pattern', read, sheet, undefined)?.output;
  const done = (): void => {
    if (!read) return;
    keep({ kind: 'pattern', payload: read, step: step.ref });
    setSeen(undefined);
    onKept();
  };
  return (
    <RecorderLayout
      say={
        answer ? (
          <span aria-live="polite">
            <b className={`v-${String(answer['verdict'])}`}>
              {answer['verdict'] === 'in' ? 'Good' : answer['verdict'] === 'out' ? 'It wants a move' : 'It contradicts itself'}.
            </b>{' '}
            {answer['verdict'] === 'in' ? '' : String(answer['what'])}
          </span>
        ) : (
          <>
            <Since run={run} />
            Tap where the compound is worn off, on both sides of a tooth.
          </>
        )
      }
      primary={{ label: 'Keep this pattern', run: done, disabled: !read }}
      drawing={
        <div className="teeth">
          <ToothPick
            label="Drive side"
            spot={drive}
            onPick={(spot) => setSeen({ ...seen, drive: spot })}
            onEnter={() => (coast ? done() : other.current?.focus())}
          />
          <ToothPick label="Coast side" spot={coast} onPick={(spot) => setSeen({ ...seen, coast: spot })} onEnter={done} focusRef={other} />
        </div>
      }
      wide={run.tries.length > 0 ? <Tries run={run} /> : undefined}
    >
      {gearContact.cautions.map((text) => (
        <Care key={text}>{text}</Care>
      ))}
    </RecorderLayout>
  );
}

const WAYS: readonly { readonly gear: PatternMove['gear']; readonly sign: 1 | -1; readonly label: string; readonly shims: string }[] = [
  {
    gear: 'pinion',
    sign: 1,
    label: 'Pinion deeper',
    shims: 'A shim behind the head bearing gets as much thicker, one under a retainer as much thinner. A crush sleeve is a new one then.',
  },
  {
    gear: 'pinion',
    sign: -1,
    label: 'Pinion further out',
    shims: 'A shim behind the head bearing gets as much thinner, one under a retainer as much thicker. A crush sleeve is a new one then.',
  },
  {
    gear: 'ring',
    sign: 1,
    label: 'Ring to the pinion',
    shims: 'As much less at the teeth, as much more at the other side: the preload stays.',
  },
  {
    gear: 'ring',
    sign: -1,
    label: 'Ring away from it',
    shims: 'As much more at the teeth, as much less at the other side: the preload stays.',
  },
];

/** The answer to a pattern that is not good: which gear, which way, by how much, and what was undone for it. */
function Move({ run, step, onAgain }: PatternProps & { readonly onAgain: () => void }): ReactElement | null {
  const { state } = useHere();
  const [leaving, setLeaving] = useState(false);
  const move = patternMove(
    run,
    state.settings.find(({ setting }) => setting.ref === run.setting.ref),
  );
  if (!move) return null;
  const leave: Act = { label: 'Leave it so', key: 'x', run: () => setLeaving(true) };
  return (
    <>
      {move.asked === 0 ? (
        <RecorderLayout say={move.what} primary={{ label: 'Mark it again', run: onAgain }} others={[leave]} wide={<Tries run={run} />} />
      ) : (
        <MoveForm run={run} step={step} move={move} others={[{ label: 'Mark it again', key: 'a', run: onAgain }, leave]} />
      )}
      {leaving ? <AskLeave run={run} step={step} onClose={() => setLeaving(false)} /> : null}
    </>
  );
}

/** Gears that go back used may carry where they carried before: somebody says so. */
function AskLeave({ run, step, onClose }: PatternProps & { readonly onClose: () => void }): ReactElement | null {
  const { job, keep } = useHere();
  const last = run.tries.at(-1)?.entry.payload;
  if (!last) return null;
  return (
    <AskLine
      about={`${job.id}.${step.ref}`}
      title="It stays as it is"
      act="Keep it so"
      fields={() => [
        { name: 'foreman', label: 'Which foreman agrees', required: true, longest: 100 },
        { name: 'why', label: 'Why it may stay so', required: true, hint: 'It is printed in the report.', longest: 180 },
      ]}
      onClose={onClose}
      onDone={({ foreman = '', why = '' }) => {
        keep({ kind: 'pattern', payload: { ...last, left: `${foreman}: ${why}` }, step: step.ref });
        onClose();
      }}
    />
  );
}

interface MoveFormProps extends PatternProps {
  readonly move: PatternMove;
  readonly others: readonly Act[];
}

function MoveForm({ run, step, move, others }: MoveFormProps): ReactElement {
  const { job, keep } = useHere();
  const units = useUnits();
  const advised = WAYS.findIndex(({ gear, sign }) => gear === move.gear && sign === Math.sign(move.asked));
  const [typed, setTyped] = useDraft<{ readonly way?: number; readonly by?: string; readonly undone?: readonly string[] }>(
    `${job.id}.${step.ref}.move.${run.tries.length}`,
    {},
  );
  const way = WAYS[typed.way ?? advised]!;
  const { figure, unit } = units.show(Math.abs(move.by), 'length');
  const text = typed.by ?? (move.by === 0 ? '' : figure);
  const by = readFigure(text, 'length', units.symbol('length'), { least: LEAST_MM, most: MOST_MM });
  const undone = (typed.undone ?? []).filter((ref) => run.tight.some(({ joint }) => joint.ref === ref));
  const done = (): void => {
    if (by.base === undefined) return;
    keep({
      kind: 'gear-moved',
      payload: { setting: run.setting.ref, gear: way.gear, by: way.sign * by.base, undone: [...undone] },
      step: step.ref,
    });
    setTyped(undefined);
  };
  return (
    <RecorderLayout
      number={move.by === 0 ? undefined : { figure, unit: `${unit} ${WAYS[advised]!.label.toLowerCase()}` }}
      say={way.shims}
      primary={{ label: 'Moved', run: done, disabled: by.base === undefined }}
      others={others}
      wide={<Tries run={run} />}
    >
      {move.by === move.asked ? null : <NoRoom run={run} {...move} />}
      <div className="d-flex flex-wrap gap-2 mb-2" role="group" aria-label="What was moved">
        {WAYS.map(({ label }, index) => (
          <Button
            key={label}
            variant="plain"
            className={WAYS[index] === way ? 'on' : ''}
            aria-pressed={WAYS[index] === way}
            onClick={() => setTyped({ ...typed, way: index })}
          >
            {label}
          </Button>
        ))}
      </div>
      <FigureField
        label="Moved by"
        quantity="length"
        text={text}
        onText={(next) => setTyped({ ...typed, by: next })}
        least={LEAST_MM}
        most={MOST_MM}
        tried={text !== ''}
      />
      {run.tight.length > 0 ? (
        <div className="mt-2" role="group" aria-label="Undone for it, to be pulled again">
          <div className="form-label">Undone for it, to be pulled again</div>
          <div className="d-flex flex-wrap gap-2">
            {run.tight.map(({ joint: { ref, name } }) => (
              <Button
                key={ref}
                variant="plain"
                className={undone.includes(ref) ? 'on' : ''}
                aria-pressed={undone.includes(ref)}
                onClick={() =>
                  setTyped({ ...typed, undone: undone.includes(ref) ? undone.filter((one) => one !== ref) : [...undone, ref] })
                }
              >
                {name}
              </Button>
            ))}
          </div>
        </div>
      ) : null}
    </RecorderLayout>
  );
}

/** The pattern asks for more than the backlash has. */
function NoRoom({ run: { setting }, asked, by }: Pick<MoveFormProps, 'run'> & Pick<PatternMove, 'asked' | 'by'>): ReactElement {
  const units = useUnits();
  const wanted = `${setting.window.from} to ${setting.window.to}`;
  return (
    <Care>
      The pattern asks for {units.text(Math.abs(asked), 'length')}, but the backlash is to be {wanted}:{' '}
      {by === 0 ? 'the ring has no way to go' : 'the ring goes to the end of that'}. What is then still off is the foreman’s to decide.
    </Care>
  );
}

/** The last pattern as it was read, and all there were. */
function Tries({ run: { tries } }: { readonly run: PatternRun }): ReactElement {
  const last = tries.at(-1);
  return (
    <>
      {last ? <Contact name="Contact pattern" {...contactPicture(last.entry.payload)} /> : null}
      <Table className="mt-3">
        <thead>
          <tr>
            <th scope="col">Pattern</th>
            <th scope="col">Done before</th>
            <th scope="col">Drive side</th>
            <th scope="col">Coast side</th>
            <th scope="col">Asks for</th>
          </tr>
        </thead>
        <tbody>
          {tries.map(({ entry: { id, payload, working }, before, verdict }, index) => (
            <tr key={id}>
              <td className="fig">{index + 1}</td>
              <td>{before}</td>
              <td>{spotWords(payload.driveAlong, payload.driveUp)}</td>
              <td>{spotWords(payload.coastAlong, payload.coastUp)}</td>
              <td className={`v-${verdict ?? 'unsure'}`}>
                {payload.left === undefined ? (verdict === 'in' ? 'nothing: good' : asksFor(working?.output)) : 'left so'}
              </td>
            </tr>
          ))}
        </tbody>
      </Table>
    </>
  );
}

function asksFor(output: Readonly<Record<string, unknown>> | undefined): string {
  const [pinion, ring] = [Number(output?.['pinion'] ?? 0), Number(output?.['ring'] ?? 0)];
  if (pinion !== 0) return gearMovedWords({ gear: 'pinion', by: pinion });
  return ring === 0 ? 'marking again' : gearMovedWords({ gear: 'ring', by: ring });
}
