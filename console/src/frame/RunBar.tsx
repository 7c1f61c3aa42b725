import { Progress } from '@mantine/core';
import { useQuery, useQueryClient } from '@tanstack/react-query';
import { Link } from '@tanstack/react-router';
import { useEffect, useState } from 'react';
import { going, run as runQuery } from '../api/queries';
import type { JobView } from '../api/schema.gen';

/** For how long the end of a run is told, in milliseconds. */
const told = 30_000;

/** What goes on now, on every page, whoever began it; and how it ended. */
export function RunBar() {
  const runs = useQuery(going);
  const first = runs.data?.items[0];
  const [watched, setWatched] = useState<string | null>(null);
  if (first && first.id !== watched) setWatched(first.id);
  return (
    <div className="run-bar" role="status">
      {first && <Going run={first} more={(runs.data?.total ?? 1) - 1} />}
      {!first && watched && <Ended key={watched} id={watched} onTold={() => setWatched(null)} />}
    </div>
  );
}

const wordsOf = (run: JobView) => `${run.kind} of ${run.subject}`;

function Going({ run, more }: { run: JobView; more: number }) {
  return (
    <>
      <Link to="/runs/$id" params={{ id: run.id }}>
        {wordsOf(run)}
        {run.total > 0 && `, step ${Math.min(run.done + 1, run.total)} of ${run.total}`}
      </Link>
      {more > 0 && <span className="soft"> and {more} more</span>}
      <Progress
        aria-label={`Progress of ${wordsOf(run)}`}
        size={3}
        color="gray"
        value={run.total > 0 ? (100 * run.done) / run.total : 100}
      />
    </>
  );
}

/** What came of a run that was watched; whatever the pages show is read anew. */
function Ended({ id, onTold }: { id: string; onTold: () => void }) {
  const queries = useQueryClient();
  const run = useQuery(runQuery(id));
  useEffect(() => {
    void queries.invalidateQueries();
    const over = window.setTimeout(onTold, told);
    return () => window.clearTimeout(over);
    // once for each run
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, []);
  if (!run.data) return null;
  return (
    <Link to="/runs/$id" params={{ id }}>
      {wordsOf(run.data)}: {run.data.message ?? run.data.state}
    </Link>
  );
}
