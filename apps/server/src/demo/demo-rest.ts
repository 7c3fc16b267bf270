import type { PersonView, QuoteAnswer, QuoteBody, QuoteLine } from '@jubb/book';
import { seeded } from '@jubb/core';
import { daysOn, type Stage } from '@jubb/sheet';
import { randomBytes } from 'node:crypto';
import type { EntityManager } from 'typeorm';
import { v7 as uuid } from 'uuid';
import {
  DemoSight,
  Message,
  PartOrder,
  PartOrderLine,
  Quote,
  SupplierItem,
  SupplierOrder,
  ToolCheck,
  ToolRow,
} from '../database/entities/index.js';
import { ask } from '../database/data-source.js';
import { digest } from '../tablets/tablets.service.js';
import { loadBenches } from './demo-benches.js';
import { DATE_CHECKS } from './demo.sql.js';
import { DEMO_SUPPLIERS } from './demo-stores.js';
import { ZONE } from './demo-known.js';
import type { PlannedJob } from './demo-plan.js';
import type { WorkedJob } from './demo-worker.js';

const HANDS_ON: readonly Stage[] = ['strip', 'measure', 'build', 'prove'];
const DAY = 24 * 3600 * 1000;
const HOUR_MINOR = 6800;
const TAX = 0.2;
const MOST_LETTERS = 30;
/** A quote is good for so many days. */
const GOOD_DAYS = 21;
const HOUR_MS = 3600 * 1000;

/** A job that is kept, and the plan that it was worked by. */
export interface KeptJob {
  readonly plan: PlannedJob;
  readonly worked: Omit<WorkedJob, 'rows'>;
  readonly unit: string;
  readonly phone: string;
}

/** What goes on around the benches: offers to customers, orders, checks of tools, letters, and where to look first. */
export async function loadRest(
  manager: EntityManager,
  jobs: readonly KeptJob[],
  staff: ReadonlyMap<string, PersonView>,
  now: number,
): Promise<void> {
  await loadQuotes(manager, jobs, staff.get('perla')!.id, now);
  await loadOrders(manager, jobs, staff.get('perla')!.id, now);
  await loadChecks(manager, staff, now);
  await loadBenches(manager, staff, inHand(jobs));
  await manager.insert(DemoSight, sightsOf(jobs));
}

/** Open jobs that are under somebody's hands, the one worked at last in front. */
function inHand(jobs: readonly KeptJob[]): readonly string[] {
  return jobs
    .filter(({ worked: { stage, closedAt } }) => closedAt === null && HANDS_ON.includes(stage))
    .toSorted((one, other) => (one.worked.endedAt < other.worked.endedAt ? 1 : -1))
    .map(({ worked: { id } }) => id);
}

async function loadQuotes(manager: EntityManager, jobs: readonly KeptJob[], sentById: string, now: number): Promise<void> {
  const random = seeded(31);
  const quotes = jobs.flatMap((job) => {
    const { plan, worked } = job;
    const state = plan.quote ?? (worked.asked ? 'yes' : undefined);
    if (state === undefined) return [];
    const sentAt = Date.parse(worked.asked?.at ?? worked.endedAt);
    const share = 0.4 + random();
    const isOver = state === 'lapsed';
    const current = {
      ...offer(job, share),
      state: isOver ? ('sent' as const) : state,
      answer: answerOf(state, worked.asked?.answeredAt ?? new Date(now - HOUR_MS).toISOString()),
      sentAt: new Date(sentAt),
      validUntil: isOver ? daysOn(ZONE, now, -3) : daysOn(ZONE, sentAt, GOOD_DAYS),
    };
    // The first one was too dear, and has been replaced.
    const before = {
      ...offer(job, share * 1.4),
      state: 'replaced' as const,
      answer: null,
      sentAt: new Date(sentAt - DAY),
      validUntil: daysOn(ZONE, sentAt, GOOD_DAYS),
    };
    return [...(plan.quote === 'sent' ? [before] : []), current].map(({ validUntil, body, ...rest }) => ({
      ...rest,
      body: { ...body, validUntil },
      sentById,
    }));
  });
  const inOrder = quotes.toSorted((a, b) => a.sentAt.getTime() - b.sentAt.getTime());
  // One after the other: they are numbered as they were sent.
  await manager.insert(
    Quote,
    inOrder.map(({ sentAt: _sentAt, ...quote }) => quote),
  );
  const numbered = new Map((await manager.find(Quote, { select: { id: true, number: true } })).map(({ id, number }) => [id, number]));
  for (const { id, sentAt } of inOrder) await manager.createQueryBuilder().update(Quote).set({ sentAt }).where({ id }).execute();
  for (const { id, body, sentAt } of inOrder.slice(-MOST_LETTERS)) {
    const letter = { id: uuid(), to: body.to, subject: `Quote ${numbered.get(id) ?? ''}`, text: body.words ?? '' };
    await manager.insert(Message, letter);
    await manager.createQueryBuilder().update(Message).set({ sentAt }).where({ id: letter.id }).execute();
  }
}

interface Offer {
  readonly id: string;
  readonly jobId: string;
  readonly body: Omit<QuoteBody, 'id' | 'validUntil'>;
  readonly tokenHash: string;
}

/** What is proposed on a job, by a share of what was estimated for its parts. */
function offer({ plan, worked, unit, phone }: KeptJob, share: number): Offer {
  const hours = Math.max(1, Math.round((plan.estimateMinor / HOUR_MINOR) * 2) / 2);
  const parts = (part: number): QuoteLine => ({
    sort: 'part',
    what: 'Parts and seals, as measured',
    quantity: 1,
    unitMinor: Math.round(plan.estimateMinor * share * part),
  });
  const labour = (quantity: number, what: string): QuoteLine => ({ sort: 'labour', what, quantity, unitMinor: HOUR_MINOR });
  return {
    id: uuid(),
    jobId: worked.id,
    body: {
      to: phone,
      words: `We have opened the ${unit.toLowerCase()} and measured it. This is what we propose.`,
      taxShare: TAX,
      findings: [{ words: plan.complaint, verdict: 'told' as const }],
      options: [
        { name: 'Rebuild', lines: [labour(hours, 'Strip, measure, rebuild and prove'), parts(1)] },
        { name: 'Seals only', lines: [labour(Math.ceil(hours / 2), 'Open, new seals, close and prove'), parts(0.33)] },
      ],
    },
    tokenHash: digest(randomBytes(18).toString('base64url')),
  };
}

function answerOf(state: NonNullable<PlannedJob['quote']>, at: string): QuoteAnswer | null {
  if (state === 'yes') return { answer: 'yes', option: 0, without: [], at };
  if (state === 'no') return { answer: 'no', without: [], words: 'Too much for so old a machine', at };
  if (state === 'ask') return { answer: 'ask', without: [], words: 'Does the shaft have to be new, or can it be ground?', at };
  return null;
}

type LinePlan = readonly [pieces: number, confirmed: number | null, dueIn: number | null, received: number];

/** Orders as they come and go: gathered, unanswered, on the way, late, answered otherwise, and delivered. */
const ORDERS: readonly (readonly [state: PartOrder['state'], sentAgo: number | null, lines: readonly LinePlan[]])[] = [
  [
    'delivered',
    90,
    [
      [4, 4, -86, 4],
      [2, 2, -86, 2],
    ],
  ],
  ['delivered', 61, [[1, 1, -55, 1]]],
  [
    'delivered',
    33,
    [
      [10, 10, -29, 10],
      [3, 3, -29, 3],
    ],
  ],
  ['delivered', 18, [[2, 2, -13, 2]]],
  [
    'confirmed',
    12,
    [
      [2, 2, -4, 0],
      [1, 1, -4, 1],
    ],
  ],
  [
    'confirmed',
    3,
    [
      [4, 4, 1, 0],
      [6, 6, 2, 0],
    ],
  ],
  [
    'differs',
    1,
    [
      [5, 3, 4, 0],
      [2, 2, 4, 0],
    ],
  ],
  [
    'open',
    null,
    [
      [3, null, null, 0],
      [1, null, null, 0],
    ],
  ],
];

async function loadOrders(manager: EntityManager, jobs: readonly KeptJob[], personId: string, now: number): Promise<void> {
  const random = seeded(53);
  const waiting = jobs.filter(({ plan }) => plan.stop?.then?.some(({ payload }) => (payload as { reason?: string }).reason === 'parts'));
  for (const [at, [state, sentAgo, lines]] of ORDERS.entries()) {
    const supplier = DEMO_SUPPLIERS[at % DEMO_SUPPLIERS.length]!;
    const offers = await manager.find(SupplierItem, { where: { supplier, available: true }, order: { number: 'ASC' } });
    const sent = sentAgo === null ? null : now - sentAgo * DAY;
    const id = uuid();
    await manager.insert(PartOrder, { id, supplier, state, ...(sent === null ? {} : { sentAt: new Date(sent), sentBy: personId }) });
    const rows = lines.map(([quantity, confirmed, dueIn, received]) => {
      const { number, name, priceMinor } = offers[Math.floor(random() * offers.length)]!;
      return {
        id: uuid(),
        orderId: id,
        number,
        name,
        quantity,
        priceMinor,
        jobId: state === 'confirmed' ? (waiting[at % Math.max(1, waiting.length)]?.worked.id ?? null) : null,
        confirmed,
        due: dueIn === null ? null : daysOn(ZONE, now, dueIn),
        received,
      };
    });
    await manager.insert(PartOrderLine, rows);
    if (sent === null) continue;
    const answer = {
      lines: rows.map((row) => ({ lineId: row.id, confirmed: row.confirmed ?? 0, priceMinor: row.priceMinor, due: row.due })),
    };
    await manager.insert(SupplierOrder, { reference: id, supplier, answer });
  }
}

const FOUND_OUT = 'K1';
const LENT: readonly (readonly [tag: string, login: string, hours: number])[] = [
  ['K2', 'bram', 3],
  ['W5', 'tova', 26],
  ['Z2', 'joss', 1],
];

/** Every tool that is checked was checked a year before its day; one was found out since. */
async function loadChecks(manager: EntityManager, staff: ReadonlyMap<string, PersonView>, now: number): Promise<void> {
  const foreman = staff.get('oswin')!.id;
  const tools = await manager.find(ToolRow, { order: { tag: 'ASC' } });
  const checked = tools.filter(({ calibrationDue }) => calibrationDue !== null);
  await manager.insert(
    ToolCheck,
    checked.map(({ id, low, high, calibrationDue }, at) => ({
      id: uuid(),
      toolId: id,
      verdict: 'good' as const,
      points: [0.2, 0.6, 1].map((share) => ({ true: low + (high - low) * share, shown: low + (high - low) * share })),
      against: 'gauge blocks and weights of the shop',
      certificate: `C-${2100 + at}`,
      due: calibrationDue,
      personId: foreman,
    })),
  );
  const out = tools.find(({ tag }) => tag === FOUND_OUT)!;
  await manager.insert(ToolCheck, {
    id: uuid(),
    toolId: out.id,
    verdict: 'out',
    points: [{ true: 25, shown: 25.06 }],
    against: 'gauge block 25 mm',
    certificate: null,
    due: null,
    personId: foreman,
  });
  await ask(manager, DATE_CHECKS, new Date(now - 3 * DAY).toISOString());
  for (const [tag, login, hours] of LENT)
    await manager.update(ToolRow, { tag }, { lentTo: staff.get(login)!.id, lentAt: new Date(now - hours * HOUR_MS) });
}

/** Ten places to begin with. */
function sightsOf(jobs: readonly KeptJob[]): DemoSight[] {
  const onJobs = jobs.flatMap(({ plan, worked }) => (plan.shows === undefined ? [] : [{ words: plan.shows, path: `/jobs/${worked.id}` }]));
  const rest = [
    { words: 'An order that is late, and the job that waits for it', path: '/stores/orders' },
    { words: 'A tool that was found out, and the jobs it touched', path: '/crib' },
  ];
  return [...onJobs, ...rest].map((sight, place) => ({ ...sight, place: place + 1 }));
}
