import { useQuery } from '@tanstack/react-query';
import { me } from '../api/queries';
import type { WhoView } from '../api/schema.gen';

/** What somebody may do, from the least to the most: each may what those before it may. */
const roles: WhoView['role'][] = ['reader', 'planner', 'granter', 'owner'];

/** Whether whoever is signed in has a role, or one that may more; nobody may anything until that is known. */
export function useMay(role: WhoView['role']): boolean {
  const who = useQuery(me);
  return who.data !== undefined && roles.indexOf(who.data.role) >= roles.indexOf(role);
}
