import { celsius } from '../quantity/write.js';
import { defineWorking } from '../working/define.js';
import { ok, refuse } from '../working/issues.js';
import { MATERIALS, MATERIAL_IDS, MEDIA, MEDIUM_IDS, betterFirst, heatOf, pairing, together } from './media.js';

/**
 * Does this rubber stand this fluid, this hot?
 *
 * Material by medium and by temperature, the worse of the two, with the reason; and which others would do better. What nobody
 * here knows is unknown and never fit. The table speaks of ordinary compounds: the very one may be better or worse.
 *
 * Example: EPDM in mineral oil: no, it swells to jelly; NBR and FKM hold.
 */
export const sealMaterial = defineWorking({
  id: 'seal.material',
  title: 'Does this rubber stand this fluid?',
  area: 'seals',
  inputs: [
    {
      kind: 'choice',
      name: 'material',
      label: 'Made of',
      choices: MATERIAL_IDS.map((id) => ({ id, label: id === MATERIALS[id].name ? id : `${id}, ${MATERIALS[id].name}` })),
      help: 'As printed on the bag or the drawing; black tells nothing.',
    },
    {
      kind: 'choice',
      name: 'medium',
      label: 'It meets',
      choices: MEDIUM_IDS.map((id) => ({ id, label: MEDIA[id].name })),
      help: 'What it is wet with; the other side too, where that differs.',
    },
    {
      kind: 'number',
      name: 'hottest',
      label: 'Hottest',
      quantity: 'temperature',
      min: -100,
      max: 400,
      default: 80,
      help: 'At the lip, which is 20 to 40 K over the oil where a shaft turns fast.',
    },
    {
      kind: 'number',
      name: 'coldest',
      label: 'Coldest',
      quantity: 'temperature',
      min: -273,
      max: 400,
      default: -20,
      help: 'When it has to be tight.',
    },
  ],
  outputs: [
    {
      kind: 'choice',
      name: 'rating',
      label: 'It is',
      choices: [
        { id: 'fit', label: 'fit' },
        { id: 'marginal', label: 'marginal' },
        { id: 'no', label: 'no' },
        { id: 'unknown', label: 'unknown' },
      ],
      help: 'Unknown is never fit.',
    },
    { kind: 'text', name: 'why', label: 'Because', longest: 200, help: 'The worse of medium and temperature.' },
    { kind: 'text', name: 'better', label: 'Would do', longest: 200, help: 'Materials that are fit there.' },
    {
      kind: 'table',
      name: 'each',
      label: 'Material by material',
      columns: [
        { name: 'material', label: 'material', quantity: 'text' },
        { name: 'rating', label: 'is', quantity: 'text' },
        { name: 'why', label: 'because', quantity: 'text' },
      ],
      help: 'All of them, the fit ones first.',
    },
  ],
  sources: [{ kind: 'common practice', document: 'resistance and temperature tables of seal makers', for: 'every pair', fromMemory: true }],
  cautions: ['Brakes and steering: only what the maker of the unit names. A wrong rubber in brake fluid is a brake that fails.'],
  serves: [
    {
      at: 'seal',
      kinds: ['lip-seal', 'o-ring', 'piston-seal', 'face-seal', 'boot', 'bellows'],
      rank: 5,
      preset: { material: 'seal.material', medium: 'seal.medium' },
    },
  ],
  example: { material: 'EPDM', medium: 'mineral-oil', hottest: '90 °C' },
  compute({ material, medium, hottest, coldest }) {
    if (hottest < coldest)
      return refuse({ code: 'too-small', field: 'hottest', received: celsius(hottest), bound: `the coldest, ${celsius(coldest)}` });
    const of = (one: (typeof MATERIAL_IDS)[number]): ReturnType<typeof together> =>
      together(pairing(one, medium), heatOf(one, coldest, hottest));
    const each = MATERIAL_IDS.map((one) => ({ material: one, ...of(one) })).toSorted((one, other) => betterFirst(one.rating, other.rating));
    const fit = each.filter(({ rating }) => rating === 'fit').map(({ material: one }) => one);
    return ok({ ...of(material), better: fit.length > 0 ? fit.join(', ') : 'none of these: ask the maker of the seal', each });
  },
  explain: ({ material, medium, hottest, coldest }, output) => [
    { say: `${material} in ${MEDIA[medium].name}: ${pairing(material, medium).rating}.`, numbers: pairing(material, medium).why },
    {
      say: `From ${celsius(coldest)} to ${celsius(hottest)}: ${heatOf(material, coldest, hottest).rating}.`,
      numbers: heatOf(material, coldest, hottest).why,
    },
    { say: `So it is ${output.rating}.`, numbers: output.why },
  ],
});
