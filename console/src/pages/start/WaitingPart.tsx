import { useQuery } from '@tanstack/react-query';
import { Link } from '@tanstack/react-router';
import { proposals as proposalsQuery, runsThat } from '../../api/queries';
import type { JobView } from '../../api/schema.gen';
import { Failure } from '../../parts/Failure';
import { Loading } from '../../parts/Loading';
import { Proposal } from '../../parts/Proposal';
import { Time } from '../../parts/Time';

/** How a run stands that waits for somebody, and what that is. */
const asks: Partial<Record<JobView['state'], string>> = {
  failed: 'A run failed',
  waiting: 'A run waits',
  stopped: 'A run was stopped',
  interrupted: 'A run was interrupted',
};

/** What waits for a person: proposals to approve, runs to decide about. */
export function WaitingPart() {
  const proposals = useQuery(proposalsQuery);
  const failed = useQuery(runsThat('failed'));
  const waiting = useQuery(runsThat('waiting'));
  const stopped = useQuery(runsThat('stopped'));
  const interrupted = useQuery(runsThat('interrupted'));
  const all = [failed, waiting, stopped, interrupted];
  const error = [proposals, ...all].find((q) => q.error)?.error;
  const runs = all
    .flatMap((q) => q.data?.items ?? [])
    .filter((r) => r.canContinue || r.state === 'waiting' || r.state === 'interrupted')
    .sort((a, b) => b.createdAt.localeCompare(a.createdAt));
  const known = proposals.data && all.every((q) => q.data);
  return (
    <section aria-label="Waiting for you">
      <h2>Waiting for you</h2>
      {error && <Failure error={error} />}
      {!known && !error && <Loading />}
      {proposals.data?.map((job) => (
        <Proposal key={job.id} job={job} />
      ))}
      {runs.map((run) => (
        <div className="item" key={run.id}>
          <p>
            <strong>{asks[run.state]}:</strong> {run.kind} of {run.subject}
          </p>
          <Link to="/runs/$id" params={{ id: run.id }}>
            Open the run
          </Link>
          <p>
            {run.message} <Time value={run.createdAt} />
          </p>
        </div>
      ))}
      {known && proposals.data.length + runs.length === 0 && <p className="empty">Nothing waits for anybody.</p>}
    </section>
  );
}
