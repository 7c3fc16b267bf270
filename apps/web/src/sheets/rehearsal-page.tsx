import { benchesLacking } from '@jubb/book';
import { routesOf, type Rehearsal, type RehearsedStep } from '@jubb/play';
import { STAGE_NAMES, type SheetFile } from '@jubb/sheet';
import { useEffect, useMemo, useRef, useState, type ReactElement } from 'react';
import Button from 'react-bootstrap/Button';
import FormLabel from 'react-bootstrap/FormLabel';
import FormSelect from 'react-bootstrap/FormSelect';
import ProgressBar from 'react-bootstrap/ProgressBar';
import { Link, useParams, useSearchParams } from 'react-router';
import { useKeys } from '../kit/keys.ts';
import { Care, Loading, Title, Wrong } from '../kit/pieces.tsx';
import { useBenches, useSheet } from '../link/queries.ts';
import { useRehearsal } from './use-play.ts';
import './sheets.scss';

/** The whole job goes by in this time. */
const WHOLE_MS = 60_000;

/** A job before it is begun: every step as it will be kept, what must be warm by when, what is lacking, what can be read no more. */
export function RehearsalPage(): ReactElement {
  const { id = '' } = useParams();
  const [params, setParams] = useSearchParams();
  const { data: sheet, error } = useSheet(id);
  const routes = useMemo(() => (sheet ? routesOf(sheet.file) : []), [sheet]);
  const route = Math.min(Math.max(0, Number(params.get('way') ?? 0) || 0), Math.max(0, routes.length - 1));
  const rehearsal = useRehearsal(sheet?.file, route);
  if (!sheet) return error ? <Wrong error={error} /> : <Loading what="the sheet" />;
  return (
    <>
      <Title
        sub={
          <>
            The whole job in a minute, as a mechanic would work it who slips nowhere. Nothing of it is kept.{' '}
            <Link to={`/sheets/${id}`}>The sheet</Link>
          </>
        }
      >
        Rehearsal: {sheet.file.title}
      </Title>
      {routes.length > 1 ? (
        <div className="mb-3 rehearsal-pick">
          <FormLabel htmlFor="way">Which job</FormLabel>
          <FormSelect id="way" value={route} onChange={({ target }) => setParams({ way: target.value }, { replace: true })}>
            {routes.map(({ words }, index) => (
              <option key={words} value={index}>
                {words}
              </option>
            ))}
          </FormSelect>
        </div>
      ) : null}
      {rehearsal ? <Played key={route} rehearsal={rehearsal} file={sheet.file} /> : <Loading what="how it goes" />}
    </>
  );
}

interface PlayedProps {
  readonly rehearsal: Rehearsal;
  readonly file: SheetFile;
}

function Played({ rehearsal, file }: PlayedProps): ReactElement {
  const { steps, stuck } = rehearsal;
  const { at, isRunning, toggle, again } = useRun(steps.length);
  useKeys({ act: toggle }, {});
  return (
    <div className="sheet-columns">
      <div>
        {stuck === undefined ? null : <Care title="It does not end">{stuck}</Care>}
        <div className="keys align-items-center mb-2">
          <Button variant="primary" onClick={toggle}>
            {isRunning ? 'Stop here' : at === 0 ? 'Let it run' : 'Go on'}
          </Button>
          <Button variant="plain" disabled={at === 0} onClick={again}>
            From the beginning
          </Button>
          <span className="fig">
            {Math.min(at + 1, steps.length)} of {steps.length}
          </span>
        </div>
        <div className="progress mb-3">
          <ProgressBar isChild now={at} max={Math.max(1, steps.length - 1)} aria-label={`Step ${at + 1} of ${steps.length}`} />
        </div>
        <ol className="rehearsal">
          {steps.map((step, index) => (
            <StepLine
              key={step.ref}
              step={step}
              isFirst={steps[index - 1]?.stage !== step.stage}
              isHere={index === at}
              isPast={index < at}
            />
          ))}
        </ol>
      </div>
      <aside aria-label="Before it begins">
        <Before rehearsal={rehearsal} file={file} />
      </aside>
    </div>
  );
}

interface StepLineProps {
  readonly step: RehearsedStep;
  readonly isFirst: boolean;
  readonly isHere: boolean;
  readonly isPast: boolean;
}

function StepLine({ step, isFirst, isHere, isPast }: StepLineProps): ReactElement {
  const line = useRef<HTMLLIElement>(null);
  useEffect(() => {
    if (isHere) line.current?.scrollIntoView({ block: 'nearest', behavior: 'smooth' });
  }, [isHere]);
  return (
    <>
      {isFirst ? <li className="stage-name fig">{STAGE_NAMES[step.stage]}</li> : null}
      <li ref={line} className={isHere ? 'here' : isPast ? 'past' : ''} aria-current={isHere ? 'step' : undefined}>
        <b>{step.title}</b>
        {step.ready === undefined ? null : <div className="brass">Ready: {step.ready}</div>}
        <div className="soft">{step.kept.join('; ') || step.act}</div>
        {step.holds === undefined ? null : <div className="brass">Then waits: {step.holds}</div>}
        {step.waits === undefined ? null : <div>Waits {step.waits}</div>}
        {step.hides.map((words) => (
          <div key={words} className="v-unsure">
            After it: {words}
          </div>
        ))}
      </li>
    </>
  );
}

function Before({ rehearsal: { steps, lacking, newParts }, file }: PlayedProps): ReactElement {
  const { data: benches = [] } = useBenches();
  const noBench = benchesLacking(file, benches).map((kind) => `No ${kind} that can be used`);
  const lists: readonly (readonly [string, readonly (readonly [string, string])[], string])[] = [
    ['Lacking here', [...noBench, ...lacking].map((words) => [words, ''] as const), 'The shop has all that it takes.'],
    [
      'Ready when its step begins',
      steps.flatMap(({ title, ready }) => (ready === undefined ? [] : [[ready, title] as const])),
      'Nothing has to be warm, soaked or cold.',
    ],
    [
      'Somebody else looks',
      steps.flatMap(({ title, holds }) => (holds === undefined ? [] : [[holds, title] as const])),
      'Nobody else has to look.',
    ],
    [
      'Read it before',
      steps.flatMap(({ title, hides }) => hides.map((words) => [words, `after “${title}”`] as const)),
      'Nothing is hidden by a later step.',
    ],
    ['It waits', steps.flatMap(({ title, waits }) => (waits === undefined ? [] : [[waits, title] as const])), 'It never waits.'],
    [
      'New for it',
      newParts.map(({ name, number, pieces }) => [`${pieces} × ${name}`, number ?? ''] as const),
      'Nothing is renewed every time.',
    ],
  ];
  return (
    <>
      {lists.map(([title, lines, none]) => (
        <section key={title} className="mb-3">
          <h2>{title}</h2>
          {lines.length === 0 ? <p className="soft">{none}</p> : null}
          <ul className="list-unstyled">
            {lines.map(([words, about]) => (
              <li key={`${words}${about}`}>
                {words} {about === '' ? null : <span className="soft">{about}</span>}
              </li>
            ))}
          </ul>
        </section>
      ))}
    </>
  );
}

interface Run {
  readonly at: number;
  readonly isRunning: boolean;
  readonly toggle: () => void;
  readonly again: () => void;
}

/** Goes from step to step, so that all of them take a minute. */
function useRun(count: number): Run {
  const [at, setAt] = useState(0);
  const [isRunning, setRunning] = useState(false);
  const isAtEnd = at >= count - 1;
  useEffect(() => {
    if (!isRunning || isAtEnd) return undefined;
    const timer = setInterval(() => setAt((before) => Math.min(before + 1, count - 1)), WHOLE_MS / Math.max(1, count));
    return () => clearInterval(timer);
  }, [isRunning, isAtEnd, count]);
  return {
    at,
    isRunning: isRunning && !isAtEnd,
    toggle: () => {
      if (isAtEnd) setAt(0);
      setRunning(isAtEnd || !isRunning);
    },
    again: () => setAt(0),
  };
}
