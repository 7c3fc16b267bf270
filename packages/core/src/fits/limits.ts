import { microns, mm } from '../quantity/write.js';
import { defineWorking } from '../working/define.js';
import { ok, refuse, type Result } from '../working/issues.js';
import { zoneAt, type Zone } from './zones.js';

/**
 * What may this fit measure?
 *
 * Limits of hole and shaft from ISO 286: zone = fundamental deviation and standard tolerance of the
 * step that the size lies in. Play of the pair from hole least − shaft most to hole most − shaft least;
 * minus is interference. Holds from 0 to 500 mm, D to S and d to u, grades 5 to 11.
 *
 * Example: 50 H7/k6: hole 50 to 50.025, shaft 50.002 to 50.018 mm.
 */
export const fitLimits = defineWorking({
  id: 'fit.limits',
  title: 'What may this fit measure?',
  area: 'fits',
  inputs: [
    {
      kind: 'number',
      name: 'nominal',
      label: 'Nominal size',
      symbol: 'D',
      quantity: 'length',
      above: 0,
      max: 500,
      help: 'As in 50 H7/k6.',
    },
    { kind: 'text', name: 'hole', label: 'Hole', longest: 8, default: 'H7', help: 'H7, N7, JS6 …' },
    { kind: 'text', name: 'shaft', label: 'Shaft', longest: 8, default: 'k6', help: 'k6, h6, g6 …' },
  ],
  outputs: [
    { kind: 'number', name: 'holeLeast', label: 'Hole from', quantity: 'length', help: 'Least bore.' },
    { kind: 'number', name: 'holeMost', label: 'Hole to', quantity: 'length', help: 'Most bore.' },
    { kind: 'number', name: 'shaftLeast', label: 'Shaft from', quantity: 'length', help: 'Least shaft.' },
    { kind: 'number', name: 'shaftMost', label: 'Shaft to', quantity: 'length', help: 'Most shaft.' },
    { kind: 'number', name: 'playLeast', label: 'Play from', quantity: 'length', help: 'Minus is interference.' },
    { kind: 'number', name: 'playMost', label: 'Play to', quantity: 'length', help: 'Minus is interference.' },
    {
      kind: 'choice',
      name: 'sort',
      label: 'The fit is',
      choices: [
        { id: 'clearance', label: 'loose: always play' },
        { id: 'transition', label: 'either: play or interference' },
        { id: 'interference', label: 'tight: always interference' },
      ],
      help: 'By its limits.',
    },
  ],
  sources: [
    {
      kind: 'standard',
      document: 'ISO 286-1',
      edition: '2010',
      clause: 'tables 1 to 5',
      for: 'tolerances and deviations',
      fromMemory: true,
    },
  ],
  cautions: [],
  example: { nominal: 50, hole: 'H7', shaft: 'k6' },
  compute({ nominal, hole: holeName, shaft: shaftName }) {
    const hole = readZone('hole', holeName, nominal, true);
    if (!hole.ok) return hole;
    const shaft = readZone('shaft', shaftName, nominal, false);
    if (!shaft.ok) return shaft;
    const at = (micron: number): number => nominal + micron / 1000;
    const playLeast = (hole.value.lower - shaft.value.upper) / 1000;
    const playMost = (hole.value.upper - shaft.value.lower) / 1000;
    return ok({
      holeLeast: at(hole.value.lower),
      holeMost: at(hole.value.upper),
      shaftLeast: at(shaft.value.lower),
      shaftMost: at(shaft.value.upper),
      playLeast,
      playMost,
      sort: playLeast >= 0 ? ('clearance' as const) : playMost <= 0 ? ('interference' as const) : ('transition' as const),
    });
  },
  explain: (input, output) => [
    { say: `The hole ${input.hole}.`, numbers: `${mm(output.holeLeast)} to ${mm(output.holeMost)}` },
    { say: `The shaft ${input.shaft}.`, numbers: `${mm(output.shaftLeast)} to ${mm(output.shaftMost)}` },
    {
      say: 'The pair.',
      formula: 'hole least − shaft most, hole most − shaft least',
      numbers: `${microns(output.playLeast)} to ${microns(output.playMost)}`,
    },
  ],
  draw: (input, output) => ({
    kind: 'fit',
    bars: [
      { name: `hole ${input.hole}`, from: (output.holeLeast - input.nominal) * 1000, to: (output.holeMost - input.nominal) * 1000 },
      { name: `shaft ${input.shaft}`, from: (output.shaftLeast - input.nominal) * 1000, to: (output.shaftMost - input.nominal) * 1000 },
    ],
  }),
});

/** A zone by its name; refuses one of the other kind, or that the standard does not have. */
export function readZone(field: string, name: string, nominal: number, isHole: boolean): Result<Zone> {
  const isUpper = /^[A-Z]/u.test(name.trim());
  const zone = isUpper === isHole ? zoneAt(name, nominal) : undefined;
  if (zone) return { ok: true, value: zone };
  return refuse({
    code: 'not-a-choice',
    field,
    received: name,
    bound: isHole
      ? 'D E F G H J JS K M N P R S with a grade from 5 to 11, such as H7'
      : 'd e f g h j js k m n p r s t u with a grade from 5 to 11, such as k6',
  });
}
