import type { BeginView } from '@jubb/wire';

/** One thing that a first job takes: what it is for, how far it is, and where it is done. */
export interface BeginStep {
  readonly title: string;
  readonly why: string;
  /** "3 work here": how far it is. */
  readonly state: string;
  readonly isDone: boolean;
  /** None where it is done at the machine. */
  readonly go?: { readonly to: string; readonly act: string };
  /** Another way there. */
  readonly also?: { readonly to: string; readonly act: string };
}

const some = (count: number, one: string, more: string): string => `${count === 0 ? 'no' : count} ${count === 1 ? one : more}`;

/** What a shop has to begin with, in the order in which each makes the next one easier; `command` is what is typed at its machine. */
export function beginSteps(view: BeginView, command: string): readonly BeginStep[] {
  const { people, pins, benches, tools, stock, suppliers, sheets, drafts, tablets, jobs, handedOver } = view;
  return [
    {
      title: 'What an hour costs, and the tax',
      why: 'Every quote goes by it.',
      state: view.isPriced ? 'looked at' : 'as it comes: look at it once and keep it',
      isDone: view.isPriced,
      go: { to: '/shop', act: 'Prices and rules' },
    },
    {
      title: 'Who works here',
      why: 'A second person looks at hold points, and an apprentice’s work is signed. Each sets a PIN at their own tablet.',
      state: `${some(people, 'person', 'people')}, ${pins} with a PIN`,
      isDone: people > 1,
      go: { to: '/shop/people', act: 'People' },
      also: { to: '/shop/bring?list=people', act: 'Bring in a list' },
    },
    {
      title: 'Benches and machines',
      why: 'A step says where it is done, when that can be used and by whom; each unit has a bench where it is found.',
      state: some(benches, 'bench or machine', 'benches and machines'),
      isDone: benches > 0,
      go: { to: '/shop/benches', act: 'Benches and machines' },
      also: { to: '/shop/bring?list=benches', act: 'Bring in a list' },
    },
    {
      title: 'The crib',
      why: 'What a reading is worth goes by the tool that took it; what is past its check is not offered.',
      state: some(tools, 'tool', 'tools'),
      isDone: tools > 0,
      go: { to: '/shop/bring?list=tools', act: 'Bring in a list' },
      also: { to: '/crib/new', act: 'One by one' },
    },
    {
      title: 'Sheets of what comes in most',
      why: 'Begun from the work of their family; every figure is unverified until you find it in your own books.',
      state: `${sheets === 0 ? 'none' : sheets} approved, ${some(drafts, 'draft', 'drafts')}`,
      isDone: sheets > 0,
      go: {
        to: drafts > 0 && sheets === 0 ? '/sheets' : '#examples',
        act: drafts > 0 && sheets === 0 ? 'Go on with the drafts' : 'Take one over',
      },
      also: { to: '/sheets/new', act: 'Of a family of your own' },
    },
    {
      title: 'The stores',
      why: 'Parts and seals are taken off the shelf as they go in, and ordered before they are out.',
      state: some(stock, 'line', 'lines'),
      isDone: stock > 0,
      go: { to: '/shop/bring?list=stores', act: 'Bring in a list' },
      also: { to: '/stores/new', act: 'One by one' },
    },
    {
      title: 'Whom you order from',
      why: 'What is missing for a job goes on their order; what they have and what it costs is kept as it is ordered.',
      state: some(suppliers, 'supplier', 'suppliers'),
      isDone: suppliers > 0,
      go: { to: '/stores/suppliers', act: 'Suppliers' },
      also: { to: '/shop/bring?list=prices', act: 'Bring in a list of prices' },
    },
    {
      title: 'A tablet at every bench',
      why: 'Log in on it once with a password; from then on a PIN will do there.',
      state: some(tablets, 'tablet or screen', 'tablets and screens'),
      isDone: tablets > 1,
      go: { to: '/shop/network', act: 'On the network' },
      also: { to: '/shop/tablets', act: 'Who is in where' },
    },
    {
      title: 'A backup on another disk',
      why: `Whoever looks after the machine: ${command} backup FOLDER, then ${command} rehearse, which brings it back beside the shop.`,
      state: view.isBackedUp ? (view.isRehearsed ? 'made, and brought back' : 'made; never brought back yet') : 'none',
      isDone: view.isBackedUp && view.isRehearsed,
    },
    {
      title: 'The first unit',
      why: 'Book it in, and Jubb says what comes next until it is handed over.',
      state: jobs === 0 ? 'none yet' : `${some(jobs, 'job', 'jobs')}, ${handedOver} handed over`,
      isDone: handedOver > 0,
      go: { to: jobs === 0 ? '/jobs/new' : '/jobs', act: jobs === 0 ? 'Book in' : 'Jobs' },
    },
  ];
}
