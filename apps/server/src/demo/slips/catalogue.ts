import { verdictOf, workingFor } from '@jubb/book';
import { find, limitQuantity, quantitiesOf, reshapes, type Tool } from '@jubb/sheet';
import type { DemoEntry } from '@jubb/play';
import { leftOut, otherwise, passedOver, payloadOf, type Moment, type Slip, type Slipped } from './slip.js';

const LBF_FT = 1.3558;
const INCH = 25.4;
/** One turn of a micrometer's thimble, mm: half a turn of it misread. Common practice. */
const HALF_TURN = 0.25;

const numbers = (held: unknown): readonly number[] => held as readonly number[];
const times =
  (factor: number) =>
  ({ readings, ...payload }: Readonly<Record<string, unknown>>) => {
    const figures = numbers(readings);
    return figures.some((figure) => figure !== 0) ? { ...payload, readings: figures.map((figure) => figure * factor) } : undefined;
  };

/** The same act by another tool of the crib. */
function withTool(kind: DemoEntry['kind'], pick: (tool: Tool, others: readonly Tool[]) => Tool | undefined): Slip['make'] {
  return ({ acts, tools }) => {
    const index = acts.findIndex((act) => act.kind === kind && act.toolId !== undefined);
    const act = acts[index];
    const mine = tools.find(({ id }) => id === act?.toolId);
    const other = mine && pick(mine, tools);
    return act && other ? { acts: acts.with(index, { ...act, toolId: other.id }) } : undefined;
  };
}

function size(at: Moment, payload: Readonly<Record<string, unknown>>): boolean {
  const limit = find(at.sheet.limits, payload['limit'] as string);
  return limit?.kind === 'size' && limitQuantity(limit) === 'length';
}

const sizeOnly =
  (change: (payload: Readonly<Record<string, unknown>>) => object | undefined) =>
  (payload: Readonly<Record<string, unknown>>, at: Moment): Readonly<Record<string, unknown>> | undefined =>
    size(at, payload) ? (change(payload) as Readonly<Record<string, unknown>> | undefined) : undefined;

/** What a mistake is judged by, where it is only one if it changes the verdict. */
function isOtherVerdict(kind: DemoEntry['kind'], at: Moment, act: DemoEntry, payload: object): boolean {
  const tool = at.tools.find(({ id }) => id === act.toolId);
  const verdict = (of: object): unknown => verdictOf({ working: workingFor(kind, of, at.sheet, tool) } as never);
  return verdict(payload) !== verdict(act.payload);
}

const pulls = ({ acts }: Moment): readonly number[] => acts.flatMap(({ kind }, index) => (kind === 'pull' ? [index] : []));

function pullsOtherwise(change: (acts: readonly DemoEntry[], at: readonly number[]) => readonly DemoEntry[] | undefined): Slip['make'] {
  return (moment): Slipped | undefined => {
    const at = pulls(moment);
    const acts = at.length > 1 ? change(moment.acts, at) : undefined;
    return acts && { acts };
  };
}

/** Kinds of mistake, each as one entry: what it is called, and what is done in the place of what is right. */
export const CATALOGUE: readonly Slip[] = [
  // What it is
  {
    id: 'other-variant',
    words: 'another variant said where it shows',
    passes: 'where two differ in figures alone every count is the same; which one it is, is asked once',
    make: otherwise('variant', (p, { sheet }) => {
      const other = (sheet.variants ?? []).find((variant) => variant.ref !== p['variant'] && reshapes(variant));
      return other && { ...p, variant: other.ref };
    }),
  },
  // Counting
  {
    id: 'count-short',
    words: 'one fewer counted off than came off',
    make: otherwise('came-off', (p) => (Number(p['count']) > 1 ? { ...p, count: Number(p['count']) - 1 } : undefined)),
  },
  {
    id: 'count-over',
    words: 'one more counted off than there is',
    make: otherwise('came-off', (p) => ({ ...p, count: Number(p['count']) + 1 })),
  },
  { id: 'count-left-out', words: 'a part that came off was not counted', make: leftOut('came-off') },
  {
    id: 'count-twice',
    words: 'the same part counted twice',
    make: ({ acts }) => {
      const act = acts.find(({ kind }) => kind === 'came-off');
      return act && { acts: [...acts, act] };
    },
  },
  {
    id: 'count-other-part',
    words: 'counted under the name of another part',
    make: ({ acts, sheet }) => {
      const off = acts.filter(({ kind }) => kind === 'came-off');
      const [one] = off;
      const other = one && sheet.parts.find(({ ref }) => !off.some((act) => payloadOf(act)['part'] === ref));
      return (
        one &&
        other && {
          acts: acts.map((act) => (act === one ? { ...act, payload: { ...payloadOf(act), part: other.ref, name: other.name } } : act)),
        }
      );
    },
  },
  {
    id: 'unknown-part',
    words: 'counted under a part that the unit does not have',
    make: otherwise('came-off', (p) => ({ ...p, part: 'no-such-part' })),
  },
  {
    id: 'back-short',
    words: 'one fewer lies there for the build',
    make: otherwise('counted', (p) => (Number(p['count']) > 1 ? { ...p, count: Number(p['count']) - 1 } : undefined)),
  },
  {
    id: 'back-over',
    words: 'one more lies there for the build',
    make: otherwise('counted', (p) => ({ ...p, count: Number(p['count']) + 1 })),
  },
  { id: 'back-left-out', words: 'a part was not counted back', make: leftOut('counted') },
  // Reading
  {
    id: 'reading-decimal-up',
    words: 'a decimal sign one place to the right',
    passes:
      'a play or a gap may be anything from nothing to the end of its window; where the slip stays inside, nothing tells it from a good one',
    make: otherwise('reading', sizeOnly(times(10))),
  },
  {
    id: 'reading-decimal-down',
    words: 'a decimal sign one place to the left',
    passes: 'a play of nothing is as good as any: where the sheet has no least, a tenth of it is in',
    make: otherwise('reading', sizeOnly(times(0.1))),
  },
  {
    id: 'reading-inch',
    words: 'an inch figure kept as millimetres',
    passes: 'the same: a twenty-fifth of a play is in where the sheet has no least',
    make: otherwise('reading', sizeOnly(times(1 / INCH))),
  },
  {
    id: 'reading-mm',
    words: 'a millimetre figure kept as inches',
    passes: 'a play read in the wrong unit may still be inside a wide window',
    make: otherwise(
      'reading',
      sizeOnly((p) => ({ ...p, readings: numbers(p['readings']).map((figure) => figure * INCH) })),
    ),
  },
  {
    id: 'reading-half-turn',
    words: 'half a turn of the micrometer misread',
    make: otherwise('reading', (p, at, act) => {
      if (!size(at, p)) return undefined;
      const payload = { ...p, readings: numbers(p['readings']).map((figure) => figure + HALF_TURN) };
      return isOtherVerdict('reading', at, act, payload) ? payload : undefined;
    }),
  },
  {
    id: 'reading-one-off',
    words: 'one of the readings is of something else',
    passes:
      'one reading of several that lies a little off is what readings do; the page asks where it lies further off than the tool spreads',
    make: otherwise(
      'reading',
      sizeOnly((p) =>
        numbers(p['readings']).length > 1
          ? { ...p, readings: numbers(p['readings']).with(0, numbers(p['readings'])[0]! * 0.9) }
          : undefined,
      ),
    ),
  },
  { id: 'reading-wrong-unit', words: 'a unit that is none of what is read', make: otherwise('reading', (p) => ({ ...p, unit: 'kPa·s' })) },
  {
    id: 'reading-other-limit',
    words: 'kept under a limit that is not there',
    make: otherwise('reading', (p) => ({ ...p, limit: 'no-such-limit' })),
  },
  {
    id: 'reading-other-tool',
    words: 'read with a tool of another kind',
    make: withTool('reading', (mine, all) => all.find((tool) => !quantitiesOf(tool).includes(mine.quantity))),
  },
  {
    id: 'reading-past-range',
    words: 'read with a tool that does not reach so far',
    make: withTool('reading', (mine, all) =>
      all.find((tool) => tool.kind === mine.kind && tool.quantity === mine.quantity && tool.high > tool.low && tool.high <= mine.low),
    ),
  },
  {
    id: 'reading-overdue',
    words: 'read with a tool past its check',
    make: withTool('reading', (mine) => ({ ...mine, id: `overdue ${mine.id}` })),
  },
  {
    id: 'reading-passed-over',
    words: 'a size was not taken',
    make: passedOver(({ record, stage }) => record.kind === 'reading' && stage === 'measure'),
  },
  { id: 'look-passed-over', words: 'a part was not looked at', make: passedOver(({ record }) => record.kind === 'look') },
  {
    id: 'look-unknown',
    words: 'a look that is none of those of the sheet',
    make: otherwise('look', (p) => ({ ...p, look: 'no-such-look' })),
  },
  // Deciding
  {
    id: 'decision-short',
    words: 'fewer new ones than go in',
    make: otherwise('decision', (p) =>
      p['fate'] === 'renew' && Number(p['quantity']) > 1 ? { ...p, quantity: Number(p['quantity']) - 1 } : undefined,
    ),
  },
  { id: 'decision-left-out', words: 'a part that nobody decided about', make: leftOut('decision') },
  {
    id: 'decision-by-hand',
    words: 'renewed what the sheet renews kept in',
    make: otherwise('decision', (p) => (p['fate'] === 'renew' ? { ...p, fate: 'reuse' } : undefined)),
  },
  // New parts
  { id: 'new-not-here', words: 'an old one in the place of a new one', make: leftOut('replacement-here') },
  {
    id: 'new-one-short',
    words: 'a kit one piece short',
    passes: 'where several lines of a kit are said at once, the rest is asked for at the signature alone',
    make: otherwise('replacement-here', (p) => (Number(p['count']) > 1 ? { ...p, count: Number(p['count']) - 1 } : undefined)),
  },
  // Pulling
  { id: 'pull-missed', words: 'a screw missed', make: pullsOtherwise((acts, at) => acts.toSpliced(at[Math.floor(at.length / 2)]!, 1)) },
  {
    id: 'pull-twice',
    words: 'a screw pulled twice for its neighbour',
    make: pullsOtherwise((acts, [one, two]) =>
      acts.with(two!, { ...acts[two!]!, payload: { ...payloadOf(acts[two!]!), place: payloadOf(acts[one!]!)['place'] } }),
    ),
  },
  {
    id: 'pull-pass-out',
    words: 'a pass left out',
    make: pullsOtherwise((acts, at) => {
      const passes = new Set(at.map((index) => payloadOf(acts[index]!)['pass']));
      return passes.size > 1 ? acts.filter((act) => act.kind !== 'pull' || payloadOf(act)['pass'] !== 1) : undefined;
    }),
  },
  {
    id: 'pull-lbf-ft',
    words: 'lbf·ft set for N·m',
    make: otherwise('pull', (p) => (Number(p['torque']) > 0 ? { ...p, torque: Number(p['torque']) * LBF_FT } : undefined)),
  },
  {
    id: 'pull-n-m',
    words: 'N·m set for lbf·ft',
    make: otherwise('pull', (p) => (Number(p['torque']) > 0 ? { ...p, torque: Number(p['torque']) / LBF_FT } : undefined)),
  },
  {
    id: 'pull-decimal',
    words: 'a torque ten times too much',
    make: otherwise('pull', (p) => (Number(p['torque']) > 0 ? { ...p, torque: Number(p['torque']) * 10 } : undefined)),
  },
  {
    id: 'pull-full-at-once',
    words: 'the full torque in the first pass',
    make: pullsOtherwise((acts, at) => {
      const [first, last] = [acts[at[0]!]!, acts[at.at(-1)!]!];
      const full = payloadOf(last)['torque'];
      return payloadOf(first)['torque'] === full || payloadOf(first)['pass'] === payloadOf(last)['pass'] || Number(full) === 0
        ? undefined
        : acts.with(at[0]!, { ...first, payload: { ...payloadOf(first), torque: full } });
    }),
  },
  {
    id: 'pull-no-such-place',
    words: 'a screw that the joint does not have',
    make: otherwise('pull', (p, { sheet }) => ({ ...p, place: find(sheet.joints, p['joint'] as string)?.count ?? 99 })),
  },
  {
    id: 'pull-other-tool',
    words: 'pulled with what is no wrench',
    make: withTool('pull', (_, all) => all.find((tool) => tool.quantity !== 'torque')),
  },
  {
    id: 'pull-small-wrench',
    words: 'a wrench that does not reach so far',
    make: withTool('pull', (mine, all) => all.find((tool) => tool.kind === mine.kind && tool.high > tool.low && tool.high <= mine.low)),
  },
  { id: 'pull-overdue', words: 'a wrench past its check', make: withTool('pull', (mine) => ({ ...mine, id: `overdue ${mine.id}` })) },
  { id: 'joint-passed-over', words: 'a joint not pulled at all', make: passedOver(({ record }) => record.kind === 'torque') },
  // Seals
  { id: 'seal-dry', words: 'a dry lip', make: otherwise('seal-fitted', (p) => ({ ...p, lubricated: false })) },
  { id: 'seal-wrong-way', words: 'a lip the wrong way', make: otherwise('seal-fitted', (p) => ({ ...p, directionSeen: false })) },
  {
    id: 'seal-too-deep',
    words: 'a seal driven too deep',
    make: otherwise('seal-fitted', (p) =>
      numbers(p['depths']).length > 0 ? { ...p, depths: numbers(p['depths']).map((depth) => depth + 2) } : undefined,
    ),
  },
  {
    id: 'seal-cocked',
    words: 'a seal that stands crooked',
    make: otherwise('seal-fitted', (p) =>
      numbers(p['depths']).length > 1 ? { ...p, depths: numbers(p['depths']).with(0, numbers(p['depths'])[0]! + 2) } : undefined,
    ),
  },
  {
    id: 'seal-depth-unread',
    words: 'a depth that nobody read',
    make: otherwise('seal-fitted', (p) => (numbers(p['depths']).length > 0 ? { ...p, depths: [] } : undefined)),
  },
  {
    id: 'seal-place-unseen',
    words: 'a gouge in the place of a seal that nobody looked for',
    make: leftOut('seal-seen', ({ what }) => what === 'place'),
  },
  { id: 'seal-nicked', words: 'a nicked ring that nobody looked at', make: leftOut('seal-seen', ({ what }) => what === 'new') },
  { id: 'seal-unguarded', words: 'a lip drawn over bare splines or thread', make: leftOut('seal-seen', ({ what }) => what === 'guard-on') },
  { id: 'guard-left-in', words: 'tape or cone left in', make: leftOut('seal-seen', ({ what }) => what === 'guard-off') },
  { id: 'spring-off', words: 'a garter spring that came off unseen', make: leftOut('seal-seen', ({ what }) => what === 'spring') },
  { id: 'lip-turned-under', words: 'a lip turned under unseen', make: leftOut('seal-seen', ({ what }) => what === 'lip') },
  { id: 'seal-not-turned', words: 'a seal that grabs, and nobody turned it', make: leftOut('seal-seen', ({ what }) => what === 'turns') },
  { id: 'old-ring-in', words: 'the old ring left in', make: leftOut('old-seal-out') },
  { id: 'old-ring-pieces', words: 'pieces of the old ring left in', make: otherwise('old-seal-out', (p) => ({ ...p, whole: false })) },
  { id: 'seal-passed-over', words: 'a seal not fitted', make: passedOver(({ record }) => record.kind === 'seal') },
  // Settings
  {
    id: 'setting-out',
    words: 'a setting left outside its window',
    make: otherwise('end-play', (p) =>
      p['moment'] === 'locked' ? { ...p, readings: numbers(p['readings']).map((figure) => figure * 2 + 0.5) } : undefined,
    ),
  },
  {
    id: 'setting-inch',
    words: 'an inch figure kept for a setting in millimetres',
    passes: 'a window that begins at nothing has no least',
    make: otherwise('end-play', (p) =>
      p['moment'] === 'locked' && p['unit'] === 'mm'
        ? { ...p, readings: numbers(p['readings']).map((figure) => figure / INCH) }
        : undefined,
    ),
  },
  {
    id: 'setting-decimal',
    words: 'a decimal sign of a setting misplaced',
    make: otherwise('end-play', (p) =>
      p['moment'] === 'locked' ? { ...p, readings: numbers(p['readings']).map((figure) => figure * 10) } : undefined,
    ),
  },
  {
    id: 'setting-as-proof',
    words: 'a proof said in the place of the setting',
    make: otherwise('end-play', (p) => (p['moment'] === 'locked' ? { ...p, moment: 'proved' } : undefined)),
  },
  {
    id: 'setting-passed-over',
    words: 'a setting not set',
    make: passedOver(({ record, stage }) => record.kind === 'setting' && stage === 'build'),
  },
  {
    id: 'proof-out',
    words: 'a proof outside its window',
    make: otherwise('end-play', (p) =>
      p['moment'] === 'proved' ? { ...p, readings: numbers(p['readings']).map((figure) => figure * 2 + 0.5) } : undefined,
    ),
  },
  {
    id: 'proof-repeated',
    words: 'a proof that repeats the readings of the setting',
    passes: 'who repeats the readings of the setting writes what a good proof looks like; the tool cannot see that nobody turned it',
    make: otherwise('end-play', (p, { state }) => {
      if (p['moment'] !== 'proved') return undefined;
      const set = state.live.findLast(
        (entry) => entry.kind === 'end-play' && entry.payload.setting === p['setting'] && entry.payload.moment === 'locked',
      );
      return set?.kind === 'end-play' ? { ...p, readings: set.payload.readings } : undefined;
    }),
  },
  { id: 'proof-passed-over', words: 'a proof skipped', make: passedOver(({ record }) => record.kind === 'proof') },
  {
    id: 'pattern-off',
    words: 'a pattern at the toe and the root left so',
    make: otherwise('pattern', (p) => ({ ...p, driveUp: 'root', coastUp: 'root', driveAlong: 'toe', coastAlong: 'toe' })),
  },
  // Fits
  { id: 'fit-unmeasured', words: 'a ring pressed on that nobody measured', make: leftOut('worked') },
  {
    id: 'fit-loose',
    words: 'a ring that is loose on its seat',
    make: otherwise('worked', (p) => {
      const input = p['input'] as Readonly<Record<string, unknown>>;
      return p['working'] === 'fit.measured'
        ? { ...p, input: { ...input, shaft: `${(Number.parseFloat(String(input['bore'])) - 0.05).toFixed(4)} mm` } }
        : undefined;
    }),
  },
  { id: 'fit-passed-over', words: 'a ring not fitted', make: passedOver(({ record }) => record.kind === 'fit') },
  {
    id: 'fitted-cold',
    words: 'a bearing fitted cold, its oven never begun',
    make: ({ acts, step, state }) => {
      const act = acts.find(({ kind }) => kind === 'wait');
      return act && step.lead && state.live.length > 0 ? { acts: [{ kind: 'tick', payload: {}, step: step.ref }] } : undefined;
    },
  },
  {
    id: 'fitted-early',
    words: 'out of the oven before its time',
    make: ({ acts, step }) =>
      acts.some(({ kind }) => kind === 'wait-over') && step.lead ? { acts: [{ kind: 'tick', payload: {}, step: step.ref }] } : undefined,
  },
  // Seen to be home
  {
    id: 'clip-one-short',
    words: 'one clip not seen to be home',
    make: otherwise('seated', (p) => (Number(p['count']) > 1 ? { ...p, count: Number(p['count']) - 1 } : undefined)),
  },
  { id: 'clip-not-seated', words: 'a ring, clip or pin not seated', make: leftOut('seated') },
  { id: 'wrong-way-round', words: 'a part that goes one way only put in unlooked', make: leftOut('way-round') },
  { id: 'mark-a-tooth-off', words: 'a mark that does not line up', make: leftOut('mark-met') },
  { id: 'not-as-expected', words: 'it did not go as it should, and nobody asked', make: leftOut('as-expected') },
  {
    id: 'noticed',
    words: 'it did not go as it should, and was said',
    make: otherwise('as-expected', () => ({ so: false, instead: 'otherwise' })),
  },
  // Fluids
  { id: 'fluid-passed-over', words: 'oil not filled', make: passedOver(({ record }) => record.kind === 'fluid') },
  {
    id: 'fluid-half',
    words: 'half of the oil',
    make: otherwise('fluid', (p) => (Number(p['amount']) > 0 ? { ...p, amount: Number(p['amount']) / 2 } : undefined)),
  },
  {
    id: 'fluid-decimal',
    words: 'ten times the oil',
    make: otherwise('fluid', (p) => (Number(p['amount']) > 0 ? { ...p, amount: Number(p['amount']) * 10 } : undefined)),
  },
  {
    id: 'fluid-other',
    words: 'the fluid of another place',
    make: otherwise('fluid', (p, { sheet }) => {
      const other = sheet.fluids.find(({ ref }) => ref !== p['fluid']);
      return other && { ...p, fluid: other.ref };
    }),
  },
  // Coats
  {
    id: 'coat-unmasked',
    words: 'painted with something left unmasked',
    make: otherwise('tick', (p) => (Number(p['masked']) > 0 ? { ...p, masked: Number(p['masked']) - 1 } : undefined)),
  },
  {
    id: 'coat-forgotten',
    words: 'paint put off, and written down nowhere',
    make: otherwise('tick', (p) => (p['masked'] === undefined ? undefined : { later: 'in spring' })),
  },
  // People
  {
    id: 'hold-by-oneself',
    words: 'a hold signed by who did the work',
    make: ({ acts }) => (acts.some(({ kind }) => kind === 'hold-met') ? { acts, by: 'hand' } : undefined),
  },
  {
    id: 'hold-passed-over',
    words: 'a hold that nobody looked at',
    make: ({ acts }) => (acts.some(({ kind }) => kind === 'hold-met') ? { acts: [], goesOn: true } : undefined),
  },
  {
    id: 'signed-by-hand',
    words: 'signed by a mechanic',
    make: ({ acts }) => (acts.some(({ kind }) => kind === 'sign') ? { acts, by: 'hand' } : undefined),
  },
  { id: 'out-unsigned', words: 'handed over without a signature', make: passedOver(({ record }) => record.kind === 'sign') },
  {
    id: 'caution-unread',
    words: 'a caution not read',
    passes: 'a caution that holds over several steps is asked at each of them, and one that was left out at the first is read at the next',
    make: leftOut('caution-read'),
  },
  // Steps
  {
    id: 'tick-passed-over',
    words: 'a step of the strip passed over',
    make: passedOver(({ record, stage }) => record.kind === 'tick' && stage === 'strip'),
  },
  {
    id: 'build-step-passed-over',
    words: 'a step of the build passed over',
    make: passedOver(({ record, stage }) => record.kind === 'tick' && stage === 'build'),
  },
  {
    id: 'prove-step-passed-over',
    words: 'a last look passed over',
    make: passedOver(({ record, stage }) => record.kind === 'tick' && stage === 'prove'),
  },
  {
    id: 'strip-out-of-turn',
    words: 'taken apart before what bars its way',
    make: passedOver(({ record, stage }) => record.kind === 'count' && stage === 'strip'),
  },
];
