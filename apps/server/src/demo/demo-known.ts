/** The zone that the demo's shop is in. */
export const ZONE = 'Europe/Vienna';

/** Sheets that were revised: by their key, what stands in them now, and what stood there before. */
export const EARLIER: readonly (readonly [key: string, now: string, before: string])[] = [
  [
    'quennet-t4-turbocharger',
    'window: { from: 3 mm, to: 5 mm, trust: published, source: wm, page: 1-25 }',
    'window: { from: 3 mm, to: 6 mm, trust: published, source: wm, page: 1-25 }',
  ],
  ['quennet-t4-turbocharger', 'name: Actuator rod, pressure at first movement', 'name: Actuator rod, reach'],
  ['askvale-gx5-gearbox', 'time: 30 min', 'time: 20 min'],
];
