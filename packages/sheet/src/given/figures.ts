import { formatQuantity, parseQuantity, wording, type Issue, type ParsedQuantity, type Quantity } from '@jubb/core';
import { registerDecorator, type ValidationOptions } from 'class-validator';

/** What a figure of a sheet can be, in base units: a pull of −5 N·m or a journal of 40 m is a slip of the pen. */
const PLAUSIBLE: Partial<Record<Quantity, { readonly least: number; readonly most: number }>> = {
  torque: { least: 0, most: 20_000 },
  length: { least: -5000, most: 5000 },
  pitch: { least: 0, most: 20 },
  mass: { least: 0, most: 100_000 },
  volume: { least: 0, most: 10_000 },
  angle: { least: 0, most: 3600 },
  ratio: { least: 0, most: 1 },
  time: { least: 0, most: 100 * 24 * 3600 },
  force: { least: 0, most: 1e6 },
  resistance: { least: 0, most: 1e12 },
  current: { least: 0, most: 10_000 },
  voltage: { least: -1000, most: 1000 },
  speed: { least: 0, most: 300_000 },
  temperature: { least: -100, most: 1500 },
  pressure: { least: -0.11, most: 500 },
  flow: { least: 0, most: 1e6 },
  unbalance: { least: 0, most: 1e9 },
  count: { least: 0, most: 10_000 },
};

/** Sizes of a reading that can be meant, in base units: a minus is a reading too. */
export function plausibleReading(quantity: Quantity): { readonly least: number; readonly most: number } {
  const most = PLAUSIBLE[quantity]?.most ?? Number.MAX_VALUE;
  return { least: -most, most: quantity === 'length' ? LONGEST_MM : most };
}

/** Nothing that a bench measures is longer. */
const LONGEST_MM = 2000;

type SheetFigure = { readonly ok: true; readonly quantity: ParsedQuantity } | { readonly ok: false; readonly message: string };

/**
 * Reads a figure of a sheet: of the quantity, with its unit, and of a size that can be meant. The
 * end of a window may be nothing (`mayBeZero`); a torque or a mass may not.
 */
export function readSheetFigure(text: string, quantity: Quantity, mayBeZero: boolean): SheetFigure {
  const refuse = (issue: Omit<Issue, 'field'>): SheetFigure => ({
    ok: false,
    message: wording({ ...issue, field: '' }).replace(/^: /u, ''),
  });
  const parsed = parseQuantity(text, quantity, '');
  if (!parsed.ok) return refuse(parsed.issue);
  const { base, unit, unitTyped } = parsed.quantity;
  // Who reads a sheet does not know which units its author thinks in; a plain number has none.
  if (!unitTyped && unit.symbol !== '') return refuse({ code: 'unit-missing', received: text.trim(), quantity });
  const { least, most } = PLAUSIBLE[quantity] ?? { least: Number.NEGATIVE_INFINITY, most: Number.POSITIVE_INFINITY };
  const received = text.trim();
  if (base < least) return refuse({ code: 'too-small', received, bound: formatQuantity(least, quantity) });
  if (base === least && least === 0 && !mayBeZero) return refuse({ code: 'too-small', received, bound: 'more than nothing' });
  if (base > most) return refuse({ code: 'too-large', received, bound: formatQuantity(most, quantity) });
  return parsed;
}

/** A figure with its unit, of one of the quantities: "108 N·m" where a torque is asked. */
export function IsFigure(quantities: Quantity | readonly Quantity[], options?: ValidationOptions): PropertyDecorator {
  const wanted = typeof quantities === 'string' ? [quantities] : quantities;
  const readAny = (received: string): SheetFigure => {
    const reads = wanted.map((quantity) => readSheetFigure(received, quantity, false));
    return reads.find((read) => read.ok) ?? reads[0] ?? { ok: false, message: 'is not a figure' };
  };
  return (target, property) => {
    registerDecorator({
      name: 'isFigure',
      target: target.constructor,
      propertyName: String(property),
      ...(options ? { options } : {}),
      constraints: [wanted],
      validator: {
        validate: (received: unknown) => typeof received === 'string' && readAny(received).ok,
        defaultMessage: (args) => {
          if (typeof args?.value !== 'string') return `must be text: a ${wanted.join(' or ')} with its unit`;
          const read = readAny(args.value);
          return read.ok ? '' : read.message;
        },
      },
    });
  };
}
