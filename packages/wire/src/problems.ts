import type { RefusalCode } from '@jubb/book';

interface ProblemKind {
  readonly status: number;
  /** The sentence; a name in braces is filled in where it is said. */
  readonly title: string;
}

/** Every refusal there is, by a code that never changes. Words and statuses stand here and nowhere else. */
export const PROBLEMS = {
  'bad-input': { status: 400, title: 'Something in this cannot be kept' },
  'too-large-figure': { status: 400, title: 'A figure in this is larger than can be kept' },
  'not-json': { status: 400, title: 'This is not JSON' },
  'log-in-first': { status: 401, title: 'Log in first' },
  'log-in-wrong': { status: 401, title: 'Name and password do not go together' },
  'second-factor': { status: 401, title: 'A code is asked for beside the password' },
  'pin-wrong': { status: 401, title: 'That PIN will not do' },
  'instrument-unknown': { status: 401, title: 'This instrument is not known by that key' },
  'not-yours': { status: 403, title: 'This is not yours to do' },
  'page-out-of-date': { status: 403, title: 'The page is out of date; load it again' },
  'maker-not-here': { status: 403, title: 'Its maker has to log in at this tablet to send it' },
  'pin-not-here': { status: 403, title: 'A PIN will not do here' },
  'customer-alone': { status: 403, title: 'Only the customer answers here' },
  'not-found': { status: 404, title: 'There is no such {what}' },
  'no-such-address': { status: 404, title: 'There is nothing at this address' },
  'tablet-unknown': { status: 404, title: 'This tablet is not known here; log in with your password once' },
  changed: { status: 409, title: 'Somebody changed this {what} while you had it open' },
  'struck-before': { status: 409, title: 'Somebody struck this before you' },
  'signed-already': { status: 409, title: 'It is signed already' },
  'not-to-be-signed': { status: 409, title: 'It cannot be signed yet' },
  'not-to-be-handed-over': { status: 409, title: 'It cannot be handed over yet' },
  'handed-over': { status: 409, title: 'The job is handed over: nothing can be added to it' },
  'entries-stay': { status: 409, title: 'Entries are never changed or removed; strike them' },
  'entry-id-taken': { status: 409, title: 'An entry with this id was kept before with other content' },
  'there-already': { status: 409, title: 'This is there already' },
  'points-nowhere': { status: 409, title: 'This points to something that is not there' },
  'not-free': { status: 409, title: 'Only {pieces} of it {are} free' },
  'no-count-waiting': { status: 409, title: 'There is no count here that waits for a signature' },
  'order-closed': { status: 409, title: 'This line is not on an order that can still be changed' },
  'order-empty': { status: 409, title: 'There is nothing on this order' },
  'order-settled': { status: 409, title: 'This order was settled before' },
  'order-not-confirmed': { status: 409, title: 'Only an order that is confirmed can {act}' },
  'quote-answered': { status: 409, title: 'This quote was answered before' },
  'part-out-of-turn': { status: 409, title: 'Another part comes next' },
  'draft-in-use': { status: 409, title: 'A job goes by this draft; it stays' },
  'draft-newer': { status: 409, title: 'Another draft of this sheet was begun since' },
  'draft-under-work': { status: 409, title: 'A draft of this sheet is under work by {who}' },
  'not-a-draft': { status: 409, title: 'Revision {revision} is {status}; only a draft can be {act}' },
  'not-approved': { status: 409, title: 'Revision {revision} is {status}; only an approved one is withdrawn' },
  'not-to-be-approved': { status: 409, title: 'It cannot be approved yet' },
  'shop-open': { status: 409, title: 'This shop is open already; log in' },
  'quote-over': { status: 410, title: 'This quote is not good any more' },
  'quote-replaced': { status: 410, title: 'A newer quote has taken the place of this one; ask the shop for its link' },
  'too-large': { status: 413, title: 'This is too large to be taken in' },
  'sheet-too-large': { status: 413, title: 'This sheet is too much to read' },
  'no-room': { status: 413, title: '{what} take {mb} MB, which is all that they may' },
  unreadable: { status: 422, title: 'This cannot be read' },
  'too-many-requests': { status: 429, title: 'Too many requests; wait a moment' },
  'too-many-lines': { status: 429, title: 'Too many lines; at most {most} a second' },
  'too-many-tries': { status: 429, title: 'Too many tries. Wait {wait}, or {other}' },
  broken: { status: 500, title: 'Something went wrong here, not with what you sent' },
  'database-silent': { status: 503, title: 'The database does not answer; try again in a moment' },
  'too-long': { status: 503, title: 'This took too long; try again in a moment' },
  'sheets-busy': { status: 503, title: 'Many sheets are being read; try again in a moment' },
  'supplier-silent': { status: 504, title: '{supplier} does not answer. The order is sent; it is asked for again, and not ordered twice' },
  'disk-full': {
    status: 507,
    title: 'The disk of the server is full: nothing can be kept until there is room; what is kept can be read',
  },
} as const satisfies Readonly<Record<RefusalCode, ProblemKind>> & Readonly<Record<string, ProblemKind>>;

export type ProblemCode = keyof typeof PROBLEMS;

/** The sentence of a problem, with what it speaks of filled in. */
export function problemTitle(code: ProblemCode, named: Readonly<Record<string, string | number>> = {}): string {
  return PROBLEMS[code].title.replace(/\{(\w+)\}/gu, (gap, name: string) => String(named[name] ?? gap));
}
