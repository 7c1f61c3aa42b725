import { Progress } from '@mantine/core';
import { useQuery } from '@tanstack/react-query';
import { Link } from '@tanstack/react-router';
import { going } from '../api/queries';

/** What goes on now, on every page, whoever began it. */
export function RunBar() {
  const runs = useQuery(going);
  const first = runs.data?.items[0];
  if (!first) return null;
  const more = (runs.data?.total ?? 1) - 1;
  return (
    <div className="run-bar" role="status">
      <Link to="/runs/$id" params={{ id: first.id }}>
        {first.kind} of {first.subject}
        {first.total > 0 && `, step ${Math.min(first.done + 1, first.total)} of ${first.total}`}
      </Link>
      {more > 0 && <span className="soft"> and {more} more</span>}
      <Progress
        aria-label={`Progress of ${first.kind} of ${first.subject}`}
        size={3}
        color="gray"
        value={first.total > 0 ? (100 * first.done) / first.total : 100}
      />
    </div>
  );
}
