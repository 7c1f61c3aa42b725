import { useEffect } from 'react';
import type { FollowedJob } from './useJob';

/** A job that goes on, as it was read. */
interface Under {
  id: string;
  kind: string;
}

/**
 * Follows a job that was read as going on: whoever comes to the page, or comes back to it, sees how it goes, whoever began it.
 *
 * @param under - The job, or undefined when none goes on.
 * @param readAt - When that was read, in milliseconds: what was read before its end says nothing any more.
 */
export function useRejoin(
  followed: FollowedJob | null,
  followId: (id: string, kind: string) => void,
  under: Under | undefined,
  readAt: number,
) {
  const { id, kind } = under ?? {};
  const free = !followed || (followed.restedAt !== null && readAt > followed.restedAt);
  useEffect(() => {
    if (id && kind && free) followId(id, kind);
  }, [id, kind, free, followId]);
}
