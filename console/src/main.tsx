import '@mantine/core/styles.css';
import '@mantine/notifications/styles.css';
import '@xyflow/react/dist/style.css';
import './styles.css';
import { MantineProvider } from '@mantine/core';
import { Notifications } from '@mantine/notifications';
import { MutationCache, QueryCache, QueryClient, QueryClientProvider } from '@tanstack/react-query';
import { RouterProvider } from '@tanstack/react-router';
import { StrictMode } from 'react';
import { createRoot } from 'react-dom/client';
import { ApiError } from './api/client';
import { me } from './api/queries';
import { router } from './routes';
import { theme } from './theme';

/** Before the service is asked again that did not answer, in milliseconds. */
const longestPause = 5000;

/** A session that ended while one worked: who is signed in is asked again, and that leads to the door and back. */
const onError = (error: Error) => {
  if (error instanceof ApiError && error.status === 401) void queries.invalidateQueries({ queryKey: me.queryKey });
};

const queries: QueryClient = new QueryClient({
  queryCache: new QueryCache({ onError: (error, query) => query.queryKey[0] !== me.queryKey[0] && onError(error) }),
  mutationCache: new MutationCache({ onError }),
  defaultOptions: {
    queries: {
      // a service that is away is asked until it is back
      retry: (_, error) => !(error instanceof ApiError),
      retryDelay: (count) => Math.min(500 * 2 ** count, longestPause),
      networkMode: 'always',
      refetchOnWindowFocus: true,
    },
    mutations: { networkMode: 'always' },
  },
});

const root = document.getElementById('root');
if (root)
  createRoot(root).render(
    <StrictMode>
      <MantineProvider theme={theme} defaultColorScheme="auto">
        <Notifications />
        <QueryClientProvider client={queries}>
          <RouterProvider router={router} />
        </QueryClientProvider>
      </MantineProvider>
    </StrictMode>,
  );
