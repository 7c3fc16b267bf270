import { formatQuantity } from '../quantity/format.js';
import { readOpen } from '../quantity/open.js';
import type { Issue } from '../working/issues.js';
import { LEAST_INSULATION } from './copper.js';

/** The field that asks for insulation to earth, which a meter often shows as OL. */
export const EARTH_FIELD = {
  kind: 'text',
  name: 'earth',
  label: 'To earth',
  longest: 40,
  default: 'OL',
  help: 'As the meter shows it on its highest range: "OL", or a resistance such as "200 kΩ".',
} as const;

/** Ω to earth, infinity for OL, or the issue. */
export function readEarth(text: string): { readonly ohm: number } | { readonly issue: Issue } {
  const ohm = readOpen(text, 'resistance');
  return Number.isNaN(ohm) || ohm < 0
    ? { issue: { code: 'not-a-meter-reading', field: 'earth', received: text, quantity: 'resistance' } }
    : { ohm };
}

export function isEarthed(ohm: number): boolean {
  return ohm < LEAST_INSULATION;
}

export function earthWords(ohm: number): string {
  return ohm === Number.POSITIVE_INFINITY ? 'open' : formatQuantity(ohm, 'resistance', ohm >= 1e6 ? 'MΩ' : ohm >= 1e3 ? 'kΩ' : 'Ω');
}
