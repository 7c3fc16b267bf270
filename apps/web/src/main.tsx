import './theme/theme.scss';
import { QueryClientProvider } from '@tanstack/react-query';
import { StrictMode } from 'react';
import { createRoot } from 'react-dom/client';
import { App } from './app/app.tsx';
import { queryClient } from './link/queries.ts';

// A page that is older than the server asks for files that are gone: what is typed is safe, so it loads anew.
window.addEventListener('vite:preloadError', () => location.reload());

const root = document.getElementById('root');
if (!root) throw new Error('the page has no root');
createRoot(root).render(
  <StrictMode>
    <QueryClientProvider client={queryClient}>
      <App />
    </QueryClientProvider>
  </StrictMode>,
);
