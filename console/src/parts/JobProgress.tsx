import { Progress } from '@mantine/core';
import type { JobEvent } from '../api/schema.gen';

/** How far a job has come, and what it says. */
export function JobProgress({ event, running }: { event: JobEvent; running: boolean }) {
  return (
    <p className="soft">
      {running && (
        <Progress
          value={(100 * event.done) / Math.max(1, event.total)}
          size="sm"
          color="gray"
          mb={4}
          aria-label="Progress"
        />
      )}
      {event.text}
    </p>
  );
}
