import {
  type Limit,
  find,
  jointTorque,
  limitQuantity,
  limitWindow,
  partName,
  settingQuantity,
  windowOf,
  withSerial,
  type OldFate,
  sourceWords,
} from '@jubb/sheet';
import type { EntryKind } from '../entries/entry.js';
import type { AnyKeptEntry, KeptEntry } from '../entries/kept.js';
import type { DecisionPayload } from '../kinds/payloads.js';
import { depthsText, readingLine, readingsText } from '../measured/reading-line.js';
import { placeNumbers } from '../runs/joint-run.js';
import { verdictOf } from '../runs/setting-run.js';
import { jobState, type JobState } from '../state.js';
import type { JobView } from '../views.js';
import { entryWords, failedWords, filled, nm, owedWords, pulledTo, settingOf } from '../words.js';
import { formatQuantity, type Quantity, type Window } from '@jubb/core';

/** The customer's report as plain blocks; page and PDF only set them. */
export interface Report {
  readonly title: string;
  readonly facts: readonly (readonly [label: string, text: string])[];
  readonly sections: readonly ReportSection[];
  readonly hash: string;
}

export interface ReportSection {
  readonly title: string;
  readonly care?: boolean;
  readonly text?: readonly string[];
  readonly table?: { readonly head: readonly string[]; readonly rows: readonly ReportRow[] };
}

export interface ReportRow {
  readonly cells: readonly string[];
  /** Who struck it, when and why. */
  readonly struck?: string;
}

export interface Times {
  /** An instant in the shop's zone, as people write it. */
  at(iso: string): string;
  day(iso: string): string;
}

export function jobReport(given: JobView, times: Times): Report {
  const state = jobState(given.sheet.file, given.entries);
  const { sheet } = state;
  const job: JobView = { ...given, sheet: { ...given.sheet, file: sheet } };
  const last = job.entries.at(-1);
  const facts: [string, string][] = [
    ['Customer', job.customer.name],
    ['Machine', withSerial(job.machine)],
    ['Unit', withSerial(job.unit)],
    ['Complaint', job.complaint],
    ['Booked in', times.day(job.bookedAt)],
    ['Worked to', `${sheet.title}, sheet revision ${job.sheet.revision}`],
  ];
  const variant = find(sheet.variants ?? [], job.scope?.variant);
  if (variant) facts.push(['Which one', variant.name]);
  const tasks = (sheet.tasks ?? []).filter(({ ref }) => job.scope?.tasks.includes(ref)).map(({ name }) => name);
  if (tasks.length > 0) facts.push(['Done', [...tasks, ...(job.scope?.sides ?? [])].join(', ')]);
  if (job.sheet.notOpened.length > 0) facts.push(['Not opened', job.sheet.notOpened.join(', ')]);
  if (state.handedOver) facts.push(['Handed over', `${times.at(state.handedOver.takenAt)} to ${state.handedOver.payload.receivedBy}`]);
  return {
    title: `Job ${job.number}: ${job.unit.name}`,
    facts,
    sections: [
      { title: 'Tell the driver', care: true, text: sheet.customerNotes.map((note) => note.text) },
      ...owedSection(state),
      ...settingsSection(job, state, times),
      { title: 'As found', table: saidTable(job, ['finding', 'came-out'], times, 'Seen') },
      { title: 'Measured', table: readingsTable(job, times) },
      { title: 'Contact pattern', table: saidTable(job, ['pattern', 'gear-moved'], times) },
      { title: 'Fits', table: saidTable(job, ['fitted'], times) },
      { title: 'Worked out', table: saidTable(besideSettings(job), ['worked'], times) },
      { title: 'Parts', table: partsTable(state) },
      { title: 'The customer’s word', table: saidTable(job, ['answered'], times) },
      { title: 'Other than the maker says', table: departures(job, times) },
      { title: 'Taken on with something open', table: takenOn(job, times) },
      { title: 'Old parts', table: oldPartsTable(state) },
      { title: 'Seals and grease', table: sealsTable(job, times) },
      ...state.joints.map((run) => ({ title: `${run.joint.name}: every pull`, table: pullsTable(job, run.joint.ref, times) })),
      { title: 'Numbers that nobody’s book gives', table: saidTable(job, ['value-taken', 'value-found'], times) },
      { title: 'Struck out', table: struckTable(job, state, times) },
      { title: 'Signatures', table: signatures(job, state, times) },
    ].filter((section) => !('table' in section) || (section.table?.rows.length ?? 0) > 0),
    hash: last?.hash ?? '',
  };
}

interface Lookup {
  readonly who: string;
  readonly tool: string;
  readonly when: string;
}

function lookUp(job: JobView, entry: AnyKeptEntry, times: Times): Lookup {
  const tool = job.tools.find((candidate) => candidate.id === entry.toolId);
  return {
    who: job.people.find((person) => person.id === entry.personId)?.name ?? '',
    tool: tool ? `${tool.tag} ${tool.name}` : '',
    when: times.at(entry.takenAt),
  };
}

/** Rows of the entries of some kinds, the struck ones too. */
function rowsOf<K extends EntryKind>(
  job: JobView,
  kinds: readonly K[],
  times: Times,
  cells: (entry: KeptEntry<K>, look: Lookup) => readonly string[],
): ReportRow[] {
  return job.entries
    .filter((entry) => (kinds as readonly string[]).includes(entry.kind))
    .map((entry) => {
      const strike = job.entries.find((candidate) => candidate.strikes === entry.id);
      const row = { cells: cells(entry as unknown as KeptEntry<K>, lookUp(job, entry, times)) };
      return strike ? { ...row, struck: strikeWords(job, strike, times) } : row;
    });
}

function strikeWords(job: JobView, strike: AnyKeptEntry, times: Times): string {
  const { who, when } = lookUp(job, strike, times);
  return `struck by ${who}, ${when}: ${strike.kind === 'strike' ? strike.payload.reason : 'replaced'}`;
}

/** What is put off, in front of the customer. */
function owedSection(state: JobState): ReportSection[] {
  if (state.owed.length === 0) return [];
  return [{ title: 'Owed', text: state.owed.map(({ payload }) => owedWords(payload)) }];
}

function settingsSection(job: JobView, state: JobState, times: Times): ReportSection[] {
  const sheet = job.sheet.file;
  return state.settings.map(({ setting, window, proved }) => {
    const quantity = settingQuantity(setting);
    const figure = (base: number, limits: Window): string => formatQuantity(base, quantity, undefined, limits);
    const own = job.entries.filter(
      (entry) => entry.strikes !== null || ('setting' in entry.payload && entry.payload.setting === setting.ref),
    );
    const rows = rowsOf({ ...job, entries: own }, ['nut', 'worked', 'gear-moved', 'end-play', 'accepted'], times, (entry, look) => [
      entryWords(entry as unknown as AnyKeptEntry, sheet),
      entry.kind === 'end-play' ? settingReadings(entry.payload as KeptEntry<'end-play'>['payload'], quantity) : '',
      look.tool,
      look.who,
      look.when,
    ]);
    const accepted = proved?.accepted === undefined ? '' : `, accepted by the foreman: ${proved.accepted}`;
    const left = proved ? `As left: ${figure(proved.play, window)}, ${proved.verdict ?? ''}${accepted}.` : 'Not proved yet.';
    return {
      title: `${setting.name}, as left`,
      text: [
        `${left} Wanted ${windowWords(window, quantity)} (${[setting.window.trust, ...sourceWords(setting.window, sheet.documents)].join(', ')}).`,
      ],
      table: { head: ['What was done', 'Readings', 'Tool', 'Who', 'When'], rows },
    };
  });
}

function settingReadings({ readings, unit }: KeptEntry<'end-play'>['payload'], quantity: Quantity): string {
  return readingsText(readings, quantity, unit);
}

/** The figure that was judged, what it is, and every reading that it comes from. */
function foundText(limit: Limit, payload: KeptEntry<'reading'>['payload']): string {
  const { figure, how } = readingLine(limit, payload);
  const read = readingsText(payload.readings, limitQuantity(limit), payload.unit);
  return how === '' ? figure : `${figure}, ${how}: ${read}`;
}

function readingsTable(job: JobView, times: Times): NonNullable<ReportSection['table']> {
  const { limits } = job.sheet.file;
  const rows = rowsOf(job, ['reading', 'look'], times, (entry, look) => {
    if (entry.kind === 'look') {
      const { limit: ref, look: chosen } = entry.payload as KeptEntry<'look'>['payload'];
      const limit = find(limits, ref);
      const words = find(limit?.looks ?? [], chosen);
      return [limit?.name ?? ref, words?.words ?? chosen, '', words?.verdict ?? '', '', look.who, look.when];
    }
    const payload = entry.payload as KeptEntry<'reading'>['payload'];
    const { limit: ref, readings, unit } = payload;
    const limit = find(limits, ref);
    const window = limit ? limitWindow(limit) : {};
    const quantity = limit ? limitQuantity(limit) : 'length';
    return [
      limit?.name ?? ref,
      limit ? foundText(limit, payload) : readingsText(readings, quantity, unit),
      windowWords(window, quantity),
      verdictOf(entry) ?? '',
      look.tool,
      look.who,
      look.when,
    ];
  });
  return { head: ['What', 'Found', 'Limit', 'Verdict', 'Tool', 'Who', 'When'], rows };
}

export function windowWords({ from, to }: Window, quantity: Quantity = 'length'): string {
  const words = (base: number): string => formatQuantity(base, quantity);
  if (from !== undefined && to !== undefined) return `${words(from).replace(/\s*[^\d.]+$/u, '')} to ${words(to)}`;
  return from === undefined ? (to === undefined ? '' : `at most ${words(to)}`) : `at least ${words(from)}`;
}

function partsTable(state: JobState): NonNullable<ReportSection['table']> {
  const rows = state.decisions.flatMap(({ part, entry }) =>
    entry ? [{ cells: [part.name, part.number ?? '', String(entry.payload.quantity), entry.payload.fate, partWhy(entry.payload)] }] : [],
  );
  return { head: ['Part', 'Number', 'Pieces', 'What', 'Why'], rows };
}

/** Entries of some kinds in the words of the book. */
function saidTable(job: JobView, kinds: readonly EntryKind[], times: Times, what = 'What'): NonNullable<ReportSection['table']> {
  const rows = rowsOf(job, kinds, times, (entry, { who, when }) => [entryWords(entry as AnyKeptEntry, job.sheet.file), who, when]);
  return { head: [what, 'Who', 'When'], rows };
}

/** Without what set something: it stands with its setting. */
function besideSettings(job: JobView): JobView {
  return { ...job, entries: job.entries.filter((entry) => entry.kind !== 'worked' || entry.payload.setting === undefined) };
}

/** Ways that depart from the maker, with who agreed. */
function departures(job: JobView, times: Times): NonNullable<ReportSection['table']> {
  const { head, rows } = saidTable(job, ['way'], times);
  return { head, rows: rows.filter(({ cells }) => cells[0]?.includes('departs from the maker')) };
}

/** Stages that were begun over something open, with the reason. */
function takenOn(job: JobView, times: Times): NonNullable<ReportSection['table']> {
  const { head, rows } = saidTable(job, ['stage'], times);
  return { head, rows: rows.filter(({ cells }) => cells[0]?.includes('although something was open')) };
}

function partWhy({ reason, cause }: DecisionPayload): string {
  return [reason, cause && `cause ${failedWords(cause)}`].filter(Boolean).join('; ');
}

/** Where each old part went, and that the new one was held against it. */
function oldPartsTable(state: JobState): NonNullable<ReportSection['table']> {
  const rows = state.oldParts.map(({ payload: { name, fate, compared } }) => ({
    cells: [name, OLD_FATE_WORDS[fate], compared ? 'held against the new one' : ''],
  }));
  return { head: ['Part', 'Where it went', 'Compared'], rows };
}

const OLD_FATE_WORDS: Readonly<Record<OldFate, string>> = { hold: 'held here', return: 'given back', scrap: 'scrapped' };

function sealsTable(job: JobView, times: Times): NonNullable<ReportSection['table']> {
  const sheet = job.sheet.file;
  const rows = rowsOf(job, ['seal-fitted', 'fluid'], times, (entry, look) => {
    if (entry.kind === 'fluid') {
      const payload = entry.payload as KeptEntry<'fluid'>['payload'];
      const fluid = find(sheet.fluids, payload.fluid);
      return [`${fluid?.name ?? payload.fluid}, ${fluid?.grade ?? ''}`, filled(payload), '', look.tool, look.who, look.when];
    }
    const payload = entry.payload as KeptEntry<'seal-fitted'>['payload'];
    const seal = find(sheet.seals, payload.seal);
    return [
      `${seal ? partName(sheet, seal.part) : payload.seal}, ${seal?.direction ?? ''}`,
      payload.depths.length > 0 ? `depth ${depthsText(payload.depths, seal?.depth ? windowOf(seal.depth, 'length') : {})}` : 'seated',
      verdictOf(entry) ?? '',
      look.tool,
      look.who,
      look.when,
    ];
  });
  return { head: ['What', 'Amount or depth', 'Verdict', 'Tool', 'Who', 'When'], rows };
}

function pullsTable(job: JobView, ref: string, times: Times): NonNullable<ReportSection['table']> {
  const joint = find(job.sheet.file.joints, ref);
  const full = joint && jointTorque(joint)?.torqueNm;
  const numbers = joint ? placeNumbers(joint) : [];
  const pulls: JobView = {
    ...job,
    entries: job.entries.filter((entry) => entry.strikes !== null || (entry.kind === 'pull' && entry.payload.joint === ref)),
  };
  const rows = rowsOf(pulls, ['pull'], times, ({ payload }, look) => [
    String(payload.pass),
    String(numbers[payload.place] ?? ''),
    String(payload.place + 1),
    pulledTo(payload, joint),
    payload.torque > 0 ? nm(settingOf(payload)) : '',
    [payload.result, payload.note].filter(Boolean).join(': '),
    look.tool,
    look.who,
    look.when,
  ]);
  return {
    head: [
      'Pass',
      'No.',
      'Clockwise',
      full === undefined ? 'Torque' : `Torque (of ${nm(full)})`,
      'Wrench at',
      'Result',
      'Tool',
      'Who',
      'When',
    ],
    rows,
  };
}

function struckTable(job: JobView, state: JobState, times: Times): NonNullable<ReportSection['table']> {
  const rows = job.entries.flatMap((entry) => {
    const strike = state.struck.get(entry.id);
    return strike ? [{ cells: [entryWords(entry, job.sheet.file)], struck: strikeWords(job, strike, times) }] : [];
  });
  return { head: ['Entry'], rows };
}

function signatures(job: JobView, state: JobState, times: Times): NonNullable<ReportSection['table']> {
  const rows = [state.signed, state.handedOver].flatMap((entry) => {
    if (!entry) return [];
    const { who, when } = lookUp(job, entry as unknown as AnyKeptEntry, times);
    const role = job.people.find((person) => person.id === entry.personId)?.role ?? '';
    return [
      {
        cells: [
          entry.kind === 'sign' ? `Proved and signed: ${entry.payload.name}` : `Received by: ${entry.payload.receivedBy}`,
          `${who}, ${role}`,
          when,
        ],
      },
    ];
  });
  return { head: ['Signature', 'Kept by', 'When'], rows };
}
