/** What a key of the page does. */
interface Keyed {
  /** As the browser names them, in lower case. */
  readonly keys: readonly string[];
  /** As it stands on a key cap. */
  readonly shown: string;
  /** As help says it. */
  readonly does: string;
  /** Where it does that: on every page, at a job and at its bench, or at the bench alone. */
  readonly where: 'anywhere' | 'job' | 'bench';
}

/** Every key there is that means the same wherever it is pressed. Pages, the bench, the help and the key caps read this. */
export const KEYMAP = {
  act: {
    keys: [' ', 'pagedown'],
    shown: 'Space',
    does: 'the act in hand, where no field has the cursor; PageDown as well',
    where: 'anywhere',
  },
  keep: { keys: ['enter'], shown: 'Enter', does: 'keeps what is typed; the act in hand where nothing is', where: 'anywhere' },
  back: { keys: ['pageup'], shown: 'PageUp', does: 'the step before', where: 'bench' },
  bench: { keys: ['b'], shown: 'B', does: 'bench view; there: the build list, and back', where: 'job' },
  strike: { keys: ['s'], shown: 'S', does: 'strike the last entry', where: 'job' },
  photo: { keys: ['p'], shown: 'P', does: 'photo', where: 'job' },
  talk: { keys: ['v'], shown: 'V', does: 'hold to talk', where: 'job' },
  note: { keys: ['n'], shown: 'N', does: 'note', where: 'job' },
  'open-end': { keys: ['o'], shown: 'O', does: 'open end: what is not as it will be', where: 'job' },
  finding: { keys: ['k'], shown: 'K', does: 'damage, or a sign of an earlier rebuild', where: 'job' },
  'came-out': { keys: ['f'], shown: 'F', does: 'fluid that came out', where: 'job' },
  moved: { keys: ['g'], shown: 'G', does: 'moved to get at it', where: 'job' },
  hold: { keys: ['h'], shown: 'H', does: 'put the job on hold, or take it up again', where: 'job' },
  person: { keys: ['i'], shown: 'I', does: 'somebody else takes over', where: 'anywhere' },
  stuck: { keys: ['r'], shown: 'R', does: 'it will not come: the ladder, rung by rung', where: 'job' },
  'know-how': { keys: ['e'], shown: 'E', does: 'what others kept at this step of this model', where: 'job' },
  'tool-made': { keys: ['j'], shown: 'J', does: 'jig, puller, stop: a tool made for this step', where: 'job' },
  mark: { keys: ['m'], shown: 'M', does: 'mark: what lines up with what', where: 'job' },
  line: { keys: ['l'], shown: 'L', does: 'a line of your own in the ledger', where: 'job' },
  owed: { keys: ['u'], shown: 'U', does: 'owed: put off with the customer’s word', where: 'job' },
  'next-time': { keys: ['y'], shown: 'Y', does: 'next time: a proposal for the sheet', where: 'job' },
  leave: { keys: ['escape'], shown: 'Esc', does: 'out of a field, out of a dialog; from the bench back to the job', where: 'anywhere' },
  help: { keys: ['?'], shown: '?', does: 'these keys', where: 'anywhere' },
  find: { keys: ['ctrl+k'], shown: 'Ctrl K', does: 'find a job, sheet, part, tool, working, place or act', where: 'anywhere' },
  next: { keys: ['tab'], shown: 'Tab', does: 'to the next field or key', where: 'anywhere' },
} as const satisfies Readonly<Record<string, Keyed>>;

export type KeyName = keyof typeof KEYMAP;

/** What the keys do, for a help that is read at a job, at its bench, or elsewhere. */
export function keysHelp(at: 'anywhere' | 'job' | 'bench'): readonly (readonly [shown: string, does: string])[] {
  const read: readonly Keyed['where'][] = at === 'bench' ? ['job', 'bench', 'anywhere'] : at === 'job' ? ['job', 'anywhere'] : ['anywhere'];
  return Object.values(KEYMAP)
    .filter(({ where }) => read.includes(where))
    .map(({ shown, does }) => [shown, does]);
}
