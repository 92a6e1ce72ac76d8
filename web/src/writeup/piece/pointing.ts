import { createContext, useContext } from 'react';
import type { Picked } from './NumberPicker.tsx';

/** Picking a number where it stands on the page: while somebody does, every number of a figure or a table can be pressed. */
export interface Pointing {
  /** Set while a number is picked. */
  pick: ((picked: Picked) => void) | undefined;
  begin: (pick: (picked: Picked) => void, leave: () => void) => void;
}

export const PointingContext = createContext<Pointing>({ pick: undefined, begin: () => undefined });

export function usePointing(): Pointing {
  return useContext(PointingContext);
}
