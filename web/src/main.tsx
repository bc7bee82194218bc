import '@fontsource-variable/atkinson-hyperlegible-next/wght.css';
import '@fontsource-variable/fraunces/wght.css';
import { CssBaseline } from '@mui/material';
import { ThemeProvider } from '@mui/material/styles';
import { MutationCache, QueryCache, QueryClient, QueryClientProvider } from '@tanstack/react-query';
import { StrictMode } from 'react';
import { createRoot } from 'react-dom/client';
import { RouterProvider, createBrowserRouter } from 'react-router';
import { App } from './App.tsx';
import { CallError } from './shell/call.ts';
import { keepApplication } from './shell/renewal.ts';
import { theme } from './kit/theme.ts';

const signedOut = (error: unknown) => {
  if (error instanceof CallError && error.status === 401 && error.code === 'sign-in')
    void client.invalidateQueries({ queryKey: ['session'] });
};
const client: QueryClient = new QueryClient({
  queryCache: new QueryCache({ onError: signedOut }),
  mutationCache: new MutationCache({ onError: signedOut }),
  defaultOptions: {
    queries: {
      retry: (count, error) => error instanceof CallError && error.away && count < 2,
      staleTime: 2000,
    },
  },
});

if (import.meta.env.PROD && 'serviceWorker' in navigator)
  window.addEventListener('load', () => void keepApplication());

// The one route is everything: which view stands at which address is said in App.
const router = createBrowserRouter([{ path: '*', element: <App /> }]);

createRoot(document.getElementById('root') as HTMLElement).render(
  <StrictMode>
    <ThemeProvider theme={theme} defaultMode="system">
      <CssBaseline />
      <QueryClientProvider client={client}>
        <RouterProvider router={router} />
      </QueryClientProvider>
    </ThemeProvider>
  </StrictMode>,
);
