import type { Family } from '@jubb/sheet';

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

/** Workings of fits and joints that any build may ask for. */
const FOR_ANY_BUILD = [
  'fit.measured',
  'fit.press',
  'fit.heat',
  'press.sleeve',
  'torque.batch',
  'bearing.clearance',
  'bearing.identify',
] as const;

const BUILD: Partial<Record<Family, readonly string[]>> = {
  'drive axle with pinion and carrier': ['gear.pinion-depth', 'gear.backlash', 'gear.contact', 'bearing.thermal'],
  'propeller shaft with centre bearing': ['driveline.angles', 'torque.angle'],
  'multi-plate clutch': ['clutch.pack', 'clutch.capacity'],
  'gearbox with selective shims': ['shaft.end-play-shim', 'gearbox.snap-ring', 'bearing.shim'],
  'PTO gearbox': ['shaft.end-play-shim', 'bearing.shim', 'gear.backlash'],
  'cup-and-cone loose-ball hub': ['bearing.balls', 'bearing.cone-and-locknut'],
  'axial-piston refrigerant compressor': ['compressor.air-gap'],
};

export function toolsForBuild(family: Family): readonly string[] {
  return [...(BUILD[family] ?? []), ...FOR_ANY_BUILD];
}
