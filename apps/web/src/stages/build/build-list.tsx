import { buildCount, buildSteps, earlySteps, newPartShort, type BuildLine, type NewPart } from '@jubb/book';
import type { Step } from '@jubb/sheet';
import { useState, type ReactElement } from 'react';
import Button from 'react-bootstrap/Button';
import { StepButton, stepClass, type StepChoice } from '../../job/step-list.tsx';
import { useHere } from '../../job/use-job.ts';
import { AskFrom } from '../../job/recorder/ask-from.tsx';
import { useNewParts } from '../../job/recorder/use-new-parts.ts';
import { Care } from '../../kit/pieces.tsx';

/** Steps ahead whose pieces are shown without being asked for. */
const STEPS_AHEAD = 2;

/** Steps of the build and the ledger the other way round, as one list: what goes in at each step, ticked as it does. */
export function BuildList({ heading: Heading = 'h2', ...choice }: StepChoice & { readonly heading?: 'h1' | 'h2' }): ReactElement | null {
  const { sheet, state } = useHere();
  const [showsAll, setShowsAll] = useState(false);
  const { build, steps } = state;
  if (build.length === 0) return null;
  const { pieces, inNow } = buildCount(build);
  const next = build.find((line) => line.inNow < line.count);
  const list = buildSteps(sheet, steps, build);
  const isOpen = (line: BuildLine): boolean => line.inNow < line.count;
  const ahead = new Set(list.filter(({ lines }) => lines.some(isOpen)).slice(0, STEPS_AHEAD));
  return (
    <section className="mb-3" aria-label="Build list">
      <Heading>
        Build list <span className="fig soft">{inNow === pieces ? `all ${pieces} are in` : `${inNow} of ${pieces} are in`}</span>
      </Heading>
      {inNow > 0 ? null : (
        <p className="soft mb-1">Last off, first in. Tick each as it goes in; it stays exact over breaks and between two people.</p>
      )}
      <Early onChoose={choice.onChoose} />
      <ol className="build-list steps">
        {list.map((one) => (
          <li key={one.state?.step.ref ?? 'rest'} className={one.state ? stepClass(one.state, choice) : ''}>
            {one.state ? (
              <StepButton state={one.state} {...choice} />
            ) : (
              <p className="soft mb-0 mt-2">Goes on at the end, no step names it</p>
            )}
            <Lines lines={showsAll ? one.lines : ahead.has(one) ? one.lines.filter(isOpen) : []} all={one.lines} next={next} />
          </li>
        ))}
      </ol>
      <Button variant="quiet" className="p-0 mt-1" aria-pressed={showsAll} onClick={() => setShowsAll(!showsAll)}>
        {showsAll ? 'Only what comes next' : `All ${build.length} lines`}
      </Button>
    </section>
  );
}

/** What goes in by one step, ticked where it is done: at the bench. */
export function LinesOfStep({ step }: { readonly step: Step }): ReactElement | null {
  const { sheet, state } = useHere();
  const lines = buildSteps(sheet, state.steps, state.build).find((one) => one.state?.step.ref === step.ref)?.lines ?? [];
  const open = lines.filter(({ inNow, count }) => inNow < count);
  if (open.length === 0) return null;
  return (
    <section className="mb-2" aria-label="Goes in here">
      <ol className="build-lines">
        {open.map((line, index) => (
          <Line key={line.entryId} line={line} isNext={index === 0} />
        ))}
      </ol>
    </section>
  );
}

/** What must go in before something else bars its way, called out ahead. */
function Early({ onChoose }: Pick<StepChoice, 'onChoose'>): ReactElement | null {
  const { state } = useHere();
  const early = earlySteps(state.steps);
  if (early.length === 0) return null;
  return (
    <Care title="Goes in early">
      {early.map(({ step, before }) => (
        <div key={step.ref}>
          <Button variant="quiet" className="p-0" onClick={() => onChoose(step.ref)}>
            {step.title}
          </Button>{' '}
          before {before.title.charAt(0).toLowerCase()}
          {before.title.slice(1)}: it cannot afterwards.
        </div>
      ))}
    </Care>
  );
}

interface LinesProps {
  readonly lines: readonly BuildLine[];
  readonly all: readonly BuildLine[];
  readonly next: BuildLine | undefined;
}

function Lines({ lines, all, next }: LinesProps): ReactElement | null {
  const { pieces, inNow } = buildCount(all);
  const left = pieces - inNow;
  if (all.length === 0) return null;
  if (lines.length === 0)
    return (
      <p className="soft mb-1 build-count">
        {left === 0 ? 'all of it is in' : `${left} ${left === 1 ? 'piece goes' : 'pieces go'} in here`}
      </p>
    );
  return (
    <ol className="build-lines">
      {lines.map((line) => (
        <Line key={line.entryId} line={line} isNext={line === next} />
      ))}
    </ol>
  );
}

function Line({ line, isNext }: { readonly line: BuildLine; readonly isNext: boolean }): ReactElement {
  const { sheet, state, keep } = useHere();
  const { entryId, name, count, inNow, size, place, direction, tray, into, renewed, mark } = line;
  const left = count - inNow;
  const short = left > 0 ? newPartShort(sheet, line.part, left, state.live) : undefined;
  const isMarkOpen = mark !== undefined && !mark.met;
  const goesIn = (pieces: number): void => keep({ kind: 'went-in', payload: { line: entryId, name, count: pieces } });
  const where = [place && `at ${place}`, into && `into ${into}`, direction, tray && `from tray ${tray}`].filter(Boolean).join(', ');
  return (
    <li className={left === 0 ? 'done' : isNext ? 'next' : ''}>
      <span className="fig fs-4">{left === 0 ? count : left}</span>
      <span>
        <b>{name}</b> {size ? <span className="fig">{size}</span> : null}{' '}
        {renewed === undefined ? null : <span className="brass">a new one: {renewed}</span>}
        {where ? <div className="soft">{where}</div> : null}
        {mark ? (
          <div>
            <b className={mark.met ? 'v-in' : 'brass'}>{mark.mark}</b>{' '}
            {mark.met ? (
              'lines up'
            ) : (
              <Button
                variant="quiet"
                className="p-0"
                aria-label={`It lines up, ${name}`}
                onClick={() => keep({ kind: 'mark-met', payload: { mark: entryId } })}
              >
                It lines up
              </Button>
            )}
          </div>
        ) : null}
      </span>
      <span className="d-flex flex-wrap gap-1 justify-content-end">
        {left === 0 ? (
          <span className="v-in">in</span>
        ) : state.handedOver ? null : short ? (
          <NotHere part={short} name={name} />
        ) : (
          <>
            {left > 1 ? (
              <Button variant="plain" aria-label={`One in, ${name}`} disabled={isMarkOpen} onClick={() => goesIn(1)}>
                One in
              </Button>
            ) : null}
            <Button
              variant="plain"
              className={isNext ? 'on' : ''}
              aria-label={`${left > 1 ? `All ${left} in` : 'In'}, ${name}`}
              disabled={isMarkOpen}
              title={isMarkOpen ? 'The mark first' : undefined}
              onClick={() => goesIn(left)}
            >
              {left > 1 ? `All ${left} in` : 'In'}
            </Button>
          </>
        )}
      </span>
    </li>
  );
}

/** A new part that goes in when it has come: out of stores, or from wherever somebody says. */
function NotHere({ part, name }: { readonly part: NewPart; readonly name: string }): ReactElement {
  const { keep } = useHere();
  const { sources, elsewhere, isLooking, drafts } = useNewParts([part]);
  const [asking, setAsking] = useState(false);
  const isCovered = elsewhere.length === 0;
  return (
    <>
      <Button
        variant="plain"
        aria-label={`${isCovered ? 'Out of stores' : 'It has come'}, ${name}`}
        disabled={isLooking}
        onClick={() => (isCovered ? keep(...drafts('')) : setAsking(true))}
      >
        {isCovered ? 'Out of stores' : 'It has come'}
      </Button>
      {asking ? (
        <AskFrom
          what={sources.map(({ words }) => words).join(', ')}
          onFrom={(from) => keep(...drafts(from))}
          onClose={() => setAsking(false)}
        />
      ) : null}
    </>
  );
}
