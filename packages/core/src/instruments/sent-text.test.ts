import { describe, expect, test } from '@jest/globals';
import { findUnits } from '../quantity/units.js';
import { readScpiNumber, readTextLine, scpiUnit } from './sent-text.js';

describe('a line of text', () => {
  test.each([
    ['+0012.34 mm', { value: 12.34, unit: 'mm' }],
    ['12,34', { value: 12.34 }],
    ['- 0.5in', { value: -0.5, unit: 'in' }],
    ['  .254 mm \r', { value: 0.254, unit: 'mm' }],
    ['0', { value: 0 }],
    ['25.4 N·m', { value: 25.4, unit: 'N·m' }],
    ['18.6 lbf-ft', { value: 18.6, unit: 'lbf-ft' }],
    ['3,2 µm', { value: 3.2, unit: 'µm' }],
  ])('%j is read', (line, read) => expect(readTextLine(line)).toEqual(read));

  test.each(['', 'ready', '12.3.4 mm', '12 34 mm', '1e3', '12.34 mm 5', 'mm 12', '+-3', '1,234.5', '\u0000\ufffd12'])(
    '%j is no reading',
    (line) => expect(readTextLine(line)).toBeUndefined(),
  );
});

describe('SCPI', () => {
  // The three forms of IEEE 488.2: whole, fixed point, and with an exponent.
  test.each([
    ['+12', 12],
    ['-0.250', -0.25],
    ['+1.23456789E-03', 1.23456789e-3],
    ['.5e2', 50],
    ['9.9E37', 'over'],
    ['-9.90000000E+37', 'over'],
    ['9.91E37', undefined],
    ['', undefined],
    ['OVLD', undefined],
    ['1,5', undefined],
    ['12 V', undefined],
  ])('%j is %j', (answer, value) => expect(readScpiNumber(answer)).toBe(value));

  test.each([
    ['"VOLT"', 'V'],
    ['"VOLT:DC"', 'V'],
    ['VOLTAGE:AC', 'V'],
    ['"curr"', 'A'],
    ['"FRES"', 'Ω'],
    ['RESISTANCE', 'Ω'],
    ['"FREQ"', 'Hz'],
    ['"TEMP"', '°C'],
    ['"DIOD"', undefined],
    ['', undefined],
  ])('%j reads in %j', (answer, unit) => {
    expect(scpiUnit(answer)).toBe(unit);
    if (unit) expect(findUnits(unit).length).toBeGreaterThan(0);
  });
});
