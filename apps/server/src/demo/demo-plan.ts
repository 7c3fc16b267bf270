import { seeded } from '@jubb/core';
import type { HoldReason, JobScope, SheetFile, Stage } from '@jubb/sheet';
import { COUNTER, CUSTOMERS, FLEET, FOUND_ON_ARRIVAL, KEPT_AT_STEPS, NEXT_TIME, NOTES, OWED, RECEIVERS, SAID, TOLD } from './demo-fleet.js';
import type { DemoEntry } from '@jubb/play';
import type { LaterEntry, Stop } from './demo-work.js';

/** A unit of the demo's customers; without a machine it came over the counter. */
export interface PlannedUnit {
  readonly customer: number;
  readonly machine?: number;
  readonly name: string;
  readonly serial: string;
  readonly sheet: string;
  readonly side?: string;
}

export interface PlannedMachine {
  readonly customer: number;
  readonly name: string;
  readonly serial: string;
}

/** A job of the demo, but for its hours: the same from the same seed whatever the day is. */
export interface PlannedJob {
  readonly unit: number;
  /** On the revision of its sheet that was in force then: the first ones went by the one before. */
  readonly isEarly: boolean;
  readonly scope: JobScope;
  readonly complaint: string;
  readonly finding: string;
  readonly receivedBy: string;
  readonly estimateMinor: number;
  /** Days of the calendar to the promise: from booking in, or from today where it is open. */
  readonly promiseDays: number;
  readonly seed: number;
  readonly pace: number;
  /** Who does it, by log-in. */
  readonly hand: string;
  /** How worn it is: 0 as new, 1 at its limits. */
  readonly wear: number;
  readonly slips: boolean;
  /** How far into its window each setting is left, where it is left at the edge. */
  readonly leftAt?: number;
  /** Pieces come off the shelf where they lie there. */
  readonly byShelf: boolean;
  readonly after?: Partial<Record<Stage, readonly LaterEntry[]>>;
  readonly stop?: Stop;
  /** A look or a reading that cannot be told, where it stops. */
  readonly isUnsure?: boolean;
  /** Where its first entry lies in the two years, 0 to 1; an open one has its last one so many minutes of work ago. */
  readonly at?: number;
  readonly endedAgo?: number;
  /** What it shows, for `What to look at`. */
  readonly shows?: string;
  readonly quote?: 'sent' | 'ask' | 'yes' | 'no' | 'lapsed';
}

export interface DemoPlan {
  readonly machines: readonly PlannedMachine[];
  readonly units: readonly PlannedUnit[];
  readonly jobs: readonly PlannedJob[];
}

const FINISHED = 600;
/** Of them brought over the counter. */
const OVER_THE_COUNTER = 250;
const LEARNING = 'joss';
const HANDS = ['ilka', 'bram', 'tova', 'ilka', 'bram', LEARNING] as const;
/** Left the shop after the first year. */
const GONE = 'garrit';
/** So much of the two years the earlier revisions were in force. */
const EARLY = 0.55;
const HOUR_MINOR = 6800;
const OWED_SINCE = 0.84;

type Sheets = ReadonlyMap<string, SheetFile>;

/** A photo or a clip of the demo as it is kept. */
export interface Picture {
  readonly file: string;
  readonly width: number;
  readonly height: number;
}

/** By the name of its drawing. */
export type Pictures = Readonly<Record<string, Picture>>;

/** What is photographed once it is open, and what is said to it. */
const OPENED: readonly (readonly [picture: string, words: string])[] = [
  ['race-pitted', 'Pits along the loaded side'],
  ['seal-lip-worn', 'Lip worn to a bright line'],
  ['gear-pattern', 'Where the teeth carried'],
  ['shaft-cracked', 'A hair crack at the shoulder'],
  ['magnet', 'What the magnet held'],
  ['disc-scored', 'Scored all round'],
  ['ring-nicked', 'Nicked at one place'],
  ['rollers', 'Rollers in their cage, washed'],
];

/** Everything that was and is in the shop, worked out from one seed. */
export function planShop(sheets: Sheets, pictures: Pictures = {}, seed = 417): DemoPlan {
  const plan = planJobs(sheets, seed);
  const random = seeded(seed + 1);
  const jobs = plan.jobs
    .map((job) => withVariant(withPictures(job, pictures, random), plan.units[job.unit]!, sheets, seed))
    .map((job) => byWhoMay(job, sheets.get(plan.units[job.unit]!.sheet)!));
  return { ...plan, jobs: withKnowHow(jobs, plan.units, sheets) };
}

/** Who is learning has no job that ends at the test stand: it is not for them. */
function byWhoMay(job: PlannedJob, { steps }: SheetFile): PlannedJob {
  return job.hand === LEARNING && steps.some(({ bench }) => bench === 'test stand') ? { ...job, hand: HANDS[0], pace: 1 } : job;
}

/** One job after the other of a model keeps what its step taught, where it comes to that step. */
function withKnowHow(jobs: readonly PlannedJob[], units: readonly PlannedUnit[], sheets: Sheets): readonly PlannedJob[] {
  const left = new Map(Object.entries(KEPT_AT_STEPS).map(([sheet, kept]) => [sheet, [...kept]]));
  return jobs.map((job) => {
    const { sheet } = units[job.unit]!;
    const next = left.get(sheet)?.[0];
    const { tasks = [] } = sheets.get(sheet)!.steps.find(({ ref }) => ref === next?.step) ?? {};
    const comesTo = job.stop === undefined && (tasks.length === 0 || job.scope.tasks.some((task) => tasks.includes(task)));
    if (!next || !comesTo) return job;
    left.get(sheet)!.shift();
    return { ...job, after: { ...job.after, strip: [...(job.after?.strip ?? []), next] } };
  });
}

/** A unit is of the same variant whenever it is here; most of what is open shows it only once it is apart. */
function withVariant(job: PlannedJob, { sheet }: PlannedUnit, sheets: Sheets, seed: number): PlannedJob {
  const { variants = [] } = sheets.get(sheet)!;
  const random = seeded(seed * 1000 + job.unit);
  const isFirst = random() < 0.6;
  const variant = isFirst ? variants[0] : pick(variants, random);
  const isUnknown = job.stop?.stage === 'book-in' || job.stop?.stage === 'strip';
  if (!variant || variants.length < 2 || isUnknown) return job;
  const identified = variant.tells.slice(0, 2).map(({ feature, is }) => ({ feature, found: is }));
  return { ...job, scope: { ...job.scope, variant: variant.ref, identified } };
}

/** What is photographed on a job: how it came, what was found in it; and now and then how it sounds. */
function withPictures(job: PlannedJob, pictures: Pictures, random: () => number): PlannedJob {
  const photo = (name: string, words: string): readonly LaterEntry[] => {
    const { file, width, height } = pictures[name] ?? {};
    return file === undefined ? [] : [{ kind: 'photo', payload: { file, width, height, words } }];
  };
  const [came, opened, sounds] = [random(), random(), random()];
  const [picture, words] = pick(OPENED, random);
  const clip = pictures['rumble'];
  const bookIn = [
    ...(came < 0.25 ? photo('dirt', 'As it came') : []),
    ...(came > 0.85 ? photo('stamp', 'The plate on it') : []),
    ...(clip && sounds < 0.05
      ? [{ kind: 'clip', payload: { file: clip.file, sort: 'audio', seconds: 4, words: 'How it sounds on the bench' } } as const]
      : []),
  ];
  const measure = opened < 0.2 + 0.3 * job.wear ? photo(picture, words) : [];
  const { after = {} } = job;
  return {
    ...job,
    after: { ...after, 'book-in': [...bookIn, ...(after['book-in'] ?? [])], measure: [...measure, ...(after.measure ?? [])] },
  };
}

function planJobs(sheets: Sheets, seed: number): DemoPlan {
  const random = seeded(seed);
  const machines = FLEET.flatMap((kind) =>
    kind.owners.flatMap(([customer, count]) =>
      Array.from({ length: count }, (_, at) => ({ kind, customer, name: `${kind.name} ${at + 1}` })),
    ),
  ).map(({ kind, customer, name }, at): PlannedMachine & { kind: typeof kind } => ({
    kind,
    customer,
    name,
    serial: `${kind.mark}-${20_117 + at * 131}`,
  }));
  const units: PlannedUnit[] = machines.flatMap(({ kind, customer, serial }, machine) =>
    kind.units.map(([name, sheet, side], at) => ({
      customer,
      machine,
      name,
      serial: `${serial.slice(-4)}-${at + 1}`,
      sheet,
      ...(side ? { side } : {}),
    })),
  );
  const fleet = units.length;
  const jobs: PlannedJob[] = [];
  const job = (unit: number, more: Partial<PlannedJob> = {}): PlannedJob => ({ ...ordinary(units[unit]!, sheets, random), unit, ...more });
  /** When each unit of the fleet was last here. */
  const lastAt = new Map<number, number>();
  for (let at = 0; at < FINISHED; at += 1) {
    const when = (at + 0.5) / FINISHED;
    const isCounter = at % 12 < (OVER_THE_COUNTER / FINISHED) * 12;
    const unit = isCounter ? units.push(overTheCounter(random, at)) - 1 : restedLongest(lastAt, fleet, when, random);
    const since = lastAt.get(unit);
    lastAt.set(unit, when);
    const hand = when < 0.45 && random() < 0.2 ? GONE : pick(HANDS, random);
    jobs.push(
      job(unit, {
        at: when,
        isEarly: when < EARLY,
        hand,
        pace: hand === LEARNING ? 1.5 : 0.85 + 0.4 * random(),
        // What ran longer since the last time is worn further.
        wear: since === undefined ? 0.3 + 0.8 * random() : Math.min(1.2, (when - since) * 1.6 + 0.2 * random()),
        slips: random() < 0.07,
        byShelf: random() < 0.7,
        after: between(random, when),
      }),
    );
    const borderline = !isCounter && random() < 0.11;
    if (!borderline || when > 0.93) continue;
    // Left at the edge of its window, and most of those come back.
    const left = jobs.pop()!;
    jobs.push({ ...left, leftAt: 0.93 + 0.05 * random() });
    if (random() < 0.7) {
      const back = Math.min(0.985, when + 0.04 + 0.2 * random());
      lastAt.set(unit, back);
      jobs.push(job(unit, { at: back, isEarly: back < EARLY, wear: 1.1, complaint: `Is back: ${left.complaint.toLowerCase()}` }));
    }
  }
  return {
    machines: machines.map(({ customer, name, serial }) => ({ customer, name, serial })),
    units,
    jobs: [...jobs.toSorted((a, b) => a.at! - b.at!).slice(0, FINISHED), ...openJobs(units, jobs, job, random)],
  };
}

/** Waits between the stages: for parts after what is renewed was decided, for the customer's word before it. */
function between(random: () => number, when: number): NonNullable<PlannedJob['after']> {
  const day = 24 * 60;
  const waited = (reason: HoldReason, words: string, days: number): readonly LaterEntry[] => [
    { kind: 'hold', payload: { reason, words } },
    { kind: 'hold-off', payload: { words: reason === 'answer' ? 'said yes by telephone' : 'came with the van' }, waits: days * day },
  ];
  return {
    ...(random() < 0.3 ? { measure: waited('answer', 'the customer is asked', 0.2 + 1.5 * random()) } : {}),
    ...(random() < 0.4 ? { decide: waited('parts', 'ordered', 1 + Math.floor(random() * 4)) } : {}),
    ...afterProof(random, when),
  };
}

/** What is said before it goes out: what is put off, what should be on the sheet, or nothing. */
function afterProof(random: () => number, when: number): NonNullable<PlannedJob['after']> {
  const drawn = random();
  // What was put off long ago has been done since.
  if (drawn < 0.14 && when > OWED_SINCE)
    return {
      prove: [{ kind: 'owed', payload: { what: pick(OWED, random), told: pick(TOLD, random) }, dueIn: 70 + Math.floor(random() * 200) }],
    };
  if (drawn < 0.04) return { prove: [{ kind: 'next-time', payload: { text: pick(NEXT_TIME, random) } }] };
  if (drawn < 0.18) return { prove: [{ kind: 'note', payload: { text: pick(NOTES, random) } }] };
  return {};
}

function ordinary(unit: PlannedUnit, sheets: Sheets, random: () => number): Omit<PlannedJob, 'unit'> {
  const { tasks = [], complaints = [] } = sheets.get(unit.sheet)!;
  const part = tasks.filter(({ whole }) => !whole);
  const narrow = part.length > 0 && random() < 0.45 ? pick(part, random) : undefined;
  const said = complaints.length > 0 ? pick(complaints, random) : undefined;
  const name = said ? `${said.name.charAt(0).toUpperCase()}${said.name.slice(1)}` : 'Due for a rebuild';
  return {
    isEarly: false,
    scope: {
      tasks: narrow ? [narrow.ref] : tasks.filter(({ whole }) => whole).map(({ ref }) => ref),
      sides: unit.side ? [unit.side] : [],
      place: 'on the bench',
      picks: said ? [said.ref] : [],
      identified: [],
      partsFirst: [],
    },
    complaint: random() < 0.7 ? `${name}, ${pick(SAID, random)}.` : `${name}.`,
    finding: pick(FOUND_ON_ARRIVAL, random),
    receivedBy: pick(RECEIVERS, random),
    estimateMinor: Math.round(HOUR_MINOR * (narrow ? 1.5 + random() : 3 + 3 * random())),
    promiseDays: 5 + Math.floor(random() * 6),
    seed: Math.floor(random() * 2 ** 31),
    pace: 0.85 + 0.4 * random(),
    hand: pick(HANDS, random),
    wear: 0.3 + 0.8 * random(),
    slips: random() < 0.07,
    byShelf: false,
  };
}

function overTheCounter(random: () => number, at: number): PlannedUnit {
  const [name, sheet] = pick(COUNTER, random);
  return { customer: Math.floor(random() * CUSTOMERS.length), name, serial: `C-${3100 + at * 7}`, sheet };
}

/** A unit of the fleet that was not here for long: the same one comes back within a year only where something is wrong. */
function restedLongest(lastAt: ReadonlyMap<number, number>, fleet: number, when: number, random: () => number): number {
  const rest = (unit: number): number => when - (lastAt.get(unit) ?? -0.4);
  const some = Array.from({ length: 8 }, () => Math.floor(random() * fleet));
  return some.toSorted((a, b) => rest(b) - rest(a))[0]!;
}

const hold = (reason: HoldReason, words: string): DemoEntry => ({ kind: 'hold', payload: { reason, words } });

/** What is on the benches now: every stage, every reason to wait, and what else there is to see. */
function openJobs(
  units: readonly PlannedUnit[],
  finished: readonly PlannedJob[],
  job: (unit: number, more?: Partial<PlannedJob>) => PlannedJob,
  random: () => number,
): readonly PlannedJob[] {
  const used = new Set<number>();
  const unitOn = (sheet: string, owner?: number): number => {
    const found = units.findIndex(
      (unit, at) => unit.sheet === sheet && !used.has(at) && unit.machine !== undefined && (owner === undefined || unit.customer === owner),
    );
    used.add(found);
    return found;
  };
  const at = (sheet: string, stop: Stop, more: Partial<PlannedJob> = {}): PlannedJob =>
    job(unitOn(sheet), { stop, endedAgo: 20 + Math.floor(random() * 1500), hand: pick(['ilka', 'bram', 'tova'], random), ...more });
  const bothSides = (sheet: string): Partial<PlannedJob> => {
    const { tasks, picks, place, identified, partsFirst } = job(units.findIndex((unit) => unit.sheet === sheet)).scope;
    return { scope: { tasks, picks, place, identified, partsFirst, sides: ['left', 'right'] } };
  };
  const whole = (sheet: string): Partial<PlannedJob> => {
    for (;;) {
      const { scope } = job(units.findIndex((unit) => unit.sheet === sheet));
      if (scope.tasks.some((task) => /^(?:whole|full|hub|core|bearing|reseal)/u.test(task))) return { scope };
    }
  };
  const comeback = finished.findLast(
    ({ leftAt, at: when, unit }) => leftAt !== undefined && when! > 0.7 && when! < 0.95 && !used.has(unit),
  )!;
  used.add(comeback.unit);
  const [hub, axle, box] = ['harrowmere-th6-front-hub', 'ostrel-d44-drive-axle', 'askvale-gx5-gearbox'] as const;
  return [
    at(
      hub,
      { stage: 'build', within: 'torque' },
      { ...bothSides(hub), endedAgo: 6, hand: 'ilka', shows: 'A torque run in the middle, both sides of an axle' },
    ),
    at(
      axle,
      { stage: 'build', within: 'pattern' },
      { ...whole(axle), endedAgo: 35, hand: 'bram', shows: 'A contact pattern that is off: what to move, and by how much' },
    ),
    at(
      box,
      { stage: 'build', within: 'setting' },
      { ...whole(box), endedAgo: 50, hand: 'tova', shows: 'A preload that is not in yet, with its tries' },
    ),
    at('ostrel-sf30-axle-shaft', { stage: 'strip', share: 0.6 }, { ...bothSides('ostrel-sf30-axle-shaft') }),
    at('quennet-t4-turbocharger', { stage: 'measure', share: 0.6 }, { ...whole('quennet-t4-turbocharger'), wear: 1.1 }),
    at('quennet-ga-alternator', { stage: 'decide', share: 0 }, { quote: 'sent', wear: 1.1, shows: 'A quote that is with the customer' }),
    at('askvale-ph80-planetary-hub', { stage: 'decide', then: [hold('parts', 'planet pins, ordered')] }, { wear: 1.1 }),
    at('harrowmere-hs40-steering-cylinder', { stage: 'prove', share: 0, then: [hold('tool', 'the pressure stand is lent')] }),
    at('tindlebrook-sk2-steered-end', { stage: 'strip', share: 0.5, then: [hold('help', 'a second pair of hands for the ball')] }),
    at('quennet-sd3-strut', { stage: 'build', share: 0.5, then: [hold('cure', 'gas settles overnight')] }),
    at(
      'harrowmere-pg540-pto-gearbox',
      { stage: 'decide', then: [hold('answer', 'asked whether the shaft is to be renewed')] },
      { quote: 'ask', wear: 1.1 },
    ),
    at(
      'askvale-rx10-refrigerant-compressor',
      { stage: 'measure' },
      { isUnsure: true, wear: 0.9, shows: 'A reading that is unsure: not in, not out' },
    ),
    job(comeback.unit, {
      stop: { stage: 'measure', share: 0.4 },
      endedAgo: 90,
      wear: 1.1,
      complaint: `Is back: ${comeback.complaint.toLowerCase()}`,
      shows: 'A unit that came back, and how it was left',
    }),
    at('ostrel-bt2-belt-tensioner', { stage: 'decide', share: 0 }, { quote: 'no', wear: 1.1 }),
    at(
      'harrowmere-hs40-steering-cylinder',
      {
        stage: 'build',
        share: 0.4,
        then: [
          {
            kind: 'way',
            step: 'edges-dressed',
            payload: {
              way: 'stop-gap-polish-for-a-season',
              agreed: { foreman: 'Oswin Tarrell', customer: 'until the end of the season, then a new rod' },
            },
          },
        ],
      },
      { ...whole('harrowmere-hs40-steering-cylinder'), shows: 'A way that departs from the book, with who agreed' },
    ),
    at(
      'tindlebrook-cc1-loose-ball-hub',
      { stage: 'prove', within: 'sign' },
      { hand: LEARNING, pace: 1.5, endedAgo: 15, shows: 'An apprentice’s job that waits for the signature' },
    ),
    at('ostrel-ps2-propeller-shaft', { stage: 'build', share: 0.5 }, { promiseDays: -2, endedAgo: 900 }),
    at('askvale-db32-dripless-seal', { stage: 'hand-over', share: 0 }),
    at('harrowmere-ut9-trailer-hub', { stage: 'book-in', share: 0 }, { endedAgo: 10 }),
    at('quennet-bn2-blower-drive', { stage: 'build', within: 'setting' }, { ...whole('quennet-bn2-blower-drive') }),
    at('tindlebrook-ac2-air-compressor', { stage: 'measure', share: 0.5 }, { wear: 1.2 }),
    at('ostrel-mk7-multi-plate-clutch', { stage: 'decide', share: 0 }, { quote: 'lapsed', wear: 1.1 }),
    at('tindlebrook-bm7-brake-cylinder', { stage: 'build', share: 0.4 }),
    ...Array.from({ length: 16 }, (_, index): PlannedJob => {
      const stages: readonly Stage[] = ['book-in', 'strip', 'measure', 'build', 'book-in', 'decide', 'strip', 'measure'];
      const stage = stages[index % stages.length]!;
      const free = units.findIndex((unit, place) => unit.machine !== undefined && !used.has(place) && place >= index * 11);
      used.add(free);
      return job(free, {
        stop: { stage, share: stage === 'book-in' ? 0 : 0.2 + 0.6 * random() },
        endedAgo: 30 + index * 140,
        hand: pick(['ilka', 'bram', 'tova', LEARNING], random),
      });
    }),
  ];
}

function pick<T>(from: readonly T[], random: () => number): T {
  return from[Math.floor(random() * from.length)]!;
}
