import { entryWords, proposedFor, UPSETS, UPSET_WORDS, USUALLY_READ_AS, type AnyKeptEntry, type JobState, type Upset } from '@jubb/book';
import { parseQuantity, type Quantity } from '@jubb/core';
import type { HoldReason, OpenEndKind, Step } from '@jubb/sheet';
import type { ReactElement } from 'react';
import type { Answers, AskedChoice, AskedField } from '../kit/ask-line.tsx';
import type { Draft } from '../link/store.ts';

/** What can be recorded anywhere on a job by one key and a line or two. */
export interface Ask {
  readonly title: string;
  readonly act: string;
  readonly choice?: AskedChoice;
  readonly fields: (answers: Answers) => readonly AskedField[];
  readonly drafts: (answers: Answers) => readonly Draft[];
}

export type AskName = 'note' | 'next-time' | 'mark' | 'owed' | 'open-end' | 'finding' | 'came-out' | 'moved' | 'tool-made' | 'hold';

export type Asking =
  { readonly what: AskName | 'line' | 'talk' | 'stuck' | 'in-the-way' } | { readonly what: 'strike'; readonly entry: AnyKeptEntry };

export interface JobActs {
  readonly dialog: ReactElement | null;
  readonly ask: (asking: Asking) => void;
  readonly strikeLast: () => void;
  /** A photo of the step in hand, or of an entry. */
  readonly photo: (of?: AnyKeptEntry) => void;
  /** Puts the job on hold, or takes it up again. */
  readonly hold: () => void;
}

const WHAT_KIND: readonly (readonly [OpenEndKind, string])[] = [
  ['temporary', 'Temporary thing in'],
  ['off', 'Connector or hose off'],
  ['started', 'Fastener only started'],
  ['provisional', 'Plug for now'],
  ['adjuster', 'Adjuster moved'],
  ['borrowed', 'Borrowed from elsewhere'],
];

/** What is usual of each kind: an example, and what closes it. */
const OF_KIND: Readonly<Record<OpenEndKind, readonly [hint: string, closes: string]>> = {
  temporary: ['Pin, strap, long screw, tape, jack …', 'take it out again'],
  off: ['Connector, hose, wire …', 'put it on again'],
  started: ['Which screw or nut …', 'tighten it'],
  provisional: ['Plug or cap by hand, to keep the dirt out …', 'fit what belongs there'],
  adjuster: ['Which adjuster: count its turns before it is moved', 'set it as it was found, or anew by its setting'],
  borrowed: ['What, and from which hole …', 'put it back where it belongs'],
};

const REASONS: readonly (readonly [HoldReason, string])[] = [
  ['parts', 'Parts'],
  ['answer', 'An answer'],
  ['tool', 'A tool'],
  ['cure', 'Cure or soak'],
  ['help', 'Help, for the last bolt'],
];

const COMES: readonly (readonly [string, string])[] = [
  ['', 'not known yet'],
  ['made', 'it is made here'],
  ['bought', 'it is bought or lent'],
  ['something else serves', 'something else serves'],
];

const REASON_HINTS: Readonly<Record<string, string>> = {
  parts: 'Which parts, from where …',
  answer: 'Whose, to what …',
  tool: 'Which tool, who has it …',
  cure: 'What, until when …',
  help: 'Who, and what it takes …',
};

const READS_HINTS: Readonly<Record<Upset, string>> = {
  level: 'Coolant, cold, over the mark …',
  air: 'Let out at the bleed screw until none comes …',
  tension: 'Give of the belt by thumb, half-way …',
  alignment: 'Pulleys in line, gap at the straightedge …',
};

/** Answers by name without those that were left empty; figures as figures. */
function given(answers: Answers, words: readonly string[], figures: readonly string[] = []): object {
  const said = words.map((name) => [name, answers[name]?.trim()] as const).filter(([, text]) => text);
  const sized = figures.filter((name) => answers[name]?.trim()).map((name) => [name, Number(answers[name]?.replace(',', '.'))] as const);
  return Object.fromEntries([...said, ...sized]);
}

/** "Drum to shaft to hub" is drum to shaft, and shaft to hub. */
function links(chain: string): readonly string[] {
  const parts = chain.trim().split(/\s+to\s+/u);
  return parts.length < 3 ? [chain] : parts.slice(1).map((part, at) => `${parts[at] ?? ''} to ${part}`);
}

interface Ends {
  readonly from: string | undefined;
  readonly to: string | undefined;
}

type UnitOf = (quantity: Quantity) => string;

const endOf = (upset: Upset, text: string | undefined, unitOf: UnitOf): ReturnType<typeof parseQuantity> | undefined => {
  const readAs = USUALLY_READ_AS[upset];
  return text?.trim() ? parseQuantity(text, readAs, 'figure', unitOf(readAs)) : undefined;
};

/** What is read once something is back, and between which figures it is right. */
function readsOf(upset: Upset, { from, to }: Ends, unitOf: UnitOf): readonly AskedField[] {
  const unit = unitOf(USUALLY_READ_AS[upset]);
  const [low, high] = [endOf(upset, from, unitOf), endOf(upset, to, unitOf)];
  const notRead = `is no figure in ${unit}, nor with a unit of its own`;
  const isUpsideDown = low?.ok === true && high?.ok === true && low.quantity.base > high.quantity.base;
  return [
    { name: 'reads', label: 'What is read once it is back', required: true, hint: READS_HINTS[upset] },
    {
      name: 'from',
      label: `Right from, ${unit}`,
      isShort: true,
      longest: 40,
      wrong: low?.ok === false ? `“${from}” ${notRead}` : undefined,
    },
    {
      ...{ name: 'to', label: `to, ${unit}`, isShort: true, longest: 40, hint: 'Nothing: whoever reads it judges it.' },
      wrong: high?.ok === false ? `“${to}” ${notRead}` : isUpsideDown ? 'must be at least where it begins' : undefined,
    },
  ];
}

function windowOf(upset: Upset, { from, to }: Ends, unitOf: UnitOf): object {
  const [low, high] = [endOf(upset, from, unitOf), endOf(upset, to, unitOf)];
  return {
    readAs: USUALLY_READ_AS[upset],
    ...(low?.ok ? { from: low.quantity.base } : {}),
    ...(high?.ok ? { to: high.quantity.base } : {}),
  };
}

/** The asks of a job, at the step in hand; figures are typed in the shop's units, or with their own. */
export function asksAt({ sheet, steps }: JobState, step: Step | undefined, unitOf: UnitOf): Readonly<Record<AskName, Ask>> {
  const at = step ? { step: step.ref } : {};
  const plain =
    (kind: Draft['kind'], words: readonly string[], figures?: readonly string[]) =>
    (answers: Answers): readonly Draft[] => [{ kind, payload: given(answers, words, figures), ...at }];
  const toCome = steps.filter(({ done }) => !done).map(({ step: { ref, title } }) => [ref, title] as const);
  return {
    note: {
      title: 'Note',
      act: 'Keep it',
      fields: () => [{ name: 'text', label: 'What should be remembered', required: true, longest: 2000 }],
      drafts: plain('note', ['text']),
    },
    'next-time': {
      title: 'Next time',
      act: 'Keep it',
      fields: () => [
        {
          name: 'text',
          label: 'What should be otherwise',
          required: true,
          hint: 'It stands beside the line of the sheet until somebody takes it in.',
          longest: 1000,
        },
        { name: 'figure', label: 'Figure that worked, if there is one', longest: 60 },
      ],
      drafts: (answers) => [
        { kind: 'next-time', payload: { ...given(answers, ['text', 'figure']), ...(step ? proposedFor(sheet, step) : {}) }, ...at },
      ],
    },
    mark: {
      title: 'Mark',
      act: 'It is marked',
      fields: () => [
        { name: 'what', label: 'What to what', required: true, hint: 'Cap to carrier; drum to shaft to hub makes two' },
        { name: 'mark', label: 'How', required: true, hint: 'Dot to dot, paint line, punch, 3 o’clock, tooth 5 …' },
        { name: 'with', label: 'Who held, if it took two', longest: 100 },
      ],
      // Each link of a chain lines up by itself.
      drafts: ({ what = '', ...rest }) =>
        links(what).map((link) => ({ kind: 'mark', payload: given({ ...rest, what: link }, ['what', 'mark', 'with']), ...at })),
    },
    owed: {
      title: 'Owed',
      act: 'Keep it',
      fields: () => [
        { name: 'what', label: 'What is put off', required: true, longest: 300, hint: 'It greets the next booking of this machine.' },
        { name: 'told', label: 'What the customer said to it', required: true, longest: 300 },
        { name: 'due', label: 'Due by, if there is a day', type: 'date', isShort: true },
        { name: 'hours', label: 'Due at running hours', type: 'number', isShort: true },
      ],
      drafts: plain('owed', ['what', 'told', 'due'], ['hours']),
    },
    'open-end': {
      title: 'Open end',
      act: 'Keep it',
      choice: { name: 'kind', label: 'What kind', options: WHAT_KIND, optional: true },
      fields: ({ kind }) => {
        const [hint, closes] = OF_KIND[(kind ?? 'temporary') as OpenEndKind];
        return [
          { name: 'what', label: 'What is not as it will be', required: true, hint },
          ...(kind === 'adjuster'
            ? [
                {
                  name: 'turns',
                  label: 'Turns from its stop, as found (out is minus)',
                  type: 'number' as const,
                  required: true,
                  hint: '−2.25',
                },
              ]
            : []),
          { name: 'place', label: 'Where', longest: 100, isShort: true },
          { name: 'closes', label: 'What closes it', required: true, initial: closes },
          { name: 'closedBy', label: 'It closes with a step', options: [['', 'no, by hand'], ...toCome] },
        ];
      },
      drafts: plain('open-end', ['kind', 'what', 'place', 'closes', 'closedBy'], ['turns']),
    },
    finding: {
      title: 'As found',
      act: 'Keep it',
      choice: {
        name: 'sort',
        label: 'What it is',
        options: [
          ['damage', 'Damage'],
          ['rebuilt before', 'Rebuilt before'],
        ],
        optional: true,
      },
      fields: ({ sort }) => [
        {
          name: 'text',
          label: 'What is seen',
          required: true,
          longest: 2000,
          hint:
            sort === 'rebuilt before'
              ? 'Sealant where none belongs, punch marks, odd screws, other seals …'
              : 'Score, crack, blueing, rust, a tooth gone …',
        },
        { name: 'place', label: 'Where' },
      ],
      drafts: plain('finding', ['text', 'place', 'sort']),
    },
    'came-out': {
      title: 'Came out of it',
      act: 'Keep it',
      choice: {
        name: 'metal',
        label: 'What the magnet and the pan show',
        options: [
          ['none', 'No metal'],
          ['fine dust', 'Fine dust'],
          ['flakes', 'Flakes'],
          ['pieces', 'Pieces'],
        ],
        optional: true,
      },
      fields: () => [
        { name: 'name', label: 'What came out', required: true, longest: 100, initial: sheet.fluids[0]?.name ?? '' },
        { name: 'litres', label: 'How much, L', type: 'number', isShort: true },
        { name: 'colour', label: 'Colour', longest: 100, isShort: true, hint: 'Clear, dark, milky, burnt …' },
      ],
      drafts: plain('came-out', ['name', 'colour', 'metal'], ['litres']),
    },
    moved: {
      title: 'Moved to get at it',
      act: 'Keep it',
      choice: {
        name: 'how',
        label: 'How',
        options: [
          ['off', 'Taken off'],
          ['aside', 'Laid aside'],
          ['loosened', 'Loosened'],
        ],
      },
      fields: ({ upsets, from, to }) => [
        { name: 'what', label: 'What', required: true, hint: 'Belt, hose, fan, shield, wheel …' },
        { name: 'screws', label: 'Screws, counted', type: 'number', isShort: true },
        { name: 'size', label: 'Their size', longest: 60, isShort: true, hint: 'M8 × 25' },
        { name: 'routing', label: 'How it runs', longest: 300, hint: 'Over the idler, behind the bracket … a photo (P) says more' },
        { name: 'upsets', label: 'It upsets', options: [['', 'nothing'], ...UPSETS.map((upset) => [upset, UPSET_WORDS[upset]] as const)] },
        ...(upsets ? readsOf(upsets as Upset, { from, to }, unitOf) : []),
      ],
      drafts: ({ upsets, reads, from, to, ...answers }) => [
        {
          kind: 'moved',
          payload: {
            ...given(answers, ['how', 'what', 'size', 'routing'], ['screws']),
            ...(upsets && reads?.trim()
              ? { makes: { upsets, what: reads.trim(), ...windowOf(upsets as Upset, { from, to }, unitOf) } }
              : {}),
          },
          ...at,
        },
      ],
    },
    'tool-made': {
      title: step ? 'Tool made for this step' : 'Tool made',
      act: 'Keep it',
      fields: () => [
        { name: 'name', label: 'What it is', required: true, longest: 100, hint: 'Puller, stop, jig, socket turned down …' },
        { name: 'use', label: 'What it does, and how', required: true, longest: 300 },
        {
          name: 'sizes',
          label: 'Sizes to make it again by',
          longest: 300,
          hint: 'Tube 48 × 4, 120 long, end squared … a photo (P) says more',
        },
        { name: 'load', label: 'Held, kN', type: 'number', isShort: true, hint: 'The most it was loaded with' },
      ],
      drafts: plain('tool-made', ['name', 'use', 'sizes'], ['load']),
    },
    hold: {
      title: 'Put on hold',
      act: 'Hold it',
      choice: { name: 'reason', label: 'What it waits for', options: REASONS },
      fields: ({ reason = '' }) => [
        { name: 'words', label: 'In words', required: true, longest: 300, ...(REASON_HINTS[reason] ? { hint: REASON_HINTS[reason] } : {}) },
        ...(reason === 'tool' ? [{ name: 'comes', label: 'How it comes', options: COMES }] : []),
      ],
      // How a tool comes is said of a tool alone, also where another reason was picked at first.
      drafts: (answers) => plain('hold', answers['reason'] === 'tool' ? ['reason', 'words', 'comes'] : ['reason', 'words'])(answers),
    },
  };
}

/** Striking an entry: it stays in the book, and why it is wrong beside it. */
export function strikeAsk(entry: AnyKeptEntry, { sheet, live }: JobState): Ask {
  // The clock that it began goes with it.
  const clocks = entry.step === null ? [] : live.filter(({ kind, step, seq }) => kind === 'wait' && step === entry.step && seq > entry.seq);
  return {
    title: `Strike: ${entryWords(entry, sheet)}`,
    act: 'Strike it',
    fields: () => [
      { name: 'reason', label: 'Why', required: true, hint: 'It stays in the book, struck through, with this beside it.', longest: 300 },
    ],
    drafts: (answers) => [entry, ...clocks].map(({ id }) => ({ kind: 'strike', payload: given(answers, ['reason']), strikes: id })),
  };
}
