import { mm, newtonMetres, newtons, percent } from '../quantity/write.js';
import { defineWorking } from '../working/define.js';
import { ok, refuse } from '../working/issues.js';

/** Of the torque that comes in; common practice. */
const WANTED_MARGIN = 1.3;

/**
 * It slips: is it the plates or the springs?
 *
 * Clamp F = n·k·(L0 − Ls), the set length longer by what the plates have worn. Torque by uniform
 * wear N·μ·F·(ro + ri)/2, by uniform pressure N·μ·F·2/3·(ro³ − ri³)/(ro² − ri²). The loss against new is
 * shared between springs and plates: what each gives back alone, and half of what only both do.
 * Holds for flat plates and straight coil springs.
 *
 * Example: free length down from 38 to 36.4 mm, plates worn 0.3 mm: mostly the springs.
 */
export const clutchCapacity = defineWorking({
  id: 'clutch.capacity',
  title: 'It slips: is it the plates or the springs?',
  area: 'clutches',
  inputs: [
    { kind: 'number', name: 'springs', label: 'Springs', symbol: 'n', quantity: 'count', min: 1, max: 60, help: 'That press.' },
    {
      kind: 'number',
      name: 'rate',
      label: 'Rate of each',
      symbol: 'k',
      quantity: 'stiffness',
      above: 0,
      max: 10,
      help: 'Such as 18 N/mm.',
    },
    { kind: 'number', name: 'freeNew', label: 'Free length new', quantity: 'length', above: 0, max: 500, help: 'From the sheet.' },
    {
      kind: 'number',
      name: 'freeNow',
      label: 'Free length now',
      symbol: 'L0',
      quantity: 'length',
      above: 0,
      max: 500,
      help: 'Mean of those measured.',
    },
    {
      kind: 'number',
      name: 'set',
      label: 'Set length with new plates',
      symbol: 'Ls',
      quantity: 'length',
      above: 0,
      max: 500,
      help: 'To which they are pressed.',
    },
    {
      kind: 'number',
      name: 'wear',
      label: 'Plates have worn',
      quantity: 'length',
      min: 0,
      max: 20,
      default: 0,
      help: 'Whole pack: new thickness less thickness now.',
    },
    {
      kind: 'number',
      name: 'faces',
      label: 'Rubbing faces',
      symbol: 'N',
      quantity: 'count',
      min: 1,
      max: 120,
      help: 'Twice the friction plates.',
    },
    {
      kind: 'number',
      name: 'outer',
      label: 'Lining outside, radius',
      symbol: 'ro',
      quantity: 'length',
      above: 0,
      max: 1000,
      help: 'Half of its diameter.',
    },
    {
      kind: 'number',
      name: 'inner',
      label: 'Lining inside, radius',
      symbol: 'ri',
      quantity: 'length',
      above: 0,
      max: 1000,
      help: 'Half of its diameter.',
    },
    {
      kind: 'number',
      name: 'friction',
      label: 'Friction',
      symbol: 'μ',
      quantity: 'ratio',
      min: 0.02,
      max: 0.8,
      default: 0.12,
      help: 'In oil some 0.10 to 0.14, dry 0.3 to 0.4.',
    },
    {
      kind: 'number',
      name: 'demand',
      label: 'Torque that comes',
      quantity: 'torque',
      above: 0,
      max: 1e5,
      help: 'At this shaft: engine torque times the ratio before it.',
    },
  ],
  outputs: [
    { kind: 'text', name: 'what', label: 'So', longest: 300, help: 'Plates, springs, both or neither.' },
    { kind: 'number', name: 'torque', label: 'Carries now', quantity: 'torque', help: 'Uniform wear: linings that have run in.' },
    { kind: 'number', name: 'torquePressure', label: 'By uniform pressure', quantity: 'torque', help: 'New, stiff linings.' },
    { kind: 'number', name: 'torqueNew', label: 'Carried new', quantity: 'torque', help: 'New springs and plates.' },
    { kind: 'number', name: 'margin', label: 'Over what comes', quantity: 'ratio', help: 'Under 1 it slips; 1.3 is wanted.' },
    { kind: 'number', name: 'clamp', label: 'Clamp now', symbol: 'F', quantity: 'force', help: 'All springs.' },
    { kind: 'number', name: 'springShare', label: 'Loss by the springs', quantity: 'ratio', help: 'Of what was lost since new.' },
    { kind: 'number', name: 'plateShare', label: 'Loss by the plates', quantity: 'ratio', help: 'Of what was lost since new.' },
    { kind: 'number', name: 'withSprings', label: 'With new springs', quantity: 'torque', help: 'And these plates.' },
    { kind: 'number', name: 'withPlates', label: 'With new plates', quantity: 'torque', help: 'And these springs.' },
  ],
  sources: [
    {
      kind: 'handbook',
      document: "Shigley's Mechanical Engineering Design",
      clause: '16-5',
      for: 'torque by uniform wear and uniform pressure',
      fromMemory: true,
    },
  ],
  cautions: ['Pressed springs let go when the last screw is out: slacken crosswise, a turn at a time.'],
  serves: [{ at: 'build', families: ['multi-plate clutch'], rank: 2 }],
  example: { springs: 5, rate: '18 N/mm', freeNew: 38, freeNow: 36.4, set: 26, wear: 0.3, faces: 14, outer: 55, inner: 45, demand: 65 },
  compute(input) {
    if (input.inner >= input.outer)
      return refuse({ code: 'too-large', field: 'inner', received: mm(input.inner), bound: `less than the outside, ${mm(input.outer)}` });
    if (input.freeNow > input.freeNew + 0.5)
      return refuse({
        code: 'cannot-be',
        field: 'freeNow',
        received: mm(input.freeNow),
        bound: `a spring does not grow: new it had ${mm(input.freeNew)}`,
      });
    const worn = input.set + input.wear;
    if (worn >= input.freeNow)
      return refuse({
        code: 'too-large',
        field: 'wear',
        received: mm(input.wear),
        bound: `what still presses the springs: less than ${mm(input.freeNow - input.set)}`,
      });
    const clampAt = (free: number, set: number): number => input.springs * input.rate * 1000 * (free - set);
    const radius = (input.outer + input.inner) / 2000;
    const torqueAt = (free: number, set: number): number => input.faces * input.friction * clampAt(free, set) * radius;
    const torque = torqueAt(input.freeNow, worn);
    const torqueNew = torqueAt(input.freeNew, input.set);
    const withSprings = torqueAt(input.freeNew, worn);
    const withPlates = torqueAt(input.freeNow, input.set);
    const lost = torqueNew - torque;
    // Each alone, and coming last, in equal parts.
    const bySprings = (withSprings - torque + torqueNew - withPlates) / 2;
    const springShare = lost > 1e-9 ? bySprings / lost : 0;
    const plateShare = lost > 1e-9 ? 1 - springShare : 0;
    const margin = torque / input.demand;
    const enough = WANTED_MARGIN * input.demand;
    const names =
      margin >= WANTED_MARGIN
        ? 'It carries enough: look for oil that is not its own, glazed linings, or a cable without play.'
        : withSprings >= enough && springShare >= 0.5
          ? 'The springs: new ones alone carry it.'
          : withPlates >= enough
            ? 'The plates: new ones alone carry it.'
            : withSprings >= enough
              ? 'New springs alone carry it.'
              : torqueNew >= enough
                ? 'Both: neither alone carries it.'
                : 'Even new it would not carry this: a stronger spring, more faces, or another torque.';
    const cube = input.outer ** 3 - input.inner ** 3;
    const square = input.outer ** 2 - input.inner ** 2;
    return ok({
      what: names,
      torque,
      torquePressure: (input.faces * input.friction * clampAt(input.freeNow, worn) * (2 / 3) * (cube / square)) / 1000,
      torqueNew,
      margin,
      clamp: clampAt(input.freeNow, worn),
      springShare,
      plateShare,
      withSprings,
      withPlates,
    });
  },
  explain: (input, output) => [
    { say: 'What the springs press.', formula: 'F = n·k·(L0 − Ls)', numbers: newtons(output.clamp) },
    {
      say: 'What that carries.',
      formula: 'T = N·μ·F·(ro + ri)/2',
      numbers: `${newtonMetres(output.torque)}, ${output.margin.toFixed(2)} of the ${newtonMetres(input.demand)} that come`,
    },
    {
      say: 'What was lost since new, and to whom.',
      numbers: `${newtonMetres(output.torqueNew - output.torque)}: springs ${percent(output.springShare)}, plates ${percent(output.plateShare)}`,
    },
    { say: output.what, numbers: `new springs ${newtonMetres(output.withSprings)}, new plates ${newtonMetres(output.withPlates)}` },
  ],
});
