import { createContext, useContext } from 'react';
import type { Schemas } from '../api/client.ts';

export type Access = Schemas['Access'];

/** Who is signed in, and to which lab; null outside of the gate. */
export const AccessContext = createContext<Access | null>(null);

/** Whether who is signed in may look and not change; what does is marked with data-changes, or not offered. */
export const useReader = (): boolean => useContext(AccessContext)?.role === 'READER';
