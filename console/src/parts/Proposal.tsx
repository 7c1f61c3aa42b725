import { Button, Group } from '@mantine/core';
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { api, need } from '../api/client';
import { me } from '../api/queries';
import type { JobView } from '../api/schema.gen';
import { StepTable } from './StepTable';
import { Failure } from './Failure';
import { Time } from './Time';
import { useMay } from './useMay';

/** One proposal: what it does, who proposed it, and what may be done with it. */
export function Proposal({ job, follow }: { job: JobView; follow?: (job: JobView) => void }) {
  const cache = useQueryClient();
  const who = useQuery(me);
  const mayGrant = useMay('granter');
  const mayWithdraw = mayGrant || (who.data?.role === 'planner' && who.data.name === job.startedBy);
  const act = useMutation({
    mutationFn: (what: 'approve' | 'carry-out' | 'withdraw') =>
      need(api.POST(`/api/proposals/{id}/${what}`, { params: { path: { id: job.id } } })),
    onSuccess: async (done, what) => {
      if (what === 'carry-out') follow?.(done);
      await cache.invalidateQueries({ queryKey: ['proposals'] });
    },
    onError: () => cache.invalidateQueries(),
  });
  const approved = job.state === 'approved';
  const isAct = job.steps.length === 0;
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
          <Button variant="subtle" disabled={!mayWithdraw} onClick={() => act.mutate('withdraw')}>
            Withdraw
          </Button>
          {approved ? (
            !isAct && (
              <Button disabled={!mayGrant} loading={act.isPending} onClick={() => act.mutate('carry-out')}>
                Carry these {job.steps.length} out
              </Button>
            )
          ) : (
            <Button
              disabled={!mayGrant || who.data?.name === job.startedBy}
              loading={act.isPending}
              onClick={() => act.mutate('approve')}
            >
              {isAct ? 'Approve' : `Approve these ${job.steps.length}`}
            </Button>
          )}
        </Group>
      </div>
      {!approved && who.data?.name === job.startedBy && (
        <p className="soft">You proposed it: another granter must approve it.</p>
      )}
      {approved && isAct && (
        <p className="soft">Whoever asked for it asks for just the same again: then it is done, one time.</p>
      )}
      {act.error && <Failure error={act.error} />}
      {(job.words ?? []).map((words) => (
        <p key={words}>{words}</p>
      ))}
      {isAct || <StepTable steps={job.steps.map((s) => ({ ...s, note: '' }))} />}
    </section>
  );
}
