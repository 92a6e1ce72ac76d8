import { createRoot } from 'react-dom/client';
import '../styles/app.css';
import { followTheme } from '../shell/theme.ts';
import { DevicePage } from './DevicePage.tsx';

followTheme();
// With it the page can be installed, and opens without the server. Where it cannot be had, everything else works.
if (isSecureContext && 'serviceWorker' in navigator)
  navigator.serviceWorker.register('/device-worker.js', { scope: '/j' }).catch(() => undefined);
createRoot(document.getElementById('root')!).render(<DevicePage />);
