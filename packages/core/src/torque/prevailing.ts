import { newtonMetres } from '../quantity/write.js';
import { defineWorking } from '../working/define.js';
import { ok, refuse } from '../working/issues.js';

const KINDS = {
  'locking-nut': { adds: true, words: 'a locking nut' },
  patch: { adds: true, words: 'a coated thread' },
  'wet-locker': { adds: false, words: 'wet threadlocker acts through friction and adds no torque of its own' },
  plain: { adds: false, words: 'a plain thread runs down free' },
} as const;

/**
 * The thread drags as it runs down: what do I set?
 *
 * setting = wanted + run-down torque, measured while it turns, before the face touches. A breakaway
 * torque is another thing and is never added. A locking nut that drags too little is worn out.
 *
 * Example: 60 N·m and a nut that drags 4.5 N·m: 64.5 N·m.
 */
export const prevailing = defineWorking({
  id: 'torque.prevailing',
  title: 'The thread drags as it runs down: what do I set?',
  area: 'torque',
  inputs: [
    {
      kind: 'number',
      name: 'torque',
      label: 'Torque wanted',
      symbol: 'T',
      quantity: 'torque',
      above: 0,
      max: 20_000,
      help: 'From the sheet, without the drag.',
    },
    {
      kind: 'choice',
      name: 'kind',
      label: 'What drags',
      default: 'locking-nut',
      choices: [
        { id: 'locking-nut', label: 'a locking nut' },
        { id: 'patch', label: 'a coated thread, dry' },
        { id: 'wet-locker', label: 'wet threadlocker' },
        { id: 'plain', label: 'nothing should' },
      ],
      help: 'Only what drags dry adds to the torque.',
    },
    {
      kind: 'number',
      name: 'runDown',
      label: 'Drag while it runs down',
      quantity: 'torque',
      min: 0,
      max: 2000,
      default: 0,
      help: 'Beam wrench, turning steadily, the face not touching yet.',
    },
    {
      kind: 'number',
      name: 'leastDrag',
      label: 'Drag at least',
      quantity: 'torque',
      min: 0,
      max: 2000,
      optional: true,
      help: 'From the sheet: under it the nut no longer locks.',
    },
  ],
  outputs: [
    { kind: 'number', name: 'setting', label: 'Set', quantity: 'torque', help: 'At the screw; an adapter comes on top.' },
    { kind: 'number', name: 'added', label: 'Of it drag', quantity: 'torque', help: 'What the thread takes for itself.' },
    {
      kind: 'choice',
      name: 'verdict',
      label: 'The locking',
      choices: [
        { id: 'in', label: 'holds' },
        { id: 'out', label: 'is worn: a new nut' },
        { id: 'unsure', label: 'not judged' },
      ],
      help: 'By the least drag of the sheet.',
    },
  ],
  sources: [{ kind: 'common practice', document: 'run-down torque of a locking nut is added to the torque', for: 'the sum' }],
  cautions: ['A plain thread that drags is damaged or dirty: take it out and look before it is tightened.'],
  example: { torque: 60, runDown: 4.5 },
  compute({ torque, kind, runDown, leastDrag }) {
    if (kind === 'plain' && runDown > 0.05 * torque)
      return refuse({
        code: 'cannot-be',
        field: 'runDown',
        received: newtonMetres(runDown),
        bound: 'a plain thread runs down free: take it out and look at it',
      });
    if (runDown >= torque)
      return refuse({
        code: 'too-large',
        field: 'runDown',
        received: newtonMetres(runDown),
        bound: `less than the torque wanted, ${newtonMetres(torque)}`,
      });
    const added = KINDS[kind].adds ? runDown : 0;
    const verdict = leastDrag === undefined || !KINDS[kind].adds ? 'unsure' : runDown >= leastDrag ? 'in' : 'out';
    return ok({ setting: torque + added, added, verdict: verdict as 'in' | 'out' | 'unsure' });
  },
  explain: (input, output) => [
    output.added > 0
      ? {
          say: 'The drag never reaches the face: it is added.',
          formula: 'T + drag',
          numbers: `${newtonMetres(input.torque)} + ${newtonMetres(output.added)} = ${newtonMetres(output.setting)}`,
        }
      : { say: `Nothing is added: ${KINDS[input.kind].words}.`, numbers: newtonMetres(output.setting) },
  ],
});
