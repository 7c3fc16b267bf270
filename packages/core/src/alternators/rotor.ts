import { judge } from '../measuring/verdict.js';
import { VERDICT, worstOf } from '../measuring/verdict-field.js';
import { formatQuantity } from '../quantity/format.js';
import { readOpen } from '../quantity/open.js';
import { defineWorking } from '../working/define.js';
import { ok, refuse } from '../working/issues.js';
import { COPPER_SOURCE, INSULATION_SOURCE, copperAt20 } from './copper.js';
import { EARTH_FIELD, earthWords, isEarthed, readEarth } from './earth.js';

/**
 * Is the rotor's winding sound?
 *
 * R = read − leads; R20 = R / (1 + 0.00393·(t − 20)); field current as measured I = V / R, and at 20 °C V / R20. Turns
 * that are shorted lower the resistance in their share: 1 − R20 / R_new. Slip ring to slip ring;
 * open is a broken winding or a lead off its ring.
 *
 * Example: 2.95 Ω at 38 °C with 0.15 Ω of leads is 2.615 Ω at 20 °C: 4.82 A at 13.5 V as it is, 5.16 A at 20 °C.
 */
export const rotor = defineWorking({
  id: 'alternator.rotor',
  title: "Is the rotor's winding sound?",
  area: 'alternators',
  inputs: [
    { kind: 'text', name: 'read', label: 'Ring to ring', longest: 40, help: 'As the meter shows it: "2.95 Ω", or "OL".' },
    {
      kind: 'number',
      name: 'leads',
      label: 'Leads',
      quantity: 'resistance',
      min: 0,
      max: 10,
      default: 0,
      help: 'What it shows with the probes together; 0 when zeroed.',
    },
    {
      kind: 'number',
      name: 'temperature',
      label: 'Winding at',
      quantity: 'temperature',
      min: -40,
      max: 200,
      default: 20,
      help: 'A machine that has just run is hot.',
    },
    { kind: 'number', name: 'lower', label: 'Least at 20 °C', quantity: 'resistance', above: 0, max: 1000, help: 'From the sheet.' },
    { kind: 'number', name: 'upper', label: 'Most at 20 °C', quantity: 'resistance', above: 0, max: 1000, help: 'From the sheet.' },
    {
      kind: 'number',
      name: 'voltage',
      label: 'Voltage',
      quantity: 'voltage',
      above: 0,
      max: 100,
      default: 13.5,
      help: 'At which the field current is meant.',
    },
    EARTH_FIELD,
    {
      kind: 'number',
      name: 'meterU',
      label: 'Uncertainty of the meter',
      quantity: 'resistance',
      min: 0,
      max: 10,
      default: 0.05,
      help: 'Standard (k = 1), at this reading.',
    },
  ],
  outputs: [
    VERDICT,
    {
      kind: 'number',
      name: 'at20',
      label: 'At 20 °C',
      quantity: 'resistance',
      optional: true,
      help: 'Leads taken off; nothing when open.',
    },
    {
      kind: 'number',
      name: 'current',
      label: 'Field current at 20 °C',
      quantity: 'current',
      optional: true,
      help: 'At the voltage given: to hold against the sheet.',
    },
    {
      kind: 'number',
      name: 'currentNow',
      label: 'Field current as measured',
      quantity: 'current',
      optional: true,
      help: 'At the voltage given and the temperature it has: what an ammeter shows now.',
    },
    {
      kind: 'number',
      name: 'shorted',
      label: 'Turns shorted, about',
      quantity: 'ratio',
      optional: true,
      help: 'Against the middle of the window, when it reads low.',
    },
    { kind: 'text', name: 'what', label: 'What it is', longest: 300, help: 'The fault, named.' },
  ],
  sources: [COPPER_SOURCE, INSULATION_SOURCE],
  cautions: ['Off the machine, battery disconnected. A rotor that has just run burns.'],
  serves: [{ at: 'measure', families: ['alternator'], about: /rotor/iu }],
  example: { read: '2.95 Ω', leads: 0.15, temperature: 38, lower: 2.4, upper: 2.8 },
  compute(input) {
    if (input.upper < input.lower)
      return refuse({
        code: 'window-upside-down',
        field: 'upper',
        received: formatQuantity(input.upper, 'resistance'),
        bound: formatQuantity(input.lower, 'resistance'),
      });
    const earth = readEarth(input.earth);
    if ('issue' in earth) return refuse(earth.issue);
    const read = readOpen(input.read, 'resistance');
    if (Number.isNaN(read) || read < 0)
      return refuse({ code: 'not-a-meter-reading', field: 'read', received: input.read, quantity: 'resistance' });
    if (read < input.leads)
      return refuse({ code: 'under-its-leads', field: 'read', received: input.read, bound: formatQuantity(input.leads, 'resistance') });
    const earthed = isEarthed(earth.ohm) ? `Earthed: ${earthWords(earth.ohm)} to the shaft. ` : '';
    if (read === Number.POSITIVE_INFINITY)
      return ok({
        verdict: 'out' as const,
        at20: undefined,
        current: undefined,
        currentNow: undefined,
        shorted: undefined,
        what: `${earthed}Open: a break in the winding, or a lead off its slip ring.`,
      });
    const at20Ohm = copperAt20(read - input.leads, input.temperature);
    const wound = judge(at20Ohm, copperAt20(input.meterU, input.temperature), { lower: input.lower, upper: input.upper });
    const middle = (input.lower + input.upper) / 2;
    const low = at20Ohm < input.lower;
    return ok({
      verdict: worstOf([wound, earthed === '' ? 'in' : 'out']),
      at20: at20Ohm,
      current: at20Ohm === 0 ? undefined : input.voltage / at20Ohm,
      currentNow: at20Ohm === 0 ? undefined : input.voltage / (read - input.leads),
      shorted: low ? 1 - at20Ohm / middle : undefined,
      what: earthed + windingWords(wound, at20Ohm, low),
    });
  },
  explain(input, output) {
    if (output.at20 === undefined) return [{ say: output.what }];
    const ohm = (figure: number): string => formatQuantity(figure, 'resistance', undefined, { from: input.lower, to: input.upper });
    return [
      {
        say: 'Leads off, and brought to 20 °C.',
        formula: 'R20 = (R − leads) / (1 + 0.00393·(t − 20))',
        numbers: `(${input.read} − ${ohm(input.leads)}) at ${formatQuantity(input.temperature, 'temperature')} = ${ohm(output.at20)}`,
      },
      ...(output.current === undefined || output.currentNow === undefined
        ? []
        : [
            {
              say: 'Field current, as it is and at 20 °C.',
              formula: 'I = V / R, V / R20',
              numbers: `${formatQuantity(output.currentNow, 'current')}, ${formatQuantity(output.current, 'current')}`,
            },
          ]),
      { say: `Window ${ohm(input.lower)} to ${ohm(input.upper)}: ${output.verdict}. ${output.what}` },
    ];
  },
});

function windingWords(verdict: string, at20Ohm: number, low: boolean): string {
  if (at20Ohm === 0) return 'Dead short from ring to ring.';
  if (verdict === 'in') return 'The winding is as it should be.';
  if (verdict === 'unsure') return 'Too near its limit for this meter: measure by four wires, or by voltage and current.';
  return low
    ? 'Shorted turns: too little resistance.'
    : 'Too much resistance: a bad joint at a slip ring, or a burnt track. Clean the rings and measure again.';
}
