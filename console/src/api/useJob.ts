import { useQueryClient } from '@tanstack/react-query';
import { useCallback, useEffect, useState } from 'react';
import { going } from './queries';
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
  /** Which start of it this is: a job that is gone on with keeps its id. */
  start: number;
  /** When it was seen to rest, in milliseconds; null while it runs. */
  restedAt: number | null;
}

/** Before a stream that was refused is asked for again, in milliseconds. */
const pause = 2000;

const isRunning = (event: JobEvent) => event.state === 'running' || event.state === 'queued';

function advance(job: FollowedJob | null, event: JobEvent): FollowedJob | null {
  if (!job) return null;
  const steps = event.step ? { ...job.steps, [event.step.number]: event.step } : job.steps;
  const checks = event.check ? [...job.checks, event.check] : job.checks;
  const running = isRunning(event);
  return { ...job, last: event, running, steps, checks, restedAt: running ? null : Date.now() };
}

/** Follows one job at a time over server-sent events, and reads everything anew when it ends. */
export function useJob() {
  const queries = useQueryClient();
  const [followed, setFollowed] = useState<FollowedJob | null>(null);
  const id = followed?.id;
  const start = followed?.start;

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
  }, [id, start, queries]);

  const begin = useCallback(
    (id: string, kind: string, steps: Record<number, JobStepView>) => {
      setFollowed((before) => ({
        id,
        kind,
        last: null,
        steps,
        checks: [],
        running: true,
        start: (before?.start ?? 0) + 1,
        restedAt: null,
      }));
      void queries.invalidateQueries({ queryKey: going.queryKey }); // the frame shows it too
    },
    [queries],
  );
  const follow = useCallback(
    (job: JobView) => begin(job.id, job.kind, Object.fromEntries(job.steps.map((s) => [s.number, s]))),
    [begin],
  );
  const followId = useCallback((id: string, kind: string) => begin(id, kind, {}), [begin]);
  const clear = useCallback(() => setFollowed(null), []);
  return { followed, follow, followId, clear };
}
