import type { Column } from './columns.js';
import { GOES_BY, HAZARDS, HOLD_BY, LOOK_PICTURES, PROVED_BY, RESHAPED, SEAL_AFTER } from '../model/choices.js';
import type { SheetList } from '../model/lists.js';
import { TOOL_KINDS, TRUSTS } from '../words.js';

/** A field of a line that is itself a list, or a group of fields of its own. */
export interface NestedField {
  readonly path: string;
  readonly label: string;
  readonly kind: 'rows' | 'group' | 'picks';
  /** Columns of a row; a column whose text is the ref of a line of another list is picked from those. */
  readonly columns: readonly (Column & { readonly from?: SheetList })[];
  /** What may be picked, of a field of picks. */
  readonly picks?: readonly string[];
  /** What a new row begins with. */
  readonly fresh?: Readonly<Record<string, unknown>>;
  /** Only of lines of which this holds: a record of counts, a limit by looks. */
  readonly when?: (line: Readonly<Record<string, unknown>>) => boolean;
}

const text = (path: string, label: string): Column => ({ path, label, kind: 'text' });
const choice = (path: string, label: string, choices: readonly string[]): Column => ({ path, label, kind: 'choice', choices });
const yesNo = (path: string, label: string): Column => ({ path, label, kind: 'yes-no' });
const whole = (path: string, label: string): Column => ({ path, label, kind: 'whole' });
const refs = (path: string, label: string): Column => ({ path, label, kind: 'refs' });
const picked = (path: string, label: string, from: SheetList): NestedField['columns'][number] => ({ ...text(path, label), from });
const kindOf = (line: Readonly<Record<string, unknown>>): unknown => (line['record'] as { kind?: unknown } | undefined)?.kind;

/** Fields that a table has no room for, as small tables of their own under the line. */
export const NESTED: Readonly<Partial<Record<SheetList, readonly NestedField[]>>> = {
  steps: [
    {
      path: 'record.counts',
      label: 'Comes off, in the order it lies',
      kind: 'rows',
      columns: [
        picked('part', 'Part', 'parts'),
        whole('count', 'Count'),
        text('place', 'Where'),
        text('stack', 'On the axis of'),
        text('direction', 'Which way'),
        text('mark', 'Mark first'),
        yesNo('halfWay', 'Mark half-way'),
        yesNo('twoPeople', 'Two people'),
      ],
      fresh: { count: 1 },
      when: (line) => kindOf(line) === 'count',
    },
    {
      path: 'opens',
      label: 'Leaves open',
      kind: 'group',
      columns: [text('what', 'What'), text('place', 'Where'), picked('closedBy', 'Closed by', 'steps')],
    },
    {
      path: 'ways',
      label: 'Ways to do it',
      kind: 'rows',
      columns: [
        text('ref', 'Ref'),
        text('name', 'Name'),
        text('reason', 'Reason'),
        text('needs', 'Needs'),
        text('limits', 'Limits'),
        text('cost', 'Costs'),
        choice('by', 'Goes home by', GOES_BY),
        yesNo('departs', 'Departs from the maker'),
        yesNo('stays', 'Stays on the unit'),
        yesNo('shopDefault', 'The shop’s own'),
        refs('brings', 'Brings'),
        refs('drops', 'Drops'),
      ],
    },
    {
      path: 'holdPoint',
      label: 'Hold point',
      kind: 'group',
      columns: [choice('who', 'Who', HOLD_BY), text('what', 'What')],
    },
  ],
  causes: [
    {
      path: 'blames',
      label: 'Stands behind: 1 seldom, 3 often',
      kind: 'rows',
      columns: [picked('complaint', 'Complaint', 'complaints'), whole('weight', 'Weight')],
      fresh: { weight: 1 },
    },
    {
      path: 'signs',
      label: 'What speaks for or against it',
      kind: 'rows',
      columns: [
        picked('limit', 'Limit or check', 'limits'),
        choice('when', 'When it is', ['in', 'out']),
        choice('speaks', 'Speaks', ['for', 'strongly for', 'against', 'strongly against']),
      ],
      fresh: { when: 'out', speaks: 'for' },
    },
  ],
  limits: [
    {
      path: 'looks',
      label: 'Looks to pick from',
      kind: 'rows',
      columns: [
        text('ref', 'Ref'),
        text('words', 'Looks like'),
        choice('verdict', 'Verdict', ['in', 'out', 'unsure']),
        choice('picture', 'Picture', LOOK_PICTURES),
      ],
      fresh: { verdict: 'in' },
      when: (line) => line['kind'] === 'look',
    },
  ],
  seals: [{ path: 'after', label: 'Looked at once it is in', kind: 'picks', columns: [], picks: SEAL_AFTER }],
  cautions: [{ path: 'hazards', label: 'Dangers it speaks of', kind: 'picks', columns: [], picks: HAZARDS }],
  variants: [
    {
      path: 'changes',
      label: 'What is otherwise',
      kind: 'rows',
      columns: [choice('list', 'Of the', RESHAPED), text('line', 'Line'), text('field', 'Field'), text('is', 'Is')],
      fresh: { list: 'parts' },
    },
    {
      path: 'tells',
      label: 'What it is told by',
      kind: 'rows',
      columns: [picked('feature', 'Question', 'features'), text('is', 'Is'), text('within', 'Either way')],
    },
  ],
  settings: [
    {
      path: 'proof',
      label: 'Proved otherwise than read again when closed',
      kind: 'group',
      columns: [
        choice('by', 'By', PROVED_BY),
        picked('closes', 'Step that hides it', 'steps'),
        text('reads', 'The whole that is turned'),
        text('window.from', 'Left of it from'),
        text('window.to', 'Left of it to'),
        choice('window.trust', 'Trust', TRUSTS),
        text('window.source', 'Source'),
        choice('tool', 'Read with', TOOL_KINDS),
      ],
    },
    {
      path: 'proof.less',
      label: 'What else is in the whole',
      kind: 'rows',
      columns: [
        picked('setting', 'Setting', 'settings'),
        picked('limit', 'Or a drag read before', 'limits'),
        text('ratio', 'Geared down by'),
      ],
      when: ({ proof }) => (proof as { readonly by?: string } | undefined)?.by === 'whole',
    },
  ],
  joints: [
    {
      path: 'lengths',
      label: 'Lengths, longest first',
      kind: 'rows',
      columns: [text('length', 'Length'), whole('count', 'Count'), text('where', 'Where')],
      fresh: { count: 1 },
    },
  ],
  parts: [
    {
      path: 'superseded',
      label: 'Numbers that were',
      kind: 'rows',
      columns: [text('number', 'Number'), text('by', 'Now')],
    },
  ],
};
