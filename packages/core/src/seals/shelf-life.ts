import { VERDICT, type Verdict } from '../measuring/verdict-field.js';
import { defineWorking } from '../working/define.js';
import { ok, refuse, type Result } from '../working/issues.js';
import { MATERIALS, MATERIAL_IDS, type Material } from './media.js';

/** Years from the cure that a seal lies well, and by how much that is lengthened when it was looked at: ISO 2230, from memory. */
const GROUPS = {
  A: { first: 5, more: 2 },
  B: { first: 7, more: 3 },
  C: { first: 10, more: 5 },
} as const;

/** Group of ISO 2230 by the material, from memory; what is no rubber does not age on the shelf, and has none. */
const GROUP_OF: Readonly<Partial<Record<Material, keyof typeof GROUPS>>> = {
  NBR: 'B',
  HNBR: 'B',
  ACM: 'B',
  CR: 'B',
  PU: 'A',
  EPDM: 'C',
  FKM: 'C',
  VMQ: 'C',
  FVMQ: 'C',
};

/** How long a seal of a material lies well, years from its cure; nothing for what does not age on the shelf. */
export function shelfLife(
  material: string,
): { readonly group: 'A' | 'B' | 'C'; readonly first: number; readonly more: number } | undefined {
  const group = GROUP_OF[material as Material];
  return group && { group, ...GROUPS[group] };
}

/**
 * Is a seal off the shelf still good?
 *
 * Years since it was cured against the first storage time of its group (ISO 2230); after that it may be lengthened once for those that
 * are looked at and bent: no crack, not sticky, not hard. In a closed bag, cool, dark, dry, not hung on a hook.
 *
 * Example: NBR cured eight years ago: group B, past its seven, looked at it has two more.
 */
export const shelfLifeOf = defineWorking({
  id: 'seal.shelf-life',
  title: 'Is a seal off the shelf still good?',
  area: 'seals',
  inputs: [
    {
      kind: 'choice',
      name: 'material',
      label: 'Made of',
      choices: MATERIAL_IDS.map((id) => ({ id, label: `${id}, ${MATERIALS[id].name}` })),
      help: 'As printed on the bag.',
    },
    {
      kind: 'number',
      name: 'years',
      label: 'Years since it was cured',
      quantity: 'ratio',
      min: 0,
      max: 60,
      help: '“3Q21” on a bag is the third quarter of 2021; the day it was bought says nothing.',
    },
    {
      kind: 'choice',
      name: 'looked',
      label: 'Looked at and bent',
      default: 'no',
      choices: [
        { id: 'no', label: 'not yet' },
        { id: 'good', label: 'no crack, not sticky, not hard' },
        { id: 'bad', label: 'something of it' },
      ],
      help: 'Bent by half a turn, under a glass.',
    },
  ],
  outputs: [
    VERDICT,
    { kind: 'text', name: 'group', label: 'Group', longest: 20, help: 'Of ISO 2230.' },
    { kind: 'number', name: 'until', label: 'Good for, years', quantity: 'ratio', help: 'From the cure, as it is now known.' },
    { kind: 'text', name: 'so', label: 'So', longest: 200, help: 'What to do.' },
  ],
  sources: [{ kind: 'standard', document: 'ISO 2230', for: 'groups and storage times', fromMemory: true }],
  cautions: ['Nobody goes by looks alone past both times: a seal that has aged leaks cold and quiet.'],
  serves: [{ at: 'seal', kinds: ['lip-seal', 'o-ring', 'piston-seal', 'boot'], rank: 9, preset: { material: 'seal.material' } }],
  example: { material: 'NBR', years: 8 },
  compute({ material, years, looked }) {
    const life = shelfLife(material);
    if (!life)
      return refuse({
        code: 'outside-method',
        field: 'material',
        received: material,
        bound: 'rubbers; it does not age on the shelf as they do, look at it',
      });
    const { group, first, more } = life;
    const judged = (verdict: Verdict, until: number, so: string): Result<{ verdict: Verdict; group: string; until: number; so: string }> =>
      ok({ verdict, group, until, so });
    if (looked === 'bad') return judged('out', years, 'it goes, and whatever lay with it is looked at too');
    const until = looked === 'good' ? first + more : first;
    if (years <= first) return judged('in', until, 'good');
    if (years <= until) return judged('in', until, `good, looked at; not beyond ${until} years, whatever it looks like`);
    if (years <= first + more)
      return judged('unsure', until, `past ${first} years: look at it and bend it; if nothing shows it has ${more} more`);
    return judged('out', until, `past ${first + more} years: it goes`);
  },
  explain: ({ material, years }, { group, until, so }) => [
    { say: `Group ${group} of ISO 2230.`, numbers: `${material}: ${until} years from its cure` },
    { say: `So: ${so}.`, numbers: `${years} years` },
  ],
});
