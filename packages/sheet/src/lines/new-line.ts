import type { SheetList } from '../model/lists.js';
import type { Stage } from '../words.js';

/** Stands where somebody has yet to say something. */
const OPEN = '…';

/** A line of each list that has the shape of one, and says nothing yet. */
const BLANK: Readonly<Record<SheetList, Readonly<Record<string, unknown>>>> = {
  documents: { title: OPEN },
  features: { ask: OPEN },
  variants: { name: OPEN, tells: [] },
  complaints: { name: OPEN },
  causes: { name: OPEN, blames: [] },
  tasks: { name: OPEN },
  several: { name: OPEN, names: [] },
  parts: { name: OPEN, quantity: 1, policy: 'inspect' },
  kits: { name: OPEN, parts: [] },
  joints: {
    name: OPEN,
    part: OPEN,
    count: 1,
    thread: OPEN,
    hand: 'right',
    drive: OPEN,
    condition: OPEN,
    renewEachTime: false,
    pattern: { layout: 'circle', passes: [1], checkPass: false },
  },
  fastenings: { name: OPEN, kind: 'ring', count: 1, seated: OPEN },
  settings: {
    name: OPEN,
    kind: 'end-play',
    method: 'shims',
    window: { trust: 'unverified', source: 'typed in' },
    tool: 'dial-indicator',
    repeats: 3,
  },
  fits: { name: OPEN, part: OPEN, seat: OPEN, long: OPEN, outside: OPEN, pressedOn: 'inner ring', warmed: 'open-bearing' },
  seals: { part: OPEN, kind: 'lip-seal', size: OPEN, material: OPEN, direction: OPEN, lubricant: OPEN, protect: [] },
  limits: { name: OPEN, kind: 'size', how: OPEN, whenOut: OPEN },
  fluids: { name: OPEN, grade: OPEN, rule: OPEN },
  cautions: { text: OPEN },
  obligations: { name: OPEN, madeBy: [], closedBy: OPEN, why: OPEN },
  whileOpen: { step: OPEN, work: OPEN, why: OPEN },
  routings: { name: OPEN, lines: [] },
  steps: { stage: 'strip', title: OPEN, act: OPEN, record: { kind: 'tick' } },
  customerNotes: { text: OPEN },
};

/** A new line: what can be said beforehand is, what somebody has to say is left out. A new step is a tick, at the stage it stands in. */
export function newLine(list: SheetList, stage?: Stage): Readonly<Record<string, unknown>> {
  const said = Object.fromEntries(Object.entries(BLANK[list]).filter(([, held]) => held !== OPEN));
  return list === 'steps' && stage ? { ...said, stage } : said;
}

/** What may stand in a required field of a line until it is mended; nothing where the field can be left out. */
export function blankField(list: SheetList, field: string): unknown {
  return BLANK[list][field];
}
