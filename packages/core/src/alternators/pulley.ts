import { VERDICT } from '../measuring/verdict-field.js';
import { formatQuantity } from '../quantity/format.js';
import { defineWorking } from '../working/define.js';
import { ok, refuse } from '../working/issues.js';

/**
 * Does this pulley give enough at idle, and not too much at top speed?
 *
 * Ratio i = d_crank / d_alternator, on the belt's pitch line; rotor speed = engine speed · i.
 * Slip is left out (a ribbed belt loses 1 to 2 %).
 *
 * Example: 150 mm on 55 mm is 2.73: 2045 rpm at an idle of 750, 13 636 at 5000.
 */
export const pulley = defineWorking({
  id: 'alternator.pulley',
  title: 'Does this pulley suit, at idle and at top speed?',
  area: 'alternators',
  inputs: [
    {
      kind: 'number',
      name: 'crank',
      label: 'Driving pulley',
      quantity: 'length',
      above: 0,
      max: 2000,
      help: 'Effective diameter, on the cords of the belt.',
    },
    {
      kind: 'number',
      name: 'own',
      label: 'Pulley of the unit',
      quantity: 'length',
      above: 0,
      max: 2000,
      help: 'Effective diameter, on the cords of the belt.',
    },
    { kind: 'number', name: 'idle', label: 'Engine at idle', quantity: 'speed', above: 0, max: 20_000, help: 'Warm.' },
    { kind: 'number', name: 'top', label: 'Engine at most', quantity: 'speed', above: 0, max: 30_000, help: 'Governed or red line.' },
    {
      kind: 'number',
      name: 'least',
      label: 'Rotor at least',
      quantity: 'speed',
      min: 0,
      max: 30_000,
      default: 1500,
      help: 'At idle: where it gives what is needed.',
    },
    { kind: 'number', name: 'most', label: 'Rotor at most', quantity: 'speed', above: 0, max: 60_000, help: 'From the sheet.' },
  ],
  outputs: [
    VERDICT,
    { kind: 'number', name: 'ratio', label: 'Ratio', quantity: 'ratio', help: 'Rotor turns for one of the engine.' },
    { kind: 'number', name: 'atIdle', label: 'Rotor at idle', quantity: 'speed', help: 'Slip left out.' },
    { kind: 'number', name: 'atTop', label: 'Rotor at most', quantity: 'speed', help: 'Slip left out.' },
    { kind: 'text', name: 'fits', label: 'Would suit', longest: 120, help: 'Pulleys of the unit that do both.' },
  ],
  sources: [{ kind: 'derivation', document: 'equal belt speed on both pulleys', for: 'the ratio' }],
  cautions: ['Over its top speed a rotor comes apart.'],
  example: { crank: 150, own: 55, idle: 750, top: 5000, most: 18_000 },
  compute(input) {
    if (input.top < input.idle)
      return refuse({
        code: 'window-upside-down',
        field: 'top',
        received: formatQuantity(input.top, 'speed'),
        bound: formatQuantity(input.idle, 'speed'),
      });
    const ratio = input.crank / input.own;
    const [atIdle, atTop] = [input.idle * ratio, input.top * ratio];
    const [small, large] = [
      (input.crank * input.top) / input.most,
      input.least === 0 ? Number.POSITIVE_INFINITY : (input.crank * input.idle) / input.least,
    ];
    return ok({
      verdict: atIdle >= input.least && atTop <= input.most ? ('in' as const) : ('out' as const),
      ratio,
      atIdle,
      atTop,
      fits:
        small > large
          ? 'none: the engine turns through too wide a range for this unit'
          : `${formatQuantity(small, 'length')} to ${Number.isFinite(large) ? formatQuantity(large, 'length') : 'any larger'}`,
    });
  },
  explain: (input, output) => [
    {
      say: 'Ratio.',
      formula: 'i = d_crank / d_unit',
      numbers: `${formatQuantity(input.crank, 'length')} / ${formatQuantity(input.own, 'length')} = ${output.ratio.toFixed(3)}`,
    },
    {
      say: 'Rotor speeds.',
      formula: 'n · i',
      numbers: `${formatQuantity(output.atIdle, 'speed')} to ${formatQuantity(output.atTop, 'speed')}; allowed ${formatQuantity(input.least, 'speed')} to ${formatQuantity(input.most, 'speed')}: ${output.verdict}`,
    },
    { say: 'Pulleys that do both.', numbers: output.fits },
  ],
});
