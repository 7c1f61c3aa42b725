import { Button, Group } from '@mantine/core';
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { api, need } from '../../api/client';
import { me, proposals as proposalsQuery } from '../../api/queries';
import type { JobView } from '../../api/schema.gen';
import { Failure } from '../../parts/Failure';
import { Time } from '../../parts/Time';
import { StepTable } from './StepTable';

/** Where the organization wants two-person approval: what waits for another's approval, or for being carried out after it. */
export function Proposals({ name, follow }: { name: string; follow: (job: JobView) => void }) {
  const open = useQuery(proposalsQuery);
  const mine = open.data?.filter((job) => job.subject === name) ?? [];
  if (open.error) return <Failure error={open.error} />;
  return mine.map((job) => <Proposal key={job.id} job={job} follow={follow} />);
}

function Proposal({ job, follow }: { job: JobView; follow: (job: JobView) => void }) {
  const cache = useQueryClient();
  const who = useQuery(me);
  const mayGrant = who.data?.role === 'granter' || who.data?.role === 'owner';
  const act = useMutation({
    mutationFn: (what: 'approve' | 'carry-out' | 'withdraw') =>
      need(api.POST(`/api/proposals/{id}/${what}`, { params: { path: { id: job.id } } })),
    onSuccess: async (done, what) => {
      if (what === 'carry-out') follow(done);
      await cache.invalidateQueries({ queryKey: ['proposals'] });
    },
    onError: () => cache.invalidateQueries(),
  });
  const approved = job.state === 'approved';
  return (
    <section aria-label="proposal">
      <div className="head">
        <h2>Proposed</h2>
        <span className="soft">
          by {job.startedBy} <Time value={job.createdAt} />
          {approved ? `; approved by ${job.approvedBy ?? ''}` : '; waits for another person’s approval'}
        </span>
        <span className="grow" />
        <Group gap="xs">
          <Button variant="subtle" disabled={!mayGrant} onClick={() => act.mutate('withdraw')}>
            Withdraw
          </Button>
          {approved ? (
            <Button disabled={!mayGrant} loading={act.isPending} onClick={() => act.mutate('carry-out')}>
              Carry these {job.steps.length} out
            </Button>
          ) : (
            <Button
              disabled={!mayGrant || who.data?.name === job.startedBy}
              loading={act.isPending}
              onClick={() => act.mutate('approve')}
            >
              Approve these {job.steps.length}
            </Button>
          )}
        </Group>
      </div>
      {!approved && who.data?.name === job.startedBy && (
        <p className="soft">You proposed it: another granter must approve it.</p>
      )}
      {act.error && <Failure error={act.error} />}
      <StepTable steps={job.steps.map((s) => ({ ...s, note: '' }))} />
    </section>
  );
}
