import type { Kitchen } from '@cocotte/core/kitchen';
import { ThemeProvider } from '@mui/material/styles';
import { QueryClient, QueryClientProvider } from '@tanstack/react-query';
import { cleanup, render } from '@testing-library/react';
import type { ReactElement } from 'react';
import { RouterProvider, createMemoryRouter } from 'react-router';
import { afterEach } from 'vitest';
import { theme } from '../../src/kit/theme.ts';
import { type Here, HereContext } from '../../src/shell/session.tsx';
import { kitchenOf } from '../browser.ts';

afterEach(cleanup);

/** Puts a part of the interface on the page, in a kitchen, at an address. */
export function show(part: ReactElement, kitchen: Kitchen = kitchenOf('en-US', true)) {
  const here: Here = {
    person: { id: 'p', name: 'Wren' },
    role: 'owner',
    atCounter: [],
    shared: false,
    maySign: true,
    kitchen,
    session: {
      person: null,
      kitchens: [],
      kitchenId: kitchen.id,
      counter: [],
      empty: false,
      demo: null,
      secure: true,
    },
  };
  const router = createMemoryRouter([
    { path: '/', element: part },
    { path: '/elsewhere', element: <h1>Elsewhere</h1> },
  ]);
  const rendered = render(
    <ThemeProvider theme={theme}>
      <QueryClientProvider client={new QueryClient()}>
        <HereContext value={here}>
          <RouterProvider router={router} />
        </HereContext>
      </QueryClientProvider>
    </ThemeProvider>,
  );
  return { ...rendered, router };
}
