import {
  doubtOf,
  ENTRY_PAYLOADS,
  gridPlaces,
  mayMake,
  stageTakes,
  withOneFound,
  workOut,
  type CameOffPayload,
  type EndPlayPayload,
  type GearMovedPayload,
  type NewEntry,
  type OldPartPayload,
  type OpenEndPayload,
  type PersonView,
  type ReadingPayload,
  type StagePayload,
  type ValueFoundPayload,
  type WayPayload,
  type WorkedPayload,
} from '@jubb/book';
import { dayIn, find, limitQuantity, quantitiesOf, settingQuantity, STAGE_NAMES, type Joint, type SheetFile, type Tool } from '@jubb/sheet';
import { sheetIssues } from '@jubb/sheet/editing';
import { plausibleReading, validated } from '@jubb/sheet/given';
import type { FieldProblem } from '@jubb/wire';
import { unitsOf, type Quantity } from '@jubb/core';
import { ProblemError } from '../common/problem.js';
import { fieldProblems } from '../common/validation.js';

/** A tool with the zone of its shop, and with when it was last found out, which moved its due day into the past. */
export type CribTool = Tool & { readonly zone: string; readonly foundOutAt: string | undefined };

/** What is wrong with an entry by itself, by its sheet and its tool; what the job holds is another matter. */
export function checkEntry(
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
  if (entry.kind === 'stage' && issues.length === 0) {
    const { stage } = entry.payload as StagePayload;
    const takes = stageTakes(stage, person.role);
    if (takes !== undefined)
      throw new ProblemError(403, 'This is not yours to do', { detail: `To go on to "${STAGE_NAMES[stage]}" ${takes}` });
  }
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
  // A clock that is ahead makes no tool older: nothing was read later than now.
  const takenAt = new Date(Math.min(Date.parse(entry.takenAt), Date.now())).toISOString();
  const isKnownSince = tool.foundOutAt !== undefined && tool.foundOutAt > takenAt;
  return tool.calibrationDue !== null && !isKnownSince && tool.calibrationDue < dayIn(tool.zone, takenAt)
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
