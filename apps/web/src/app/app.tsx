import { Suspense, lazy, useEffect, type ReactElement } from 'react';
import { createBrowserRouter, RouterProvider } from 'react-router';
import { useFirstRun, useSession } from '../link/queries.ts';
import { Broken } from './broken.tsx';
import { ByName } from './by-name.tsx';
import { Frame } from './frame.tsx';
import { Loading, Wrong } from '../kit/pieces.tsx';
import { useLight } from '../kit/prefs.ts';
import { outbox } from '../link/outbox.ts';
import { Today } from '../today/today.tsx';

const page = (load: () => Promise<Record<string, () => ReactElement | null>>, name: string) => async () => ({
  Component: (await load())[name]!,
});

const router = createBrowserRouter([
  {
    path: '/',
    Component: Frame,
    ErrorBoundary: Broken,
    HydrateFallback: () => null,
    children: [
      {
        ErrorBoundary: Broken,
        children: [
          { index: true, Component: Today },
          { path: 'jobs', lazy: page(() => import('../today/jobs.tsx'), 'Jobs') },
          { path: 'jobs/new', lazy: page(() => import('../stages/book-in/book-in.tsx'), 'BookIn') },
          { path: 'sheets', lazy: page(() => import('../sheets/library.tsx'), 'Library') },
          { path: 'sheets/new', lazy: page(() => import('../sheets/new-sheet.tsx'), 'NewSheet') },
          { path: 'workings', lazy: page(() => import('../workings/workings.tsx'), 'Workings') },
          { path: 'workings/:id', lazy: page(() => import('../workings/working.tsx'), 'WorkingPage') },
          { path: 'stores', lazy: page(() => import('../stores/stores-page.tsx'), 'StoresPage') },
          { path: 'stores/new', lazy: page(() => import('../stores/new-stock-line.tsx'), 'NewStockLine') },
          { path: 'stores/shims', lazy: page(() => import('../stores/shims-page.tsx'), 'ShimsPage') },
          { path: 'stores/orders', lazy: page(() => import('../stores/orders-page.tsx'), 'OrdersPage') },
          { path: 'stores/messages', lazy: page(() => import('../stores/messages-page.tsx'), 'MessagesPage') },
          { path: 'stores/:id', lazy: page(() => import('../stores/stock-line-page.tsx'), 'StockLinePage') },
          { path: 'crib', lazy: page(() => import('../crib/crib.tsx'), 'Crib') },
          { path: 'crib/instruments', lazy: page(() => import('../crib/instruments-page.tsx'), 'InstrumentsPage') },
          { path: 'learn', lazy: page(() => import('../learn/learn-page.tsx'), 'LearnPage') },
          { path: 'look', lazy: page(() => import('../learn/sights-page.tsx'), 'SightsPage') },
          { path: 'dev/drawings', lazy: page(() => import('../dev/drawings-page.tsx'), 'DrawingsPage') },
          { path: 'shop', lazy: page(() => import('../shop/shop-page.tsx'), 'ShopPage') },
          {
            Component: ByName,
            children: [
              { path: 'jobs/:id/label', lazy: page(() => import('../stages/hand-over/label-page.tsx'), 'LabelPage') },
              { path: 'jobs/:id/newer', lazy: page(() => import('../sheets/newer-page.tsx'), 'NewerPage') },
              { path: 'jobs/:id/report', lazy: page(() => import('../stages/hand-over/report-page.tsx'), 'ReportPage') },
              { path: 'jobs/:id/parts', lazy: page(() => import('../stages/decide/parts-page.tsx'), 'PartsPage') },
              { path: 'jobs/:id/worth', lazy: page(() => import('../stages/decide/worth-page.tsx'), 'WorthPage') },
              { path: 'jobs/:id/quote', lazy: page(() => import('../stages/decide/quote-page.tsx'), 'QuotePage') },
              { path: 'jobs/:id/work/:working', lazy: page(() => import('../stages/measure/work-page.tsx'), 'WorkPage') },
              { path: 'jobs/:id/:stage?', lazy: page(() => import('../stages/job-page/job-page.tsx'), 'JobPage') },
              { path: 'sheets/:id', lazy: page(() => import('../sheets/sheet-page.tsx'), 'SheetPage') },
              { path: 'sheets/:id/rehearsal', lazy: page(() => import('../sheets/rehearsal-page.tsx'), 'RehearsalPage') },
              { path: 'sheets/:id/edit/:list?', lazy: page(() => import('../sheets/editor.tsx'), 'SheetEditor') },
              { path: 'sheets/:id/differences/:against', lazy: page(() => import('../sheets/differences-page.tsx'), 'DifferencesPage') },
              { path: 'crib/tools/:id', lazy: page(() => import('../crib/tool-page.tsx'), 'ToolPage') },
            ],
          },
          { path: '*', Component: Nowhere },
        ],
      },
    ],
  },
  {
    ErrorBoundary: Broken,
    HydrateFallback: () => null,
    Component: ByName,
    children: [{ path: '/bench/:id', ErrorBoundary: Broken, lazy: page(() => import('../stages/bench/bench.tsx'), 'Bench') }],
  },
  { path: '/learn/tour', ErrorBoundary: Broken, lazy: page(() => import('../learn/tour.tsx'), 'TourPage') },
]);

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
  return session ? <RouterProvider router={router} /> : <Door />;
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
