import { VERDICT } from '../measuring/verdict-field.js';
import { mm, percent } from '../quantity/write.js';
import { defineWorking } from '../working/define.js';
import { ok, refuse } from '../working/issues.js';
import { SQUEEZE, STRETCH_MOST, thinned } from './ring.js';

/** Leg of the chamfer over the section of the ring: common practice for crush joints. */
const LEG = { from: 1.3, to: 1.4 };
/** It stays where it is put from here on. */
const STAYS = 0.01;
/** Circle within a right-angled corner whose legs are 1. */
const INCIRCLE = 2 - Math.SQRT2;

/**
 * Does an O-ring lie right where there is no groove?
 *
 * In a chamfered corner the cover closes on three sides: leg 1.3 to 1.4 times the section, so that the ring is pressed on
 * all three and fills some nine tenths. Between two faces that stand a gap apart: squeezed by the gap. Either way a little
 * stretch, 1 to 5 %, holds it at its rim while the parts close. Only where nothing moves, and never where pressure can blow
 * it out of an open gap.
 *
 * Example: a ring of 50 × 3 on a spigot of 51.5 in a chamfer of 4 mm: stretched 3 %, leg 1.36 times its section.
 */
export const oringNoGroove = defineWorking({
  id: 'oring.no-groove',
  title: 'Does an O-ring lie right without a groove?',
  area: 'seals',
  inputs: [
    {
      kind: 'choice',
      name: 'place',
      label: 'It lies',
      default: 'corner',
      choices: [
        { id: 'corner', label: 'in a chamfered corner' },
        { id: 'gap', label: 'between two faces' },
      ],
      help: 'What closes on it.',
    },
    { kind: 'number', name: 'inside', label: 'Ring inside', symbol: 'd₁', quantity: 'length', above: 0, max: 1000, help: 'Free.' },
    { kind: 'number', name: 'section', label: 'Section', symbol: 'd₂', quantity: 'length', above: 0, max: 20, help: 'Of the new ring.' },
    {
      kind: 'number',
      name: 'rim',
      label: 'Rim it lies on',
      symbol: 'd',
      quantity: 'length',
      above: 0,
      max: 1000,
      help: 'Outside of the spigot or rim that it is stretched over.',
    },
    {
      kind: 'number',
      name: 'leg',
      label: 'Leg of the chamfer',
      quantity: 'length',
      above: 0,
      max: 40,
      onlyFor: { field: 'place', choices: ['corner'] },
      help: 'Along the spigot, and along the face: at 45°.',
    },
    {
      kind: 'number',
      name: 'gap',
      label: 'Gap when closed',
      quantity: 'length',
      above: 0,
      max: 30,
      onlyFor: { field: 'place', choices: ['gap'] },
      help: 'Metal to metal elsewhere; worked out or felt.',
    },
  ],
  outputs: [
    VERDICT,
    { kind: 'text', name: 'what', label: 'It is', longest: 300, help: 'What is wrong, and what would be right.' },
    { kind: 'number', name: 'stretch', label: 'Stretched by', quantity: 'ratio', share: true, help: 'So that it stays at the rim.' },
    { kind: 'number', name: 'left', label: 'Section that is left', quantity: 'length', help: 'A stretched ring is thinner.' },
    {
      kind: 'number',
      name: 'squeeze',
      label: 'Squeezed by',
      quantity: 'ratio',
      share: true,
      help: 'In a corner: against the circle that touches all three sides.',
    },
    {
      kind: 'number',
      name: 'fill',
      label: 'Corner full to',
      quantity: 'ratio',
      share: true,
      help: 'Over all it would hold the parts apart; 0 between faces.',
    },
  ],
  sources: [
    { kind: 'common practice', document: 'chamfer of 1.3 to 1.4 times the section for a crushed ring', for: 'the corner' },
    { kind: 'derivation', document: 'circle in a right-angled corner: (2 − √2) · leg', for: 'squeeze in the corner' },
    { kind: 'handbook', document: 'O-ring handbook, reduction of section by stretch', for: 'the section that is left', fromMemory: true },
  ],
  cautions: ['A crushed ring is used once.', 'It must not be where the screws clamp: the faces come together metal to metal.'],
  serves: [{ at: 'seal', kinds: ['o-ring'], rank: 3, preset: { inside: 'seal.inside', section: 'seal.section' } }],
  example: { place: 'corner', inside: 50, section: 3, rim: 51.5, leg: 4 },
  compute({ place, inside, section, rim, leg, gap }) {
    const stretch = (rim - inside) / inside;
    if (stretch < 0)
      return refuse({
        code: 'too-large',
        field: 'inside',
        received: mm(inside),
        bound: `it falls off its rim of ${mm(rim)}; ${mm(rim / (1 + STRETCH_MOST))} to ${mm(rim / (1 + STAYS))} stays on it`,
      });
    if (stretch > 2 * STRETCH_MOST)
      return refuse({
        code: 'too-small',
        field: 'inside',
        received: mm(inside),
        bound: `stretched by ${percent(stretch)} it thins and cracks; ${mm(rim / (1 + STRETCH_MOST))} to ${mm(rim / (1 + STAYS))} stays on its rim`,
      });
    const left = section * (1 - thinned(stretch));
    const faults: string[] = [];
    if (stretch < STAYS)
      faults.push(
        `stretched by ${percent(stretch)} it slips off its rim: grease it in, or take ${mm(rim / (1 + STRETCH_MOST))} to ${mm(rim / (1 + STAYS))} inside`,
      );
    if (stretch > STRETCH_MOST) faults.push(`stretched by ${percent(stretch)}, ${percent(STRETCH_MOST)} is the most`);
    if (place === 'corner') {
      if (leg === undefined) return refuse({ code: 'required', field: 'leg', quantity: 'length' });
      const fill = ((Math.PI / 4) * left ** 2) / (leg ** 2 / 2);
      if (fill > 1)
        return refuse({
          code: 'cannot-be',
          field: 'section',
          received: mm(section),
          bound: `${percent(fill)} of the corner: the parts cannot close; ${mm(leg / LEG.to)} to ${mm(leg / LEG.from)} would be right`,
        });
      const ratio = leg / left;
      if (ratio < LEG.from) faults.push(`a little too thick: ${mm(leg / LEG.to)} to ${mm(leg / LEG.from)} would be right`);
      if (ratio > LEG.to)
        faults.push(
          `${ratio * INCIRCLE > 1 ? 'too thin: it does not touch all three sides' : 'a little too thin'}; ${mm(leg / LEG.to)} to ${mm(leg / LEG.from)} would be right`,
        );
      return ok({ ...judged(faults), stretch, left, squeeze: 1 - (INCIRCLE * leg) / left, fill });
    }
    if (gap === undefined) return refuse({ code: 'required', field: 'gap', quantity: 'length' });
    const squeeze = (left - gap) / left;
    const { from, to } = SQUEEZE.face;
    const right = `${mm(gap / (1 - from))} to ${mm(gap / (1 - to))} would be right`;
    if (squeeze <= 0)
      return refuse({ code: 'too-small', field: 'section', received: mm(section), bound: `the gap of ${mm(gap)} stays open; ${right}` });
    if (squeeze < from) faults.push(`too thin: squeezed by ${percent(squeeze)}; ${right}`);
    if (squeeze > to) faults.push(`too thick: squeezed by ${percent(squeeze)}; ${right}`);
    return ok({ ...judged(faults), stretch, left, squeeze, fill: 0 });
  },
  explain: ({ place }, output) => [
    { say: 'What holds it at its rim.', formula: 'S = (d − d₁)/d₁', numbers: percent(output.stretch) },
    { say: 'What is left of its section.', numbers: mm(output.left) },
    place === 'corner'
      ? {
          say: 'Pressed on three sides, and how full the corner is.',
          formula: '1 − 0.586·leg/d₂; π/4·d₂²/(leg²/2)',
          numbers: `${percent(output.squeeze)}, ${percent(output.fill)}`,
        }
      : { say: 'Squeezed by the gap.', formula: '(d₂ − gap)/d₂', numbers: percent(output.squeeze) },
  ],
});

function judged(faults: readonly string[]): { readonly verdict: 'in' | 'out'; readonly what: string } {
  return faults.length > 0
    ? { verdict: 'out', what: faults.join('; ') }
    : { verdict: 'in', what: 'right: it stays at its rim and is pressed on every side' };
}
