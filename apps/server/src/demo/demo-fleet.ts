import type { WayInLine } from '@jubb/book';
import type { DemoEntry } from '@jubb/play';
/** Who comes to the shop of the demo, and with what. All of it is invented, and belongs to nobody. */

export const CUSTOMERS: readonly string[] = [
  'Valdorn Airfield Ground Services',
  'Gelmarn Lift and Piste',
  'Skarrow Valley Lifts',
  'Orrendal Piste Works',
  'Tessenfirn Ropeways',
  'Brimmerholt Snow Works',
  'Quarrenholm Ice Hall',
  'Mirrowlake Rescue Boats',
  'Ullenbrake Road Service',
  'Haldersmoor Farm Contractors',
  'Wrenstall Haulage',
  'Ferrowick Airfield Buses',
  'Nordwyke Avalanche Control',
  'Pellarmoor Snow Blowing',
  'Dunhallan Machine Hire',
  'Eskmarrow Cargo Cycles',
  'Varnholm Timber Haulers',
  'Lindorrow Works Yard',
  'Castelmarrow Hotel Shuttle',
  'Obrenfold Quarry',
  'Thornquell Ferry Pumps',
  'Rimmersund De-icing',
  'Jassenmoor Trailer Works',
  'Kellumvale Fire Brigade',
  'Aldervaine Grounds',
];

export const RECEIVERS: readonly string[] = [
  'Ragna Ollwick',
  'Teo Marskell',
  'Tessil Brandow',
  'Orvo Kettrick',
  'Mirel Astowen',
  'Jorin Pelhaven',
  'Sanna Virebrook',
  'Edda Ruskmoor',
  'Pim Hallowick',
  'Vesla Torrald',
];

/** A unit of a machine, and the sheet that it goes by. */
type UnitOf = readonly [name: string, sheet: string, side?: 'left' | 'right'];

export interface MachineKind {
  readonly name: string;
  /** Begins its serials. */
  readonly mark: string;
  /** How many each customer has, by their place in the list. */
  readonly owners: readonly (readonly [customer: number, count: number])[];
  readonly units: readonly UnitOf[];
}

export const FLEET: readonly MachineKind[] = [
  {
    name: 'Baggage tractor',
    mark: 'TH6',
    owners: [
      [0, 5],
      [18, 2],
    ],
    units: [
      ['Left front hub', 'harrowmere-th6-front-hub', 'left'],
      ['Right front hub', 'harrowmere-th6-front-hub', 'right'],
      ['Transaxle', 'askvale-gx5-gearbox'],
      ['Brake pedal cylinder', 'tindlebrook-bm7-brake-cylinder'],
    ],
  },
  {
    name: 'Lift-service truck',
    mark: 'LS4',
    owners: [
      [1, 2],
      [2, 3],
      [4, 1],
      [16, 1],
    ],
    units: [
      ['Rear axle', 'ostrel-d44-drive-axle'],
      ['Propeller shaft', 'ostrel-ps2-propeller-shaft'],
      ['Left axle shaft', 'ostrel-sf30-axle-shaft', 'left'],
      ['Right axle shaft', 'ostrel-sf30-axle-shaft', 'right'],
      ['Alternator', 'quennet-ga-alternator'],
    ],
  },
  {
    name: 'Snow groomer',
    mark: 'SG6',
    owners: [
      [1, 3],
      [3, 3],
      [5, 2],
    ],
    units: [
      ['Turbocharger', 'quennet-t4-turbocharger'],
      ['Alternator', 'quennet-ga-alternator'],
      ['Cab compressor', 'askvale-rx10-refrigerant-compressor'],
      ['Belt tensioner', 'ostrel-bt2-belt-tensioner'],
      ['Blower drive', 'quennet-bn2-blower-drive'],
    ],
  },
  {
    name: 'Ice resurfacer',
    mark: 'IR8',
    owners: [[6, 2]],
    units: [
      ['Steering cylinder', 'harrowmere-hs40-steering-cylinder'],
      ['Left rear hub', 'askvale-ph80-planetary-hub', 'left'],
      ['Right rear hub', 'askvale-ph80-planetary-hub', 'right'],
      ['Blower drive', 'quennet-bn2-blower-drive'],
    ],
  },
  {
    name: 'De-icing truck',
    mark: 'DT2',
    owners: [
      [21, 3],
      [0, 1],
    ],
    units: [
      ['Left axle end', 'tindlebrook-sk2-steered-end', 'left'],
      ['Right axle end', 'tindlebrook-sk2-steered-end', 'right'],
      ['Steering cylinder', 'harrowmere-hs40-steering-cylinder'],
    ],
  },
  {
    name: 'Snow blower',
    mark: 'SB5',
    owners: [
      [13, 4],
      [8, 2],
    ],
    units: [['Drive gearbox', 'harrowmere-pg540-pto-gearbox']],
  },
  {
    name: 'Belt loader',
    mark: 'BL3',
    owners: [[0, 4]],
    units: [
      ['Belt tensioner', 'ostrel-bt2-belt-tensioner'],
      ['Alternator', 'quennet-ga-alternator'],
      ['Conveyor gearbox', 'harrowmere-pg540-pto-gearbox'],
    ],
  },
  {
    name: 'Lift-service van',
    mark: 'LV2',
    owners: [
      [2, 2],
      [17, 2],
    ],
    units: [
      ['Left front strut', 'quennet-sd3-strut', 'left'],
      ['Right front strut', 'quennet-sd3-strut', 'right'],
      ['Transaxle', 'askvale-gx5-gearbox'],
    ],
  },
  {
    name: 'Rescue boat',
    mark: 'RB1',
    owners: [
      [7, 2],
      [20, 1],
    ],
    units: [['Shaft seal', 'askvale-db32-dripless-seal']],
  },
  {
    name: 'Tracked carrier',
    mark: 'TC7',
    owners: [
      [12, 2],
      [23, 1],
    ],
    units: [
      ['Clutch', 'ostrel-mk7-multi-plate-clutch'],
      ['Hand lever cylinder', 'tindlebrook-bm7-brake-cylinder'],
    ],
  },
  {
    name: 'Cargo cycle',
    mark: 'CC1',
    owners: [[15, 4]],
    units: [
      ['Front hub', 'tindlebrook-cc1-loose-ball-hub'],
      ['Rear hub', 'tindlebrook-cc1-loose-ball-hub'],
    ],
  },
  { name: 'Launcher', mark: 'AL2', owners: [[12, 2]], units: [['Air compressor', 'tindlebrook-ac2-air-compressor']] },
  {
    name: 'Dolly train',
    mark: 'DU9',
    owners: [
      [0, 2],
      [22, 2],
    ],
    units: [
      ['Left front hub', 'harrowmere-ut9-trailer-hub', 'left'],
      ['Right front hub', 'harrowmere-ut9-trailer-hub', 'right'],
      ['Left rear hub', 'harrowmere-ut9-trailer-hub', 'left'],
      ['Right rear hub', 'harrowmere-ut9-trailer-hub', 'right'],
    ],
  },
  {
    name: 'Airfield bus',
    mark: 'AB1',
    owners: [[11, 2]],
    units: [
      ['Cab compressor', 'askvale-rx10-refrigerant-compressor'],
      ['Propeller shaft', 'ostrel-ps2-propeller-shaft'],
    ],
  },
];

/** What is brought over the counter, without its machine. */
export const COUNTER: readonly UnitOf[] = [
  ['Alternator', 'quennet-ga-alternator'],
  ['Brake cylinder', 'tindlebrook-bm7-brake-cylinder'],
  ['Cycle hub', 'tindlebrook-cc1-loose-ball-hub'],
  ['Clutch lever cylinder', 'tindlebrook-bm7-brake-cylinder'],
  ['Trolley hub', 'tindlebrook-cc1-loose-ball-hub'],
  ['Belt tensioner', 'ostrel-bt2-belt-tensioner'],
  ['Lift cylinder', 'harrowmere-hs40-steering-cylinder'],
  ['Strut', 'quennet-sd3-strut'],
  ['Propeller shaft', 'ostrel-ps2-propeller-shaft'],
  ['Blower drive', 'quennet-bn2-blower-drive'],
  ['Shaft seal', 'askvale-db32-dripless-seal'],
];

/** What a customer adds to what is wrong. */
export const SAID: readonly string[] = [
  'since the first snow',
  'worse when it is cold',
  'only under load',
  'after the wash',
  'the driver noticed it on the way down',
  'came on slowly',
  'all at once, on Saturday',
  'worse in the last two weeks',
  'not always',
  'it was done elsewhere a year ago',
];

export const FOUND_ON_ARRIVAL: readonly string[] = [
  'Dirty all over, nothing broken',
  'Salt and grit in every corner',
  'One screw is not like the others',
  'Paint marks of somebody who was in here before',
  'Dented at the outer edge, old',
  'Oil down one side, dry on the other',
  'Cable tie where a clip belongs',
  'Clean, looks well kept',
  'Rust where the cap sat',
  'Label unreadable, number taken from the casting',
];

/** What is put off, and what the customer says to it. */
export const OWED: readonly string[] = [
  'The other side, the same bearings',
  'Hose next to it, cracked at the bend',
  'Guard, two screws missing',
  'Belt, near its end',
];
export const TOLD: readonly string[] = ['in spring, before the season', 'with the next service', 'when the machine stands anyway'];

/** What somebody would have on the sheet the next time. */
export const NEXT_TIME: readonly string[] = [
  'Warm the housing first: it saves the driver',
  'The long screw sits at the bottom, say so',
  'A tray with two rows is needed for the rollers',
  'Hold the shaft by its flats, not by the splines',
];

export const NOTES: readonly string[] = [
  'Washed before it goes out.',
  'The customer wants the old parts back.',
  'Paint touched up at the flange.',
  'Driver shown how to hear it early.',
];

/** What was kept at a step of a model, for whoever comes to it next: the first of its jobs made the tool, the later ones say the rest. */
export const KEPT_AT_STEPS: Readonly<Record<string, readonly (DemoEntry & { readonly step: string })[]>> = {
  'askvale-gx5-gearbox': [
    {
      kind: 'tool-made',
      payload: {
        name: 'Puller with thin arms',
        use: 'grips behind the inner ring where the bought one is too thick',
        sizes: 'two arms 8 × 20, 140 long, ground to 3 at the tip',
        load: 30,
      },
      step: 'bearings-off',
    },
    { kind: 'note', payload: { text: 'The cage goes first; the ring then turns by hand while the screw is drawn.' }, step: 'bearings-off' },
    { kind: 'note', payload: { text: 'Reverse idler screw sits behind the bracket: seen from below only.' }, step: 'case-open' },
  ],
  'quennet-bn2-blower-drive': [
    {
      kind: 'tool-made',
      payload: {
        name: 'Pipe under the plate',
        use: 'carries the plate while the shaft goes down through it; a rag below catches the shaft',
        sizes: 'tube 60 × 5, 130 long, ends square',
        load: 40,
      },
      step: 'shaft-and-bearings-out',
    },
    {
      kind: 'note',
      payload: { text: 'It pops twice: at the ring, then at the bearing. Stop if it binds before that.' },
      step: 'shaft-and-bearings-out',
    },
  ],
  'askvale-rx10-refrigerant-compressor': [
    {
      kind: 'tool-made',
      payload: {
        name: 'Hook for the ring in the nose',
        use: 'reaches the ring where pliers do not open',
        sizes: 'rod 3, 160 long, tip bent 2',
      },
      step: 'seal-out',
    },
  ],
};

/** What is in the way of the unit on its machine. */
export const WAYS_IN: Readonly<Record<string, readonly WayInLine[]>> = {
  'ostrel-sf30-axle-shaft': [
    { what: 'Brake drum', how: 'off', screws: 2, size: 'M8 × 16', minutes: 6 },
    {
      what: 'Brake line at the backing plate',
      how: 'off',
      plug: 'rubber cap',
      minutes: 5,
      makes: { upsets: 'air', what: 'let out at the bleed screw until none comes', readAs: 'volume', from: 0.05, to: 0.4 },
    },
    {
      what: 'Handbrake cable',
      how: 'loosened',
      routing: 'over the axle tube, under the spring seat',
      minutes: 6,
      makes: { upsets: 'tension', what: 'free travel at the lever', readAs: 'length', from: 20, to: 40 },
    },
  ],
  'harrowmere-ut9-trailer-hub': [
    { what: 'Stay of the mudguard', how: 'aside', screws: 2, size: 'M8 × 25', torque: 24, minutes: 5 },
    { what: 'Sensor lead', how: 'off', routing: 'in the clip behind the plate', minutes: 2 },
  ],
  'quennet-bn2-blower-drive': [
    { what: 'Air duct', how: 'off', screws: 2, size: 'hose clips', plug: 'clean rag and tape', minutes: 8 },
    {
      what: 'Coolant pipe over the nose',
      how: 'off',
      screws: 2,
      size: 'M6 × 20',
      torque: 10,
      plug: 'two rubber plugs',
      minutes: 12,
      makes: { upsets: 'level', what: 'coolant, cold, over the lower mark', readAs: 'length', from: 5, to: 30 },
    },
  ],
};
