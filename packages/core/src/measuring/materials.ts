/**
 * Mean linear expansion near 20 °C, per kelvin. Handbook values, from memory (Machinery's Handbook,
 * thermal expansion of metals); alloys differ by some 10 %, which `measure.at-20` counts as uncertainty.
 */
export const EXPANSION = {
  steel: 11.5e-6,
  'cast-iron': 10.5e-6,
  aluminium: 23e-6,
  brass: 19e-6,
  bronze: 18e-6,
  stainless: 16.5e-6,
  none: 0,
} as const;

/**
 * What a cubic millimetre takes to warm by a kelvin, J: density times specific heat. Handbook values, from memory.
 */
export const HEAT_J_PER_MM3 = {
  steel: 7850e-9 * 460,
  'cast-iron': 7200e-9 * 500,
  aluminium: 2700e-9 * 900,
  brass: 8500e-9 * 380,
  bronze: 8800e-9 * 380,
  stainless: 7900e-9 * 500,
} as const;

export const EXPANSION_CHOICES = [
  { id: 'steel', label: 'steel' },
  { id: 'cast-iron', label: 'cast iron' },
  { id: 'aluminium', label: 'aluminium' },
  { id: 'brass', label: 'brass' },
  { id: 'bronze', label: 'bronze' },
  { id: 'stainless', label: 'stainless steel (18/8)' },
] as const;
