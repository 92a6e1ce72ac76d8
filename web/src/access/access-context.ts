import { createContext } from 'react';
import type { Schemas } from '../api/client.ts';

export type Access = Schemas['Access'];

/** Who is signed in, and to which lab; null outside of the gate. */
export const AccessContext = createContext<Access | null>(null);
