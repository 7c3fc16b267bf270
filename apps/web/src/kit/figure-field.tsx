import type { LiveLine } from '@jubb/wire';
import { OPEN_OHM, formatQuantity, fromBase, parseQuantity, readOpen, unitBySymbol, wording, type Quantity } from '@jubb/core';
import { useEffect, useId, useLayoutEffect, useRef, useState, type ReactElement } from 'react';
import Button from 'react-bootstrap/Button';
import FormLabel from 'react-bootstrap/FormLabel';
import FormControl from 'react-bootstrap/FormControl';
import { useLines } from '../link/use-lines.ts';
import { useUnits } from './units.ts';

interface FigureFieldProps {
  readonly label: string;
  readonly quantity: Quantity;
  readonly text: string;
  readonly onText: (text: string) => void;
  readonly onEnter?: () => void;
  /** Unit of a bare figure, when it is not this device's own. */
  readonly unit?: string;
  /** Least and most that can be meant, in base units: a 40 m journal is a slip. */
  readonly least?: number;
  readonly most?: number;
  readonly focus?: boolean;
  /** Shown only once something was typed or tried. */
  readonly tried?: boolean;
  /** Takes nothing from instruments. */
  readonly isDeaf?: boolean;
  /** Asked of every reading that an instrument sends while the field has the focus: why it is not taken, if it is not. */
  readonly against?: (line: LiveLine) => string | undefined;
}

export interface FigureRead {
  readonly base?: number;
  /** Symbol of the unit it was given in. */
  readonly unit?: string;
  /** As it was typed, its unit written out. */
  readonly text?: string;
  readonly problem?: string;
}

/** Reads a typed figure; the problem is a sentence that says what would be right. */
export function readFigure(text: string, quantity: Quantity, unit: string, bounds: { least?: number; most?: number } = {}): FigureRead {
  if (quantity === 'resistance' && readOpen(text, quantity) === Number.POSITIVE_INFINITY) return { base: OPEN_OHM, unit: 'MΩ', text: 'OL' };
  const parsed = parseQuantity(text, quantity, 'figure', unit);
  const say = (issue: Parameters<typeof wording>[0]): string => wording({ ...issue, label: 'This' }).replace(/^This: /u, '');
  if (!parsed.ok) return { problem: say(parsed.issue) };
  const { base, unit: given, unitTyped } = parsed.quantity;
  const { least = Number.NEGATIVE_INFINITY, most = Number.POSITIVE_INFINITY } = bounds;
  if (base < least) return { problem: `"${text.trim()}" is too small here: at least ${formatQuantity(least, quantity, given.symbol)}` };
  if (base > most)
    return {
      problem: `"${text.trim()}" is too large here: at most ${formatQuantity(most, quantity, given.symbol)}; check the unit and the decimal sign`,
    };
  if (quantity === 'count' && !Number.isInteger(base)) return { problem: `"${text.trim()}" is not a whole number` };
  return { base, unit: given.symbol, text: unitTyped ? text.trim() : `${text.trim()} ${given.symbol}`.trim() };
}

/** One figure with its unit beside it. Comma or point, any unit; Enter goes on. */
export function FigureField({
  label,
  quantity,
  text,
  onText,
  onEnter,
  unit,
  least,
  most,
  focus = false,
  tried = false,
  against,
  isDeaf = false,
}: FigureFieldProps): ReactElement {
  const units = useUnits();
  const id = useId();
  const input = useRef<HTMLInputElement>(null);
  const symbol = unit ?? units.symbol(quantity);
  const { problem } = readFigure(text, quantity, symbol, {
    ...(least === undefined ? {} : { least }),
    ...(most === undefined ? {} : { most }),
  });
  const shown = (text !== '' || tried) && problem !== undefined ? problem : undefined;
  const [refused, setRefused] = useState<string>();
  const sent = useRef<string>(undefined);
  const take = (line: LiveLine): void => {
    const why = lineRefusal(line, quantity) ?? against?.(line);
    setRefused(why);
    if (why !== undefined) return;
    sent.current = lineText(line);
    onText(sent.current);
  };
  const live = useLines(!isDeaf, (line) => {
    if (document.activeElement === input.current) take(line);
  });
  // A reading that was sent is taken as if Enter had been pressed, once it stands in the field.
  useEffect(() => {
    if (sent.current !== text) return;
    sent.current = undefined;
    onEnter?.();
  });
  // Before the first paint: what is typed at once must land in the field.
  useLayoutEffect(() => {
    if (focus) input.current?.focus();
  }, [focus]);
  return (
    <div>
      <FormLabel htmlFor={id}>{label}</FormLabel>
      <div className="d-flex align-items-baseline gap-2">
        <FormControl
          id={id}
          ref={input}
          className={`num-field ${shown ? 'is-invalid' : ''}`}
          inputMode="decimal"
          data-quantity={quantity}
          autoComplete="off"
          spellCheck={false}
          value={text}
          aria-invalid={shown !== undefined}
          aria-describedby={`${id}-problem`}
          onChange={(event) => {
            setRefused(undefined);
            onText(event.target.value);
          }}
          onKeyDown={(event) => {
            if (event.key !== 'Enter' || !onEnter) return;
            event.preventDefault();
            onEnter();
          }}
        />
        <span className="fig fs-3">{symbol}</span>
        {live?.quantity === quantity && live.base !== null ? (
          <>
            <span className="fig fs-4 soft text-nowrap" aria-label="The instrument reads">
              {formatQuantity(live.base, quantity, live.unit)}
              {live.battery === 'low' ? <b className="v-unsure"> battery low</b> : null}
            </span>
            {/* One that has no key of its own. */}
            <Button
              variant="plain"
              onClick={() => {
                take(live);
                input.current?.focus();
              }}
            >
              Take it
            </Button>
          </>
        ) : null}
      </div>
      <div id={`${id}-problem`} className="v-out" aria-live="polite">
        {refused ?? shown}
      </div>
    </div>
  );
}

/** Why a reading cannot stand here: of another quantity, a click without a figure, or marked by the server. */
function lineRefusal({ quantity: sent, base, marked }: LiveLine, wanted: Quantity): string | undefined {
  if (sent !== wanted) return `The instrument sent ${sent}; here a ${wanted} is asked`;
  // A meter without a figure shows an open circuit.
  if (base === null && wanted !== 'resistance') return 'The wrench clicked; it has no figure to give';
  return marked === undefined ? undefined : `Not taken: ${marked}`;
}

/** As the instrument shows it, its unit with it. */
export function lineText({ base, quantity, unit }: LiveLine): string {
  if (base === null) return 'OL';
  const figure = fromBase(base, unitBySymbol(quantity, unit));
  return `${Number(figure.toPrecision(9))} ${unit}`;
}
