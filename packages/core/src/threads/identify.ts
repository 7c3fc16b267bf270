import { formatQuantity } from '../quantity/format.js';
import type { Row } from '../working/describe.js';
import { defineWorking } from '../working/define.js';
import { ok, type Result } from '../working/issues.js';
import { THREADS, hexSizes, sizeWindow, tappingDrill, type Thread } from './thread.js';

/** A male thread wears under its tolerance; this much further down it is still believed, as a share of the pitch. */
const WEAR = 0.1;
/** A candidate further off than this many uncertainties is not named. */
const FURTHEST = 3;
const MOST_NAMED = 8;
/** Misfits that differ by less than this cannot be told apart by these two figures. */
const TOO_NEAR = 1;

/**
 * What thread is this?
 *
 * Each thread of the tables is held against the diameter and the pitch: misfit² = (Δd/u_d)² +
 * (ΔP/u_P)², Δd counted from the window of a good thread (6g or 6H) and, for a male thread, from
 * 0.1·P below it, because threads wear under their nominal size. Holds for parallel and tapered
 * threads measured clean with a calliper and a pitch gauge.
 *
 * Example: 11.85 mm outside, 1.25 mm pitch is M12x1.25, 19 or 18 mm hexagon.
 */
export const identify = defineWorking({
  id: 'thread.identify',
  title: 'What thread is this?',
  area: 'threads',
  inputs: [
    {
      kind: 'choice',
      name: 'side',
      label: 'Thread',
      default: 'male',
      choices: [
        { id: 'male', label: 'male: outside diameter of a screw' },
        { id: 'female', label: 'female: bore of a nut or a hole' },
      ],
      help: 'What the calliper goes round, or into.',
    },
    {
      kind: 'number',
      name: 'diameter',
      label: 'Diameter',
      symbol: 'd',
      quantity: 'length',
      min: 1,
      max: 80,
      help: 'Outside over the crests of a screw, or the bore between the crests of a nut.',
    },
    {
      kind: 'number',
      name: 'pitch',
      label: 'Pitch',
      symbol: 'P',
      quantity: 'pitch',
      min: 0.2,
      max: 8,
      help: 'From the gauge, or a length over ten threads divided by ten; 20 tpi is taken too.',
    },
    {
      kind: 'choice',
      name: 'taper',
      label: 'Taper',
      default: 'not looked',
      choices: [
        { id: 'not looked', label: 'not looked' },
        { id: 'none', label: 'parallel' },
        { id: 'tapered', label: 'thinner towards the end' },
      ],
      help: 'A pipe thread that seals on itself is tapered.',
    },
    {
      kind: 'number',
      name: 'diameterU',
      label: 'Uncertainty of the diameter',
      quantity: 'length',
      min: 0.005,
      max: 1,
      default: 0.05,
      help: 'A calliper on clean crests does 0.05 mm.',
    },
    {
      kind: 'number',
      name: 'pitchU',
      label: 'Uncertainty of the pitch',
      quantity: 'length',
      min: 0.002,
      max: 0.5,
      default: 0.02,
      help: 'A gauge that lies in without light does 0.02 mm.',
    },
  ],
  outputs: [
    { kind: 'text', name: 'thread', label: 'Thread', longest: 40, optional: true, help: 'The one that fits best; none when nothing does.' },
    {
      kind: 'choice',
      name: 'sure',
      label: 'How sure',
      choices: [
        { id: 'one', label: 'only this one fits' },
        { id: 'several', label: 'more than one fits: see what tells them apart' },
        { id: 'none', label: 'no thread of the tables fits' },
      ],
      help: 'Whether the two figures are enough.',
    },
    { kind: 'text', name: 'apart', label: 'What tells them apart', longest: 400, optional: true, help: 'What to look at next.' },
    {
      kind: 'table',
      name: 'candidates',
      label: 'What it may be',
      columns: [
        { name: 'thread', label: 'Thread', quantity: 'text' },
        { name: 'series', label: 'Series', quantity: 'text' },
        { name: 'diameterOff', label: 'Diameter off', quantity: 'length' },
        { name: 'pitchOff', label: 'Pitch off', quantity: 'length' },
        { name: 'hex', label: 'Hexagon', quantity: 'text' },
        { name: 'drill', label: 'Tapping drill', quantity: 'length' },
        { name: 'restore', label: 'To restore it', quantity: 'text' },
      ],
      help: 'Best first, with how far each is off.',
    },
  ],
  sources: [
    { kind: 'standard', document: 'ISO 261', for: 'metric sizes and pitches', fromMemory: true },
    { kind: 'standard', document: 'ISO 965-1', for: 'the windows of 6g and 6H', fromMemory: true },
    { kind: 'standard', document: 'ASME B1.1', for: 'UNC and UNF', fromMemory: true },
    { kind: 'standard', document: 'ISO 228-1, ISO 7-1, ASME B1.20.1', for: 'pipe threads', fromMemory: true },
    { kind: 'standard', document: 'ISO 272', for: 'hexagons; the older 17, 19 and 22 mm beside them', fromMemory: true },
    { kind: 'common practice', document: 'Tapping drill is diameter less pitch', for: 'the drill' },
  ],
  cautions: ['Try the mating part by hand before any spanner: two threads that nearly fit seize, or strip.'],
  example: { side: 'male', diameter: '11.85 mm', pitch: '1.25 mm' },
  compute(
    input,
  ): Result<{ thread: string | undefined; sure: 'one' | 'several' | 'none'; apart: string | undefined; candidates: readonly Row[] }> {
    const male = input.side === 'male';
    const ranked = THREADS.filter((thread) => input.taper === 'not looked' || thread.tapered === (input.taper === 'tapered'))
      .map((thread) => fit(thread, male, input))
      .filter(({ misfit }) => misfit <= FURTHEST)
      .toSorted((a, b) => a.misfit - b.misfit || a.centre - b.centre)
      .slice(0, MOST_NAMED);
    const [best] = ranked;
    const near = ranked.filter(({ misfit }) => best !== undefined && misfit - best.misfit < TOO_NEAR);
    return ok({
      thread: best?.thread.name,
      sure: best === undefined ? 'none' : near.length > 1 ? 'several' : 'one',
      apart: near.length > 1 ? apartWords(near.map(({ thread }) => thread)) : undefined,
      candidates: ranked.map(({ thread, diameterOff, pitchOff }) => ({
        thread: thread.name,
        series: thread.series,
        diameterOff,
        pitchOff,
        hex: hexSizes(thread).join(' or ') || '',
        drill: tappingDrill(thread),
        restore: male ? `die ${thread.name}` : `tap ${thread.name}`,
      })),
    });
  },
  explain(input, output) {
    const [best, next] = output.candidates;
    const off = (row: Row): string =>
      `diameter ${formatQuantity(Number(row['diameterOff']), 'length')} off, pitch ${formatQuantity(Number(row['pitchOff']), 'length')} off`;
    return [
      {
        say: `The ${input.side === 'male' ? 'outside' : 'bore'} and the pitch are held against every thread of the tables.`,
        formula: 'misfit² = (Δd/u_d)² + (ΔP/u_P)²',
        numbers: `d = ${formatQuantity(input.diameter, 'length')}, P = ${formatQuantity(input.pitch, 'length')}`,
      },
      ...(best
        ? [{ say: `${String(best['thread'])} is nearest.`, numbers: off(best) }]
        : [{ say: 'Nothing comes within three uncertainties.' }]),
      ...(next ? [{ say: `Then ${String(next['thread'])}.`, numbers: off(next) }] : []),
    ];
  },
});

interface Measured {
  readonly diameter: number;
  readonly pitch: number;
  readonly diameterU: number;
  readonly pitchU: number;
}

/** How far a thread is off, in uncertainties; `centre` breaks ties towards the middle of the window. */
function fit(thread: Thread, male: boolean, { diameter, pitch, diameterU, pitchU }: Measured) {
  const window = sizeWindow(thread, male);
  const from = male ? window.from - WEAR * thread.pitch : window.from;
  const diameterOff = diameter < from ? diameter - from : diameter > window.to ? diameter - window.to : 0;
  const pitchOff = pitch - thread.pitch;
  const centre = Math.abs(diameter - (window.from + window.to) / 2);
  return { thread, diameterOff, pitchOff, centre, misfit: Math.hypot(diameterOff / diameterU, pitchOff / pitchU) };
}

function apartWords(threads: readonly Thread[]): string {
  const words: string[] = [];
  if (new Set(threads.map(({ tapered }) => tapered)).size > 1) words.push('Lay a straight edge along it: is it tapered?');
  if (new Set(threads.map(({ flank }) => flank)).size > 1) words.push('Which gauge lies in without light, 60° or 55°?');
  const pitches = [...new Set(threads.map(({ pitch }) => pitch))].toSorted((a, b) => a - b);
  const [least, most] = [pitches[0] ?? 0, pitches.at(-1) ?? 0];
  if (most > least) {
    const turns = Math.max(5, Math.ceil(0.3 / (most - least)));
    words.push(`Measure over ${turns} threads: ${pitches.map((pitch) => formatQuantity(pitch * turns, 'length')).join(' or ')}.`);
  }
  if (words.length === 0) words.push('Measure the diameter with a micrometer on clean crests, or try the mating part by hand.');
  return words.join(' ');
}
