/** Temperature coefficient of copper's resistance about 20 °C, per kelvin (IEC 60028: 0.003 93). */
export const COPPER_PER_K = 0.00393;
/** Resistivity of annealed copper at 20 °C in Ω·mm²/m (IEC 60028: 1/58). */
export const COPPER_RESISTIVITY = 1 / 58;

/** A copper winding's resistance at 20 °C from one at t °C. */
export function copperAt20(resistance: number, temperature: number): number {
  return resistance / (1 + COPPER_PER_K * (temperature - 20));
}

/** Insulation under this, in Ω, is an earth fault of a low-voltage machine. Common practice: 1 MΩ. */
export const LEAST_INSULATION = 1e6;

export const COPPER_SOURCE = {
  kind: 'standard',
  document: 'IEC 60028',
  edition: '1925',
  for: 'coefficient 0.003 93/K and resistivity of copper',
} as const;
export const INSULATION_SOURCE = {
  kind: 'common practice',
  document: 'insulation to earth at least 1 MΩ',
  for: 'the earth verdict',
} as const;
