/**
 * What a seal is made of, what it meets, and how the two get on: common practice as seal makers print it, from memory. What
 * is not known is unknown, never fit; the maker of the very compound has the last word.
 */
export const MATERIALS = {
  NBR: { name: 'nitrile', long: [-30, 100], short: 120 },
  HNBR: { name: 'hydrogenated nitrile', long: [-30, 150], short: 165 },
  FKM: { name: 'fluorocarbon', long: [-20, 200], short: 225 },
  EPDM: { name: 'ethylene propylene', long: [-45, 140], short: 150 },
  VMQ: { name: 'silicone', long: [-55, 200], short: 230 },
  FVMQ: { name: 'fluorosilicone', long: [-60, 175], short: 200 },
  ACM: { name: 'polyacrylate', long: [-20, 150], short: 170 },
  PU: { name: 'polyurethane', long: [-30, 80], short: 100 },
  PTFE: { name: 'PTFE', long: [-200, 260], short: 280 },
  CR: { name: 'chloroprene', long: [-40, 100], short: 120 },
  leather: { name: 'leather', long: [-40, 80], short: 90 },
  felt: { name: 'felt', long: [-40, 100], short: 110 },
} as const satisfies Readonly<Record<string, { readonly name: string; readonly long: readonly [number, number]; readonly short: number }>>;

export type Material = keyof typeof MATERIALS;
export const MATERIAL_IDS = Object.keys(MATERIALS) as readonly Material[];

export type Rating = 'fit' | 'marginal' | 'no' | 'unknown';

const LETTERS: Readonly<Record<string, Rating>> = { f: 'fit', m: 'marginal', n: 'no', u: 'unknown' };

interface Medium {
  readonly name: string;
  /** One letter for each material in their order: fit, marginal, no, unknown. */
  readonly with: string;
  /** Why some are no good, and why some are only just. */
  readonly no: string;
  readonly marginal: string;
  /** A reason of its own. */
  readonly but?: Readonly<Partial<Record<Material, string>>>;
}

/**                                                        NBR HNBR FKM EPDM VMQ FVMQ ACM PU PTFE CR leather felt */
const medium = (name: string, rated: string, no: string, marginal: string, but: Medium['but'] = {}): Medium => ({
  name,
  with: rated.replaceAll(' ', ''),
  no,
  marginal,
  but,
});

export const MEDIA = {
  'mineral-oil': medium(
    'mineral oil, engine or hydraulic',
    'f f f n m f f f f m f f',
    'mineral oil swells it to jelly',
    'swells, and is soft after a season',
  ),
  'hypoid-oil': medium(
    'hypoid gear oil, GL-4 or GL-5',
    'm f m n n f f m f m f f',
    'oil swells it, and its sulphur goes on from there',
    'the additives harden it from some 90 °C on',
    {
      FKM: 'amines among the additives crack it when it is hot; a peroxide-cured one holds',
    },
  ),
  atf: medium(
    'automatic transmission fluid',
    'm f f n m f f m f m u u',
    'swells it to jelly',
    'holds while it is cool, hardens from some 100 °C on',
  ),
  'synthetic-oil': medium('synthetic oil (PAO)', 'f f f n m f f f f m u f', 'swells it to jelly', 'swells or shrinks by some per cent'),
  'ester-oil': medium(
    'ester oil, biodegradable hydraulic oil (HEES)',
    'm m f n n f n n f n u u',
    'ester takes it apart',
    'swells, and is short-lived when hot',
  ),
  'polyglycol-oil': medium(
    'polyglycol gear oil (PG)',
    'm f m f f m n n f m u u',
    'polyglycol takes it apart',
    'swells or shrinks: look at the very oil',
  ),
  'phosphate-ester': medium(
    'phosphate ester, fire-resistant (HFD-R)',
    'n n m f m m n n f n u n',
    'phosphate ester dissolves it',
    'swells by a tenth and more',
  ),
  'water-glycol': medium('water glycol, fire-resistant (HFC)', 'f f m f m m n n f m n n', 'water takes it apart', 'holds cool, and swells'),
  'mineral-grease': medium('grease on mineral oil', 'f f f n m f f f f m f f', 'the oil in it swells it', 'swells slowly'),
  'silicone-grease': medium(
    'silicone grease',
    'f f f f n m f f f f f u',
    'like dissolves like: silicone swells in silicone',
    'swells a little',
  ),
  'glycol-brake-fluid': medium(
    'glycol brake fluid, DOT 3, 4, 5.1',
    'n n n f m n n n f m u n',
    'brake fluid swells it: the brake sticks, then fails',
    'holds short and cool',
  ),
  'silicone-brake-fluid': medium(
    'silicone brake fluid, DOT 5',
    'm u f f n m u u f m u n',
    'silicone swells in silicone',
    'shrinks or swells by some per cent',
  ),
  'mineral-brake-oil': medium(
    'mineral brake oil',
    'f f f n m f f f f m f n',
    'mineral oil swells it to jelly: the brake sticks, then fails',
    'swells slowly',
  ),
  coolant: medium('coolant, glycol in water', 'm f m f m m n n f m n n', 'hot water takes it apart', 'holds to some 80 °C', {
    FKM: 'hot water hardens the ordinary one; a peroxide-cured one holds',
  }),
  water: medium('water', 'f f m f f f n m f m m n', 'water takes it apart', 'holds cold, swells or softens warm'),
  steam: medium('steam, hot wash water', 'n m n f m n n n f n n n', 'steam takes it apart', 'holds short'),
  petrol: medium('petrol', 'm m f n n f n m f n u u', 'petrol swells it to jelly', 'swells by a fifth, and dries out small'),
  'petrol-ethanol': medium(
    'petrol with ethanol, E10 to E85',
    'm m m n n f n n f n u u',
    'swells it to jelly, and alcohol goes on from there',
    'swells: only a compound that is said to be for it',
    {
      FKM: 'swells by alcohol: one of high fluorine content',
    },
  ),
  diesel: medium('diesel', 'f f f n n f m m f m u f', 'swells it to jelly', 'swells slowly'),
  biodiesel: medium('diesel with much biodiesel', 'm m f n n f n n f n u u', 'the ester in it takes it apart', 'swells, and ages when hot'),
  'r134a-pag': medium(
    'R134a with PAG oil',
    'n f n f n n n n f f n n',
    'refrigerant goes into it, and blisters it when the pressure goes',
    'swells',
    {
      NBR: 'the old rings for R12: they blister and shrink',
    },
  ),
  'r134a-poe': medium('R134a with ester oil (POE)', 'n f n m n n n n f f n n', 'refrigerant or ester goes into it', 'swells in the oil'),
  'r1234yf-pag': medium('R1234yf with PAG oil', 'n f n f n n n n f m n n', 'refrigerant goes into it, and blisters it', 'swells'),
  'r12-mineral': medium('R12 with mineral oil', 'm m m n n m n u f f n n', 'oil or refrigerant swells it', 'holds, and swells'),
  air: medium('air, dry', 'm f f f f f f f f f f f', 'air does nothing to it', 'ozone and sun crack it in some years'),
  'brake-cleaner': medium('brake cleaner, cold cleaner', 'm m m n n m n m f n m m', 'swells it', 'wiped with it, never laid in it'),
  acetone: medium('acetone, nitro thinner', 'n n n f m n n n f n m m', 'dissolves or swells it at once', 'wiped with it, never laid in it'),
  'caustic-wash': medium('caustic wash of a parts washer', 'm f n f m m n n f m n n', 'lye takes it apart', 'short, and rinsed'),
} as const satisfies Readonly<Record<string, Medium>>;

export type MediumId = keyof typeof MEDIA;
export const MEDIUM_IDS = Object.keys(MEDIA) as readonly MediumId[];

export interface Pairing {
  readonly rating: Rating;
  readonly why: string;
}

/** How a material gets on with a medium, by itself. */
export function pairing(material: Material, of: MediumId): Pairing {
  const met: Medium = MEDIA[of];
  const rating = LETTERS[met.with[MATERIAL_IDS.indexOf(material)] ?? 'u'] ?? 'unknown';
  const why =
    met.but?.[material] ??
    { fit: 'holds', marginal: met.marginal, no: met.no, unknown: 'nobody here knows: ask the maker of the seal' }[rating];
  return { rating, why };
}

/** Whether a material holds from the coldest to the hottest that it meets, °C. */
export function heatOf(material: Material, coldest: number, hottest: number): Pairing {
  const { long, short } = MATERIALS[material];
  const [low, high] = long;
  if (coldest < low) return { rating: 'no', why: `hard and leaking below ${low} °C` };
  if (hottest > short) return { rating: 'no', why: `over ${short} °C it is gone within hours` };
  if (hottest > high) return { rating: 'marginal', why: `over ${high} °C for hours only, not for years` };
  return { rating: 'fit', why: 'holds the heat and the cold' };
}

const WORST: readonly Rating[] = ['no', 'unknown', 'marginal', 'fit'];

/** Medium and temperature together: the worse of the two, with its reason. */
export function together(...pairings: readonly Pairing[]): Pairing {
  return pairings.toSorted((one, other) => WORST.indexOf(one.rating) - WORST.indexOf(other.rating))[0]!;
}

export function betterFirst(one: Rating, other: Rating): number {
  return WORST.indexOf(other) - WORST.indexOf(one);
}
