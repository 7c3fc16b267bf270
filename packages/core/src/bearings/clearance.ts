import { EXPANSION } from '../measuring/materials.js';
import { microns, mm } from '../quantity/write.js';
import { defineWorking } from '../working/define.js';
import { ok, refuse } from '../working/issues.js';
import { INCH_HAIR_MM } from '../measuring/nominal.js';
import { CLEARANCE, GROUPS, type Group } from './clearance-table.js';

/**
 * CN or C3: what is left once it is fitted and warm?
 *
 * Fitted = new − δi·d/F − δo·E/D, running = fitted − α·ΔT·E, with the raceways F ≈ (3d + D)/4 and
 * E ≈ (d + 3D)/4, δ the interferences, ΔT inner ring over outer. Holds for deep groove ball bearings
 * on a solid steel shaft in a thick housing; tapers and rollers have other tables.
 *
 * Example: 30 × 62 with 9 µm on the shaft, inner ring 5 K warmer: C3, which leaves 3 to 18 µm.
 */
export const clearance = defineWorking({
  id: 'bearing.clearance',
  title: 'CN or C3: what is left once it is fitted and warm?',
  area: 'bearings',
  inputs: [
    {
      kind: 'choice',
      name: 'kind',
      label: 'Bearing',
      default: 'deep-groove',
      choices: [
        { id: 'deep-groove', label: 'deep groove ball' },
        { id: 'roller', label: 'cylindrical or spherical roller' },
        { id: 'tapered', label: 'tapered or angular contact' },
      ],
      help: 'Only the first has this table.',
    },
    { kind: 'number', name: 'bore', label: 'Bore', symbol: 'd', quantity: 'length', above: 6, max: 200, help: 'Over 6 to 200 mm.' },
    { kind: 'number', name: 'outside', label: 'Outside', symbol: 'D', quantity: 'length', above: 6, max: 500, help: 'Of the outer ring.' },
    {
      kind: 'number',
      name: 'onShaft',
      label: 'Interference on the shaft',
      symbol: 'δi',
      quantity: 'length',
      min: 0,
      max: 0.3,
      default: 0,
      help: '0 where it slides.',
    },
    {
      kind: 'number',
      name: 'inHousing',
      label: 'Interference in the housing',
      symbol: 'δo',
      quantity: 'length',
      min: 0,
      max: 0.3,
      default: 0,
      help: '0 where it slides.',
    },
    {
      kind: 'number',
      name: 'warmer',
      label: 'Inner ring warmer by',
      symbol: 'ΔT',
      quantity: 'temperature difference',
      min: -50,
      max: 100,
      default: 10,
      help: '5 to 10 K as a rule, more at an exhaust or a brake.',
    },
    {
      kind: 'number',
      name: 'wanted',
      label: 'Running clearance at least',
      quantity: 'length',
      min: 0,
      max: 0.2,
      default: 0,
      help: '0 to a few µm for a ball bearing.',
    },
  ],
  outputs: [
    {
      kind: 'choice',
      name: 'group',
      label: 'Take',
      choices: GROUPS.map((id) => ({ id, label: id })),
      help: 'The tightest group that keeps the clearance.',
    },
    { kind: 'number', name: 'least', label: 'Leaves at least', quantity: 'length', help: 'Running; minus would be tight.' },
    { kind: 'number', name: 'most', label: 'Leaves at most', quantity: 'length', help: 'Running.' },
    { kind: 'number', name: 'fits', label: 'The fits take', quantity: 'length', help: 'Of the clearance as new.' },
    { kind: 'number', name: 'warmth', label: 'The warmth takes', quantity: 'length', help: 'Inner ring over outer.' },
    {
      kind: 'table',
      name: 'each',
      label: 'Group by group',
      columns: [
        { name: 'group', label: 'group', quantity: 'text' },
        { name: 'least', label: 'new, least', quantity: 'length' },
        { name: 'most', label: 'new, most', quantity: 'length' },
        { name: 'runLeast', label: 'running, least', quantity: 'length' },
        { name: 'runMost', label: 'running, most', quantity: 'length' },
      ],
      help: 'As new, and as it runs.',
    },
  ],
  sources: [
    { kind: 'standard', document: 'ISO 5753-1', edition: '2009', for: 'the groups', fromMemory: true },
    {
      kind: 'handbook',
      document: 'Rolling bearing catalogues, engineering section',
      for: 'what fits and warmth take off',
      fromMemory: true,
    },
  ],
  cautions: ['A ball bearing without clearance runs hot and dies; one with too much hums.'],
  serves: [{ at: 'build', rank: 16 }],
  example: { bore: 30, outside: 62, onShaft: 0.009, warmer: 5 },
  compute(input) {
    if (input.kind !== 'deep-groove')
      return refuse({
        code: 'outside-method',
        field: 'kind',
        received: input.kind,
        bound: 'deep groove ball bearings; others have tables of their own, and tapers are set',
      });
    if (input.outside <= input.bore)
      return refuse({ code: 'too-small', field: 'outside', received: mm(input.outside), bound: `more than the bore, ${mm(input.bore)}` });
    const row = CLEARANCE.find(([over, to]) => input.bore > over + INCH_HAIR_MM && input.bore <= to + INCH_HAIR_MM);
    if (!row) return refuse({ code: 'outside-method', field: 'bore', received: mm(input.bore), bound: 'bores over 6 mm to 200 mm' });
    const { inner, outer } = raceways(input.bore, input.outside);
    const fits = (input.onShaft * input.bore) / inner + (input.inHousing * outer) / input.outside;
    const warmth = EXPANSION.steel * input.warmer * outer;
    const each = GROUPS.map((group, index) => {
      const [least, most] = row[index + 2] as readonly [number, number];
      return {
        group,
        least: least / 1000,
        most: most / 1000,
        runLeast: least / 1000 - fits - warmth,
        runMost: most / 1000 - fits - warmth,
      };
    });
    const best = each.find(({ runLeast }) => runLeast >= input.wanted);
    if (!best)
      return refuse({
        code: 'none-will-do',
        field: 'onShaft',
        received: 'the groups',
        bound: `even ${GROUPS.at(-1)!} leaves ${mm(each.at(-1)!.runLeast)}; fit it looser`,
      });
    return ok({ group: best.group as Group, least: best.runLeast, most: best.runMost, fits, warmth, each });
  },
  explain(input, output) {
    const { inner, outer } = raceways(input.bore, input.outside);
    return [
      {
        say: 'The fits swell the inner race and press the outer one in.',
        formula: 'δi·d/F + δo·E/D',
        numbers: `F ${mm(inner)}, E ${mm(outer)}: ${microns(output.fits)}`,
      },
      { say: 'The warmer inner ring takes more.', formula: 'α·ΔT·E', numbers: microns(output.warmth) },
      { say: `${output.group} is the tightest that keeps it free.`, numbers: `${microns(output.least)} to ${microns(output.most)}` },
    ];
  },
});

function raceways(bore: number, outside: number): { readonly inner: number; readonly outer: number } {
  return { inner: (3 * bore + outside) / 4, outer: (bore + 3 * outside) / 4 };
}
