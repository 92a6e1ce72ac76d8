import type { Obstacle, Workload } from '../types.ts';
import { FERRY_FILES, ferry } from './ferry.ts';
import { frameObstacle, measureInFrame, type PageWork } from './frame.ts';
import * as longReport from './long-report.ts';
import * as noteEditor from './note-editor.ts';
import * as seasonStyles from './season-styles.ts';
import * as shoreMap from './shore-map.ts';

const IN_FRAME: Record<string, { STYLE: string; prepare: (body: HTMLElement) => PageWork }> = {
  'page-long-report': longReport,
  'page-season-styles': seasonStyles,
  'page-shore-map': shoreMap,
  'page-note-editor': noteEditor,
};

function ferryObstacle(): Obstacle | null {
  if (!isSecureContext) return { reason: 'NEEDS_SECURE_CONNECTION', words: 'Needs a secure connection: only then do browsers have service workers.' };
  return 'serviceWorker' in navigator ? frameObstacle() : { reason: 'NOT_SUPPORTED', words: 'This browser has no service workers.' };
}

/** Tests of what a browser does with a page. */
export function pageWorkload(key: string): Workload | null {
  if (key === 'page-ferry') return { key, assets: FERRY_FILES, obstacle: ferryObstacle, run: ferry };
  const test = IN_FRAME[key];
  if (!test) return null;
  return { key, assets: [], obstacle: frameObstacle, run: (options) => measureInFrame(options, test.STYLE, 'What is being measured', test.prepare) };
}
