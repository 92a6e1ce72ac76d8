import { QueryClientProvider } from '@tanstack/react-query';
import { RouterProvider } from '@tanstack/react-router';
import { setNonce } from 'get-nonce';
import { StrictMode } from 'react';
import { createRoot } from 'react-dom/client';
import { AccessGate } from './access/AccessGate.tsx';
import { Problem } from './api/client.ts';
import { FreshQueries } from './api/fresh-queries.ts';
import { fetchViews, router } from './router.tsx';
import { followDensity } from './shell/density.ts';
import { followTheme } from './shell/theme.ts';
import './styles/app.css';

// Some components write a style element while they are open; the content security policy lets in only those with the nonce.
setNonce(document.querySelector<HTMLMetaElement>('meta[property="csp-nonce"]')?.nonce ?? '');
followTheme();
followDensity();

const queries = new FreshQueries({
  defaultOptions: {
    queries: {
      staleTime: 10_000,
      // What the server refused it will refuse again; what did not reach it is worth another try. Records that are away
      // are said at once: the line that says it asks until they are back.
      retry: (count, error) =>
        count < 2 &&
        (!(error instanceof Problem) || error.status === 0 || (error.status >= 500 && error.code !== 'records-away')),
    },
  },
});

createRoot(document.getElementById('root')!).render(
  <StrictMode>
    <QueryClientProvider client={queries}>
      <AccessGate>
        <RouterProvider router={router} />
      </AccessGate>
    </QueryClientProvider>
  </StrictMode>,
);

// What is on the screen comes first.
const idle = window.requestIdleCallback ?? ((run: () => void) => setTimeout(run, 2_000));
window.addEventListener('load', () => idle(() => void fetchViews()), { once: true });
