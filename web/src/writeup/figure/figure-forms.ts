/** What a figure can show. */
export const FIGURE_FORMS = [
  { value: 'bars', label: 'bars of a test' },
  { value: 'charts', label: 'a chart for each test' },
  { value: 'ratios', label: 'ratios of two configurations' },
  { value: 'standing', label: 'a standing' },
  { value: 'card', label: 'a report card' },
  { value: 'value', label: 'best value' },
  { value: 'trend', label: 'a trend' },
  { value: 'curves', label: 'curves' },
  { value: 'frames', label: 'frame times' },
  { value: 'factors', label: 'two factors' },
] as const;
