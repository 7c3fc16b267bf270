import { STAGE_NAMES } from '@jubb/sheet';
import { matchSorter } from 'match-sorter';
import { useState, type KeyboardEvent, type ReactElement } from 'react';
import { Dialog } from '../kit/dialog.ts';
import { useNavigate } from 'react-router';
import FormLabel from 'react-bootstrap/FormLabel';
import FormControl from 'react-bootstrap/FormControl';
import { useJobs, useSheets, useTools, useWorkings } from '../link/queries.ts';
import { useStockFound } from '../stores/queries.ts';

interface Found {
  readonly key: string;
  readonly kind: string;
  readonly words: string;
  readonly to: string;
}

const MOST_OF_EACH = 6;

const ACTIONS: readonly Found[] = [
  { key: 'book-in', kind: 'act', words: 'Book in a unit', to: '/jobs/new' },
  { key: 'new-sheet', kind: 'act', words: 'Begin a new sheet', to: '/sheets/new' },
  { key: 'new-stock', kind: 'act', words: 'New line in the stores', to: '/stores/new' },
  { key: 'today', kind: 'place', words: 'Today', to: '/' },
  { key: 'jobs', kind: 'place', words: 'Jobs', to: '/jobs' },
  { key: 'sheets', kind: 'place', words: 'Sheets', to: '/sheets' },
  { key: 'workings', kind: 'place', words: 'Workings', to: '/workings' },
  { key: 'stores', kind: 'place', words: 'Stores', to: '/stores' },
  { key: 'shims', kind: 'place', words: 'Shims and rings', to: '/stores/shims' },
  { key: 'orders', kind: 'place', words: 'Orders', to: '/stores/orders' },
  { key: 'suppliers', kind: 'place', words: 'Suppliers', to: '/stores/suppliers' },
  { key: 'messages', kind: 'place', words: 'Messages to customers', to: '/stores/messages' },
  { key: 'crib', kind: 'place', words: 'Crib', to: '/crib' },
  { key: 'instruments', kind: 'place', words: 'Instruments', to: '/crib/instruments' },
  { key: 'learn', kind: 'place', words: 'Learn', to: '/learn' },
  { key: 'customers', kind: 'place', words: 'Customers', to: '/customers' },
  { key: 'shop', kind: 'place', words: 'The shop and its rules', to: '/shop' },
  { key: 'begin', kind: 'place', words: 'Setting up the shop', to: '/shop/begin' },
  { key: 'bring', kind: 'place', words: 'Bring in a list: people, customers, tools, stores', to: '/shop/bring' },
  { key: 'benches', kind: 'place', words: 'Benches and machines, and what stands there', to: '/shop/benches' },
  { key: 'people', kind: 'place', words: 'People who work here', to: '/shop/people' },
  { key: 'network', kind: 'place', words: 'This tablet: camera, microphone, work without a link', to: '/shop/network' },
  { key: 'tablets', kind: 'place', words: 'Tablets and who is logged in', to: '/shop/tablets' },
  { key: 'changes', kind: 'place', words: 'What was changed in the shop', to: '/shop/changes' },
];

/** One box for jobs, sheets, tools, workings and acts; arrows choose, Enter goes there. */
export function Find({ onClose }: { readonly onClose: () => void }): ReactElement {
  return (
    <Dialog show onHide={onClose} animation={false} aria-label="Find">
      <FindBox onClose={onClose} />
    </Dialog>
  );
}

function FindBox({ onClose }: { readonly onClose: () => void }): ReactElement {
  const [text, setText] = useState('');
  const [at, setAt] = useState(0);
  const go = useNavigate();
  const found = useFound(text);
  const choose = (one: Found | undefined): void => {
    if (!one) return;
    onClose();
    void go(one.to);
  };
  const onKey = (event: KeyboardEvent): void => {
    const move = { ArrowDown: 1, ArrowUp: -1 }[event.key];
    if (move) setAt((at + move + found.length) % Math.max(1, found.length));
    if (event.key === 'Enter') choose(found[at]);
    if (move ?? event.key === 'Enter') event.preventDefault();
  };
  return (
    <Dialog.Body>
      <FormLabel htmlFor="find">Find</FormLabel>
      <FormControl
        id="find"
        autoFocus
        autoComplete="off"
        placeholder="A number, a customer, a model, a tool, a question"
        role="combobox"
        aria-expanded="true"
        aria-controls="found"
        aria-activedescendant={found[at] ? `found-${found[at].key}` : undefined}
        value={text}
        maxLength={100}
        onKeyDown={onKey}
        onChange={(event) => {
          setText(event.target.value);
          setAt(0);
        }}
      />
      <ul id="found" className="steps mt-2" role="listbox" aria-label="Found">
        {found.map((one, index) => (
          <li key={one.key} id={`found-${one.key}`} role="option" aria-selected={index === at} className={index === at ? 'here' : ''}>
            <button type="button" tabIndex={-1} onClick={() => choose(one)} style={{ gridTemplateColumns: '4.5rem 1fr' }}>
              <span className="soft">{one.kind}</span>
              <span>{one.words}</span>
            </button>
          </li>
        ))}
      </ul>
      {found.length === 0 ? <p className="soft mb-0 mt-2">Nothing here has that in it.</p> : null}
    </Dialog.Body>
  );
}

function useFound(text: string): readonly Found[] {
  const { data: jobs = [], isPlaceholderData: isOld } = useJobs(text.trim());
  const sheets = useSheets().data ?? [];
  const tools = useTools().data ?? [];
  const workings = useWorkings().data ?? [];
  const wanted = text.trim().toLowerCase();
  const { data: shelf = [] } = useStockFound(wanted);
  // As a palette is asked: the beginnings of words or the letters of them in their order will do.
  const near = (all: readonly Found[]): readonly Found[] => matchSorter(all, wanted, { keys: ['words'] }).slice(0, MOST_OF_EACH);
  const acts = wanted === '' ? ACTIONS : near(ACTIONS);
  return [
    // Who types the name of an act means it; who types nothing looks for a job.
    ...(wanted === '' ? [] : acts),
    ...jobs
      .map((job) => ({
        key: job.id,
        kind: 'job',
        words: `${job.number} ${job.unit.name}, ${job.machine.name} · ${STAGE_NAMES[job.stage]}`,
        to: `/jobs/${job.id}`,
      }))
      // While the answer is still that of a letter ago, Enter must not take what no longer fits.
      .filter(({ words }) => !isOld || words.toLowerCase().includes(wanted))
      .slice(0, MOST_OF_EACH),
    // By its part numbers and threads too.
    ...sheets
      .filter(({ title, words }) => `${title} ${words}`.toLowerCase().includes(wanted))
      .map((sheet) => ({ key: sheet.revisionId, kind: 'sheet', words: sheet.title, to: `/sheets/${sheet.revisionId}` }))
      .slice(0, MOST_OF_EACH),
    ...shelf
      .map((line) => ({ key: line.id, kind: 'stores', words: `${line.number} ${line.name}`, to: `/stores/${line.id}` }))
      .slice(0, MOST_OF_EACH),
    ...near(workings.map((working) => ({ key: working.id, kind: 'working', words: working.title, to: `/workings/${working.id}` }))),
    ...near(tools.map((tool) => ({ key: tool.id, kind: 'tool', words: `${tool.tag} ${tool.name}`, to: `/crib/tools/${tool.id}` }))),
    ...(wanted === '' ? acts : []),
  ];
}
