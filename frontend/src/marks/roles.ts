// What a member does to all that lies under it in its compound.
import type { Role } from '@/api/types';

export interface RoleWords {
  /** The key that chooses it while something is drawn: that of the outcome that does the same. */
  key: string;
  /** The name of the compound that a shape becomes by a first member of this role. */
  result: string;
  says: string;
}

export const ROLE_WORDS: Record<Role, RoleWords> = {
  adds: { key: 'J', result: 'Join', says: 'one outline round both' },
  cuts: { key: 'C', result: 'Cut', says: 'takes away what lies under it' },
  limits: { key: 'O', result: 'Overlap', says: 'keeps only what lies inside it' },
  alternates: { key: 'T', result: 'Alternate', says: 'open where it lies on the shape' },
};
export const ROLES = Object.keys(ROLE_WORDS) as Role[];

/** The role that a key chooses, if any. */
export function roleOf(key: string): Role | undefined {
  return ROLES.find((role) => ROLE_WORDS[role].key === key);
}
