import type { Schemas } from '../../api/client.ts';
import { count } from '../../format/format.ts';

export function progressInWords(
  state: Pick<Schemas['ImportState'], 'step' | 'done' | 'of'> | undefined,
  name: string,
  store: boolean,
): string {
  const how = state && state.of > 0 ? `, ${count(state.done)} of ${count(state.of)}` : '';
  if (!state || state.step === 'READING')
    return `Reading ${name}${how}. ${store ? 'All of it is stored, or nothing.' : 'Nothing is stored yet.'}`;
  return state.step === 'STORING' ? `Storing its runs${how}` : `Bringing samples up to date${how}`;
}

/** The refused rows as a file of their own, every cell quoted. */
export function refusedFile(refused: readonly Schemas['RefusedCell'][]): string {
  const quoted = (text: string) => `"${(/^[=+@-]/.test(text) ? `'${text}` : text).replaceAll('"', '""')}"`;
  const rows = refused.map((r) => [String(r.line), r.column, r.value, r.reason].map(quoted).join(','));
  return `data:text/csv;charset=utf-8,${encodeURIComponent(['line,column,value,reason', ...rows].join('\r\n'))}`;
}
