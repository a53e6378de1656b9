import { QueryClient, QueryClientProvider } from '@tanstack/react-query';
import { StrictMode } from 'react';
import { createRoot } from 'react-dom/client';
import { createBrowserRouter } from 'react-router';
import { RouterProvider } from 'react-router/dom';
import './app.css';
import type { Who } from '@lauta/contract';
import { setAppClock } from './clock/appClock.ts';
import { ApiProblem } from './door/ask.ts';
import { swallowStrayClicks } from './ui/strayClicks.ts';
import { keepLong, keptQueries } from './offline/keptQueries.ts';
import { outbox } from './outbox/outbox.ts';
import { WHO_KEY } from './session/who.ts';
import { routes } from './app/routes.tsx';
import { applyTheme, storedTheme } from './theme/theme.ts';

applyTheme(storedTheme());
swallowStrayClicks(window);

const client = new QueryClient({
  defaultOptions: {
    queries: {
      staleTime: 10_000,
      retry: (count, error) => error instanceof ApiProblem && error.isPassing && count < 4,
      retryDelay: (count) => Math.min(500 * 2 ** count, 4000),
      // The server on this very machine may answer when the browser believes that it is offline.
      networkMode: 'always',
    },
  },
});

keepLong(client);

const root = document.getElementById('root');
if (!root) throw new Error('root: expected the element of index.html');
const known = keptQueries(client);
// What was known last is there before the first page asks for it; it is asked again all the same. What was written here
// since is there too: a page that is right only after a moment moves what lies under a finger.
await Promise.all([known.restore(), outbox.restore()]);
// The clock too, before a page looks at it.
const who = client.getQueryData<Who>(WHO_KEY);
if (who) setAppClock(who.clockOffsetMs, who.frozenAt);
known.follow(window);
createRoot(root).render(
  <StrictMode>
    <QueryClientProvider client={client}>
      <RouterProvider router={createBrowserRouter(routes)} />
    </QueryClientProvider>
  </StrictMode>,
);
