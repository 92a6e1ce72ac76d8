import type { Schemas } from '../api/client.ts';

export type Role = Schemas['PersonRow']['role'];

const ROLES: Record<Role, { words: string; detail: string }> = {
  OWNER: { words: 'owner', detail: 'everything, also people and keys' },
  REVIEWER: { words: 'reviewer', detail: 'measures, types, compares, keeps' },
  READER: { words: 'reader', detail: 'asks every question, changes nothing' },
};
export const ROLE_OPTIONS = (Object.keys(ROLES) as Role[]).map((value) => ({
  value,
  label: ROLES[value].words,
  detail: ROLES[value].detail,
}));

export const roleWords = (role: Role) => ROLES[role].words;
