import { formatQuantity } from '@jubb/core';
import { useState, type ReactElement } from 'react';
import { Link } from 'react-router';
import Button from 'react-bootstrap/Button';
import { SettingLine } from '../drawings/setting-line.tsx';
import { FigureField, readFigure } from '../kit/figure-field.tsx';
import { Title } from '../kit/pieces.tsx';
import { useDraft } from '../kit/prefs.ts';
import { PRACTICES, replay, type Act, type Practice, type Replay } from './replay.ts';
import { Tick } from '../kit/tick.tsx';

const NAMES: Readonly<Record<Practice, { readonly name: string; readonly task: string }>> = {
  hub: { name: 'A hub with a castle nut', task: 'End play after locking, from a seated bearing. M24 × 1, six slots, crossed holes.' },
  axle: { name: 'A pinion on a crush sleeve', task: 'Rolling torque by small steps of the nut. There is no way back.' },
  shaft: { name: 'A shaft set by shims', task: 'End play under a cover: a thicker pack closes it. 0.50 mm is in.' },
};

const MOVE: Readonly<
  Record<
    Practice,
    { readonly act: Act['do']; readonly label: string; readonly quantity: 'angle' | 'length'; readonly unit: string; readonly key: string }
  >
> = {
  hub: { act: 'turn', label: 'Turn the nut; minus loosens', quantity: 'angle', unit: '°', key: 'Turn' },
  axle: { act: 'turn', label: 'Turn the nut on', quantity: 'angle', unit: '°', key: 'Turn on' },
  shaft: { act: 'fit', label: 'Pack to put in', quantity: 'length', unit: 'mm', key: 'Put it in' },
};

interface Run {
  readonly practice: Practice;
  readonly seed: number;
  readonly acts: readonly Act[];
  readonly isOver: boolean;
  /** Without the guide one goes by feel. */
  readonly isGuided: boolean;
}

const FIRST: Run = { practice: 'hub', seed: 1, acts: [], isOver: false, isGuided: true };

/** Setting things for practice, on models that behave as the bench does; the score is tries and what is left of error. */
export function LearnPage(): ReactElement {
  const [run, setRun] = useDraft<Run>('practice', FIRST);
  const [text, setText] = useState('');
  const { practice, seed, acts, isOver, isGuided } = run;
  const state = replay(practice, seed, acts);
  const move = MOVE[practice];
  const figure = readFigure(
    text,
    move.quantity,
    move.unit,
    move.quantity === 'length' ? { least: 0, most: 20 } : { least: practice === 'axle' ? 0 : -720, most: 720 },
  );
  const does = (...done: readonly Act[]): void => setRun({ ...run, acts: [...acts, ...done] });
  const begin = (change: Partial<Run>): void => {
    setText('');
    setRun({ ...run, acts: [], isOver: false, ...change });
  };
  const goes = (): void => {
    if (figure.base === undefined) return;
    does({ do: move.act, figure: figure.base });
    setText('');
  };
  const { guide } = state;
  return (
    <>
      <Title sub="The models stick, give and hide play as the bench does. Nothing here is kept on a job.">Practice</Title>
      <p>
        <Link to="/learn/tour">The first tour</Link>, ninety seconds at a bench that is not there.
      </p>
      <div className="d-flex flex-wrap gap-2 mb-3" role="group" aria-label="What to practise on">
        {PRACTICES.map((one) => (
          <Button
            key={one}
            variant="plain"
            className={one === practice ? 'on' : ''}
            aria-pressed={one === practice}
            onClick={() => begin({ practice: one })}
          >
            {NAMES[one].name}
          </Button>
        ))}
      </div>
      <p className="mb-2">
        {NAMES[practice].task} Wanted: <b className="fig">{write(state.window.from, state)}</b> to{' '}
        <b className="fig">{write(state.window.to, state)}</b>.{' '}
        <span className="soft">
          Piece number <span className="fig">{seed}</span>.
        </span>
      </p>
      <div className="two form-first">
        <div className="work">
          {isOver ? (
            <Score state={state} onSame={() => begin({})} onNext={() => begin({ seed: seed + 1 })} />
          ) : (
            <>
              <Tick className="mb-2" checked={isGuided} onChange={(event) => setRun({ ...run, isGuided: event.target.checked })}>
                Show what the working says
              </Tick>
              {isGuided && guide ? (
                <p className="mb-2">
                  <b>{guide.words}</b>{' '}
                  {guide.act === move.act ? (
                    <Button variant="quiet" onClick={() => setText(String(guide.figure))}>
                      Take it
                    </Button>
                  ) : null}
                </p>
              ) : null}
              <FigureField
                label={move.label}
                quantity={move.quantity}
                unit={move.unit}
                text={text}
                onText={setText}
                onEnter={goes}
                least={move.quantity === 'length' ? 0 : practice === 'axle' ? 0 : -720}
                most={move.quantity === 'length' ? 20 : 720}
                isDeaf
              />
              <div className="keys">
                <Button variant="plain" disabled={figure.base === undefined} onClick={goes}>
                  {move.key}
                </Button>
                {practice === 'hub' ? (
                  <>
                    <Button variant="plain" onClick={() => does({ do: 'seat' })}>
                      Seat at 50 N·m, back 90°
                    </Button>
                    <Button variant="plain" disabled={state.isLocked} onClick={() => does({ do: 'lock' })}>
                      Lock
                    </Button>
                  </>
                ) : null}
                {practice === 'axle' ? (
                  <Button variant="plain" onClick={() => does({ do: 'renew' })}>
                    A new sleeve
                  </Button>
                ) : null}
                <Button variant="primary" onClick={() => does({ do: 'read' })}>
                  Read three times
                </Button>
                <Button variant="plain" disabled={acts.length === 0} onClick={() => setRun({ ...run, isOver: true })}>
                  It is set: how good?
                </Button>
              </div>
            </>
          )}
        </div>
        <div>
          {state.quantity === 'length' ? (
            <div className="drawing mb-2" style={{ maxWidth: 480 }}>
              <SettingLine name={NAMES[practice].name} {...state.window} tries={state.seen.flatMap(({ reading }) => reading ?? [])} />
            </div>
          ) : null}
          <ol aria-label="What was done">
            {state.seen.map(({ act, reading }, place) => (
              <li key={place}>
                {actWords(act)}
                {reading === undefined ? null : <b className="fig fs-5"> {write(reading, state)}</b>}
              </li>
            ))}
          </ol>
          {acts.length > 0 && !isOver ? (
            <Button variant="quiet" className="p-0" onClick={() => setRun({ ...run, acts: acts.slice(0, -1) })}>
              Take the last back
            </Button>
          ) : null}
        </div>
      </div>
    </>
  );
}

function Score({
  state,
  onSame,
  onNext,
}: {
  readonly state: Replay;
  readonly onSame: () => void;
  readonly onNext: () => void;
}): ReactElement {
  const { truth, window, tries } = state;
  const isIn = truth >= window.from && truth <= window.to;
  const middle = (window.from + window.to) / 2;
  return (
    <div role="status" className="score">
      <p className="mb-1">
        <b className={`fig fs-2 v-${isIn ? 'in' : 'out'}`}>{isIn ? 'in' : 'out'}</b> It really is{' '}
        <b className="fig fs-4">{write(truth, state)}</b>, off the middle by{' '}
        <span className="fig">{write(Math.abs(truth - middle), state)}</span>.
      </p>
      <p>
        <span className="fig fs-4">{tries}</span> {tries === 1 ? 'move' : 'moves'}.{' '}
        {isIn && tries <= 2 ? 'As good as it gets.' : 'The guide needs two as a rule.'}
      </p>
      <div className="keys">
        <Button variant="primary" onClick={onNext}>
          Another piece
        </Button>
        <Button variant="plain" onClick={onSame}>
          The same again
        </Button>
      </div>
    </div>
  );
}

function write(figure: number, { quantity, window }: Pick<Replay, 'quantity' | 'window'>): string {
  return formatQuantity(figure, quantity, undefined, window);
}

function actWords({ do: done, figure = 0 }: Act): string {
  switch (done) {
    case 'seat':
      return 'Seated, backed off';
    case 'lock':
      return 'Locked';
    case 'renew':
      return 'A new sleeve';
    case 'fit':
      return `Pack of ${formatQuantity(figure, 'length')} in`;
    case 'turn':
      return figure >= 0 ? `Turned on ${formatQuantity(figure, 'angle')}` : `Turned back ${formatQuantity(-figure, 'angle')}`;
    case 'read':
      return 'Read:';
  }
}
