import { useQueryClient } from '@tanstack/react-query';
import { useEffect, useState } from 'react';
import { ApiError } from '../api/client';

/** Whether the service does not answer: something is asked for again and again without an answer. */
export function useServiceAway(): boolean {
  const cache = useQueryClient().getQueryCache();
  const [away, setAway] = useState(false);
  useEffect(
    () =>
      cache.subscribe(() =>
        setAway(
          cache
            .getAll()
            .some(
              (q) =>
                q.isActive() &&
                q.state.fetchFailureReason !== null &&
                !(q.state.fetchFailureReason instanceof ApiError),
            ),
        ),
      ),
    [cache],
  );
  return away;
}
