import { BENCH, TRUSTED, WRITERS } from '@jubb/book';
import { ROLES as EVERYONE, type Role } from '@jubb/sheet';
import { endpoint } from './endpoint.js';

const FOREMAN: readonly Role[] = ['foreman'];

/**
 * Every operation there is: the server's routes, what they take and who may, the document of the interface, and the
 * client of the web come from these lines.
 */
export const ENDPOINTS = {
  tools: {
    list: endpoint('GET', '/tools', EVERYONE, ['Tool']),
    made: endpoint('GET', '/tools/made', EVERYONE, ['MadeTool']),
    one: endpoint('GET', '/tools/:id', EVERYONE, 'ToolView'),
    add: endpoint('POST', '/tools', FOREMAN, 'ToolView', { body: 'ToolBody', status: 201 }),
    change: endpoint('PUT', '/tools/:id', FOREMAN, 'ToolView', { body: 'ToolChangeBody' }),
    check: endpoint('POST', '/tools/:id/checks', WRITERS, 'ToolView', { body: 'ToolCheckBody' }),
    lend: endpoint('PUT', '/tools/:id/holder', EVERYONE, 'ToolView', { body: 'LendBody' }),
    retire: endpoint('PUT', '/tools/:id/retired', FOREMAN, 'ToolView', { body: 'RetireBody' }),
    picture: endpoint('PUT', '/tools/:id/picture', WRITERS, 'ToolView', { body: 'ToolPictureBody' }),
    study: endpoint('POST', '/tools/:id/studies', WRITERS, 'ToolView', { body: 'StudyBody' }),
  },
  customers: {
    list: endpoint('GET', '/customers', EVERYONE, ['CustomerLine'], { query: ['find'] }),
    one: endpoint('GET', '/customers/:id', EVERYONE, 'CustomerView'),
    change: endpoint('PUT', '/customers/:id', TRUSTED, 'CustomerView', { body: 'CustomerBody' }),
    merge: endpoint('POST', '/customers/:id/merge', FOREMAN, 'CustomerView', { body: 'MergeBody' }),
    nameless: endpoint('POST', '/customers/:id/nameless', FOREMAN, 'CustomerView'),
    owner: endpoint('PUT', '/machines/:id/owner', TRUSTED, 'CustomerView', { body: 'OwnerBody' }),
    placed: endpoint('PUT', '/units/:id/machine', TRUSTED, 'CustomerView', { body: 'PlacedBody' }),
  },
  files: {
    read: endpoint('GET', '/files/:sha', EVERYONE, { media: 'application/octet-stream' }),
    state: endpoint('GET', '/files/:sha/state', EVERYONE, 'FileState'),
    keep: endpoint('PUT', '/files/:sha', EVERYONE, 'FileState', { query: ['at', 'total'] }),
  },
  health: {
    health: endpoint('GET', '/health', 'anyone', 'HealthView'),
  },
  instruments: {
    list: endpoint('GET', '/instruments', EVERYONE, ['InstrumentView']),
    pair: endpoint('PUT', '/instruments/:id/tablet', BENCH, 'nothing', { body: 'PairBody' }),
    newKey: endpoint('POST', '/instruments/:id/key', FOREMAN, 'NewKey', { status: 201 }),
    lines: endpoint('POST', '/instruments/:id/lines', 'anyone', 'LinesView'),
  },
  jobs: {
    list: endpoint('GET', '/jobs', EVERYONE, ['JobHead'], { query: ['find', 'before'] }),
    bookIn: endpoint('POST', '/jobs', TRUSTED, 'JobHead', { body: 'BookInBody', status: 201 }),
    view: endpoint('GET', '/jobs/:id', EVERYONE, 'JobView'),
    patch: endpoint('PATCH', '/jobs/:id', TRUSTED, 'JobHead', { body: 'PatchJobBody' }),
    earlier: endpoint('GET', '/jobs/:id/earlier', EVERYONE, ['EarlierReading']),
    workedBefore: endpoint('GET', '/jobs/:id/worked-before', EVERYONE, 'EarlierView'),
    knowHow: endpoint('GET', '/jobs/:id/know-how', EVERYONE, ['KnowHow']),
    comebacks: endpoint('GET', '/jobs/:id/comebacks', EVERYONE, 'ComebackView'),
    chain: endpoint('GET', '/jobs/:id/chain', EVERYONE, 'ChainView'),
    after: endpoint('GET', '/jobs/:id/entries', EVERYONE, ['AnyKeptEntry'], { query: ['after'] }),
    post: endpoint('POST', '/jobs/:id/entries', EVERYONE, ['AnyKeptEntry'], { body: 'PostEntries' }),
  },
  machines: {
    wayIn: endpoint('GET', '/machines/:id/way-in', EVERYONE, 'WayInView'),
    keepWayIn: endpoint('PUT', '/machines/:id/way-in', WRITERS, 'WayInView', { body: 'WayInBody' }),
  },
  demo: {
    sights: endpoint('GET', '/demo/sights', EVERYONE, ['SightLine']),
  },
  today: {
    view: endpoint('GET', '/today', EVERYONE, 'TodayView'),
  },
  units: {
    history: endpoint('GET', '/units/:id/history', EVERYONE, 'UnitHistory'),
  },
  notices: {
    putAway: endpoint('POST', '/notices/:id/seen', EVERYONE, 'nothing'),
  },
  orders: {
    list: endpoint('GET', '/orders', EVERYONE, ['OrderView']),
    want: endpoint('POST', '/orders/lines', TRUSTED, ['OrderView'], { body: 'WantBody' }),
    drop: endpoint('DELETE', '/orders/lines/:id', TRUSTED, 'nothing'),
    send: endpoint('POST', '/orders/:id/send', TRUSTED, 'OrderView'),
    settle: endpoint('POST', '/orders/:id/settle', TRUSTED, 'OrderView', { body: 'AcceptBody' }),
    goodsIn: endpoint('POST', '/orders/:id/goods-in', EVERYONE, 'OrderView', { body: 'GoodsInBody' }),
    suppliers: endpoint('GET', '/suppliers', EVERYONE, ['SupplierView']),
    fault: endpoint('PUT', '/suppliers/:name/fault', TRUSTED, 'nothing', { body: 'FaultBody' }),
    deliver: endpoint('POST', '/orders/:id/deliver', TRUSTED, 'OrderView'),
  },
  papers: {
    keep: endpoint('POST', '/papers', WRITERS, 'Kept', { query: ['name'], status: 201 }),
    read: endpoint('GET', '/papers/:id', EVERYONE, { media: 'application/pdf' }),
  },
  firstRun: {
    view: endpoint('GET', '/begin', FOREMAN, 'BeginView'),
    examples: endpoint('GET', '/examples', WRITERS, ['ExampleLine']),
    lacking: endpoint('GET', '/tools/lacking', WRITERS, ['LackingLine']),
    open: endpoint('POST', '/first-run', 'anyone', 'nothing', { body: 'FirstRunBody' }),
  },
  people: {
    list: endpoint('GET', '/people', FOREMAN, ['PersonLine']),
    add: endpoint('POST', '/people', FOREMAN, 'PersonLine', { body: 'NewPersonBody', status: 201 }),
    change: endpoint('PUT', '/people/:id', FOREMAN, 'PersonLine', { body: 'PersonBody' }),
    addLicence: endpoint('POST', '/people/:id/licences', FOREMAN, 'PersonLine', { body: 'LicenceBody', status: 201 }),
    dropLicence: endpoint('DELETE', '/licences/:id', FOREMAN, 'PersonLine'),
    newPassword: endpoint('PUT', '/people/:id/password', FOREMAN, 'nothing', { body: 'PasswordBody' }),
  },
  session: {
    logIn: endpoint('POST', '/session', 'anyone', 'SessionView', { body: 'LoginBody' }),
    swap: endpoint('POST', '/session/swap', 'anyone', 'SessionView', { body: 'SwapBody' }),
    prove: endpoint('POST', '/session/prove', EVERYONE, 'SessionView', { body: 'SwapBody' }),
    setPin: endpoint('PUT', '/session/pin', EVERYONE, 'nothing', { body: 'PinBody' }),
    current: endpoint('GET', '/session', EVERYONE, 'SessionView'),
    logOut: endpoint('DELETE', '/session', EVERYONE, 'nothing'),
  },
  shop: {
    change: endpoint('PUT', '/shop', FOREMAN, 'ShopView', { body: 'ShopBody' }),
    changes: endpoint('GET', '/changes', FOREMAN, ['ChangeLine'], { query: ['find', 'before'] }),
    care: endpoint('GET', '/care', FOREMAN, ['CareView']),
    bring: endpoint('POST', '/lists', FOREMAN, 'BroughtView', { body: 'BringBody' }),
  },
  quotes: {
    ofJob: endpoint('GET', '/jobs/:id/quotes', EVERYONE, ['QuoteView']),
    send: endpoint('POST', '/jobs/:id/quotes', TRUSTED, 'SentQuote', { body: 'QuoteBody' }),
    newLink: endpoint('POST', '/jobs/:id/quotes/:quote/link', TRUSTED, 'SentQuote'),
    takeLinkBack: endpoint('DELETE', '/jobs/:id/quotes/:quote/link', TRUSTED, ['QuoteView']),
    open: endpoint('GET', '/quotes/open', TRUSTED, ['AnswerDue']),
    messages: endpoint('GET', '/messages', TRUSTED, ['MessageView']),
    offer: endpoint('GET', '/offers/:token', 'anyone', 'OfferView'),
    picture: endpoint('GET', '/offers/:token/pictures/:sha', 'anyone', { media: 'image/jpeg' }),
    answer: endpoint('POST', '/offers/:token/answer', 'anyone', 'OfferView', { body: 'AnswerBody' }),
  },
  reports: {
    label: endpoint('GET', '/jobs/:id/label.svg', EVERYONE, { media: 'image/svg+xml' }),
    torqueLog: endpoint('GET', '/jobs/:id/torque-log.csv', EVERYONE, { media: 'text/csv' }),
    pdf: endpoint('GET', '/jobs/:id/report.pdf', EVERYONE, { media: 'application/pdf' }),
  },
  sheets: {
    list: endpoint('GET', '/sheets', EVERYONE, ['SheetLine']),
    schema: endpoint('GET', '/sheets/schema', EVERYONE, 'Schema'),
    find: endpoint('GET', '/sheets/find', EVERYONE, ['Text'], { query: ['text'] }),
    identities: endpoint('GET', '/sheets/identities', EVERYONE, ['IdentitySheet'], { query: ['family'] }),
    one: endpoint('GET', '/sheets/:id', EVERYONE, 'SheetView'),
    revisions: endpoint('GET', '/sheets/:id/revisions', EVERYONE, ['RevisionLine']),
    differences: endpoint('GET', '/sheets/:id/differences/:against', EVERYONE, ['Difference']),
    json: endpoint('GET', '/sheets/:id/file.json', EVERYONE, 'SheetFile'),
    yaml: endpoint('GET', '/sheets/:id/file.yaml', EVERYONE, { media: 'application/yaml' }),
    csv: endpoint('GET', '/sheets/:id/csv/:list', EVERYONE, { media: 'text/csv' }),
    proposed: endpoint('GET', '/sheets/:id/proposals', EVERYONE, ['ProposalView']),
    settle: endpoint('POST', '/sheets/proposals/:entryId/settle', WRITERS, 'nothing', { body: 'SettleBody' }),
    importFile: endpoint('POST', '/sheets/import', TRUSTED, 'ImportView', { body: 'ImportSheetBody', status: 201 }),
    begin: endpoint('POST', '/sheets', TRUSTED, 'Begun', { body: 'NewSheetBody', status: 201 }),
    draftBack: endpoint('POST', '/sheets/drafts', TRUSTED, 'Begun', { body: 'DraftBackBody', status: 201 }),
    beginDraft: endpoint('POST', '/sheets/:id/draft', WRITERS, 'Begun', { status: 201 }),
    save: endpoint('PUT', '/sheets/:id', WRITERS, 'Saved', { body: 'SaveDraftBody' }),
    drop: endpoint('DELETE', '/sheets/:id', FOREMAN, 'nothing'),
    approve: endpoint('POST', '/sheets/:id/approve', FOREMAN, 'nothing'),
    withdraw: endpoint('POST', '/sheets/:id/withdraw', FOREMAN, 'nothing'),
  },
  stock: {
    list: endpoint('GET', '/stock', EVERYONE, ['StockLine'], { query: ['find', 'after', 'short'] }),
    shims: endpoint('GET', '/stock/shims', EVERYONE, ['ShimLine']),
    seals: endpoint('GET', '/stock/seals', EVERYONE, ['SealLine']),
    add: endpoint('POST', '/stock', TRUSTED, 'StockView', { body: 'StockItemBody', status: 201 }),
    one: endpoint('GET', '/stock/:id', EVERYONE, 'StockView'),
    label: endpoint('GET', '/stock/:id/label.svg', EVERYONE, { media: 'image/svg+xml' }),
    change: endpoint('PUT', '/stock/:id', TRUSTED, 'StockView', { body: 'StockChangeBody' }),
    move: endpoint('POST', '/stock/:id/moves', EVERYONE, 'StockView', { body: 'MoveBody' }),
    settleCount: endpoint('POST', '/stock/counts/:id/settle', TRUSTED, 'StockView', { body: 'SettleCountBody' }),
    forJob: endpoint('GET', '/jobs/:id/parts', EVERYONE, 'JobPartsView', { query: ['numbers', 'designations'] }),
  },
  stream: {
    events: endpoint('GET', '/stream', EVERYONE, { media: 'text/event-stream' }),
  },
  tablet: {
    people: endpoint('GET', '/tablet', 'anyone', 'TabletPeople'),
    name: endpoint('PATCH', '/tablet', EVERYONE, 'nothing', { body: 'TabletBody' }),
    list: endpoint('GET', '/tablets', FOREMAN, ['TabletLine']),
    forget: endpoint('DELETE', '/tablets/:id', FOREMAN, ['TabletLine']),
    endLogIn: endpoint('DELETE', '/log-ins/:id', FOREMAN, ['TabletLine']),
  },
  workings: {
    list: endpoint('GET', '/workings', EVERYONE, ['WorkingDescription']),
    describe: endpoint('GET', '/workings/:id', EVERYONE, 'WorkingDescription'),
    run: endpoint('POST', '/workings/:id/run', EVERYONE, 'WorkingRun'),
  },
} as const;
