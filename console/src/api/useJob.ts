import { useQueryClient } from '@tanstack/react-query';
import { useCallback, useEffect, useState } from 'react';
import type { JobEvent, JobStepView, JobView, SignInCheckView } from './schema.gen';

/** A job as it is followed: its latest event, and its steps as they stand, by number. */
export interface FollowedJob {
  id: string;
  kind: string;
  last: JobEvent | null;
  steps: Record<number, JobStepView>;
  /** For a sign-in test: the checks that came to their end. */
  checks: SignInCheckView[];
  running: boolean;
}

/** Before a stream that was refused is asked for again, in milliseconds. */
const pause = 2000;

const isRunning = (event: JobEvent) => event.state === 'running' || event.state === 'queued';

function advance(job: FollowedJob | null, event: JobEvent): FollowedJob | null {
  if (!job) return null;
  const steps = event.step ? { ...job.steps, [event.step.number]: event.step } : job.steps;
  const checks = event.check ? [...job.checks, event.check] : job.checks;
  return { ...job, last: event, running: isRunning(event), steps, checks };
}

/** Follows one job at a time over server-sent events, and reads everything anew when it ends. */
export function useJob() {
  const queries = useQueryClient();
  const [followed, setFollowed] = useState<FollowedJob | null>(null);
  const id = followed?.id;

  useEffect(() => {
    if (!id) return;
    let source: EventSource | undefined;
    let again: number | undefined;
    const open = () => {
      source = new EventSource(`/api/jobs/${id}/events`);
      source.addEventListener('progress', (message) => {
        const event = JSON.parse((message as MessageEvent<string>).data) as JobEvent;
        setFollowed((job) => advance(job, event));
        if (isRunning(event)) return;
        source?.close();
        void queries.invalidateQueries();
      });
      // What breaks off the browser opens again; what is answered with an error it does not.
      source.addEventListener('error', () => {
        if (source?.readyState === EventSource.CLOSED) again = window.setTimeout(open, pause);
      });
    };
    open();
    return () => {
      source?.close();
      window.clearTimeout(again);
    };
  }, [id, queries]);

  const follow = useCallback((job: JobView) => {
    const steps = Object.fromEntries(job.steps.map((s) => [s.number, s]));
    setFollowed({ id: job.id, kind: job.kind, last: null, steps, checks: [], running: true });
  }, []);
  const followId = useCallback((id: string, kind: string) => {
    setFollowed({ id, kind, last: null, steps: {}, checks: [], running: true });
  }, []);
  const clear = useCallback(() => setFollowed(null), []);
  return { followed, follow, followId, clear };
}
