import { figureIn, formatQuantity } from '../quantity/format.js';
import { parseQuantity } from '../quantity/parse.js';
import { QUANTITIES, findUnits, fromBase, unitsOf, type Quantity } from '../quantity/units.js';
import type { Row } from '../working/describe.js';
import { defineWorking } from '../working/define.js';
import { ok, refuse, type Result } from '../working/issues.js';

/**
 * What is this figure in the other unit?
 *
 * base = (typed + offset) · factor, shown = base / factor' − offset'. Threads per inch go by the
 * reciprocal. Holds for every finite figure; a figure of one quantity never becomes another.
 *
 * Example: 24 lbf·ft in N·m is 32.54.
 */
export const convert = defineWorking({
  id: 'units.convert',
  title: 'What is this figure in another unit?',
  area: 'units',
  inputs: [
    {
      kind: 'text',
      name: 'figure',
      label: 'Figure',
      longest: 40,
      help: 'A number with its unit: 24 lbf·ft, 0,35 mm, 4 thou, 12 tpi. A comma or a point is the decimal sign.',
    },
    {
      kind: 'text',
      name: 'to',
      label: 'In',
      longest: 20,
      optional: true,
      help: 'The unit wanted: N·m, mm, psi. Left empty, every unit of the quantity is listed.',
    },
  ],
  outputs: [
    { kind: 'text', name: 'quantity', label: 'Quantity', longest: 20, help: 'What the figure measures.' },
    {
      kind: 'number',
      name: 'converted',
      label: 'Converted',
      quantity: 'ratio',
      optional: true,
      help: 'The figure in the unit wanted, with all its digits.',
    },
    { kind: 'text', name: 'shown', label: 'Result', longest: 60, help: 'The same, rounded as a bench shows it.' },
    {
      kind: 'table',
      name: 'others',
      label: 'In all its units',
      columns: [
        { name: 'unit', label: 'Unit', quantity: 'text' },
        { name: 'figure', label: 'Figure', quantity: 'text' },
      ],
      help: 'The figure in every unit of its quantity.',
    },
  ],
  sources: [
    { kind: 'standard', document: 'NIST Special Publication 811', edition: '2008', clause: 'Appendix B', for: 'the factors between units' },
    { kind: 'common practice', document: 'Flats of a hexagon', for: 'one flat is a sixth of a turn' },
  ],
  cautions: [],
  example: { figure: '24 lbf·ft', to: 'N·m' },
  compute(input): Result<{ quantity: string; converted: number | undefined; shown: string; others: readonly Row[] }> {
    const wanted = input.to === undefined ? undefined : findUnits(input.to);
    if (wanted?.length === 0)
      return refuse({
        code: 'not-a-choice',
        field: 'to',
        received: input.to ?? '',
        bound: 'mm, in, N·m, lbf·ft, kPa, psi, °C, kg, L … any unit of the list',
      });
    const read = readAsAnything(
      input.figure,
      wanted?.map((unit) => unit.quantity),
    );
    if (!read.ok) return read;
    const { base, quantity, symbol } = read.value;
    const target = wanted?.find((unit) => unit.quantity === quantity);
    if (wanted && !target) return refuse({ code: 'does-not-convert', field: 'figure', received: input.figure, bound: input.to ?? '' });
    return ok({
      quantity,
      converted: target && fromBase(base, target),
      shown: formatQuantity(base, quantity, target?.symbol ?? symbol),
      others: unitsOf(quantity).map((unit) => ({ unit: unit.symbol || 'plain', figure: figureIn(base, unit) })),
    });
  },
  explain(input, output) {
    return [
      { say: `${input.figure} is a ${output.quantity}.` },
      {
        say: 'It goes through the base unit with factors that are exact by definition.',
        formula: 'shown = typed · factor(typed) / factor(wanted)',
        numbers: `${input.figure} = ${output.converted === undefined ? output.shown : `${String(output.converted)} ${input.to ?? ''}`}`,
      },
    ];
  },
});

/** The figure as the first quantity that its unit belongs to, those wanted before the rest. */
function readAsAnything(figure: string, preferred: readonly Quantity[] = []): Result<{ base: number; quantity: Quantity; symbol: string }> {
  let firstIssue: ReturnType<typeof refuse> | undefined;
  const bare = /^[+\-−–\s\d.,/eE]*$/u.test(figure);
  if (bare) return refuse({ code: 'not-a-figure', field: 'figure', received: figure, quantity: preferred[0] ?? 'length' });
  for (const quantity of new Set([...preferred, ...QUANTITIES])) {
    const parsed = parseQuantity(figure, quantity, 'figure');
    if (parsed.ok) return ok({ base: parsed.quantity.base, quantity, symbol: parsed.quantity.unit.symbol });
    firstIssue ??= refuse(parsed.issue);
  }
  return firstIssue ?? refuse({ code: 'required', field: 'figure' });
}
