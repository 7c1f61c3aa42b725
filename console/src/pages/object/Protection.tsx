import { Button, Group, Modal } from '@mantine/core';
import { useMutation } from '@tanstack/react-query';
import { useState } from 'react';
import { api, need } from '../../api/client';
import type { ProtectionView } from '../../api/schema.gen';
import { useJob } from '../../api/useJob';
import { Dn } from '../../parts/Dn';
import { Failure } from '../../parts/Failure';
import { JobProgress } from '../../parts/JobProgress';
import { useMay } from '../../parts/useMay';

/** Whether an object is protected, and the buttons that set or lift the protection after a confirmation that lists each change. */
export function Protection({ estate, protection }: { estate: string; protection: ProtectionView }) {
  const [asking, setAsking] = useState<boolean | null>(null);
  const { followed, follow } = useJob();
  const may = useMay('granter');
  const change = useMutation({
    mutationFn: (on: boolean) =>
      need(
        api.POST('/api/estates/{name}/protection', {
          params: { path: { name: estate } },
          body: { dn: protection.dn, on },
        }),
      ),
    onSuccess: follow,
    onSettled: () => setAsking(null),
  });
  const steps = asking ? protection.set : protection.lift;
  return (
    <section aria-label="Protection">
      <div className="head">
        <h2>{protection.isOn ? 'Protected from accidental deletion' : 'Not protected from accidental deletion'}</h2>
        <span className="grow" />
        {protection.set.length > 0 && (
          <Button
            size="compact-sm"
            variant="default"
            disabled={!may || followed?.running}
            onClick={() => setAsking(true)}
          >
            Protect…
          </Button>
        )}
        {protection.lift.length > 0 && (
          <Button
            size="compact-sm"
            variant="default"
            disabled={!may || followed?.running}
            onClick={() => setAsking(false)}
          >
            Remove the protection…
          </Button>
        )}
      </div>
      <Dn value={protection.dn} />
      <div role="status" aria-live="polite">
        {followed?.last && <JobProgress event={followed.last} running={followed.running} />}
      </div>
      {change.error && <Failure error={change.error} />}
      <Modal
        opened={asking !== null}
        onClose={() => setAsking(null)}
        size="xl"
        title={asking ? 'Protect it' : 'Remove the protection'}
        closeButtonProps={{ 'aria-label': 'Close' }}
      >
        {protection.simulated && (
          <p>
            <span className="tag">simulated</span> This changes the simulation only.
          </p>
        )}
        <ol>
          {steps.map((step) => (
            <li key={step}>{step}</li>
          ))}
        </ol>
        {asking === false && (
          <p>After that, whoever may delete {protection.dn} can do so. It can be undone on the page Trace.</p>
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
