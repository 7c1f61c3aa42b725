import { useMutation } from '@tanstack/react-query';
import { api, need } from '../../api/client';
import type { JobView } from '../../api/schema.gen';

/** Passwords that steps take and that are not known yet, by the name of the secret that is to hold each. */
export type Passwords = Record<string, string>;

/** Steps of a worklist that a person has seen and confirmed. */
export interface GrantOrder {
  remove: boolean;
  /** The ids of the steps, in order. */
  steps: string[];
  passwords: Passwords;
}

/** Carries out steps of an install's worklist; the passwords that they take are kept as secrets first. */
export function useGrant(install: string, onBegun: (run: JobView) => void) {
  return useMutation({
    mutationFn: async ({ remove, steps, passwords }: GrantOrder) => {
      for (const [name, value] of Object.entries(passwords))
        await need(api.PUT('/api/secrets/{name}', { params: { path: { name } }, body: { value } }));
      return need(
        api.POST('/api/installs/{name}/grant', { params: { path: { name: install } }, body: { remove, steps } }),
      );
    },
    onSuccess: onBegun,
    gcTime: 0, // the passwords are remembered nowhere
  });
}
