import { isKind, type AnyKeptEntry, type KeptEntry } from '@jubb/book';
import { parseThread, workings } from '@jubb/core';
import { refOf, type Fastening, type Joint, type Part, type Seal, type SheetFile, type Step } from '@jubb/sheet';
import { emptySheet } from '@jubb/sheet/editing';

type Off = KeptEntry<'came-off'>['payload'];

/** What a part is by the words of its line. Common practice. */
const SEAL = /\b(?:o-?ring|lip seal|shaft seal|oil seal|seal|gasket|wiper)\b/iu;
const BEARING = /\bbearing\b/iu;
const HELD: readonly (readonly [RegExp, Fastening['kind']])[] = [
  [/\b(?:circlip|snap ring|retaining ring)\b/iu, 'ring'],
  [/\bclips?\b/iu, 'clip'],
  [/\b(?:split pin|cotter|roll pin|pin|key)s?\b/iu, 'pin'],
];
const CLASS = /\b(?:4\.6|4\.8|5\.6|5\.8|6\.8|8\.8|9\.8|10\.9|12\.9)\b/u;
const LEFT = /\bleft[- ]?hand(?:ed)?\b/iu;
const DESIGNATION = /\b(?:N[UJ] ?)?\d{4,5}(?:-[\w]+)?\b/u;
/** A torque that nobody gave is written to what a wrench shows. */
const DIGITS = 2;
const LONGEST_TITLE = 110;
const LONGEST_NOTE = 1900;

/** Fasteners with what they held: a step of the strip, and one or several of the build. */
interface Group {
  readonly screws: readonly Off[];
  readonly held: Off | undefined;
}

/** Lines of the ledger that no sheet knew of, as they came off. */
export function freeLines(live: readonly AnyKeptEntry[]): readonly Off[] {
  return live
    .filter(isKind('came-off'))
    .map(({ payload }) => payload)
    .filter(({ part }) => part === undefined);
}

/**
 * The first draft of a sheet out of a strip that had none: parts and counts, threads with the torque that class, surface and
 * thread allow, the order off and the other way round back on, marks, directions, what is looked at to be home. What is reckoned
 * says so; a screw with no mark counts as the lowest class. Everything in it is for its author to look over.
 */
export function sheetFromStrip(begun: SheetFile, key: string, live: readonly AnyKeptEntry[]): SheetFile {
  const { family, make, model, machine } = begun;
  const frame = emptySheet({ key, make, model, machine }, family);
  const lines = freeLines(live);
  const refs = refsOf(lines);
  const refFor = (line: Off): string => refs.get(nameOf(line))!;
  const groups = groupsOf(lines);
  const parts = [...new Map(lines.map((line) => [nameOf(line), line])).values()].map((line) => partOf(line, refFor(line), lines));
  const [arrival, , wash, decide, , count, sign, out] = frame.steps;
  const note = live.filter(isKind('next-time')).map(({ payload }) => payload.text);
  const strip = groups.map((group, at): Step => stripStep(group, at, refFor));
  const build = groups.toReversed().flatMap((group, at) => buildSteps(group, at, refFor));
  return {
    ...frame,
    notes: ['Begun from a strip: every count, thread and size is to be looked over, every torque is reckoned.', ...note]
      .join(' ')
      .slice(0, LONGEST_NOTE),
    parts,
    joints: lines.flatMap((line) => jointOf(line, refFor(line)) ?? []),
    seals: lines.filter(isSeal).map((line) => sealOf(line, refFor(line))),
    fastenings: lines.flatMap((line) => fasteningOf(line, refFor(line)) ?? []),
    steps: [
      arrival!,
      { ...BEFORE_A_NUT },
      ...strip,
      { ...wash!, stage: 'measure' },
      decide!,
      {
        ...count!,
        stage: 'build',
        title: 'Count what goes back',
        act: 'Lay out what goes back, old and new, and count it against what came off.',
      },
      ...build,
      { ...PROVED },
      sign!,
      out!,
    ],
  };
}

const BEFORE_A_NUT: Step = {
  ref: 'before-a-nut',
  stage: 'strip',
  title: 'Before a nut is touched',
  act: 'Read and keep what nobody can read afterwards: end play, turning torque while it turns, the notch that an adjuster stands in, the height of what was pressed.',
  why: 'What it was set to goes with the first nut.',
  record: { kind: 'tick' },
};

const PROVED: Step = {
  ref: 'as-it-was',
  stage: 'prove',
  title: 'Held against what was found',
  act: 'Play, turning torque, height: as they were read before, or as they should have been. Turned by hand, both ways.',
  record: { kind: 'tick' },
};

function nameOf({ name, size }: Off): string {
  return size === undefined || size === name ? name : `${name} ${size}`;
}

/** A ref for each kind of part, none twice. */
function refsOf(lines: readonly Off[]): ReadonlyMap<string, string> {
  const refs = new Map<string, string>();
  for (const line of lines) {
    const name = nameOf(line);
    if (refs.has(name)) continue;
    const ref = refOf(name, 40) || 'part';
    const taken = [...refs.values()].filter((one) => one === ref || one.startsWith(`${ref}-`)).length;
    refs.set(name, taken === 0 ? ref : `${ref}-${taken + 1}`);
  }
  return refs;
}

function threadOf({ size }: Off): string | undefined {
  const [thread] = (size ?? '').split(' x ');
  return thread && parseThread(thread) ? thread : undefined;
}

function isSeal({ name }: Off): boolean {
  return SEAL.test(name);
}

/** Screws belong to what came off behind them. */
function groupsOf(lines: readonly Off[]): readonly Group[] {
  const groups: Group[] = [];
  let screws: Off[] = [];
  for (const line of lines) {
    if (threadOf(line) !== undefined) {
      screws.push(line);
      continue;
    }
    groups.push({ screws, held: line });
    screws = [];
  }
  return screws.length > 0 ? [...groups, { screws, held: undefined }] : groups;
}

function partOf(line: Off, ref: string, lines: readonly Off[]): Part {
  const name = nameOf(line);
  const quantity = lines.filter((one) => nameOf(one) === name).reduce((sum, one) => sum + one.count, 0);
  const designation = BEARING.test(line.name) ? DESIGNATION.exec(line.name)?.[0] : undefined;
  const policy =
    isSeal(line) || HELD.some(([words]) => words.test(line.name)) ? 'renew' : threadOf(line) === undefined ? 'inspect' : 'reuse';
  return {
    ref,
    name,
    quantity,
    policy,
    ...(designation === undefined ? {} : { designation }),
    ...(line.condition ? { note: `as it came off: ${line.condition}` } : {}),
  };
}

function jointOf(line: Off, ref: string): Joint | undefined {
  const thread = threadOf(line);
  if (thread === undefined) return undefined;
  const words = [line.name, line.condition, line.place].join(' ');
  const propertyClass = CLASS.exec(words)?.[0] ?? 'unmarked';
  const run = workings.run('torque.no-spec', { thread, propertyClass, surface: 'oiled' });
  const aim = run?.ok ? Number(Number(run.run.output['aim']).toPrecision(DIGITS)) : undefined;
  return {
    ref,
    name: nameOf(line),
    part: ref,
    count: line.count,
    thread,
    propertyClass,
    hand: LEFT.test(words) ? 'left' : 'right',
    drive: 'by its head',
    condition: 'oiled',
    surface: 'oiled',
    renewEachTime: false,
    ...(aim === undefined ? {} : { torque: { figure: `${aim} N·m`, trust: 'calculated', source: 'torque.no-spec' } }),
    pattern: { layout: 'circle', passes: line.count > 1 ? [0.5, 1] : [1], checkPass: line.count > 3 },
  };
}

function sealOf(line: Off, ref: string): Seal {
  const kind = /o-?ring/iu.test(line.name) ? 'o-ring' : /gasket/iu.test(line.name) ? 'gasket' : 'lip-seal';
  return {
    ref,
    part: ref,
    kind,
    size: line.size ?? 'to be measured',
    material: 'to be found',
    direction: line.direction ?? 'as it came out',
    lubricant: 'to be found',
    protect: [],
  };
}

function fasteningOf(line: Off, ref: string): Fastening | undefined {
  const kind = isSeal(line) || threadOf(line) !== undefined ? undefined : HELD.find(([words]) => words.test(line.name))?.[1];
  return (
    kind && { ref, name: nameOf(line), kind, part: ref, count: line.count, seated: 'home all round, and it does not come out by hand' }
  );
}

function titled(words: string): string {
  return words.slice(0, LONGEST_TITLE);
}

function stripStep({ screws, held }: Group, at: number, refFor: (line: Off) => string): Step {
  const lines = [...screws, ...(held ? [held] : [])];
  const what = held ?? screws[0]!;
  return {
    ref: `off-${at + 1}`,
    stage: 'strip',
    title: titled(`${nameOf(what)} off`),
    act: lines
      .map((line) => `${line.count} × ${nameOf(line)}${line.place === undefined ? '' : ` from ${line.place}`}`)
      .join(', ')
      .slice(0, LONGEST_NOTE / 2),
    record: {
      kind: 'count',
      counts: lines.map(({ count, place, stack, direction, mark, ...rest }) => ({
        part: refFor({ count, ...rest }),
        count,
        ...(place === undefined ? {} : { place }),
        ...(stack === undefined ? {} : { stack }),
        ...(direction === undefined ? {} : { direction }),
        ...(mark === undefined ? {} : { mark }),
      })),
    },
  };
}

/** Back in the other way round: what was held, then its screws. */
function buildSteps({ screws, held }: Group, at: number, refFor: (line: Off) => string): readonly Step[] {
  const ref = `on-${at + 1}`;
  const tight = screws.map((line, number): Step => ({
    ref: `${ref}-tight-${number + 1}`,
    stage: 'build',
    title: titled(`${nameOf(line)} tight`),
    act: line.count > 1 ? 'All by hand first, then crosswise, by even steps.' : 'By hand first, then to its torque.',
    record: { kind: 'torque', joint: refFor(line) },
  }));
  if (!held) return tight;
  const part = refFor(held);
  const isHeld = fasteningOf(held, part) !== undefined;
  const step: Step = {
    ref,
    stage: 'build',
    title: titled(`${nameOf(held)} in`),
    act: held.direction === undefined ? 'As it came out.' : `As it came out: ${held.direction}.`,
    putsIn: [part],
    ...(isHeld ? { seats: [part] } : {}),
    record: isSeal(held) ? { kind: 'seal', seal: part } : { kind: 'tick' },
  };
  return [step, ...tight];
}
