import { Inject, Injectable } from '@nestjs/common';
import {
  doubtOf,
  ENTRY_PAYLOADS,
  find,
  gridPlaces,
  jobState,
  limitQuantity,
  liveOf,
  mayAccept,
  mayMake,
  outOfStores,
  storesMoves,
  openBefore,
  plausibleReading,
  quantitiesOf,
  settingQuantity,
  dayIn,
  sheetIssues,
  stopsHandOver,
  stopsSigning,
  validated,
  withOneFound,
  workingFor,
  workOut,
  type AcceptedPayload,
  type AnyKeptEntry,
  type CameOffPayload,
  type EndPlayPayload,
  type EntryKind,
  type FieldProblem,
  type JobScope,
  type JobState,
  type Joint,
  type NewEntry,
  type OldPartPayload,
  type OpenEndPayload,
  type OwedSettledPayload,
  type PersonView,
  type PinnedPayload,
  type GearMovedPayload,
  type ReadingPayload,
  type Role,
  type StagePayload,
  type SheetFile,
  type Tool,
  type ValueFoundPayload,
  type WayPayload,
  type WorkedPayload,
} from '@jubb/contract';
import { unitsOf, type Quantity } from '@jubb/core';
import type { Pool, PoolClient } from 'pg';
import { DataSource } from 'typeorm';
import { ProblemError, badInput, notFound } from '../common/problem.js';
import { fieldProblems } from '../common/validation.js';
import { ask, inTransaction, poolOf, type Statement } from '../database/data-source.js';
import { ToolRow } from '../database/entities.js';
import { OPEN_OWED } from '../jobs/owed.js';
import { SheetsService } from '../sheets/sheets.service.js';
import { StoresService } from '../stores/stores.service.js';
import { StreamService } from '../stream/stream.service.js';
import { checkFirst, mayWantNew } from './check-first.js';
import { contentHash, sentAs, type EntryContent } from './entry-hash.js';

/** Kinds whose keeping depends on what else the job holds: they are checked under its lock. */
const GUARDED = new Set<string>([
  'sign',
  'handed-over',
  'strike',
  'open-end-closed',
  'put-back',
  'seal-fitted',
  'mark-met',
  'went-in',
  'fitted',
  'wait-over',
  'pinned',
  'owed-settled',
  'stage',
  'accepted',
]);
function isGuarded(entry: NewEntry, sheet: SheetFile): boolean {
  // A line out of an assembly speaks of that assembly's line, one shown on a photo of that photo.
  const speaksOfOther = entry.kind === 'came-off' && ('inside' in entry.payload || 'photo' in entry.payload);
  return GUARDED.has(entry.kind) || speaksOfOther || mayWantNew(entry, sheet) || movesStores(entry);
}
/** Whether something comes off the shelves by it. */
function movesStores({ kind, payload }: NewEntry): boolean {
  return (kind === 'replacement-here' && 'item' in payload) || (kind === 'worked' && 'taken' in payload);
}
/** Kinds that may change the sheet that a job goes by. */
const MOVES_SHEET = new Set<string>(['pinned', 'value-found', 'strike']);
/** Kinds that change what the list of jobs says of one. */
const MOVES_JOB = new Set<string>([...MOVES_SHEET, 'hold', 'hold-off']);
const CLOCK_SLACK_MS = 48 * 3600 * 1000;

/** An instant as the wire and the hash have it: ISO, UTC, milliseconds. */
const iso = (column: string): string => `to_char(${column} AT TIME ZONE 'UTC', 'YYYY-MM-DD"T"HH24:MI:SS.MS"Z"')`;

export const ENTRY_COLUMNS = `id, job_id AS "jobId", seq, kind, payload, working, step, tool_id AS "toolId", strikes, person_id AS "personId",
  ${iso('taken_at')} AS "takenAt", ${iso('kept_at')} AS "keptAt", prev_hash AS "prevHash", hash`;

@Injectable()
export class EntriesService {
  /** Which revision a job goes by, its scope and the figures found on it; forgotten when the job is told to have changed. */
  readonly #pins = new Map<string, Pin>();
  /** Counts what was forgotten: what was read before somebody forgot it is not remembered afterwards. */
  #forgotten = 0;

  constructor(
    @Inject(DataSource) private readonly dataSource: DataSource,
    @Inject(SheetsService) private readonly sheets: SheetsService,
    @Inject(StreamService) private readonly stream: StreamService,
    @Inject(StoresService) private readonly stores: StoresService,
  ) {
    stream.events.subscribe((event) => {
      if (event.type === 'job') this.#forget(event.jobId);
    });
    stream.missed.subscribe(() => this.#forgetAll());
  }

  ofJob(jobId: string): Promise<readonly AnyKeptEntry[]> {
    return ask(poolOf(this.dataSource), OF_JOB, jobId);
  }

  /** Keeps entries in the order given: all or none; an id that is there already is the same entry. */
  async post(jobId: string, person: PersonView, entries: readonly NewEntry[]): Promise<readonly AnyKeptEntry[]> {
    try {
      return await this.#post(jobId, person, entries);
    } catch (error) {
      // Sent again after an answer that was lost, what is kept is kept, however the world moved since; only the rest is looked at.
      const kept = await this.#keptOf(jobId, person, entries);
      if (kept.size === 0) throw error;
      const rest = entries.filter(({ id }) => !kept.has(id.toLowerCase()));
      for (const one of rest.length === 0 ? [] : await this.#post(jobId, person, rest)) kept.set(one.id, one);
      return entries.flatMap(({ id }) => kept.get(id.toLowerCase()) ?? []);
    }
  }

  /** Those of the entries that are kept already, by id; refuses an id under which something else was sent. */
  async #keptOf(jobId: string, person: PersonView, entries: readonly NewEntry[]): Promise<Map<string, AnyKeptEntry>> {
    const ids = entries.map(({ id }) => id.toLowerCase());
    const rows = await ask<AnyKeptEntry>(poolOf(this.dataSource), BY_ID, ids);
    for (const row of rows) {
      const sent = entries.find(({ id }) => id.toLowerCase() === row.id)!;
      if (sentAs(row) !== sentAs({ ...sent, jobId: jobId.toLowerCase(), personId: person.id })) throw badId(row.id);
    }
    return new Map(rows.map((row) => [row.id, row]));
  }

  async #post(jobId: string, person: PersonView, entries: readonly NewEntry[]): Promise<readonly AnyKeptEntry[]> {
    const ready = await this.#ready(jobId, person, entries);
    const pool = poolOf(this.dataSource);
    const kept = ready.guarded
      ? await inTransaction(pool, (client) => this.#keepGuarded(client, ready))
      : await keep(pool, jobId, person.id, ready.contents);
    this.#tell(jobId, entries, kept);
    return kept;
  }

  /**
   * Keeps entries as part of what the caller does in its transaction: all of it or nothing. What it
   * returns is called once that is committed, and tells everybody.
   */
  async postWithin(client: PoolClient, jobId: string, person: PersonView, entries: readonly NewEntry[]): Promise<() => void> {
    const ready = await this.#ready(jobId, person, entries);
    const kept = await this.#keepGuarded(client, ready);
    return () => this.#tell(jobId, entries, kept);
  }

  /** Checked and worked out, but for what the job itself must be looked at for. */
  async #ready(jobId: string, person: PersonView, entries: readonly NewEntry[]): Promise<Ready> {
    const pin = await this.#pinOf(jobId);
    const pinned = (await this.sheets.pinned(pin.revisionId, pin.scope)).file;
    const sheet = pin.found.reduce(withOneFound, pinned);
    const tools = await this.#toolsOf(entries);
    const problems = entries.flatMap((entry, index) => checkEntry(entry, `entries[${index}]`, { sheet, tools, person }));
    if (problems.length > 0) throw badInput(problems);
    const contents = entries.map((entry) => this.#content(entry, jobId, person.id, sheet, tools));
    return { jobId, personId: person.id, role: person.role, sheet, contents, guarded: entries.some((entry) => isGuarded(entry, sheet)) };
  }

  #tell(jobId: string, entries: readonly NewEntry[], kept: readonly AnyKeptEntry[]): void {
    this.stream.tell({ type: 'entries', jobId, seq: kept.at(-1)?.seq ?? 0 });
    if (entries.some((entry) => entry.kind === 'strike' || movesStores(entry))) this.stream.tell({ type: 'stores' });
    if (entries.some(({ kind }) => MOVES_SHEET.has(kind))) this.#forget(jobId);
    if (entries.some(({ kind }) => MOVES_JOB.has(kind))) this.stream.tell({ type: 'job', jobId });
  }

  #forget(jobId: string): void {
    this.#forgotten += 1;
    this.#pins.delete(jobId);
  }

  #forgetAll(): void {
    this.#forgotten += 1;
    this.#pins.clear();
  }

  /** Looks at the job under its lock before keeping. */
  async #keepGuarded(client: PoolClient, { jobId, personId, role, contents, sheet }: Ready): Promise<readonly AnyKeptEntry[]> {
    await client.query('SELECT 1 FROM job WHERE id = $1 FOR NO KEY UPDATE', [jobId]);
    const before = await ask<AnyKeptEntry>(client, OF_JOB, jobId);
    const fresh = contents.filter((content) => !before.some((entry) => entry.id === content.id));
    checkGuarded(fresh, before, sheet, role);
    for (const { kind, payload } of contents) {
      if (kind === 'pinned') await checkPin(client, jobId, payload as PinnedPayload);
      if (kind === 'owed-settled') await checkOwed(client, jobId, payload as OwedSettledPayload);
    }
    await this.#moveStores(client, fresh, before);
    return keep(client, jobId, personId, contents);
  }

  /** Takes off the shelves what goes in by these entries, and puts back what comes out again. */
  async #moveStores(client: PoolClient, fresh: readonly EntryContent[], before: readonly AnyKeptEntry[]): Promise<void> {
    const held = [...before];
    let out = outOfStores(liveOf(held));
    for (const content of fresh) {
      held.push(content as unknown as AnyKeptEntry);
      const then = outOfStores(liveOf(held));
      for (const { item, pieces } of storesMoves(out, then)) await this.stores.moveByEntry(client, content, item, pieces);
      out = then;
    }
  }

  #content(entry: NewEntry, jobId: string, personId: string, sheet: SheetFile, tools: ReadonlyMap<string, Tool>): EntryContent {
    return {
      id: entry.id.toLowerCase(),
      jobId: jobId.toLowerCase(),
      personId,
      kind: entry.kind,
      payload: entry.payload,
      working: workingFor(entry.kind, entry.payload, sheet, entry.toolId ? tools.get(entry.toolId) : undefined),
      step: entry.step ?? null,
      toolId: entry.toolId ?? null,
      strikes: entry.strikes ?? null,
      takenAt: new Date(entry.takenAt).toISOString(),
    };
  }

  async #pinOf(jobId: string): Promise<Pin> {
    const known = this.stream.isDeaf ? undefined : this.#pins.get(jobId);
    if (known !== undefined) return known;
    const forgotten = this.#forgotten;
    const [row] = await this.dataSource.query<Pin[]>(
      `SELECT sheet_revision_id AS "revisionId", scope,
              coalesce((SELECT json_agg(e.payload ORDER BY e.seq) FROM entry e WHERE e.job_id = job.id AND e.kind = 'value-found'
                AND NOT EXISTS (SELECT 1 FROM entry strike WHERE strike.strikes = e.id)), '[]') AS found
       FROM job WHERE id = $1`,
      [jobId],
    );
    if (!row) throw notFound('job');
    // Told to forget while it was read: it may be from before, and is good for this once alone.
    if (this.#forgotten === forgotten && !this.stream.isDeaf) this.#pins.set(jobId, row);
    return row;
  }

  async #toolsOf(entries: readonly NewEntry[]): Promise<ReadonlyMap<string, CribTool>> {
    const ids = [...new Set(entries.flatMap((entry) => entry.toolId ?? []))];
    if (ids.length === 0) return new Map();
    const [rows, [shop]] = await Promise.all([
      this.dataSource.getRepository(ToolRow).createQueryBuilder('tool').whereInIds(ids).getMany(),
      this.dataSource.query<{ zone: string; foundOut: Readonly<Record<string, string>> }[]>(
        `SELECT s.zone, coalesce((SELECT json_object_agg(c.tool_id, c.at) FROM (
             SELECT tool_id, ${iso('max(kept_at)')} AS at FROM tool_check WHERE verdict = 'out' AND tool_id = ANY($1) GROUP BY tool_id
           ) c), '{}') AS "foundOut" FROM shop s`,
        [ids],
      ),
    ]);
    return new Map(rows.map((tool) => [tool.id, { ...tool, zone: shop?.zone ?? 'UTC', foundOutAt: shop?.foundOut[tool.id] }]));
  }
}

/** A tool with the zone of its shop, and with when it was last found out, which moved its due day into the past. */
type CribTool = Tool & { readonly zone: string; readonly foundOutAt: string | undefined };

interface Ready {
  readonly jobId: string;
  readonly personId: string;
  readonly role: Role;
  readonly sheet: SheetFile;
  readonly contents: readonly EntryContent[];
  readonly guarded: boolean;
}

interface Pin {
  readonly revisionId: string;
  readonly scope: JobScope | null;
  readonly found: readonly ValueFoundPayload[];
}

/** A job goes on only by an approved revision of its own sheet. */
async function checkPin(client: PoolClient, jobId: string, { revisionId, revision }: PinnedPayload): Promise<void> {
  const { rows } = await client.query(
    `SELECT 1 FROM job j JOIN sheet_revision s ON s.id = j.sheet_revision_id JOIN sheet_revision n ON n.key = s.key
     WHERE j.id = $1 AND n.id = $2 AND n.revision = $3 AND n.status = 'approved'`,
    [jobId, revisionId, revision],
  );
  if (rows.length === 0)
    throw badInput([{ field: 'payload.revisionId', given: revisionId, allowed: 'is not an approved revision of the sheet of this job' }]);
}

/** Only what is still owed is settled, and only by a job of the same machine. */
async function checkOwed(client: PoolClient, jobId: string, { owed }: OwedSettledPayload): Promise<void> {
  const { rows } = await client.query(
    `SELECT 1 FROM (${OPEN_OWED}) o WHERE o."entryId" = $2
       AND o."machineId" = (SELECT u.machine_id FROM job j JOIN unit u ON u.id = j.unit_id WHERE j.id = $1)`,
    [jobId, owed],
  );
  if (rows.length === 0) throw badInput([{ field: 'payload.owed', given: owed, allowed: 'is nothing that this machine still owes' }]);
}

const OF_JOB: Statement = { name: 'entries-of-job', text: `SELECT ${ENTRY_COLUMNS} FROM entry WHERE job_id = $1 ORDER BY seq` };
const BY_ID: Statement = { name: 'entries-by-id', text: `SELECT ${ENTRY_COLUMNS} FROM entry WHERE id = ANY ($1::uuid[])` };
const KEEP: Statement = { name: 'keep-entries', text: `SELECT ${ENTRY_COLUMNS} FROM keep_entries($1, $2, $3)` };

function badId(id: string): ProblemError {
  return new ProblemError(409, 'An entry with this id was kept before with other content', {
    errors: [{ field: 'id', given: id, allowed: 'must be one that no other entry has' }],
  });
}

function keep(on: Pool | PoolClient, jobId: string, personId: string, contents: readonly EntryContent[]): Promise<readonly AnyKeptEntry[]> {
  const batch = contents.map((content) => ({ ...content, contentHash: contentHash(content) }));
  return ask(on, KEEP, jobId, personId, JSON.stringify(batch));
}

function checkEntry(
  entry: NewEntry,
  at: string,
  { sheet, tools, person }: { sheet: SheetFile; tools: ReadonlyMap<string, CribTool>; person: PersonView },
): readonly FieldProblem[] {
  const { issues } = validated<object>(ENTRY_PAYLOADS[entry.kind], entry.payload, `${at}.payload`);
  const problems: FieldProblem[] = fieldProblems(issues);
  const problem = (field: string, allowed: string, given?: string): void => {
    problems.push({ field: `${at}.${field}`, allowed, ...(given === undefined ? {} : { given }) });
  };
  if (!mayMake(entry.kind, person.role))
    throw new ProblemError(403, 'This is not yours to do', { detail: `An entry "${entry.kind}" is not made by: ${person.role}` });
  if (Date.parse(entry.takenAt) > Date.now() + CLOCK_SLACK_MS)
    problem('takenAt', "is in the future; set this device's clock", entry.takenAt);
  if (entry.step !== undefined && !find(sheet.steps, entry.step)) problem('step', 'is not a step of the sheet of this job', entry.step);
  if (entry.toolId !== undefined && !tools.has(entry.toolId)) problem('toolId', 'is not a tool of the crib', entry.toolId);
  if ((entry.kind === 'strike') !== (entry.strikes !== undefined))
    problem('strikes', entry.kind === 'strike' ? 'is missing: which entry is struck?' : 'goes with kind "strike" only');
  const tool = entry.toolId === undefined ? undefined : tools.get(entry.toolId);
  if (issues.length === 0 && tool) {
    const wrong = toolWrong(entry, tool, sheet);
    if (wrong !== undefined) problem('toolId', wrong, `${tool.tag} ${tool.name}`);
  }
  if (issues.length === 0) checkPointers(entry, sheet, problem);
  return problems;
}

/** Why what was read or pulled cannot have been by this tool: it reads something else, or its check was over by then. */
function toolWrong(entry: NewEntry, tool: CribTool, sheet: SheetFile): string | undefined {
  const quantity = quantityRead(entry, sheet);
  if (quantity === undefined) return undefined;
  const reads = quantitiesOf(tool);
  if (!reads.includes(quantity)) return `reads a ${reads.join(' or ')}; a ${quantity} was kept`;
  const isKnownSince = tool.foundOutAt !== undefined && tool.foundOutAt > new Date(entry.takenAt).toISOString();
  return tool.calibrationDue !== null && !isKnownSince && tool.calibrationDue < dayIn(tool.zone, entry.takenAt)
    ? `is past its check, which was due ${tool.calibrationDue}`
    : undefined;
}

/** What an entry reads or pulls with its tool. */
function quantityRead({ kind, payload }: NewEntry, sheet: SheetFile): Quantity | undefined {
  if (kind === 'pull') return 'torque';
  if (kind === 'reading') {
    const limit = find(sheet.limits, (payload as ReadingPayload).limit);
    return limit && limitQuantity(limit);
  }
  const setting = kind === 'end-play' ? find(sheet.settings, (payload as EndPlayPayload).setting) : undefined;
  return setting && settingQuantity(setting);
}

/** Payload fields that point into the sheet, and the list each points to. */
type Problem = (field: string, allowed: string, given?: string) => void;

const POINTERS = {
  limit: 'limits',
  joint: 'joints',
  setting: 'settings',
  seal: 'seals',
  fluid: 'fluids',
  fit: 'fits',
  caution: 'cautions',
  part: 'parts',
} as const;

function checkPointers(entry: NewEntry, sheet: SheetFile, problem: Problem): void {
  const payload = entry.payload as Partial<Record<keyof typeof POINTERS, string>> & { look?: string; place?: unknown };
  for (const [field, list] of Object.entries(POINTERS) as [keyof typeof POINTERS, (typeof POINTERS)[keyof typeof POINTERS]][]) {
    const ref = payload[field];
    const rows: readonly { readonly ref: string }[] = sheet[list] ?? [];
    if (ref !== undefined && !find(rows, ref)) {
      problem(`payload.${field}`, `is not among the ${list} of the sheet: ${rows.map((row) => row.ref).join(', ')}`, ref);
    }
  }
  const limit = find(sheet.limits, payload.limit);
  if (entry.kind === 'look' && limit && !find(limit.looks ?? [], payload.look)) {
    problem(
      'payload.look',
      `is not among the looks of "${limit.name}": ${(limit.looks ?? []).map((look) => look.ref).join(', ')}`,
      payload.look,
    );
  }
  if (entry.kind === 'reading' && limit) {
    const quantity = limitQuantity(limit);
    const { readings, unit, warm } = entry.payload as ReadingPayload;
    if (warm && quantity !== 'length') problem('payload.warm', 'is for sizes only: no other quantity is taken back to 20 °C here');
    const units = unitsOf(quantity).map(({ symbol }) => symbol);
    const places = gridPlaces(limit);
    if (places !== undefined && !limit.pulled && readings.length % places !== 0)
      problem(
        'payload.readings',
        `must be one for each place: ${limit.grid?.rows ?? 1} × ${limit.grid?.columns ?? 1} makes ${places}`,
        `${readings.length} readings`,
      );
    if (!units.includes(unit)) problem('payload.unit', `is not a unit of ${quantity}: ${units.join(', ')}`, unit);
    const { least, most } = plausibleReading(quantity);
    const far = readings.find((reading) => reading < least || reading > most);
    if (far !== undefined)
      problem('payload.readings', `must not be ${far > most ? `over ${most}` : `under ${least}`}: a slip of the unit?`, String(far));
  }
  if (entry.kind === 'way') {
    const { way, agreed } = entry.payload as WayPayload;
    const known = find(find(sheet.steps, entry.step)?.ways ?? [], way);
    if (known?.departs && !agreed)
      problem('payload.agreed', 'is missing: this way departs from the maker, and needs the word of foreman and customer', way);
  }
  if (entry.kind === 'worked') {
    const { working, input } = entry.payload as WorkedPayload;
    const worked = workOut(working, input);
    if ('issues' in worked)
      for (const { field, words, received } of worked.issues)
        problem(field === 'working' ? 'payload.working' : `payload.input.${field}`, words, received);
  }
  if (entry.kind === 'gear-moved') {
    const refs = sheet.joints.map(({ ref }) => ref);
    const unknown = (entry.payload as GearMovedPayload).undone.find((ref) => !refs.includes(ref));
    if (unknown !== undefined) problem('payload.undone', `must be joints of the sheet: ${refs.join(', ')}`, unknown);
  }
  if (entry.kind === 'value-found') checkFound(entry.payload as ValueFoundPayload, sheet, problem);
  const joint = find(sheet.joints, payload.joint);
  if (entry.kind === 'pull' && joint && Number(payload.place) >= joint.count) {
    problem('payload.place', `must be from 0 to ${joint.count - 1}: the joint has ${joint.count} fasteners`, String(payload.place));
  }
  const closedBy = entry.kind === 'open-end' ? (entry.payload as OpenEndPayload).closedBy : undefined;
  if (closedBy !== undefined && !find(sheet.steps, closedBy))
    problem('payload.closedBy', 'is not a step of the sheet of this job', closedBy);
  if (entry.kind === 'old-part') checkOldPart(entry.payload as OldPartPayload, problem);
  if (entry.kind === 'came-off') checkPlaces(entry.payload as CameOffPayload, joint, problem);
}

/** An old part is not let go before the new one was held against it. */
function checkOldPart({ fate, compared, name }: OldPartPayload, problem: Problem): void {
  if (fate !== 'hold' && !compared) problem('payload.fate', `must be "hold" until the new ${name} was held against the old one`, fate);
}

function checkPlaces({ places, count, photo, spots }: CameOffPayload, joint: Joint | undefined, problem: Problem): void {
  if ((photo === undefined) !== (spots === undefined)) problem('payload.spots', 'goes with the photo that it is on, and the photo with it');
  else if (spots && spots.length !== count) problem('payload.spots', `must be as many as came off: ${count}`, String(spots.length));
  if (!places) return;
  if (!joint) problem('payload.joint', 'is missing; places are those of a joint');
  else if (places.length !== count) problem('payload.places', `must be as many as came off: ${count}`, String(places.length));
  else if (places.some((place) => place >= joint.count))
    problem('payload.places', `must be from 0 to ${joint.count - 1}: the joint has ${joint.count} fasteners`, places.join(', '));
}

/** A figure found on a job is for a line that nobody stands for yet, and the sheet must hold together with it. */
function checkFound(found: ValueFoundPayload, sheet: SheetFile, problem: Problem): void {
  const doubt = doubtOf(sheet, found.list, found.line);
  if (!doubt) {
    problem('payload.line', 'has its figures from a named source, or is not on the sheet; propose another by "next time"', found.line);
    return;
  }
  const fields = doubt.figures.map(({ field }) => field);
  const unknown = found.figures.find(({ field }) => !fields.includes(field));
  if (unknown) problem('payload.figures', `is no figure of this line; it has: ${fields.join(', ')}`, unknown.field);
  const [issue] = sheetIssues(withOneFound(sheet, found) as unknown as Record<string, unknown>);
  if (issue) problem('payload.figures', issue.message, issue.given);
}

/** Entries that speak of another of the same job: of which kinds that one may be. */
const BOUND: readonly (readonly [kind: EntryKind, field: string, of: readonly EntryKind[], allowed: string])[] = [
  ['open-end-closed', 'opened', ['open-end'], 'is not an open end of this job'],
  ['put-back', 'moved', ['moved'], 'is nothing that was moved on this job'],
  ['wait-over', 'wait', ['wait'], 'is no wait of this job'],
  ['mark-met', 'mark', ['mark', 'came-off'], 'is not a mark of this job'],
  ['went-in', 'line', ['came-off'], 'is no line of this job’s ledger'],
  ['came-off', 'inside', ['came-off'], 'is no line of this job’s ledger'],
  ['came-off', 'photo', ['photo'], 'is no photo of this job'],
];

/** Over something open a job is taken on to be proved by the foreman, or with the reason. */
function checkStage({ stage, why }: StagePayload, state: JobState, role: Role): void {
  const open = openBefore(state, stage);
  if (open.length > 0 && why === undefined && role !== 'foreman')
    throw badInput([
      { field: 'payload.why', allowed: `is missing: say why it goes on over what is open (${open.slice(0, 3).join('; ')})` },
    ]);
}

/** Only a reading that is unsure is accepted: one that is out is set anew, one that is in needs nobody. */
function checkAccepted({ setting }: AcceptedPayload, state: JobState): void {
  const last = state.settings.find((run) => run.setting.ref === setting)?.tries.at(-1);
  if (!last || !mayAccept(last))
    throw badInput([
      {
        field: 'payload.setting',
        given: setting,
        allowed: `has no unsure reading that could be accepted: ${last ? `the last one is ${last.accepted === undefined ? (last.verdict ?? 'not judged') : 'accepted already'}` : 'it was not read yet'}`,
      },
    ]);
}

function checkGuarded(fresh: readonly EntryContent[], before: readonly AnyKeptEntry[], sheet: SheetFile, role: Role): void {
  // What stands earlier in the same batch is there already for what comes after it.
  const held = [...before];
  const byId = new Map(held.map((entry) => [entry.id, entry]));
  for (const content of fresh) {
    if (content.kind === 'strike') {
      const struck = byId.get(content.strikes ?? '');
      if (!struck) throw badInput([{ field: 'strikes', given: content.strikes ?? '', allowed: 'is not an entry of this job' }]);
      if (struck.kind === 'strike')
        throw badInput([{ field: 'strikes', given: struck.id, allowed: 'is a strike itself; make the entry again instead' }]);
      // What somebody may not say, they may not take back either.
      if (!mayMake(struck.kind, role))
        throw new ProblemError(403, 'This is not yours to do', { detail: `An entry "${struck.kind}" is not struck by: ${role}` });
      const other = held.find((entry) => entry.strikes === struck.id);
      if (other) throw new ProblemError(409, 'Somebody struck this before you', { current: other });
    }
    for (const [kind, field, of, allowed] of BOUND) {
      const id = content.kind === kind ? (content.payload as Record<string, string | undefined>)[field] : undefined;
      if (id !== undefined && !of.includes(byId.get(id)?.kind ?? 'strike'))
        throw badInput([{ field: `payload.${field}`, given: id, allowed }]);
    }
    checkFirst(content, held, sheet);
    if (content.kind === 'accepted') checkAccepted(content.payload as AcceptedPayload, jobState(sheet, held));
    if (content.kind === 'stage') checkStage(content.payload as StagePayload, jobState(sheet, held), role);
    if (content.kind === 'sign' && liveOf(held).some(({ kind }) => kind === 'sign'))
      throw new ProblemError(409, 'It is signed already', {
        errors: [{ field: 'job', allowed: 'has its signature; strike that one first' }],
      });
    const stops =
      content.kind === 'sign'
        ? stopsSigning(jobState(sheet, held))
        : content.kind === 'handed-over'
          ? stopsHandOver(jobState(sheet, held))
          : [];
    if (stops.length > 0) {
      throw new ProblemError(409, content.kind === 'sign' ? 'It cannot be signed yet' : 'It cannot be handed over yet', {
        errors: stops.map((stop) => ({ field: 'job', allowed: stop })),
      });
    }
    const entry = content as unknown as AnyKeptEntry;
    held.push(entry);
    byId.set(entry.id, entry);
  }
}
