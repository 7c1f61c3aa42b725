import { useMutation } from '@tanstack/react-query';
import { api, need } from '../../api/client';
import type { JobView } from '../../api/schema.gen';

/** Steps of a worklist that a person has seen and confirmed. */
export interface GrantOrder {
  remove: boolean;
  /** The ids of the steps, in order. */
  steps: string[];
}

/** Carries out steps of an install's worklist. */
export function useGrant(install: string, onBegun: (run: JobView) => void) {
  return useMutation({
    mutationFn: (order: GrantOrder) =>
      need(api.POST('/api/installs/{name}/grant', { params: { path: { name: install } }, body: order })),
    onSuccess: onBegun,
  });
}
