import type { Family } from '../words.js';
import type { Hazard } from './choices.js';

/** Families whose work the law leaves to licensed or qualified people in many places. */
export const LICENSED_FAMILIES: Partial<Record<Family, Hazard>> = {
  'axial-piston refrigerant compressor': 'refrigerant',
  'brake cylinder': 'brake',
  'hydraulic steering cylinder': 'steering',
  'piston air compressor': 'pressure',
  'rotary vane air compressor': 'pressure',
  'shock absorber and strut': 'spring',
};
