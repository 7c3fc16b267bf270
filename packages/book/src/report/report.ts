import { formatQuantity, type Window } from '@jubb/core';
import { atIn, dayWordsIn, find, jointTorque, settingQuantity, sourceWords, withSerial, type OldFate, type SheetFile } from '@jubb/sheet';
import { beforeAfter } from '../before-after.js';
import type { AnyKeptEntry, EntryKind, PayloadOf } from '../entries/kept.js';
import type { SectionId, Within } from '../kinds/report-sections.js';
import { entryWords, kindOf } from '../kinds/registry.js';
import { proofReads } from '../runs/proof.js';
import type { SettingRun, SettingTry } from '../runs/setting-run.js';
import { jobState, type JobState } from '../state.js';
import type { JobView } from '../views.js';
import { failedWords, joined, nm, owedWords, variantWords, windowWords } from '../words.js';

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
  /** Who struck it, when and why; or why it holds no more. */
  readonly struck?: string;
}

export interface Times {
  /** An instant in the shop's zone, as people write it. */
  at(iso: string): string;
  day(iso: string): string;
}

/** As they are in the shop: "1 Mar 2027", "1 Mar 2027, 14:05". */
export function timesIn(zone: string): Times {
  return { at: (iso) => atIn(zone, iso), day: (iso) => dayWordsIn(zone, iso, true) };
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
  if (state.variant) facts.push(['Which one', variantWords(state.variant)]);
  const tasks = (sheet.tasks ?? []).filter(({ ref }) => job.scope?.tasks.includes(ref)).map(({ name }) => name);
  if (tasks.length > 0) facts.push(['Done', [...tasks, ...(job.scope?.sides ?? [])].join(', ')]);
  if (job.sheet.notOpened.length > 0) facts.push(['Not opened', job.sheet.notOpened.join(', ')]);
  if (state.handedOver) facts.push(['Handed over', `${times.at(state.handedOver.takenAt)} to ${state.handedOver.payload.receivedBy}`]);
  const told = (section: SectionId, head: readonly string[], only?: Only, undone?: Undone): Table => ({
    head,
    rows: rowsIn(section, { job, times, only, undone }),
  });
  const said = (section: SectionId, what = 'What'): Table => ({ head: [what, ...WHO_AND_WHEN], rows: rowsIn(section, { job, times }) });
  return {
    title: `Job ${job.number}: ${job.unit.name}`,
    facts,
    sections: [
      { title: 'Tell the driver', care: true, text: sheet.customerNotes.map((note) => note.text) },
      ...owedSection(state),
      ...settingsSection(job, state, times),
      table('What it was brought for, before and after', beforeAfterTable(job, state, times)),
      table('As found', said('found', 'Seen')),
      table('Measured', told('measured', ['What', 'Found', 'Limit', 'Verdict', ...TOOL_TOO])),
      table('Contact pattern', said('pattern')),
      table('Fits', said('fits')),
      table('Worked out', said('worked')),
      table('Parts', partsTable(state)),
      table('The customer’s word', said('customer')),
      table('Other than the maker says', said('departs')),
      table('Taken on with something open', said('taken-on')),
      table('Old parts', oldPartsTable(state)),
      table('What would not come', said('stuck')),
      table('Read again after it was out of the way', said('set-again')),
      table('Looked at by somebody else', said('held', 'What was seen')),
      table('Seen to be home', told('home', ['What', 'How it is', ...WHO_AND_WHEN])),
      table('Seals and grease', told('seals', ['What', 'Amount or depth', 'Verdict', ...TOOL_TOO])),
      ...state.joints.map(({ joint: { ref, name }, pulls }) => {
        const stands = new Set(pulls.map(({ id }) => id));
        const full = jointTorque(find(sheet.joints, ref)!)?.torqueNm;
        const torque = full === undefined ? 'Torque' : `Torque (of ${nm(full)})`;
        const head = ['Pass', 'No.', 'Clockwise', torque, 'Wrench at', 'Result', ...TOOL_TOO];
        return table(
          `${name}: every pull`,
          told(
            'pulls',
            head,
            ({ payload }) => 'joint' in payload && payload.joint === ref,
            ({ id }) => (stands.has(id) ? undefined : 'Undone again afterwards: it proves nothing'),
          ),
        );
      }),
      table('Numbers that nobody’s book gives', said('no-number')),
      table('Struck out', struckTable(job, state, times)),
      table('Signatures', signatures(job, state, times)),
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

type Table = NonNullable<ReportSection['table']>;
type Only = (entry: AnyKeptEntry) => boolean;

function table(title: string, rows: Table): ReportSection {
  return { title, table: rows };
}

const WHO_AND_WHEN = ['Who', 'When'];
const TOOL_TOO = ['Tool', ...WHO_AND_WHEN];

/** Sections whose lines are an entry's words alone; the others have cells of their own, and the tool. */
const SAID: ReadonlySet<SectionId> = new Set([
  'found',
  'pattern',
  'fits',
  'worked',
  'customer',
  'departs',
  'taken-on',
  'no-number',
  'held',
  'home',
  'stuck',
  'set-again',
]);

interface RowsOf {
  readonly job: JobView;
  readonly times: Times;
  readonly only?: Only | undefined;
  readonly undone?: Undone | undefined;
}

/** Why what was kept holds no more, although nobody struck it. */
type Undone = (entry: AnyKeptEntry) => string | undefined;

/** Lines of the entries whose kind puts them into a section, the struck ones too. */
function rowsIn(section: SectionId, { job, times, only = () => true, undone = () => undefined }: RowsOf): ReportRow[] {
  const sheet = job.sheet.file;
  return job.entries.flatMap((entry) => {
    const within = withinOf(entry.kind).find((one) => one.section === section);
    if (!within || !only(entry) || within.when?.(entry) === false) return [];
    const { who, tool, when } = lookUp(job, entry, times);
    const own = within.cells?.(entry, sheet);
    const words = section === 'setting' ? [entryWords(entry, sheet), ...(own ?? [''])] : (own ?? [entryWords(entry, sheet)]);
    const cells = [...words, ...(SAID.has(section) ? [] : [tool]), who, when];
    const strike = job.entries.find((candidate) => candidate.strikes === entry.id);
    const struck = strike ? strikeWords(job, strike, times) : undone(entry);
    return [struck === undefined ? { cells } : { cells, struck }];
  });
}

function withinOf(kind: EntryKind): readonly Within<EntryKind>[] {
  return (kindOf<EntryKind>(kind).report ?? []) as readonly Within<EntryKind>[];
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
  return state.settings.map((run) => {
    const { setting, window, proved } = run;
    const quantity = settingQuantity(setting);
    const figure = (base: number, limits: Window): string => formatQuantity(base, quantity, undefined, limits);
    const rows = rowsIn('setting', { job, times, only: ({ payload }) => 'setting' in payload && payload.setting === setting.ref });
    const accepted = proved?.accepted === undefined ? '' : `, accepted by the foreman: ${proved.accepted}`;
    const left = proved
      ? `As left: ${figure(run.playNow ?? proved.play, window)}, ${provedWords(run, proved, state.sheet)}${accepted}.`
      : 'Not proved yet.';
    return {
      title: `${setting.name}, as left`,
      text: [
        `${left} Wanted ${windowWords(window, quantity)} (${[setting.window.trust, ...sourceWords(setting.window, job.sheet.file.documents)].join(', ')}).`,
      ],
      table: { head: ['What was done', 'Readings', 'Tool', 'Who', 'When'], rows },
    };
  });
}

/** "in", and how that is known of what the closed unit hides. */
function provedWords({ setting, bearings }: SettingRun, { play, verdict = '', before }: SettingTry, { steps }: SheetFile): string {
  switch (setting.proof?.by) {
    case undefined:
      return verdict;
    case 'closing':
      return `${verdict}; read before “${find(steps, setting.proof.closes)?.title ?? ''}”, which hides it`;
    case 'whole':
      return `as set; proved by the ${before}: ${formatQuantity(play, 'torque', undefined, proofReads(setting, bearings).window)}, ${verdict}`;
  }
}

/** The trial of the complaint, side by side; one that was not made again says so. */
function beforeAfterTable(job: JobView, { live }: JobState, times: Times): Table {
  const rows = beforeAfter(live).map(({ before: { payload, ...entry }, after }) => {
    const { who, when } = lookUp(job, (after ?? { payload, ...entry }) as unknown as AnyKeptEntry, times);
    const result = after ? joined(after.payload.result, after.payload.how) : 'not tried again';
    return { cells: [payload.what, joined(payload.how, payload.conditions), result, who, when] };
  });
  return { head: ['What', 'Before', 'After', ...WHO_AND_WHEN], rows };
}

function partsTable(state: JobState): Table {
  const rows = state.decisions.flatMap(({ part, entry }) =>
    entry ? [{ cells: [part.name, part.number ?? '', String(entry.payload.quantity), entry.payload.fate, partWhy(entry.payload)] }] : [],
  );
  return { head: ['Part', 'Number', 'Pieces', 'What', 'Why'], rows };
}

function partWhy({ reason, cause }: PayloadOf<'decision'>): string {
  return [reason, cause && `cause ${failedWords(cause)}`].filter(Boolean).join('; ');
}

/** Where each old part went, and that the new one was held against it. */
function oldPartsTable(state: JobState): Table {
  const rows = state.oldParts.map(({ payload: { name, fate, compared } }) => ({
    cells: [name, OLD_FATE_WORDS[fate], compared ? 'held against the new one' : ''],
  }));
  return { head: ['Part', 'Where it went', 'Compared'], rows };
}

const OLD_FATE_WORDS: Readonly<Record<OldFate, string>> = { hold: 'held here', return: 'given back', scrap: 'scrapped' };

function struckTable(job: JobView, state: JobState, times: Times): Table {
  const rows = job.entries.flatMap((entry) => {
    const strike = state.struck.get(entry.id);
    return strike ? [{ cells: [entryWords(entry, job.sheet.file)], struck: strikeWords(job, strike, times) }] : [];
  });
  return { head: ['Entry'], rows };
}

function signatures(job: JobView, state: JobState, times: Times): Table {
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
