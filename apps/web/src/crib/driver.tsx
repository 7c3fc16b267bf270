import { quantitiesOf } from '@jubb/sheet';
import { ENDPOINTS, type InstrumentView, type LinesView } from '@jubb/wire';
import {
  FASTENERS,
  FAULTS,
  StandIn,
  baseUnit,
  formatQuantity,
  standInFor,
  type Fastener,
  type Fault,
  type Quantity,
  type StandInLine,
} from '@jubb/core';
import { useEffect, useId, useRef, useState, type ReactElement } from 'react';
import FormLabel from 'react-bootstrap/FormLabel';
import FormSelect from 'react-bootstrap/FormSelect';
import FormControl from 'react-bootstrap/FormControl';
import Button from 'react-bootstrap/Button';
import { upload } from '../link/client.ts';
import { FigureField, readFigure } from '../kit/figure-field.tsx';
import { useUnits } from '../kit/units.ts';

interface DriverProps {
  readonly instrument: InstrumentView;
  readonly lastN: number;
  readonly onAnswer: (answer: LinesView) => void;
  readonly onError: (error: unknown) => void;
}

const LIVE_MS = 300;
/** A bolt of middling length: snug at a tenth of its torque, the rest within an eighth of a turn. */
const SNUG_SHARE = 0.1;
const DEGREES_TO_FULL = 45;
const MOST_SEED = 1_000_000;

/** Drives the stand-in of an instrument: held to a size that is typed, with faults and a seed, it sends as the real one would. */
export function Driver({ instrument: { id, tool, clicks }, lastN, onAnswer, onError }: DriverProps): ReactElement {
  const units = useUnits();
  const field = useId();
  const isWrench = tool.kind === 'torque-wrench';
  const quantities = quantitiesOf(tool);
  const [quantity, setQuantity] = useState(tool.quantity);
  const unit = quantity === tool.quantity && tool.unit !== '' ? tool.unit : baseUnit(quantity).symbol;
  const [text, setText] = useState(() => formatQuantity((tool.low + tool.high) / 3, tool.quantity, tool.unit));
  const [seed, setSeed] = useState('1');
  const [faults, setFaults] = useState<readonly Fault[]>([]);
  const [fastener, setFastener] = useState<Fastener>('good');
  const [isLive, setLive] = useState(false);
  const standIn = useRef<{ seed: string; it: StandIn; at: number }>(undefined);
  const lastSent = useRef(lastN);
  const truth = readFigure(text, quantity, units.symbol(quantity)).base;
  const own = (): StandIn => {
    const key = `${seed} ${quantity}`;
    if (standIn.current?.seed !== key) {
      const made = new StandIn(
        standInFor({ ...tool, quantity, unit }, clicks),
        Number(seed) % MOST_SEED || 1,
        Math.max(lastN, lastSent.current),
      );
      standIn.current = { seed: key, it: made, at: performance.now() };
    }
    return standIn.current!.it;
  };
  const send = async (lines: readonly StandInLine[]): Promise<void> => {
    if (lines.length === 0) return;
    lastSent.current = lines.at(-1)?.n ?? lastSent.current;
    const body = lines.map((line) => JSON.stringify(line)).join('\n');
    try {
      onAnswer(await upload(ENDPOINTS.instruments.lines, { id }, 'application/x-ndjson', body));
      onError(undefined);
    } catch (error) {
      setLive(false);
      onError(error);
    }
  };
  const read = (taken: boolean): void => {
    if (truth === undefined) return;
    const it = own();
    const now = performance.now();
    const seconds = (now - (standIn.current?.at ?? now)) / 1000;
    if (standIn.current) standIn.current.at = now;
    void send([it.read(truth, seconds, faults, taken)]);
  };
  const pull = (): void => {
    if (truth === undefined) return;
    const stiffness = (truth * (1 - SNUG_SHARE)) / DEGREES_TO_FULL;
    void send(own().pull({ snug: truth * SNUG_SHARE, stiffness, wanted: truth, fastener }, faults));
  };
  const latest = useRef(read);
  useEffect(() => {
    latest.current = read;
  });
  useEffect(() => {
    if (!isLive) return;
    const beat = setInterval(() => latest.current(false), LIVE_MS);
    return () => clearInterval(beat);
  }, [isLive]);
  return (
    <div className="driver">
      <FigureField
        label={isWrench ? 'Pulled to' : 'Held to'}
        quantity={quantity}
        unit={unit}
        text={text}
        onText={setText}
        onEnter={() => (isWrench ? pull() : read(true))}
        isDeaf
      />
      {quantities.length > 1 ? (
        <div>
          <FormLabel htmlFor={`${field}-range`}>Switched to</FormLabel>
          <FormSelect
            id={`${field}-range`}
            value={quantity}
            onChange={(event) => {
              setQuantity(event.target.value as Quantity);
              setText('');
            }}
          >
            {quantities.map((one) => (
              <option key={one}>{one}</option>
            ))}
          </FormSelect>
        </div>
      ) : null}
      {isWrench ? (
        <div>
          <FormLabel htmlFor={`${field}-fastener`}>Fastener</FormLabel>
          <FormSelect id={`${field}-fastener`} value={fastener} onChange={(event) => setFastener(event.target.value as Fastener)}>
            {FASTENERS.map((one) => (
              <option key={one}>{one}</option>
            ))}
          </FormSelect>
        </div>
      ) : null}
      <div>
        <FormLabel htmlFor={`${field}-seed`}>Seed</FormLabel>
        <FormControl
          id={`${field}-seed`}
          className="seed"
          inputMode="numeric"
          value={seed}
          onChange={(event) => setSeed(event.target.value.replaceAll(/\D/gu, ''))}
        />
      </div>
      <fieldset>
        <legend className="form-label">Faults</legend>
        <div className="d-flex flex-wrap gap-2">
          {FAULTS.map((fault) => (
            <Button
              key={fault}
              variant="plain"
              className={faults.includes(fault) ? 'on' : ''}
              aria-pressed={faults.includes(fault)}
              onClick={() => setFaults(faults.includes(fault) ? faults.filter((other) => other !== fault) : [...faults, fault])}
            >
              {fault}
            </Button>
          ))}
        </div>
      </fieldset>
      <div className="keys">
        {isWrench ? (
          <Button variant="primary" onClick={pull}>
            Pull
          </Button>
        ) : (
          <>
            <Button variant="primary" onClick={() => read(true)}>
              Send
            </Button>
            <Button variant="plain" aria-pressed={isLive} onClick={() => setLive(!isLive)}>
              {isLive ? 'Stop' : 'Run on'}
            </Button>
            {quantities.length > 1 ? (
              <Button variant="plain" onClick={() => void send([own().open()])}>
                Shows OL
              </Button>
            ) : null}
          </>
        )}
      </div>
    </div>
  );
}
