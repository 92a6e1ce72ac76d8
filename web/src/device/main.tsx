import { createRoot } from 'react-dom/client';
import '../styles/app.css';
import { followTheme } from '../shell/theme.ts';
import { DevicePage } from './DevicePage.tsx';

followTheme();
createRoot(document.getElementById('root')!).render(<DevicePage />);
