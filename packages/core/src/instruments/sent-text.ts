/** A figure as an instrument sent it, and the unit that stood beside it. */
export interface SentFigure {
  readonly value: number;
  readonly unit?: string;
}

const TEXT_LINE = /^\s*(?<sign>[+-]?)\s*(?<figure>\d+(?:[.,]\d+)?|[.,]\d+)\s*(?<unit>[\p{L}°"%·⋅/²³-]*)\s*$/u;

/**
 * A line of text as callipers, indicators, scales and wrenches send one at the press of their key: sign, figure with point or
 * comma, and its unit where it says one, with blanks between as it likes. Nothing for any other line. Common practice.
 */
export function readTextLine(line: string): SentFigure | undefined {
  const { sign, figure, unit } = TEXT_LINE.exec(line)?.groups ?? {};
  if (figure === undefined) return undefined;
  const value = Number(`${sign}${figure.replace(',', '.')}`);
  return unit ? { value, unit } : { value };
}

/** Decimal numeric response data: NR1, NR2 and NR3 (IEEE 488.2, 8.7.2 to 8.7.4; from memory). */
const DECIMAL = /^\s*[+-]?(?:\d+\.?\d*|\.\d+)(?:E[+-]?\d+)?\s*$/iu;
/** What SCPI answers for infinity, and for what is not a number (SCPI-1999, volume 1, 7.2.1.4; from memory). */
const INFINITE = 9.9e37;
const NO_NUMBER = 9.91e37;

/** An instrument's numeric answer: "over" where it is past its range, nothing where it is no figure. */
export function readScpiNumber(answer: string): number | 'over' | undefined {
  if (!DECIMAL.test(answer)) return undefined;
  const value = Number(answer);
  if (value === NO_NUMBER) return undefined;
  return Math.abs(value) >= INFINITE ? 'over' : value;
}

/** The unit of each function's readings unless it is told otherwise (SCPI-1999, volume 2, SENSe:FUNCtion; from memory). */
const SCPI_UNITS: Readonly<Record<string, string>> = { VOLT: 'V', CURR: 'A', RES: 'Ω', FRES: 'Ω', FREQ: 'Hz', TEMP: '°C' };
const LONG_NAMES: Readonly<Record<string, string>> = {
  VOLTAGE: 'VOLT',
  CURRENT: 'CURR',
  RESISTANCE: 'RES',
  FRESISTANCE: 'FRES',
  FREQUENCY: 'FREQ',
  TEMPERATURE: 'TEMP',
};

/** The unit that an instrument reads in, by what it answers to FUNCtion?, such as "VOLT:DC"; nothing of a function that is not known here. */
export function scpiUnit(answer: string): string | undefined {
  const [name = ''] = answer.trim().replaceAll('"', '').toUpperCase().split(/[: ]/u);
  return SCPI_UNITS[LONG_NAMES[name] ?? name];
}
