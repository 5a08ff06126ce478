import '@fontsource-variable/encode-sans/wdth.css';
import { QueryClient, QueryClientProvider } from '@tanstack/react-query';
import { App as AntApp, ConfigProvider, Spin } from 'antd';
import { StrictMode } from 'react';
import { createRoot } from 'react-dom/client';
import { BrowserRouter, Link, Route, Routes } from 'react-router';
import { ApiProblem } from './api/client';
import { antdTheme } from './theme/antd-theme';
import { fetchRest } from './parts/fetch-rest';
import { lazyPart } from './parts/lazy-part';
import './theme/tokens.css';

const SPINNING = <Spin className="page-spin" />;
const StockPage = lazyPart('The list of belts', () => import('./stock/StockPage'), SPINNING);
const ShopPage = lazyPart('The shop', () => import('./shop/ShopPage'), SPINNING);
const RoutingCardPage = lazyPart('The routing card', () => import('./card/RoutingCardPage'), SPINNING);
const JobPage = lazyPart('The job', () => import('./jobs/JobPage'), SPINNING);
const JobOnPaperPage = lazyPart('The job on paper', () => import('./jobs/JobOnPaperPage'), SPINNING);
const CardOnPaperPage = lazyPart('The job card', () => import('./jobs/CardOnPaperPage'), SPINNING);
const GloveboxPage = lazyPart('The glovebox card', () => import('./card/GloveboxPage'), SPINNING);
const RecordsPage = lazyPart('The records', () => import('./records/RecordsPage'), SPINNING);
const VehiclePage = lazyPart('The vehicle', () => import('./records/VehiclePage'), SPINNING);
const BenchPage = lazyPart('The bench', () => import('./bench/BenchPage'), SPINNING);

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

createRoot(document.getElementById('root')!).render(
  <StrictMode>
    <ConfigProvider theme={antdTheme} wave={{ disabled: true }}>
      <AntApp notification={{ placement: 'bottomLeft' }}>
        <QueryClientProvider client={client}>
          <BrowserRouter>
            <Routes>
              <Route index element={<ShopPage />} />
              <Route path="belts" element={<StockPage />} />
              <Route path="records/:view?" element={<RecordsPage />} />
              <Route path="vehicles/:vehicleId" element={<VehiclePage />} />
              <Route path="jobs/:jobId" element={<JobPage />} />
              <Route path="jobs/:jobId/print" element={<JobOnPaperPage />} />
              <Route path="drives/:driveId/job-card" element={<CardOnPaperPage />} />
              <Route path="drives/:driveId/glovebox" element={<GloveboxPage />} />
              <Route path="drives/:driveId/card" element={<RoutingCardPage />} />
              <Route path="drives/:driveId/:stage?" element={<BenchPage />} />
              <Route
                path="*"
                element={
                  <p className="shop-none">
                    There is no such page. <Link to="/">Back to the shop</Link>
                  </p>
                }
              />
            </Routes>
          </BrowserRouter>
        </QueryClientProvider>
      </AntApp>
    </ConfigProvider>
  </StrictMode>,
);

fetchRest();
