import { useMemo, useSyncExternalStore } from 'react';
import type { Schemas } from '../../api/client.ts';
import type { UnsentStore } from '../../unsent/store.ts';
import type { KeptText } from './piece-texts.ts';
import type { PieceKind } from '../question/questions.ts';

/** Text that was not stored, of a tab that is gone or of a piece that somebody took out meanwhile. */
export interface LeftText {
  key: string;
  kind: PieceKind;
  piece: number;
  body: unknown;
  since: string;
  /** Whether its piece is still there. */
  there: boolean;
}

/** What nobody goes on with by himself. */
export function useLeftTexts(
  unsent: UnsentStore,
  id: number,
  pieces: readonly Schemas['PieceRow'][] | undefined,
): readonly LeftText[] {
  // What is read is an array made anew, so what tells of a change is which they are.
  const which = useSyncExternalStore(unsent.subscribe, () => keysOf(unsent, id));
  return useMemo(() => {
    if (!pieces) return [];
    return which.split('\n').flatMap((key) => {
      const one = unsent.get('piece', key.split(' ')[0]!);
      if (!one) return [];
      const [, piece, tab = ''] = one.key.split('.');
      const kept = one.body as KeptText;
      const row = pieces.find((p) => p.id === Number(piece));
      if (row && tab === unsent.tab) return [];
      if (row && JSON.stringify(row.body) === JSON.stringify(kept.body)) return [];
      return [
        {
          key: one.key,
          kind: kept.kind,
          piece: Number(piece),
          body: kept.body,
          since: one.since,
          there: row !== undefined,
        },
      ];
    });
  }, [unsent, which, pieces]);
}

function keysOf(unsent: UnsentStore, id: number): string {
  return unsent
    .all('piece', `${id}.`)
    .filter((one) => !unsent.lives(one.key.split('.')[2] ?? ''))
    .map((one) => `${one.key} ${one.order}`)
    .join('\n');
}
