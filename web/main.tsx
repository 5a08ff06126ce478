import '@fontsource-variable/encode-sans/wdth.css';
import { QueryClient, QueryClientProvider } from '@tanstack/react-query';
import { StrictMode, useEffect } from 'react';
import { createRoot } from 'react-dom/client';
import { BrowserRouter, Link, matchPath, Route, Routes } from 'react-router';
import { accessWanted } from './access/wanted';
import { useMe } from './api/access';
import { ApiProblem } from './api/client';
import { fetchRest } from './parts/fetch-rest';
import { lazyPart } from './parts/lazy-part';
import { CounterKey } from './counter/CounterKey';
import { habitsOf, useHabits } from './habits/habits';
import { habitsOpen } from './habits/open';
import { onceBack } from './offline/away';
import { startSending } from './offline/begun';
import { keepEmery } from './offline/service-worker';
import { outboxWanted } from './jobs/kept';
import { KEEP_PAGE } from './keep/page-words';
import { PARTS } from './together/words';
import { askedOfMe } from './take/takes';
import { useStore } from './state/store';
import { newSaveId } from './api/shop';
import { endIdsWith } from '@emery/core/drive';
import { followLight } from './theme/light';
import { withFont } from './theme/own-font';
import './theme/tokens.css';
import './ui/plain.css';

const WAITING = <span className="waiting" role="status" aria-label="The page is being fetched" />;

/** The pages that the component library dresses: what each is called, its address, and its code. */
const PAGES = [
  ['The shop', '/', () => import('./shop/ShopPage')],
  ['The list of belts', '/belts', () => import('./stock/StockPage')],
  ['The records', '/records/:view?', () => import('./records/RecordsPage')],
  ['The vehicle', '/vehicles/:vehicleId', () => import('./records/VehiclePage')],
  ['The devices', '/devices', () => import('./devices/DevicesPage')],
  [KEEP_PAGE, '/keep', () => import('./keep/KeepPage')],
  ['The job', '/jobs/:jobId', () => import('./jobs/JobPage')],
  ['The job on paper', '/jobs/:jobId/print', () => import('./jobs/JobOnPaperPage')],
  ['The job card', '/drives/:driveId/job-card', () => import('./jobs/CardOnPaperPage')],
  ['The glovebox card', '/drives/:driveId/glovebox', () => import('./card/GloveboxPage')],
  ['The routing card', '/drives/:driveId/card', () => import('./card/RoutingCardPage')],
  [PARTS.asked, '/take/:takeId', () => import('./take/TakePage')],
  ['The bench', '/drives/:driveId/:stage?', () => import('./bench/BenchPage')],
] as const;
const DRESSED = PAGES.map(([name, path, load]) => ({ path, Page: lazyPart(name, load, WAITING) }));

// The page that is asked for is fetched beside what it stands in, not after it.
const Dress = lazyPart(
  'The page',
  async () => {
    const wanted = PAGES.find(([, path]) => matchPath(path, window.location.pathname));
    const [dress] = await Promise.all([withFont(import('./theme/Dress')), wanted?.[2]().catch(() => null)]);
    return dress;
  },
  WAITING,
);
const CounterPage = lazyPart('The counter', () => withFont(import('./counter/CounterPage')), WAITING);

const OutboxNotice = lazyPart('What waits on this device', () => import('./jobs/OutboxNotice'));
/** What was put down at any job goes from any page. */
const Outbox = () => useStore(outboxWanted) && <OutboxNotice />;

const TakeAsked = lazyPart(PARTS.asked, () => import('./take/TakeAsked'));
/** What the bench asks of this phone, over any page. */
const Asked = () => useStore(askedOfMe) && <TakeAsked />;

const AccessNotices = lazyPart('The sign-in', () => import('./access/AccessNotices'));
const Access = () => useStore(accessWanted) && <AccessNotices />;
const InPage = lazyPart('The sign-in', () => import('./access/InPage'), WAITING);

const client = new QueryClient({
  defaultOptions: {
    queries: {
      // A server that is starting again is asked again; a plain no is a no.
      retry: (count, error) => error instanceof ApiProblem && error.passing && count < 6,
      retryDelay: (count) => Math.min(4000, 500 * 2 ** count),
      networkMode: 'always',
    },
    mutations: { networkMode: 'always' },
  },
});

// Two devices that work apart put in what they put in, each under names of its own.
endIdsWith(newSaveId().slice(0, 4));
followLight();
startSending();
onceBack(() => void client.invalidateQueries());
if (!import.meta.env.DEV) keepEmery();
// Once the page stands: what it shows first does not wait for it.
setTimeout(() => void import('./live/start').then(({ startLive }) => startLive(client)), 300);

/** The pages, drawn anew when figures are to be written another way: every word on them may have one. */
function Pages() {
  const { decimal, torque, force, clock } = useHabits();
  useHabitsOfPerson();
  return (
    <Routes key={[decimal, torque, force, clock].join()}>
      <Route path="counter/:question?" element={<CounterPage />} />
      <Route path="in" element={<InPage />} />
      <Route element={<Dress />}>
        {DRESSED.map(({ path, Page }) => (
          <Route key={path} path={path} element={<Page />} />
        ))}
      </Route>
      <Route
        path="*"
        element={
          <p className="no-page">
            There is no such page. <Link to="/">Back to the shop</Link>
          </p>
        }
      />
    </Routes>
  );
}

const HabitsDialog = lazyPart('The settings', () => import('./habits/HabitsDialog'));
const Settings = () => useStore(habitsOpen) && <HabitsDialog />;

/** Whoever is signed in at this device reads by their own habits. */
function useHabitsOfPerson(): void {
  const name = useMe()?.name ?? null;
  useEffect(() => habitsOf(name), [name]);
}

createRoot(document.getElementById('root')!).render(
  <StrictMode>
    <QueryClientProvider client={client}>
      <BrowserRouter useTransitions={false}>
        <CounterKey />
        <Outbox />
        <Asked />
        <Access />
        <Pages />
        <Settings />
      </BrowserRouter>
    </QueryClientProvider>
  </StrictMode>,
);

fetchRest();
