import { useQuery } from '@tanstack/react-query';
import { proposals as proposalsQuery } from '../../api/queries';
import type { JobView } from '../../api/schema.gen';
import { Failure } from '../../parts/Failure';
import { Proposal } from '../../parts/Proposal';

/** Where the organization wants two-person approval: what waits for another's approval, or for being carried out after it. */
export function InstallProposals({ name, follow }: { name: string; follow: (job: JobView) => void }) {
  const open = useQuery(proposalsQuery);
  const mine = open.data?.filter((job) => job.subject === name) ?? [];
  if (open.error) return <Failure error={open.error} />;
  return mine.map((job) => <Proposal key={job.id} job={job} follow={follow} />);
}
