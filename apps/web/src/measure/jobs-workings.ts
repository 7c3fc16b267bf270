import type { Family } from '@jubb/contract/job';

/** Workings that a family is judged by beyond its limits, in the order in which they are used. */
const WORKINGS: Partial<Record<Family, readonly string[]>> = {
  alternator: ['alternator.rotor', 'alternator.stator', 'alternator.diodes', 'alternator.brushes', 'alternator.output'],
  'multi-plate clutch': ['spring.check'],
  'gearbox with selective shims': ['synchro.gap', 'chain.wear', 'spline.wear'],
  'belt-driven blower nose drive': ['spline.wear', 'bearing.noise'],
  'steered drive axle end': ['spline.wear'],
  'propeller shaft with centre bearing': ['spline.wear', 'bearing.noise'],
};

const FOR_ALL = ['measure.at-20'] as const;

export function toolsFor(family: Family): readonly string[] {
  return [...(WORKINGS[family] ?? []), ...FOR_ALL];
}
