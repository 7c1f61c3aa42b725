import { useQuery } from '@tanstack/react-query';
import { runs as runsQuery } from '../../api/queries';
import { Failure } from '../../parts/Failure';
import { Loading } from '../../parts/Loading';
import { RunList } from './RunList';

/** What was carried out, and what still waits for somebody. */
export function RunsPage() {
  const runs = useQuery(runsQuery({}));
  if (runs.isPending) return <Loading />;
  if (runs.error) return <Failure error={runs.error} />;
  return (
    <>
      <div className="head">
        <h1>Runs</h1>
        <span className="soft">The latest {runs.data.length}, whatever they changed.</span>
      </div>
      <RunList runs={runs.data} empty="Nothing was carried out yet." />
    </>
  );
}
