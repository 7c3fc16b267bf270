import { at20 } from '@jubb/book';
import { PART_METALS, type PartMetal, type ToolKind } from '@jubb/sheet';
import { formatQuantity, type Quantity } from '@jubb/core';
import { useId, type ReactElement } from 'react';
import FormControl from 'react-bootstrap/FormControl';
import FormSelect from 'react-bootstrap/FormSelect';
import { readFigure } from '../../kit/figure-field.tsx';
import { Tick } from '../../kit/tick.tsx';

/** What is done to a tool before it is believed; common practice. */
const ZEROING: Partial<Record<ToolKind, string>> = {
  micrometer: 'Wipe the anvils, close them on the setting rod: does it read its length?',
  calliper: 'Wipe the jaws and close them: does it read 0?',
  'bore-gauge': 'Set it to 0 in its setting ring or between a micrometer, and rock it for the least.',
  'depth-gauge': 'Stand it on a flat plate: does it read 0?',
  'dial-indicator': 'Firm foot, stem square to the face, a turn of preload; turn the bezel to 0, lift and let go twice: back at 0?',
  multimeter: 'Hold the leads together first: take what they show off every low resistance.',
  'pressure-gauge': 'Open to the air: does it rest at 0?',
  'spring-balance': 'Hang it empty, in the way it will be pulled: does it rest at 0?',
  scale: 'Empty and level: does it show 0?',
  'feeler-gauge': 'Wipe the leaves; one that drags a little and no thicker one that goes in.',
};

const METAL_WORDS: Readonly<Record<PartMetal, string>> = {
  steel: 'steel',
  'cast-iron': 'cast iron',
  aluminium: 'aluminium',
  brass: 'brass',
  bronze: 'bronze',
  stainless: 'stainless steel',
};

export interface BeforeTyped {
  readonly zeroed: boolean;
  readonly partT: string;
  readonly metal: PartMetal;
}

export const BEFORE_EMPTY: BeforeTyped = { zeroed: false, partT: '', metal: 'steel' };
const COLDEST_C = -40;
const WARMEST_C = 150;

export interface Before {
  readonly zeroed?: boolean;
  readonly warm?: { readonly partT: number; readonly metal: PartMetal };
}

/** What stands in a reading of it; nothing of a temperature that is none. */
export function beforeOf({ zeroed, partT, metal }: BeforeTyped): Before {
  const { base } = readFigure(partT, 'temperature', '°C', { least: COLDEST_C, most: WARMEST_C });
  return { ...(zeroed ? { zeroed } : {}), ...(base === undefined ? {} : { warm: { partT: base, metal } }) };
}

interface BeforeReadingProps {
  readonly toolKind: ToolKind | undefined;
  readonly quantity: Quantity;
  readonly typed: BeforeTyped;
  readonly readings: readonly number[];
  readonly onTyped: (typed: BeforeTyped) => void;
}

/** The zero of the tool, and the part's warmth where a size hangs on it. */
export function BeforeReading({ toolKind, quantity, typed, readings, onTyped }: BeforeReadingProps): ReactElement | null {
  const id = useId();
  const zeroing = toolKind && ZEROING[toolKind];
  const isLength = quantity === 'length';
  if (!zeroing && !isLength) return null;
  const { warm } = beforeOf(typed);
  const wrong = typed.partT.trim() !== '' && !warm;
  const last = readings.at(-1);
  const cold = warm && last !== undefined ? at20({ readings: [last], warm }).readings[0] : undefined;
  return (
    <div className="mt-2">
      {zeroing ? (
        <Tick className="mb-1" checked={typed.zeroed} onChange={(event) => onTyped({ ...typed, zeroed: event.target.checked })}>
          <span>
            Zero checked. <span className="soft">{zeroing}</span>
          </span>
        </Tick>
      ) : null}
      {isLength ? (
        <div className="d-flex flex-wrap align-items-baseline gap-2">
          <label htmlFor={`${id}-t`}>Part at</label>
          <FormControl
            id={`${id}-t`}
            className={`fig ${wrong ? 'is-invalid' : ''}`}
            style={{ width: 90 }}
            inputMode="decimal"
            autoComplete="off"
            maxLength={10}
            placeholder="20"
            aria-invalid={wrong}
            value={typed.partT}
            onChange={(event) => onTyped({ ...typed, partT: event.target.value })}
          />
          <span className="fig">°C</span>
          {typed.partT.trim() === '' ? null : (
            <FormSelect
              className="w-auto"
              aria-label="Part of"
              value={typed.metal}
              onChange={(event) => onTyped({ ...typed, metal: event.target.value as PartMetal })}
            >
              {PART_METALS.map((metal) => (
                <option key={metal} value={metal}>
                  {METAL_WORDS[metal]}
                </option>
              ))}
            </FormSelect>
          )}
          {wrong ? (
            <span className="v-out">
              from {COLDEST_C} to {WARMEST_C} °C
            </span>
          ) : null}
          {cold !== undefined && last !== undefined ? (
            <span>
              <span className="fig">{formatQuantity(last, 'length')}</span> is <b className="fig">{formatQuantity(cold, 'length')}</b> at 20
              °C: that is judged.
            </span>
          ) : null}
        </div>
      ) : null}
    </div>
  );
}
