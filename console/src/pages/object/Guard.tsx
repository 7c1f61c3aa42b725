import { Button, Group, Modal } from '@mantine/core';
import { useMutation, useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { api, need } from '../../api/client';
import { me } from '../../api/queries';
import type { GuardView } from '../../api/schema.gen';
import { useJob } from '../../api/useJob';
import { Dn } from '../../parts/Dn';
import { Failure } from '../../parts/Failure';
import { JobProgress } from '../../parts/JobProgress';

/** Whether an object is guarded, and the buttons that set or lift the guard after a confirmation that lists each change. */
export function Guard({ estate, guard }: { estate: string; guard: GuardView }) {
  const who = useQuery(me);
  const [asking, setAsking] = useState<boolean | null>(null);
  const { followed, follow } = useJob();
  const may = who.data?.role === 'granter' || who.data?.role === 'owner';
  const change = useMutation({
    mutationFn: (on: boolean) =>
      need(api.POST('/api/estates/{name}/guard', { params: { path: { name: estate } }, body: { dn: guard.dn, on } })),
    onSuccess: follow,
    onSettled: () => setAsking(null),
  });
  const steps = asking ? guard.set : guard.lift;
  return (
    <section aria-label="Guard">
      <div className="head">
        <h2>
          {guard.isOn ? 'Guarded against being deleted by accident' : 'Not guarded against being deleted by accident'}
        </h2>
        <span className="grow" />
        {guard.set.length > 0 && (
          <Button
            size="compact-sm"
            variant="default"
            disabled={!may || followed?.running}
            onClick={() => setAsking(true)}
          >
            Set the guard…
          </Button>
        )}
        {guard.lift.length > 0 && (
          <Button
            size="compact-sm"
            variant="default"
            disabled={!may || followed?.running}
            onClick={() => setAsking(false)}
          >
            Lift the guard…
          </Button>
        )}
      </div>
      <Dn value={guard.dn} />
      <div role="status" aria-live="polite">
        {followed?.last && <JobProgress event={followed.last} running={followed.running} />}
      </div>
      {change.error && <Failure error={change.error} />}
      <Modal
        opened={asking !== null}
        onClose={() => setAsking(null)}
        size="xl"
        title={asking ? 'Set the guard' : 'Lift the guard'}
        closeButtonProps={{ 'aria-label': 'Close' }}
      >
        {guard.pretend && (
          <p>
            <span className="tag">pretend</span> This changes the lab only.
          </p>
        )}
        <ol>
          {steps.map((step) => (
            <li key={step}>{step}</li>
          ))}
        </ol>
        {asking === false && (
          <p>After that, whoever may delete {guard.dn} can do so. It can be undone on the page Trace.</p>
        )}
        <Group justify="flex-end">
          <Button variant="default" onClick={() => setAsking(null)} data-autofocus>
            Cancel
          </Button>
          <Button loading={change.isPending} onClick={() => asking !== null && change.mutate(asking)}>
            {asking ? 'Set it' : 'Lift it'}
          </Button>
        </Group>
      </Modal>
    </section>
  );
}
