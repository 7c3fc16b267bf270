import type { Hazard } from '../model/choices.js';

export interface HazardWords {
  readonly hazard: Hazard;
  /** An act that is this danger, in the words of a step. */
  readonly act: RegExp;
  /** A caution that speaks of it, where the sheet does not name its dangers. */
  readonly caution: RegExp;
  readonly say: string;
}

/** Words by which a dangerous act is known. Common practice. */
export const HAZARD_WORDS: readonly HazardWords[] = [
  {
    hazard: 'spring',
    act: /\b(compress|release|unload|let go)\w*\b[^.]*\bspring|\bspring\b[^.]*\b(compressor|under load|let go)/u,
    caution: /\bspring/u,
    say: 'a spring under load is let go or compressed',
  },
  {
    hazard: 'press',
    act: /\b(arbor|hydraulic|bench) press\b|\bpress (it|them|the \w+( \w+)?) (out|in|off|on|home)\b|\bpuller\b/u,
    caution: /\bpress\b|\bpuller|\bsplinter|\bfl(y|ies)\b/u,
    say: 'it is pressed or pulled',
  },
  {
    hazard: 'heat',
    act: /\b(oven|torch|flame|hot plate|heat gun)\b|\bheat (it|them|the)\b|\bwarm (it|them|the \w+( \w+)?) to\b/u,
    caution: /\bhot\b|\bburn|\bheat/u,
    say: 'it is heated',
  },
  {
    hazard: 'lift',
    act: /\b(jack|hoist|sling|crane|engine lifter)\b/u,
    caution: /\bweigh|\bkg\b|\bfalls?\b|\blift/u,
    say: 'something heavy is lifted',
  },
  {
    hazard: 'pressure',
    act: /\bcompressed air\b|\bstored pressure\b|\bpressuri[sz]e|\blet the (pressure|air) (out|off)\b|\bpressure test\b|\bgas charge\b/u,
    caution: /\bpressure|\bcompressed air/u,
    say: 'pressure is let in or out',
  },
  {
    hazard: 'refrigerant',
    act: /\b(recover|vent|charge|evacuate)\b[^.]*\b(refrigerant|circuit|charge)\b/u,
    caution: /\brefrigerant/u,
    say: 'the refrigerant circuit is opened',
  },
  {
    hazard: 'splinters',
    act: /\b(hammer|drift|chisel|grind|crack|strike)\b[^.]*\b(race|ring|bearing)\b|\bgrind\w* (it|the)\b/u,
    caution: /\bsplinter|\bfl(y|ies)\b|\bsparks?\b|\brace/u,
    say: 'hardened steel is struck or ground',
  },
  {
    hazard: 'fumes',
    act: /\b(solvent|parts washer|brake cleaner|primer|spray)\b|\bpaint (it|them|the \w+)\b/u,
    caution: /\bfumes?\b|\bvapou?r|\bbreathe|\bair the\b|\bventilat/u,
    say: 'solvent or paint is in the air',
  },
];

export function hazardsIn(words: string): readonly Hazard[] {
  return HAZARD_WORDS.filter(({ caution }) => caution.test(words)).map(({ hazard }) => hazard);
}
