import { Button } from '@mantine/core';
import { useQuery } from '@tanstack/react-query';
import { useNavigate } from '@tanstack/react-router';
import { useState } from 'react';
import { worklist as worklistQuery } from '../../api/queries';
import type { HostServiceAskedView, HostServiceView } from '../../api/schema.gen';
import { Failure } from '../../parts/Failure';
import { ready, withStep } from '../install/chosenSteps';
import { Confirmation } from '../install/Confirmation';
import { useGrant } from '../install/grant';

/** Sets a service to the account that an install asks for, where a step of its worklist does that, after a confirmation. */
export function SetRunAs({ service, asked }: { service: HostServiceView; asked: HostServiceAskedView }) {
  const navigate = useNavigate();
  const [asking, setAsking] = useState(false);
  const list = useQuery(worklistQuery(asked.install));
  const grant = useGrant(asked.install, (run) => void navigate({ to: '/runs/$id', params: { id: run.id } }));
  const step = list.data && ready(list.data.give).find((s) => s.for.includes(asked.need));
  if (!list.data || !step) return null;
  const along = withStep(list.data.give, new Set(), step.number);
  const steps = list.data.give.filter((s) => along.has(s.number));
  return (
    <>
      <Button
        size="compact-xs"
        variant="default"
        aria-label={`Set to ${asked.name}…, for ${service.name}`}
        onClick={() => setAsking(true)}
      >
        Set to {asked.name}…
      </Button>
      {grant.error && <Failure error={grant.error} />}
      <Confirmation
        open={asking}
        remove={false}
        simulated={list.data.simulated}
        steps={steps}
        busy={grant.isPending}
        onCancel={() => setAsking(false)}
        onConfirm={() => grant.mutate({ remove: false, steps: steps.map((s) => s.id) })}
      />
    </>
  );
}
