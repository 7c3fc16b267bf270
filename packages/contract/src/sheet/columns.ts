import { POLICIES, STAGES, TOOL_KINDS, TRUSTS } from '../words.js';
import {
  DOINGS,
  FASTENING_KINDS,
  FEMALE_MATERIALS,
  FILL_RULES,
  GRID_OF,
  LAYOUTS,
  LIMIT_KINDS,
  LIMIT_QUANTITIES,
  ORIENTATIONS,
  PULLS,
  RECORD_KINDS,
  SEAL_KINDS,
  SETTING_KINDS,
  SETTING_METHODS,
} from './choices.js';
import type { SheetList } from './lists.js';

/** One column of a table of the sheet: in the editor, in a spreadsheet's paste, in a CSV file. */
export interface Column {
  /** Path within a line: "torque.figure". */
  readonly path: string;
  readonly label: string;
  readonly kind: 'text' | 'whole' | 'number' | 'yes-no' | 'choice' | 'numbers' | 'refs' | 'lines' | 'stages';
  readonly choices?: readonly string[];
  /** Width in the editor, in letters. */
  readonly wide?: number;
}

const text = (path: string, label: string, wide?: number): Column => ({ path, label, kind: 'text', ...(wide ? { wide } : {}) });
const choice = (path: string, label: string, choices: readonly string[]): Column => ({ path, label, kind: 'choice', choices });
const whole = (path: string, label: string): Column => ({ path, label, kind: 'whole' });
const yesNo = (path: string, label: string): Column => ({ path, label, kind: 'yes-no' });
const refs = (path: string, label: string): Column => ({ path, label, kind: 'refs', wide: 16 });
const lines = (path: string, label: string): Column => ({ path, label, kind: 'lines', wide: 24 });
const REF = text('ref', 'Ref', 16);
const NAME = text('name', 'Name', 24);
const sourced = (path: string): readonly Column[] => [
  choice(`${path}.trust`, 'Trust', TRUSTS),
  text(`${path}.source`, 'Source'),
  text(`${path}.page`, 'Page', 7),
];
const span = (path: string, label: string): readonly Column[] => [
  text(`${path}.from`, `${label} from`, 10),
  text(`${path}.to`, `${label} to`, 10),
  ...sourced(path),
];

/** Columns of every list that is a table; the rest of a line is kept as it is. */
export const COLUMNS: Readonly<Record<SheetList, readonly Column[]>> = {
  documents: [REF, text('title', 'Title', 40), text('edition', 'Edition', 24), text('paper', 'Paper kept here', 20)],
  features: [
    REF,
    text('ask', 'Question', 40),
    choice('quantity', 'Measured', ['length', 'mass', 'count', 'angle', 'resistance']),
    text('how', 'How', 40),
  ],
  variants: [REF, NAME, text('differs', 'What differs', 50)],
  complaints: [REF, NAME],
  causes: [REF, NAME, refs('tasks', 'Mended by'), refs('parts', 'Likely parts')],
  tasks: [REF, NAME, yesNo('whole', 'Whole unit'), text('time', 'Book time', 8)],
  parts: [
    REF,
    NAME,
    text('number', 'Number', 12),
    text('designation', 'Designation', 14),
    whole('quantity', 'Pieces'),
    choice('policy', 'Policy', POLICIES),
    text('mass', 'Mass', 8),
    text('knownWhenOpen', 'Known when open', 24),
    yesNo('equalSides', 'Equal sides'),
    text('asManyAs', 'As many as'),
    text('note', 'Note', 30),
  ],
  kits: [REF, NAME, text('number', 'Number', 12), refs('parts', 'Parts')],
  joints: [
    REF,
    NAME,
    text('part', 'Part', 16),
    whole('count', 'Count'),
    text('thread', 'Thread', 12),
    text('propertyClass', 'Class', 6),
    choice('hand', 'Hand', ['right', 'left']),
    text('drive', 'Drive', 10),
    text('condition', 'Condition', 16),
    yesNo('renewEachTime', 'New each time'),
    choice('into', 'Into', FEMALE_MATERIALS),
    text('torque.figure', 'Torque', 10),
    text('torque.tolerance', 'Either way', 6),
    ...sourced('torque'),
    { path: 'stages', label: 'Stages', kind: 'stages', wide: 20 },
    choice('pattern.layout', 'Layout', LAYOUTS),
    whole('pattern.columns', 'In a row'),
    { path: 'pattern.passes', label: 'Passes', kind: 'numbers', wide: 10 },
    yesNo('pattern.checkPass', 'Check pass'),
    text('note', 'Note', 30),
  ],
  fastenings: [
    REF,
    NAME,
    choice('kind', 'Kind', FASTENING_KINDS),
    text('part', 'Part', 16),
    whole('count', 'Count'),
    text('seated', 'Seated when', 40),
    text('tool', 'Tool', 16),
  ],
  settings: [
    REF,
    NAME,
    choice('kind', 'Kind', SETTING_KINDS),
    choice('method', 'Method', SETTING_METHODS),
    ...span('window', 'Window'),
    text('windowUsed.from', 'Used from', 10),
    text('windowUsed.to', 'Used to', 10),
    text('aim.figure', 'Aim', 10),
    choice('tool', 'Tool', TOOL_KINDS),
    whole('repeats', 'Repeats'),
    text('how', 'How', 50),
  ],
  seals: [
    REF,
    text('part', 'Part', 16),
    choice('kind', 'Kind', SEAL_KINDS),
    text('size', 'Size', 14),
    text('material', 'Material', 10),
    text('direction', 'Direction', 30),
    choice('picture', 'Picture', ORIENTATIONS),
    ...span('depth', 'Depth'),
    choice('tool', 'Tool', TOOL_KINDS),
    text('lubricant', 'Lubricant', 20),
    lines('protect', 'Protect'),
  ],
  limits: [
    REF,
    NAME,
    text('part', 'Part', 16),
    choice('kind', 'Kind', LIMIT_KINDS),
    choice('quantity', 'Quantity', LIMIT_QUANTITIES),
    choice('pulled', 'Pulled until it moves', PULLS),
    text('between', 'Between', 20),
    ...span('asNew', 'New'),
    ...span('service', 'Service'),
    choice('tool', 'Tool', TOOL_KINDS),
    whole('repeats', 'Repeats'),
    whole('grid.rows', 'Rows'),
    whole('grid.columns', 'Round'),
    choice('grid.of', 'Judged', GRID_OF),
    text('how', 'How', 40),
    text('whenOut', 'When out', 40),
  ],
  fluids: [
    REF,
    NAME,
    text('grade', 'Grade', 24),
    choice('fill', 'Fill', FILL_RULES),
    text('amount.figure', 'Amount', 10),
    ...sourced('amount'),
    text('tolerance', 'Either way', 6),
    text('rule', 'Rule', 40),
  ],
  cautions: [
    REF,
    text('text', 'Care', 60),
    text('wear', 'Wear', 20),
    text('holds.from', 'From step', 14),
    text('holds.until', 'Until step', 14),
    text('licensed', 'Licensed', 30),
  ],
  obligations: [REF, NAME, refs('madeBy', 'Made by'), text('closedBy', 'Closed by', 16), text('why', 'Why', 40)],
  whileOpen: [
    REF,
    text('step', 'At step', 16),
    text('part', 'Part', 16),
    text('work', 'Work', 30),
    text('why', 'Why', 40),
    text('comeBack', 'To come back', 8),
  ],
  routings: [REF, NAME],
  steps: [
    REF,
    choice('stage', 'Stage', STAGES),
    text('title', 'Title', 24),
    choice('doing', 'Doing', DOINGS),
    text('act', 'Act', 60),
    text('why', 'Why', 40),
    text('expect', 'Expect', 30),
    text('stopWhen', 'Stop when', 30),
    lines('ladder', 'If it will not come'),
    lines('leaveAlone', 'Leave alone'),
    lines('wrongTools', 'Wrong tools'),
    lines('needs', 'Needs'),
    refs('cautions', 'Care'),
    choice('record.kind', 'Records', RECORD_KINDS),
    text('record.joint', 'Joint', 14),
    text('record.setting', 'Setting', 14),
    text('record.seal', 'Seal', 14),
    text('record.limit', 'Limit', 14),
    text('record.fluid', 'Fluid', 14),
    refs('tasks', 'Tasks'),
    refs('after', 'After'),
    refs('frees', 'Takes off'),
    refs('needsOff', 'Needs off'),
    choice('bench', 'Bench', ['bench', 'press', 'lift', 'oven', 'test stand', 'in place']),
    yesNo('noWayBack', 'No way back'),
    text('wait.time', 'Wait', 8),
    text('wait.what', 'Waits for', 20),
  ],
  customerNotes: [REF, text('text', 'Told', 60)],
};
