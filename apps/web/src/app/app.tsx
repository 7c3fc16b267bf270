import { Suspense, lazy, useEffect, type ComponentType, type ReactElement } from 'react';
import { ErrorBoundary } from 'react-error-boundary';
import { BrowserRouter, Outlet, useLocation, useRoutes, type RouteObject } from 'react-router';
import { useFirstRun, useSession } from '../link/queries.ts';
import { Broken } from './broken.tsx';
import { ByName } from './by-name.tsx';
import { Frame } from './frame.tsx';
import { Loading, Wrong } from '../kit/pieces.tsx';
import { useLight } from '../kit/prefs.ts';
import { outbox } from '../link/outbox.ts';
import { Today } from '../today/today.tsx';

/** A page that is fetched when it is first gone to. */
const page = (load: () => Promise<Record<string, () => ReactElement | null>>, name: string): ComponentType =>
  lazy(async () => ({ default: (await load())[name]! }));

// Loaders and actions are the business of the queries: a router without them is half the size.
const ROUTES: RouteObject[] = [
  {
    path: '/',
    Component: Frame,
    children: [
      {
        Component: Guarded,
        children: [
          { index: true, Component: Today },
          { path: 'jobs', Component: page(() => import('../today/jobs.tsx'), 'Jobs') },
          { path: 'jobs/new', Component: page(() => import('../stages/book-in/book-in.tsx'), 'BookIn') },
          { path: 'sheets', Component: page(() => import('../sheets/library.tsx'), 'Library') },
          { path: 'sheets/new', Component: page(() => import('../sheets/new-sheet.tsx'), 'NewSheet') },
          { path: 'workings', Component: page(() => import('../workings/workings.tsx'), 'Workings') },
          { path: 'workings/:id', Component: page(() => import('../workings/working.tsx'), 'WorkingPage') },
          { path: 'stores', Component: page(() => import('../stores/stores-page.tsx'), 'StoresPage') },
          { path: 'stores/new', Component: page(() => import('../stores/new-stock-line.tsx'), 'NewStockLine') },
          { path: 'stores/shims', Component: page(() => import('../stores/shims-page.tsx'), 'ShimsPage') },
          { path: 'stores/orders', Component: page(() => import('../stores/orders-page.tsx'), 'OrdersPage') },
          { path: 'stores/suppliers', Component: page(() => import('../stores/suppliers-page.tsx'), 'SuppliersPage') },
          { path: 'stores/messages', Component: page(() => import('../stores/messages-page.tsx'), 'MessagesPage') },
          { path: 'stores/:id', Component: page(() => import('../stores/stock-line-page.tsx'), 'StockLinePage') },
          { path: 'machines/:id/way-in', Component: page(() => import('../stages/strip/way-in-page.tsx'), 'WayInPage') },
          { path: 'crib', Component: page(() => import('../crib/crib.tsx'), 'Crib') },
          { path: 'crib/new', Component: page(() => import('../crib/new-tool.tsx'), 'NewTool') },
          { path: 'crib/instruments', Component: page(() => import('../crib/instruments-page.tsx'), 'InstrumentsPage') },
          { path: 'learn', Component: page(() => import('../learn/learn-page.tsx'), 'LearnPage') },
          { path: 'look', Component: page(() => import('../learn/sights-page.tsx'), 'SightsPage') },
          { path: 'dev/drawings', Component: page(() => import('../dev/drawings-page.tsx'), 'DrawingsPage') },
          { path: 'customers', Component: page(() => import('../shop/customers-page.tsx'), 'CustomersPage') },
          { path: 'customers/:id', Component: page(() => import('../shop/customer-page.tsx'), 'CustomerPage') },
          { path: 'shop', Component: page(() => import('../shop/shop-page.tsx'), 'ShopPage') },
          { path: 'shop/bring', Component: page(() => import('../shop/bring-page.tsx'), 'BringPage') },
          { path: 'shop/begin', Component: page(() => import('../shop/begin-page.tsx'), 'BeginPage') },
          { path: 'shop/network', Component: page(() => import('../shop/network-page.tsx'), 'NetworkPage') },
          { path: 'shop/benches', Component: page(() => import('../shop/benches-page.tsx'), 'BenchesPage') },
          { path: 'shop/people', Component: page(() => import('../shop/people-page.tsx'), 'PeoplePage') },
          { path: 'shop/tablets', Component: page(() => import('../shop/tablets-page.tsx'), 'TabletsPage') },
          { path: 'shop/changes', Component: page(() => import('../shop/changes-page.tsx'), 'ChangesPage') },
          {
            Component: ByName,
            children: [
              { path: 'jobs/:id/label', Component: page(() => import('../stages/hand-over/label-page.tsx'), 'LabelPage') },
              { path: 'jobs/:id/newer', Component: page(() => import('../sheets/newer-page.tsx'), 'NewerPage') },
              { path: 'jobs/:id/report', Component: page(() => import('../stages/hand-over/report-page.tsx'), 'ReportPage') },
              { path: 'jobs/:id/parts', Component: page(() => import('../stages/decide/parts-page.tsx'), 'PartsPage') },
              { path: 'jobs/:id/worth', Component: page(() => import('../stages/decide/worth-page.tsx'), 'WorthPage') },
              { path: 'jobs/:id/quote', Component: page(() => import('../stages/decide/quote-page.tsx'), 'QuotePage') },
              { path: 'jobs/:id/work/:working', Component: page(() => import('../stages/measure/work-page.tsx'), 'WorkPage') },
              { path: 'jobs/:id/:stage?', Component: page(() => import('../stages/job-page/job-page.tsx'), 'JobPage') },
              { path: 'sheets/:id', Component: page(() => import('../sheets/sheet-page.tsx'), 'SheetPage') },
              { path: 'sheets/:id/rehearsal', Component: page(() => import('../sheets/rehearsal-page.tsx'), 'RehearsalPage') },
              { path: 'sheets/:id/edit/:list?', Component: page(() => import('../sheets/editor.tsx'), 'SheetEditor') },
              {
                path: 'sheets/:id/differences/:against',
                Component: page(() => import('../sheets/differences-page.tsx'), 'DifferencesPage'),
              },
              { path: 'crib/tools/:id', Component: page(() => import('../crib/tool-page.tsx'), 'ToolPage') },
            ],
          },
          { path: '*', Component: Nowhere },
        ],
      },
    ],
  },
  {
    Component: ByName,
    children: [{ path: '/bench/:id', Component: page(() => import('../stages/bench/bench.tsx'), 'Bench') }],
  },
  { path: '/learn/tour', Component: page(() => import('../learn/tour.tsx'), 'TourPage') },
];

/** A customer's link, which needs nobody logged in. */
const OFFER = /^\/q\/(?<token>[\w-]+)$/u;
const OfferPage = lazy(async () => ({ default: (await import('../offer/offer-page.tsx')).OfferPage }));

export function App(): ReactElement {
  const token = OFFER.exec(location.pathname)?.groups?.['token'];
  return token === undefined ? (
    <Shop />
  ) : (
    <Suspense>
      <OfferPage token={token} />
    </Suspense>
  );
}

function Shop(): ReactElement {
  const { data: session, error, isPending } = useSession();
  const [light] = useLight();
  useEffect(() => {
    document.documentElement.dataset['bsTheme'] = light;
  }, [light]);
  useEffect(() => {
    if (session) void outbox.begin(session.person.id, session.people);
  }, [session]);
  if (isPending)
    return (
      <Plain>
        <Loading what="who is here" />
      </Plain>
    );
  // A link that is lost later leaves the page as it is.
  if (session === undefined)
    return (
      <Plain>
        <Wrong error={error} />
      </Plain>
    );
  return session ? (
    <BrowserRouter>
      <Guard>
        <Places />
      </Guard>
    </BrowserRouter>
  ) : (
    <Door />
  );
}

function Places(): ReactElement | null {
  return useRoutes(ROUTES);
}

/** What falls over is said in its place, until one goes elsewhere. */
function Guard({ children }: { readonly children: ReactElement }): ReactElement {
  const { pathname } = useLocation();
  return (
    <ErrorBoundary FallbackComponent={Broken} resetKeys={[pathname]}>
      <Suspense>{children}</Suspense>
    </ErrorBoundary>
  );
}

/** A page in its frame, which stays where the page falls over. */
function Guarded(): ReactElement {
  return (
    <Guard>
      <Outlet />
    </Guard>
  );
}

// Asked for once in the life of a shop, and once a day.
const FirstRun = lazy(async () => ({ default: (await import('../shop/first-run.tsx')).FirstRun }));
const Login = lazy(async () => ({ default: (await import('../shop/login.tsx')).Login }));

function Door(): ReactElement {
  const { data: isFirst } = useFirstRun();
  return <Suspense>{isFirst ? <FirstRun /> : <Login />}</Suspense>;
}

function Plain({ children }: { readonly children: ReactElement }): ReactElement {
  return <main className="page">{children}</main>;
}

function Nowhere(): ReactElement {
  return <p>There is nothing at this address. Today and the other places stand at the left.</p>;
}
