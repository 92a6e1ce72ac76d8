const DAY_MS = 86_400_000;

/** How long a unit may stay, in words, counted in whole days of the calendar. */
export function dueWords(dueBack: string, today: Date = new Date()): { words: string; late: boolean } {
  const start = Date.UTC(today.getFullYear(), today.getMonth(), today.getDate());
  const days = Math.round((Date.parse(dueBack) - start) / DAY_MS);
  if (days < 0) return { words: days === -1 ? 'was due back yesterday' : `${-days} days overdue`, late: true };
  if (days === 0) return { words: 'goes back today', late: true };
  return { words: days === 1 ? 'goes back tomorrow' : `goes back in ${days} days`, late: false };
}
